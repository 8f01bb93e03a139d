import type { MendOption, PitchKind } from '@pelrin/core'
import { day, fact, flag, integer, integers, json, maybe, table, text, usually, uuid, type RowOf } from '../db/table.ts'

/** A chain that broke. */
export const MENDS = table('mends', {
  ...fact,
  bikeId: uuid(),
  chainId: uuid(),
  pitches: integer(),
  broken: text<PitchKind>(),
  damaged: integers(),
  option: maybe(json<MendOption>()),
  cause: text(),
  choice: text<'mended' | 'replace'>(),
  advised: usually(text(), null),
  roadside: usually(flag(), null),
  followUpOn: maybe(day()),
})
export type MendRow = RowOf<typeof MENDS>
