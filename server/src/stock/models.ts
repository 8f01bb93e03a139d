import { flag, integer, key, maybe, moment, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const STOCK_MOVEMENTS = table('stock_movements', {
  id: key(uuid()),
  partId: uuid(),
  kind: text<'received' | 'used' | 'counted'>(),
  change: integer(),
  stockAfter: integer(),
  orderId: maybe(uuid()),
  keptId: maybe(uuid()),
  note: maybe(text()),
  occurredAt: moment(),
  recordedAt: usually(moment(), null),
  personId: uuid(),
  deviceId: maybe(uuid()),
})
export type StockMovementRow = RowOf<typeof STOCK_MOVEMENTS>

export const KEPT_PARTS = table('kept_parts', {
  id: key(uuid()),
  bikeId: uuid(),
  state: text<'kept' | 'used' | 'dropped'>(),
  pitches: maybe(integer()),
  keptAt: moment(),
  settledAt: maybe(moment()),
  personId: uuid(),
  version: usually(integer(), null),
})
export type KeptPartsRow = RowOf<typeof KEPT_PARTS>

export const KEPT_PART_LINES = table('kept_part_lines', {
  id: key(uuid()),
  keptId: uuid(),
  partId: uuid(),
  quantity: integer(),
  included: usually(flag(), null),
  keptAt: moment(),
})
export type KeptPartLineRow = RowOf<typeof KEPT_PART_LINES>
