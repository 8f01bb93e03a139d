import type { ToothGrade, WearItemId, WearResult } from '@pelrin/core'
import { fact, flag, maybe, real, table, text, usually, uuid, type RowOf } from '../db/table.ts'

/** What was seen of one of a bike's other parts. */
export const WEAR_CHECKS = table('wear_checks', {
  ...fact,
  bikeId: uuid(),
  item: text<WearItemId>(),
  grade: maybe(text<ToothGrade>()),
  result: maybe(text<WearResult>()),
  typed: maybe(text()),
  mm: maybe(real()),
  minimumMm: maybe(real()),
  u: maybe(real()),
  renewed: usually(flag(), null),
  note: maybe(text()),
})
export type WearCheckRow = RowOf<typeof WEAR_CHECKS>
