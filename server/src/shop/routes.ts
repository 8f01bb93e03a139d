import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { inBackground } from '../queue/background.ts'
import type { ShopJobs } from '../queue/queue.ts'
import { changeShop, shopShown } from './service.ts'

/** @param jobs go through the bikes where the shop's days are other ones from now on */
export function shopRoutes(serving: Serving, jobs: ShopJobs): void {
  serving.serve(endpoints.shop, ({ work }) => shopShown(work))
  serving.serve(endpoints.changeShop, ({ work, version, body }) =>
    changeShop(work, version, body, () => inBackground(serving.logger, 'rebuild', () => jobs.rebuildShop(work.shopId))),
  )
}
