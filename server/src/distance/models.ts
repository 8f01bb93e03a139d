import type { Surface } from '@pelrin/core'
import {
  bytes,
  fact,
  flag,
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

export const DISTANCE_ENTRIES = table('distance_entries', {
  ...fact,
  bikeId: uuid(),
  kind: text<'odometer' | 'statement' | 'chain-start'>(),
  typed: text(),
  unit: text<'km' | 'mi'>(),
  km: real(),
  restarted: usually(flag(), null),
})
export type DistanceEntryRow = RowOf<typeof DISTANCE_ENTRIES>

export const RIDES = table('rides', {
  ...fact,
  bikeId: uuid(),
  endedAt: moment(),
  km: real(),
  surface: maybe(text<Surface>()),
  title: maybe(text()),
  source: text<'typed' | 'file' | 'service'>(),
  profile: maybe(json<{ at: number; share: number }[]>()),
  importId: maybe(uuid()),
  accountId: maybe(uuid()),
  externalId: maybe(text()),
})
export type RideRow = RowOf<typeof RIDES>

export const RIDE_TRACKS = table('ride_tracks', {
  rideId: key(uuid()),
  points: bytes(),
})
export type RideTrackRow = RowOf<typeof RIDE_TRACKS>
