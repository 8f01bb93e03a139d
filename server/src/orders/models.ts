import { day, integer, key, maybe, moment, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const SUPPLIER_OFFERS = table('supplier_offers', {
  partId: key(uuid()),
  sku: text(),
  price: integer(),
  stock: integer(),
  days: integer(),
  askedAt: moment(),
})
export type SupplierOfferRow = RowOf<typeof SUPPLIER_OFFERS>

export const ORDERS = table('orders', {
  id: key(uuid()),
  state: text<'sending' | 'unsure' | 'refused' | 'placed' | 'received' | 'cancelled'>(),
  /** The supplier's own number. */
  number: maybe(text()),
  expectedOn: maybe(day()),
  problem: maybe(text()),
  tries: usually(integer(), null),
  sentAt: moment(),
  settledAt: maybe(moment()),
  personId: uuid(),
  version: usually(integer(), null),
})
export type OrderRow = RowOf<typeof ORDERS>

export const ORDER_LINES = table('order_lines', {
  id: key(uuid()),
  orderId: uuid(),
  partId: uuid(),
  sku: text(),
  quantity: integer(),
  price: integer(),
  priceNow: maybe(integer()),
  stockNow: maybe(integer()),
  received: usually(integer(), null),
})
export type OrderLineRow = RowOf<typeof ORDER_LINES>
