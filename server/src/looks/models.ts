import { key, moment, table, text, usually, uuid, type RowOf } from '../db/table.ts'

/** Who has looked at what an apprentice wrote down. */
export const LOOKS = table('looks', {
  subjectKind: key(text<'reading' | 'care' | 'job-event' | 'wear-check'>()),
  subjectId: key(uuid()),
  at: usually(moment(), null),
  personId: uuid(),
})
export type LookRow = RowOf<typeof LOOKS>
