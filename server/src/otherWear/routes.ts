import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { checkWear, withdrawWearCheck } from './service.ts'
import { otherWearOf } from './store.ts'

export function otherWearRoutes(serving: Serving): void {
  serving.serve(endpoints.otherWear, ({ work, params }) => otherWearOf(work, params.id))
  serving.serve(endpoints.checkWear, ({ work, params, body }) => checkWear(work, params.id, body))
  serving.serve(endpoints.withdrawWearCheck, ({ work, params, body }) => withdrawWearCheck(work, params.id, body))
}
