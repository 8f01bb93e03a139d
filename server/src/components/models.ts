import type { ComponentEnd, WearItemId } from '@pelrin/core'
import { flag, integer, key, maybe, moment, range, table, text, usually, uuid, type RowOf } from '../db/table.ts'

/** A cassette, a rotor, a set of pads: a thing on a bike over a time. */
export const COMPONENTS = table('components', {
  id: key(uuid()),
  bikeId: uuid(),
  item: text<WearItemId>(),
  partId: maybe(uuid()),
  name: maybe(text()),
  price: maybe(integer()),
  during: range(),
  endReason: maybe(text<ComponentEnd>()),
  fromStock: usually(flag(), null),
  /** What it was fitted by, where that is a fact of its own. */
  becauseId: maybe(uuid()),
  personId: uuid(),
  deviceId: maybe(uuid()),
  recordedAt: usually(moment(), null),
})
export type ComponentRow = RowOf<typeof COMPONENTS>
