import type { InstrumentKind } from '@pelrin/core'
import {
  day,
  flag,
  integer,
  json,
  key,
  maybe,
  moment,
  real,
  reals,
  table,
  text,
  usually,
  uuid,
  type RowOf,
} from '../db/table.ts'

export const INSTRUMENTS = table('instruments', {
  id: key(uuid()),
  kind: text<InstrumentKind>(),
  name: text(),
  connection: maybe(text()),
  retiredAt: maybe(moment()),
})
export type InstrumentRow = RowOf<typeof INSTRUMENTS>

export const INSTRUMENT_VERSIONS = table('instrument_versions', {
  id: key(uuid()),
  instrumentId: uuid(),
  version: integer(),
  uMm: maybe(real()),
  u: maybe(real()),
  bias: usually(real(), null),
  biasU: usually(real(), null),
  marks: maybe(reals()),
  material: maybe(text()),
  rollerMm: maybe(real()),
  seesRollerWear: usually(flag(), false),
  changeMark: maybe(real()),
  standing: usually(text<'in-use' | 'out-of-use'>(), 'in-use'),
  reads: maybe(text<'true' | 'early' | 'late'>()),
  checkedOn: maybe(day()),
  checkedHow: maybe(text()),
  checkDetail: maybe(json<object>()),
  validFrom: moment(),
  personId: uuid(),
  reason: text(),
})
export type InstrumentVersionRow = RowOf<typeof INSTRUMENT_VERSIONS>
