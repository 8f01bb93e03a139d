import { bytes, day, key, maybe, moment, table, text, uuid, type RowOf } from '../db/table.ts'

/** A day the shop is closed beside those it always is. */
export const CLOSED_DAYS = table('closed_days', {
  day: key(day()),
  reason: text(),
})
export type ClosedDayRow = RowOf<typeof CLOSED_DAYS>

/** An address a calendar asks by. Only a digest is kept. */
export const CALENDAR_FEEDS = table('calendar_feeds', {
  id: key(uuid()),
  digest: bytes(),
  name: text(),
  madeAt: moment(),
  personId: uuid(),
  revokedAt: maybe(moment()),
})
export type CalendarFeedRow = RowOf<typeof CALENDAR_FEEDS>
