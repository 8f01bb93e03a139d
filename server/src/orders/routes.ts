import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { askOffers } from './offers.ts'
import { acceptOrder, cancelOrder, placeOrder, receiveOrder, settleOrder, type Ordering } from './service.ts'
import { latestOrders } from './store.ts'

export function ordersRoutes(serving: Serving, ordering: Ordering): void {
  // The supplier is asked between transactions: none is held open while it thinks.
  serving.serveWaiting(endpoints.offers, ({ body, session }) =>
    askOffers(serving.database, session.shop.id, ordering.supplier, body.parts),
  )
  serving.serveWaiting(endpoints.placeOrder, ({ body, session, author }) =>
    placeOrder(ordering, session.shop.id, { author, role: session.person.role }, body),
  )
  serving.serveWaiting(endpoints.settleOrder, ({ params, session }) =>
    settleOrder(ordering, session.shop.id, params.id),
  )
  serving.serveWaiting(endpoints.acceptOrder, ({ params, body, session, author }) =>
    acceptOrder(ordering, session.shop.id, { author, role: session.person.role }, params.id, body.version),
  )
  serving.serve(endpoints.orders, ({ work }) => latestOrders(work))
  serving.serve(endpoints.cancelOrder, ({ work, params, body }) => cancelOrder(work, params.id, body.version))
  serving.serve(endpoints.receiveOrder, ({ work, params, body }) => receiveOrder(work, params.id, body.lines))
}
