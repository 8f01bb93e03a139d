import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Offer } from './catalogue.ts'
import { Day, Id, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

const quantity = v.pipe(
  v.number('number-malformed'),
  v.integer('number-whole'),
  v.minValue(1, 'quantity-range'),
  v.maxValue(500, 'quantity-range'),
)

export const OrderLine = v.object({
  id: Id,
  partId: Id,
  maker: v.string(),
  name: v.string(),
  sku: v.string(),
  quantity: v.number(),
  price: v.number(),
  /** What the supplier says instead, where it refused this line. */
  priceNow: v.nullable(v.number()),
  stockNow: v.nullable(v.number()),
  received: v.number(),
})
export type OrderLine = v.InferOutput<typeof OrderLine>

/**
 * An order at the supplier: `sending` on its way, `unsure` whether it was taken (it is asked about until that is known),
 * `refused` and why, `placed`, `received` whole, `cancelled`.
 */
export const Order = v.object({
  id: Id,
  version: v.number(),
  state: v.picklist(['sending', 'unsure', 'refused', 'placed', 'received', 'cancelled']),
  number: v.nullable(v.string()),
  expectedOn: v.nullable(Day),
  /** Why it was refused, or what stands in the way: a key of the message catalogue. */
  problem: v.nullable(v.string()),
  sentAt: Moment,
  by: v.string(),
  lines: v.array(OrderLine),
  cost: v.number(),
})
export type Order = v.InferOutput<typeof Order>

export const ordersEndpoints = {
  offers: endpoint({
    name: 'offers',
    method: 'POST',
    path: '/offers',
    summary: 'Ask the supplier for prices and stock of parts now; what it said last where it does not answer.',
    access: 'orders',
    body: v.object({ parts: v.pipe(v.array(Id), v.maxLength(60, 'parts-many')) }),
    result: v.object({
      offers: v.array(Offer),
      /** Why the offers are old ones; null when they are of now. */
      problem: v.nullable(v.string()),
      askedAt: Moment,
    }),
  }),
  orders: endpoint({
    name: 'orders',
    method: 'GET',
    path: '/orders',
    summary: 'Orders at the supplier, the latest first.',
    access: 'signed-in',
    result: v.array(Order),
  }),
  placeOrder: endpoint({
    name: 'placeOrder',
    method: 'POST',
    path: '/orders',
    summary: 'Order parts. Its id is the reference it is known by at the supplier: sent again, it is the same order.',
    access: 'orders',
    body: v.object({
      id: Id,
      lines: v.pipe(
        v.array(
          v.object({
            partId: Id,
            quantity,
            price: v.pipe(v.number('number-malformed'), v.minValue(0, 'price-negative')),
          }),
        ),
        v.minLength(1, 'parts-none'),
        v.maxLength(60, 'parts-many'),
      ),
    }),
    result: Order,
  }),
  settleOrder: endpoint({
    name: 'settleOrder',
    method: 'POST',
    path: '/orders/:id/settle',
    summary: 'Ask the supplier what became of an order that hangs.',
    access: 'orders',
    params: ById,
    result: Order,
  }),
  acceptOrder: endpoint({
    name: 'acceptOrder',
    method: 'POST',
    path: '/orders/:id/accept',
    summary: 'Order again as the supplier now says: at its price, and as many as it has.',
    access: 'orders',
    params: ById,
    body: v.object({ version: v.number() }),
    result: Order,
  }),
  cancelOrder: endpoint({
    name: 'cancelOrder',
    method: 'POST',
    path: '/orders/:id/cancel',
    summary: 'Give up an order the supplier refused.',
    access: 'orders',
    creates: true,
    params: ById,
    body: v.object({ version: v.number() }),
    result: Order,
  }),
  receiveOrder: endpoint({
    name: 'receiveOrder',
    method: 'POST',
    path: '/orders/:id/receive',
    summary: 'Write down what came of an order: it goes into stock.',
    access: 'orders',
    creates: true,
    params: ById,
    body: v.object({
      lines: v.pipe(v.array(v.object({ id: Id, quantity })), v.minLength(1, 'parts-none')),
    }),
    result: Order,
  }),
}
