import { day, integer, key, maybe, moment, real, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const VISITS = table('visits', {
  id: key(uuid()),
  bikeId: uuid(),
  day: day(),
  position: real(),
  promisedAt: maybe(moment()),
  reason: text(),
  state: usually(text<'waiting' | 'on-stand' | 'done' | 'called-off'>(), null),
  /** What it is to take; null where nobody said. */
  minutes: maybe(integer()),
  bookedAt: maybe(moment()),
  onStandSince: maybe(moment()),
  deviceId: maybe(uuid()),
  version: usually(integer(), null),
  changedAt: usually(moment(), null),
})
export type VisitRow = RowOf<typeof VISITS>
