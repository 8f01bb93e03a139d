import { integer, json, key, maybe, moment, table, text, usually, type RowOf } from '../db/table.ts'

export const IDEMPOTENCY_KEYS = table('idempotency_keys', {
  key: key(text()),
  requestHash: text(),
  status: maybe(integer()),
  response: maybe(json<unknown>()),
  createdAt: usually(moment(), null),
})
export type IdempotencyKeyRow = RowOf<typeof IDEMPOTENCY_KEYS>
