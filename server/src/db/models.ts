import { flag, json, key, maybe, moment, table, text, usually, uuid, type RowOf } from './table.ts'

export const AUDIT = table('audit', {
  id: key(uuid()),
  at: usually(moment(), null),
  personId: maybe(uuid()),
  deviceId: maybe(uuid()),
  requestId: maybe(text()),
  action: text(),
  subjectKind: text(),
  subjectId: uuid(),
  detail: json<object>(),
  /** Came with an archive: it was not done here. */
  elsewhere: usually(flag(), null),
})
export type AuditRow = RowOf<typeof AUDIT>
