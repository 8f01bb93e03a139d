import { endpoints } from '@pelrin/contract'
import type { CurrentSession } from '../auth/currentSession.ts'
import type { Author } from '../db/work.ts'
import type { Serving } from '../http/serve.ts'
import { askOffers } from './offers.ts'
import { acceptOrder, cancelOrder, placeOrder, receiveOrder, settleOrder, type Ordering } from './service.ts'
import { latestOrders } from './store.ts'

const authorIn = ({ person, deviceId }: CurrentSession): Author => ({
  personId: person.id,
  deviceId,
  requestId: null,
})

export function ordersRoutes(serving: Serving, ordering: Ordering): void {
  // The supplier is asked between transactions: none is held open while it thinks.
  serving.serveWaiting(endpoints.offers, ({ body, session }) =>
    askOffers(serving.database, session.shop.id, ordering.supplier, body.parts),
  )
  serving.serveWaiting(endpoints.placeOrder, ({ body, session }) =>
    placeOrder(ordering, session.shop.id, authorIn(session), body),
  )
  serving.serveWaiting(endpoints.settleOrder, ({ params, session }) =>
    settleOrder(ordering, session.shop.id, params.id),
  )
  serving.serveWaiting(endpoints.acceptOrder, ({ params, body, session }) =>
    acceptOrder(ordering, session.shop.id, authorIn(session), params.id, body.version),
  )
  serving.serve(endpoints.orders, ({ work }) => latestOrders(work))
  serving.serve(endpoints.cancelOrder, ({ work, params, body }) => cancelOrder(work, params.id, body.version))
  serving.serve(endpoints.receiveOrder, ({ work, params, body }) => receiveOrder(work, params.id, body.lines))
}
