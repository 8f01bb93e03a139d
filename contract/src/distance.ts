import * as v from 'valibot'
import { DistanceUnit, Id, line, Moment } from './common.ts'
import { BikeRecord, ById } from './bikes.ts'
import { endpoint } from './endpoint.ts'
import { RideRate, Surface, SurfaceKm } from './forecast.ts'
import { OdometerEntry } from './readings.ts'

/** A ride as it stands. */
export const Ride = v.object({
  id: Id,
  startedAt: Moment,
  endedAt: Moment,
  km: v.number(),
  surface: v.nullable(Surface),
  title: v.nullable(v.string()),
  source: v.picklist(['typed', 'file', 'service']),
  /** Whether where it went is kept. */
  hasTrack: v.boolean(),
  person: v.string(),
  corrected: v.boolean(),
})
export type Ride = v.InferOutput<typeof Ride>

/** What a bike was ridden, by everything known of it. */
export const Ledger = v.object({
  entries: v.array(
    v.object({
      id: Id,
      at: Moment,
      kind: v.picklist(['odometer', 'statement', 'chain-start']),
      typed: v.string(),
      unit: DistanceUnit,
      km: v.number(),
      restarted: v.boolean(),
      person: v.string(),
    }),
  ),
  /** The newest ones; `ridesTotal` says how many there are. */
  rides: v.array(Ride),
  ridesTotal: v.number(),
  /** Stretches between odometer values in which the rides add up to more. */
  exceeded: v.array(v.object({ from: Moment, to: Moment, odometerKm: v.number(), ridesKm: v.number() })),
  rate: RideRate,
  /** Kilometres by surface over everything recorded. */
  mix: SurfaceKm,
  /** Whose mix kilometres of unknown surface count by, and what one of them wears. */
  usual: v.object({ factor: v.number(), of: v.picklist(['bike', 'customer', 'shop', 'assumed']) }),
  lastAt: v.nullable(Moment),
  /** What the present chain has probably run by now: an estimate. */
  chainKmToday: v.nullable(v.number()),
  /** Every chain ever fitted here, newest first, with what it ran on this bike. */
  chains: v.array(
    v.object({
      chainId: Id,
      name: v.string(),
      fitted: v.boolean(),
      km: v.number(),
      weightedKm: v.number(),
      from: Moment,
    }),
  ),
})
export type Ledger = v.InferOutput<typeof Ledger>

const rideEntries = {
  id: Id,
  startedAt: Moment,
  endedAt: Moment,
  /** Its distance as typed, in `unit` unless it names another. */
  typed: line(20),
  unit: DistanceUnit,
  surface: v.exactOptional(v.nullable(Surface)),
  title: v.exactOptional(v.nullable(line(80))),
}
export const RecordRide = v.object(rideEntries)
export type RecordRide = v.InferOutput<typeof RecordRide>
export const CorrectRide = v.object({ ...rideEntries, reason: line(200) })
export type CorrectRide = v.InferOutput<typeof CorrectRide>
export const RecordOdometer = v.object({ ...OdometerEntry.entries, occurredAt: Moment })
export type RecordOdometer = v.InferOutput<typeof RecordOdometer>
export const CorrectEntry = v.object({ ...OdometerEntry.entries, reason: line(200) })
export type CorrectEntry = v.InferOutput<typeof CorrectEntry>
const Removal = v.object({ id: Id, reason: line(200) })

export const distanceEndpoints = {
  ledger: endpoint({
    name: 'ledger',
    method: 'GET',
    path: '/bikes/:id/ledger',
    summary: 'What a bike was ridden: odometer values, rides, statement, and what follows from them.',
    access: 'signed-in',
    params: ById,
    result: Ledger,
  }),
  recordRide: endpoint({
    name: 'recordRide',
    method: 'POST',
    path: '/bikes/:id/rides',
    summary: 'Write down a ride.',
    access: 'distance',
    params: ById,
    body: RecordRide,
    result: BikeRecord,
    creates: true,
  }),
  correctRide: endpoint({
    name: 'correctRide',
    method: 'POST',
    path: '/rides/:id/corrections',
    summary: 'Correct a ride: a new one supersedes it.',
    access: 'distance',
    params: ById,
    body: CorrectRide,
    result: BikeRecord,
    creates: true,
  }),
  removeRide: endpoint({
    name: 'removeRide',
    method: 'POST',
    path: '/rides/:id/removal',
    summary: 'Take a ride out. It stays on record as taken out.',
    access: 'distance',
    params: ById,
    body: Removal,
    result: BikeRecord,
    creates: true,
  }),
  moveRide: endpoint({
    name: 'moveRide',
    method: 'POST',
    path: '/rides/:id/move',
    summary: 'Move a ride to the bike it was ridden on. Both bikes and their chains follow.',
    access: 'distance',
    params: ById,
    body: v.object({ id: Id, toBikeId: Id, reason: line(200) }),
    result: BikeRecord,
    creates: true,
  }),
  recordOdometer: endpoint({
    name: 'recordOdometer',
    method: 'POST',
    path: '/bikes/:id/odometer',
    summary: 'Write down what the odometer shows.',
    access: 'distance',
    params: ById,
    body: RecordOdometer,
    result: BikeRecord,
    creates: true,
  }),
  recordStatement: endpoint({
    name: 'recordStatement',
    method: 'POST',
    path: '/bikes/:id/statement',
    summary:
      'Write down what the customer says: a year’s distance, or what the chain had run before it was known here.',
    access: 'distance',
    params: ById,
    body: v.object({
      id: Id,
      occurredAt: Moment,
      of: v.optional(v.picklist(['year', 'chain-start']), 'year'),
      typed: line(20),
      unit: DistanceUnit,
    }),
    result: BikeRecord,
    creates: true,
  }),
  correctEntry: endpoint({
    name: 'correctEntry',
    method: 'POST',
    path: '/distance-entries/:id/corrections',
    summary: 'Correct an odometer value or a statement: a new one supersedes it.',
    access: 'distance',
    params: ById,
    body: CorrectEntry,
    result: BikeRecord,
    creates: true,
  }),
  removeEntry: endpoint({
    name: 'removeEntry',
    method: 'POST',
    path: '/distance-entries/:id/removal',
    summary: 'Take an odometer value or a statement out.',
    access: 'distance',
    params: ById,
    body: Removal,
    result: BikeRecord,
    creates: true,
  }),
}
