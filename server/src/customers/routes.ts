import { endpoints, fileRoutes } from '@pelrin/contract'
import { audited, inShop } from '../db/work.ts'
import type { Serving } from '../http/serve.ts'
import { customerList } from './list.ts'
import { eraseCustomer } from './erase.ts'
import { allOfCustomer } from './export.ts'
import { changeCustomer, customerShown, mergeCustomer, passBike, unmergeCustomer } from './service.ts'
import { erasureOf } from './store.ts'

export function customersRoutes(serving: Serving): void {
  serving.serve(endpoints.customerList, ({ work, query, session }) => customerList(work, query, session.shop.timeZone))
  serving.serve(endpoints.customer, ({ work, params }) => customerShown(work, params.id))
  serving.serve(endpoints.changeCustomer, ({ work, params, version, body }) =>
    changeCustomer(work, params.id, version, body),
  )
  serving.serve(endpoints.mergeCustomer, ({ work, params, body }) => mergeCustomer(work, params.id, body.otherId))
  serving.serve(endpoints.unmergeCustomer, ({ work, params, body }) => unmergeCustomer(work, params.id, body.otherId))
  serving.serve(endpoints.passBike, ({ work, params, body }) => passBike(work, params.id, body))
  serving.serve(endpoints.erasure, async ({ work, params }) => {
    await customerShown(work, params.id)
    return erasureOf(work, params.id)
  })
  serving.serve(endpoints.eraseCustomer, ({ work, params }) => eraseCustomer(work, params.id), { long: true })
}

/** All that is known of a customer, theirs by right, as one file. */
export function customerFilesRoutes(serving: Serving): void {
  serving.file(fileRoutes.customerExport, async ({ ctx, session, author, params }) => {
    const { id = '' } = params
    ctx.body = await inShop(serving.database, session.shop.id, author, async (work) => {
      const all = await allOfCustomer(work, id)
      await audited(work, 'took-out', 'customer', id)
      return JSON.stringify(all, null, 2)
    })
    ctx.type = 'application/json; charset=utf-8'
    ctx.attachment(`customer-${id.slice(0, 8)}.json`)
    ctx.set('Cache-Control', 'no-store')
  })
}
