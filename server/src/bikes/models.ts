import type { Channel, PotRecipe } from '@pelrin/core'
import type { ReminderLanguage } from '@pelrin/contract/messages'
import {
  bytes,
  day,
  flag,
  integer,
  json,
  key,
  maybe,
  moment,
  real,
  table,
  text,
  usually,
  uuid,
  type RowOf,
} from '../db/table.ts'

export const CUSTOMERS = table('customers', {
  id: key(uuid()),
  name: text(),
  phone: maybe(text()),
  houseRuleId: maybe(uuid()),
  /** Whose change mark counts, where their rule goes as marked. */
  markedInstrumentId: maybe(uuid()),
  /** Days between looks at each of the customer's bikes; null: as the shop has it. */
  rhythmDays: maybe(integer()),
  /** Whether their chains are looked at whenever they are in. */
  eachVisit: usually(flag(), null),
  /** Who treats their chains between visits. */
  careAt: maybe(text<'home' | 'workshop'>()),
  /** The weekday that suits them, 1 Monday to 7 Sunday. */
  goodWeekday: maybe(integer()),
  /** In which they are written to. */
  language: usually(text<ReminderLanguage>(), null),
  email: maybe(text()),
  /** By which they want to be written to; null: by mail where there is an address. */
  reachedBy: maybe(text<Channel>()),
  /** The address mail came back from: none goes there. */
  emailRefused: maybe(text()),
  notes: usually(text(), null),
  /** Who they were entered as a second time. */
  mergedIntoId: maybe(uuid()),
  mergedAt: maybe(moment()),
  /** Nobody knows who they were any more. */
  erasedAt: maybe(moment()),
  /** Since when they do not want to be. */
  optedOutAt: maybe(moment()),
  version: usually(integer(), null),
})
export type CustomerRow = RowOf<typeof CUSTOMERS>

export const BIKES = table('bikes', {
  id: key(uuid()),
  customerId: uuid(),
  label: text(),
  maker: maybe(text()),
  model: maybe(text()),
  kind: text(),
  tag: text(),
  frameMark: maybe(text()),
  notes: usually(text(), null),
  odometerUnit: usually(text<'km' | 'mi'>(), null),
  houseRuleId: maybe(uuid()),
  /** The instrument whose mark decides, where the rule is "as marked". */
  markedInstrumentId: maybe(uuid()),
  weightKg: maybe(real()),
  /** The day it was sold or left for good. */
  goneOn: maybe(day()),
  /** By which recipe its chains are waxed; null: as the house does it. */
  waxRecipe: maybe(text<PotRecipe>()),
  /** What it was entered as a second time; everything of it is with that one. */
  mergedIntoId: maybe(uuid()),
  mergedAt: maybe(moment()),
  /** Where each thing was before. */
  mergeMoved: maybe(json<object>()),
  /** How long a treatment lasts on it; null: as the shop has it. */
  careKm: maybe(real()),
  careDays: maybe(integer()),
  /** Days between washes; null: as the shop has it, 0: when it is dirty. */
  washDays: maybe(integer()),
  version: usually(integer(), null),
})
export type BikeRow = RowOf<typeof BIKES>

/** A bike went from one customer to another. */
export const BIKE_PASSINGS = table('bike_passings', {
  id: key(uuid()),
  bikeId: uuid(),
  fromCustomerId: uuid(),
  toCustomerId: uuid(),
  at: usually(moment(), null),
  /** It went with all of its customer's, who was entered twice. */
  merge: usually(flag(), null),
  personId: uuid(),
})
export type BikePassingRow = RowOf<typeof BIKE_PASSINGS>

/** What a bike looks like. */
export const BIKE_PICTURES = table('bike_pictures', {
  bikeId: key(uuid()),
  jpeg: bytes(),
  width: integer(),
  height: integer(),
  takenAt: moment(),
  personId: uuid(),
})
export type BikePictureRow = RowOf<typeof BIKE_PICTURES>
