import type { Surface } from '@pelrin/core'
import type { ImportLine, RideImport, CsvMapping, PullOutcome } from '@pelrin/contract'
import { bytes, integer, json, key, maybe, moment, table, text, usually, uuid, type RowOf } from '../db/table.ts'

/** A ride as a file told it, waiting to be written. Moments in ms. */
export interface StagedRide {
  from: number
  to: number
  km: number
  title: string | null
  surface: Surface | null
  profile: { at: number; share: number }[]
}

export const RIDE_IMPORTS = table('ride_imports', {
  id: key(uuid()),
  bikeId: uuid(),
  personId: uuid(),
  startedAt: moment(),
  finishedAt: maybe(moment()),
  state: text<'reading' | 'previewed' | 'done' | 'cancelled' | 'failed'>(),
  files: usually(integer(), null),
  done: usually(integer(), null),
  report: usually(json<ImportLine[]>(), null),
  tables: usually(json<RideImport['tables']>(), null),
})
export type RideImportRow = RowOf<typeof RIDE_IMPORTS>

export const STAGED_RIDES = table('staged_rides', {
  id: key(uuid()),
  importId: uuid(),
  file: text(),
  ride: json<StagedRide>(),
  points: maybe(bytes()),
})
export type StagedRideRow = RowOf<typeof STAGED_RIDES>

export const CSV_MAPPINGS = table('csv_mappings', {
  header: key(text()),
  mapping: json<CsvMapping>(),
})
export type CsvMappingRow = RowOf<typeof CSV_MAPPINGS>

export const RIDE_ACCOUNTS = table('ride_accounts', {
  id: key(uuid()),
  bikeId: uuid(),
  address: text(),
  account: text(),
  token: text(),
  pulledTo: maybe(text()),
  pulledAt: maybe(moment()),
  outcome: maybe(json<PullOutcome>()),
  removedAt: maybe(moment()),
})
export type RideAccountRow = RowOf<typeof RIDE_ACCOUNTS>
