import type { VerdictWord, ChainVerdict } from '@pelrin/core'
import type { VerdictInput } from '@pelrin/contract'
import {
  fact,
  flag,
  integer,
  json,
  key,
  maybe,
  moment,
  real,
  table,
  text,
  texts,
  usually,
  uuid,
  type RowOf,
} from '../db/table.ts'

export const READINGS = table('readings', {
  ...fact,
  bikeId: uuid(),
  chainId: uuid(),
  fittingId: uuid(),
  instrumentId: uuid(),
  instrumentVersionId: uuid(),
  distanceEntryId: maybe(uuid()),
  source: usually(text<'shop' | 'customer'>(), null),
  run: usually(text<'lower' | 'upper'>(), 'lower'),
  load: maybe(text<'tensioned' | 'slack'>()),
  ruleCelsius: maybe(real()),
  chainCelsius: maybe(real()),
  preloadKg: maybe(real()),
  readerId: maybe(uuid()),
  baseline: usually(flag(), false),
  signs: usually(texts(), []),
  hint: maybe(text<'worn' | 'nothing'>()),
  note: maybe(text()),
})
export type ReadingRow = RowOf<typeof READINGS>

export const SPOTS = table('spots', {
  id: key(uuid()),
  readingId: uuid(),
  readingOccurredAt: moment(),
  position: integer(),
  place: maybe(integer()),
  typed: maybe(text()),
  mode: maybe(text()),
  picture: maybe(text()),
  linkIncluded: maybe(flag()),
  unit: maybe(text<'mm' | 'in'>()),
  pastMarkMm: maybe(real()),
  lengthMm: maybe(real()),
  pitches: maybe(integer()),
  value: maybe(real()),
  over: maybe(real()),
  under: maybe(real()),
  u: real(),
  borderline: usually(flag(), false),
})
export type SpotRow = RowOf<typeof SPOTS>

export const VERDICTS = table('verdicts', {
  ...fact,
  bikeId: uuid(),
  chainId: maybe(uuid()),
  fittingId: maybe(uuid()),
  readingId: maybe(uuid()),
  houseRuleVersionId: uuid(),
  word: text<VerdictWord>(),
  probability: maybe(real()),
  input: json<VerdictInput>(),
  outcome: json<ChainVerdict>(),
})
export type VerdictRow = RowOf<typeof VERDICTS>
