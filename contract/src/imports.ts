import * as v from 'valibot'
import { DistanceUnit, Id, line, Moment } from './common.ts'
import { ById } from './bikes.ts'
import { endpoint } from './endpoint.ts'
import { Surface } from './forecast.ts'

/** What became of one file, or of one row of a table. `code` is a key of the message catalogue. */
export const ImportLine = v.object({
  file: v.string(),
  /** Row of a table, from 1 below its header; absent for a file as a whole. */
  row: v.exactOptional(v.number()),
  outcome: v.picklist(['new', 'known', 'refused']),
  code: v.string(),
  rideId: v.exactOptional(Id),
  startedAt: v.exactOptional(Moment),
  km: v.exactOptional(v.number()),
  minutes: v.exactOptional(v.number()),
  /** Pauses and jumps that were left out. */
  gaps: v.exactOptional(v.number()),
  jumps: v.exactOptional(v.number()),
})
export type ImportLine = v.InferOutput<typeof ImportLine>

/** Which column of a table means what, by the column's name. */
export const CsvMapping = v.object({
  start: line(120),
  /** How long it took: a column of minutes, h:mm:ss or an end time; absent: an hour is taken. */
  duration: v.exactOptional(line(120)),
  distance: line(120),
  unit: DistanceUnit,
  surface: v.exactOptional(line(120)),
  title: v.exactOptional(line(120)),
  /** How days are written where both readings are possible. */
  dayFirst: v.boolean(),
})
export type CsvMapping = v.InferOutput<typeof CsvMapping>

/** How days are written where only their order tells day from month. */
export const DaysWritten = v.object({
  /** As days past the twelfth tell; null where none does, so that somebody has to say. */
  order: v.nullable(v.picklist(['day-first', 'month-first'])),
  /** Cells of the file itself that can be read both ways. */
  examples: v.array(v.string()),
})
export type DaysWritten = v.InferOutput<typeof DaysWritten>

/** What was guessed of how a table is written, before anything of it is believed. */
export const TableGuess = v.object({ encoding: v.string(), delimiter: v.string() })
export type TableGuess = v.InferOutput<typeof TableGuess>

/** An import where it stands. Nothing is written before it is confirmed. */
export const RideImport = v.object({
  id: Id,
  bikeId: Id,
  state: v.picklist(['reading', 'previewed', 'done', 'cancelled', 'failed']),
  startedAt: Moment,
  finishedAt: v.nullable(Moment),
  files: v.number(),
  done: v.number(),
  lines: v.array(ImportLine),
  /** Tables whose columns have to be told: their header and a few rows. */
  tables: v.array(
    v.object({
      file: v.string(),
      header: v.array(v.string()),
      rows: v.array(v.array(v.string())),
      /** Of each column with such days, by its name. */
      days: v.record(v.string(), DaysWritten),
      written: v.nullable(TableGuess),
      mapping: v.nullable(CsvMapping),
    }),
  ),
})
export type RideImport = v.InferOutput<typeof RideImport>

/** What the last pull from a ride service brought. */
export const PullOutcome = v.object({
  added: v.number(),
  known: v.number(),
  changed: v.number(),
  removed: v.number(),
  /** What stopped it, as a key of the message catalogue; null when it reached the end. */
  stopped: v.nullable(v.string()),
})
export type PullOutcome = v.InferOutput<typeof PullOutcome>

export const RideAccount = v.object({
  id: Id,
  bikeId: Id,
  address: v.string(),
  account: v.string(),
  pulledAt: v.nullable(Moment),
  outcome: v.nullable(PullOutcome),
})
export type RideAccount = v.InferOutput<typeof RideAccount>

export const importsEndpoints = {
  imports: endpoint({
    name: 'imports',
    method: 'GET',
    path: '/bikes/:id/imports',
    summary: 'Imports of rides to a bike, newest first.',
    access: 'signed-in',
    params: ById,
    result: v.array(RideImport),
  }),
  rideImport: endpoint({
    name: 'rideImport',
    method: 'GET',
    path: '/imports/:id',
    summary: 'An import where it stands.',
    access: 'signed-in',
    params: ById,
    result: RideImport,
  }),
  mapColumns: endpoint({
    name: 'mapColumns',
    method: 'POST',
    path: '/imports/:id/mapping',
    summary: 'Say what the columns of a table mean. It is remembered for tables with the same header.',
    access: 'distance',
    params: ById,
    body: v.object({ file: v.string(), mapping: CsvMapping }),
    result: RideImport,
    creates: true,
  }),
  confirmImport: endpoint({
    name: 'confirmImport',
    method: 'POST',
    path: '/imports/:id/confirmation',
    summary: 'Write the previewed rides. Those already known stay as they are.',
    access: 'distance',
    params: ById,
    body: v.object({ surface: v.exactOptional(v.nullable(Surface)) }),
    result: RideImport,
    creates: true,
  }),
  cancelImport: endpoint({
    name: 'cancelImport',
    method: 'POST',
    path: '/imports/:id/cancellation',
    summary: 'Stop an import. Nothing of it is written.',
    access: 'distance',
    params: ById,
    body: v.object({}),
    result: RideImport,
    creates: true,
  }),
  rideAccount: endpoint({
    name: 'rideAccount',
    method: 'GET',
    path: '/bikes/:id/ride-account',
    summary: 'The ride service account a bike’s rides are pulled from.',
    access: 'signed-in',
    params: ById,
    result: v.object({ account: v.nullable(RideAccount) }),
  }),
  joinRideAccount: endpoint({
    name: 'joinRideAccount',
    method: 'POST',
    path: '/bikes/:id/ride-account',
    summary: 'Join a bike to an account of the ride service.',
    access: 'distance',
    params: ById,
    body: v.object({ id: Id, account: line(80), token: line(200) }),
    result: v.object({ account: v.nullable(RideAccount) }),
    creates: true,
  }),
  leaveRideAccount: endpoint({
    name: 'leaveRideAccount',
    method: 'POST',
    path: '/ride-accounts/:id/removal',
    summary: 'Pull no more rides from an account. Those pulled stay.',
    access: 'distance',
    params: ById,
    body: v.object({}),
    result: v.object({ account: v.nullable(RideAccount) }),
    creates: true,
  }),
  pullRides: endpoint({
    name: 'pullRides',
    method: 'POST',
    path: '/ride-accounts/:id/pulls',
    summary: 'Pull what is new in an account, going on where the last pull ended.',
    access: 'distance',
    params: ById,
    body: v.object({}),
    result: v.object({ account: v.nullable(RideAccount) }),
  }),
}
