import { odometerDoubt, parseOdometer, type Assumptions } from '@pelrin/core'
import type { BikeRecord, CorrectEntry, CorrectRide, FieldProblem, RecordOdometer, RecordRide } from '@pelrin/contract'
import { bikeRecord } from '../bikes/record.ts'
import { brokenBy } from '../db/refused.ts'
import { audited, authorOf, type Work } from '../db/work.ts'
import { atField, ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { appendEntry, rideById, standingDistances, type StandingEntry, type StandingRide } from './store.ts'
import { newFact, tombstone } from '../db/facts.ts'
import { BIKES } from '../bikes/models.ts'
import { DISTANCE_ENTRIES, RIDES, type RideRow } from './models.ts'

/** A device's clock may be a little ahead of ours. */
const CLOCK_LEEWAY_MS = 5 * 60_000
/** Nobody rides longer than this without a stop that ends the ride. */
const LONGEST_RIDE_MS = 72 * 3_600_000
const FASTEST_KMH = 120

/** What became known of a bike's distance is taken into its state in the same transaction. */
export async function followDistance(work: Work, bikeId: string): Promise<void> {
  await judgeBike(work, bikeId, { readingId: null, occurredAt: work.now })
}

async function lockKnownBike(work: Work, bikeId: string): Promise<void> {
  await lockBikeState(work, bikeId)
  if (!(await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })))
    throw new ProblemError(404, 'bike-unknown')
}

/** Writes a ride down; what follows from it is the caller's. @throws ProblemError 422 at what makes no sense of it */
export async function writeRide(work: Work, bikeId: string, ride: RecordRide): Promise<void> {
  await lockKnownBike(work, bikeId)
  await appendRide(work, { ...(await checkedRide(work, ride)), id: ride.id, bikeId, source: 'typed' })
  await audited(work, 'recorded', 'ride', ride.id, { bikeId, typed: ride.typed })
}

/** Writes down a ride. */
export async function recordRide(work: Work, bikeId: string, ride: RecordRide): Promise<BikeRecord> {
  await writeRide(work, bikeId, ride)
  await followDistance(work, bikeId)
  return bikeRecord(work, bikeId)
}

/** Corrects a ride: a new one supersedes it. */
export async function correctRide(work: Work, id: string, ride: CorrectRide): Promise<BikeRecord> {
  const old = await lockedRide(work, id)
  const { reason } = ride
  // A track tells how its distance grew; with another distance it still does, with another time it no longer fits.
  const entered = await checkedRide(work, ride)
  const sameTime = entered.occurredAt.getTime() === old.from.getTime() && entered.endedAt.getTime() === old.to.getTime()
  await appendRide(work, {
    ...entered,
    id: ride.id,
    bikeId: old.bikeId,
    source: old.source,
    supersedesId: id,
    reason,
    profile: sameTime ? old.profile : null,
    accountId: old.accountId,
    externalId: old.externalId,
  })
  await audited(work, 'corrected', 'ride', ride.id, { bikeId: old.bikeId, supersedes: id, reason })
  await followDistance(work, old.bikeId)
  return bikeRecord(work, old.bikeId)
}

/** Takes a ride out: a tombstone supersedes it. */
export async function removeRide(
  work: Work,
  id: string,
  { id: newId, reason }: { id: string; reason: string },
): Promise<BikeRecord> {
  const old = await lockedRide(work, id)
  await appendRide(work, { ...sameRide(old), id: newId, ...tombstone(work, id, reason) })
  await audited(work, 'took out', 'ride', id, { bikeId: old.bikeId, reason })
  await followDistance(work, old.bikeId)
  return bikeRecord(work, old.bikeId)
}

/** Moves a ride to another bike: one that supersedes it there. Both bikes and their chains follow. */
export async function moveRide(
  work: Work,
  id: string,
  { id: newId, toBikeId, reason }: { id: string; toBikeId: string; reason: string },
): Promise<BikeRecord> {
  const found = await rideById(work, id)
  if (!found) throw await rideGone(work, id)
  if (found.bikeId === toBikeId) throw refuseField('toBikeId', 'ride-there-already')
  if (!(await work.of(BIKES).findByPk(toBikeId, { transaction: work.transaction })))
    throw refuseField('toBikeId', 'bike-unknown')
  // In id order, so that two moves the other way round wait for each other only once.
  for (const bikeId of [found.bikeId, toBikeId].sort()) await lockBikeState(work, bikeId)
  await appendRide(work, { ...sameRide(found), id: newId, bikeId: toBikeId, supersedesId: id, reason })
  await work.execute(
    `INSERT INTO ride_tracks (ride_id, points) SELECT :newId, points FROM ride_tracks WHERE ride_id = :id`,
    { id, newId },
  )
  await audited(work, 'moved', 'ride', newId, { from: found.bikeId, to: toBikeId, supersedes: id, reason })
  await followDistance(work, found.bikeId)
  await followDistance(work, toBikeId)
  return bikeRecord(work, found.bikeId)
}

/** Writes down an odometer value. */
export async function recordOdometer(work: Work, bikeId: string, value: RecordOdometer): Promise<BikeRecord> {
  await lockKnownBike(work, bikeId)
  const occurredAt = new Date(value.occurredAt)
  if (occurredAt.getTime() > work.now.getTime() + CLOCK_LEEWAY_MS) throw refuseField('occurredAt', 'date-in-future')
  await appendOdometer(work, { ...value, occurredAt, bikeId, supersedesId: null })
  await audited(work, 'recorded', 'odometer', value.id, { bikeId, typed: value.typed })
  await followDistance(work, bikeId)
  return bikeRecord(work, bikeId)
}

/** Writes down what the customer says: a year's distance, or what the chain had run before. */
export async function recordStatement(
  work: Work,
  bikeId: string,
  {
    id,
    of,
    occurredAt,
    typed,
    unit,
  }: { id: string; of: 'year' | 'chain-start'; occurredAt: string; typed: string; unit: 'km' | 'mi' },
): Promise<BikeRecord> {
  await lockKnownBike(work, bikeId)
  await appendEntry(work, {
    ...entryBy(work),
    id,
    bikeId,
    kind: of === 'year' ? 'statement' : 'chain-start',
    occurredAt: new Date(occurredAt),
    typed,
    unit,
    km: parsedKm(typed, unit, (await assumptionsInForce(work)).assumed),
    restarted: false,
    supersedesId: null,
  })
  await audited(work, 'recorded', 'statement', id, { bikeId, typed })
  await followDistance(work, bikeId)
  return bikeRecord(work, bikeId)
}

/** Corrects an odometer value or a statement: a new one supersedes it, at the same moment. */
export async function correctEntry(work: Work, id: string, value: CorrectEntry): Promise<BikeRecord> {
  const { bikeId, entry } = await lockedEntry(work, id)
  const { reason } = value
  if (entry.kind === 'odometer')
    await appendOdometer(work, { ...value, occurredAt: entry.at, bikeId, supersedesId: id, reason })
  else
    await appendEntry(work, {
      ...entryBy(work),
      id: value.id,
      bikeId,
      kind: entry.kind,
      occurredAt: entry.at,
      typed: value.typed,
      unit: value.unit,
      km: parsedKm(value.typed, value.unit, (await assumptionsInForce(work)).assumed),
      restarted: false,
      supersedesId: id,
      reason,
    })
  await audited(work, 'corrected', entry.kind, value.id, { bikeId, supersedes: id, reason })
  await followDistance(work, bikeId)
  return bikeRecord(work, bikeId)
}

/** Takes an odometer value or a statement out: a tombstone supersedes it. */
export async function removeEntry(
  work: Work,
  id: string,
  { id: newId, reason }: { id: string; reason: string },
): Promise<BikeRecord> {
  const { bikeId, entry } = await lockedEntry(work, id)
  await appendEntry(work, {
    ...entryBy(work),
    id: newId,
    bikeId,
    kind: entry.kind,
    occurredAt: entry.at,
    typed: entry.typed,
    unit: entry.unit,
    km: entry.km,
    restarted: entry.restarted,
    supersedesId: id,
    reason,
    deleted: true,
  })
  await audited(work, 'took out', entry.kind, id, { bikeId, reason })
  await followDistance(work, bikeId)
  return bikeRecord(work, bikeId)
}

const entryBy = (work: Work): { personId: string; deviceId: string | null } => {
  const { personId, deviceId } = authorOf(work)
  return { personId, deviceId }
}

function parsedKm(typed: string, unit: 'km' | 'mi', assumed: Assumptions): number {
  const parsed = parseOdometer(typed, unit, assumed.distance)
  if (!parsed.ok) throw refuseField('typed', parsed.problem)
  return parsed.km
}

/** An odometer value in its place in time: lower than the one before it, or far more, is asked about, not believed. */
async function appendOdometer(
  work: Work,
  value: Omit<RecordOdometer, 'occurredAt'> & {
    occurredAt: Date
    bikeId: string
    supersedesId: string | null
    reason?: string
  },
): Promise<void> {
  const { assumed } = await assumptionsInForce(work)
  const km = parsedKm(value.typed, value.unit, assumed)
  const before = (await standingDistances(work, value.bikeId)).findLast(
    (entry) => entry.kind === 'odometer' && entry.at <= value.occurredAt && entry.id !== value.supersedesId,
  )
  const doubt = odometerDoubt(
    { km, at: value.occurredAt.getTime() },
    before && { km: before.km, at: before.at.getTime() },
    assumed.distance,
  )
  if (doubt !== null && value.lower === undefined) throw refuseField('typed', doubt)
  try {
    await appendEntry(work, {
      ...entryBy(work),
      id: value.id,
      bikeId: value.bikeId,
      occurredAt: value.occurredAt,
      typed: value.typed,
      unit: value.unit,
      km,
      restarted: doubt === 'odometer-lower' && value.lower === 'restarted',
      supersedesId: value.supersedesId,
      ...(value.reason === undefined ? {} : { reason: value.reason }),
    })
  } catch (error) {
    throw asConflict(error)
  }
}

/** What was typed of a ride, once it makes sense. @throws ProblemError naming the fields that do not */
async function checkedRide(
  work: Work,
  { startedAt, endedAt, typed, unit, surface = null, title = null }: RecordRide,
): Promise<Pick<RideRow, 'occurredAt' | 'endedAt' | 'km' | 'surface' | 'title'>> {
  const from = new Date(startedAt)
  const to = new Date(endedAt)
  const wrong: FieldProblem[] = []
  const parsed = parseOdometer(typed, unit, (await assumptionsInForce(work)).assumed.distance)
  const ms = to.getTime() - from.getTime()
  if (!parsed.ok) wrong.push(atField('typed', parsed.problem))
  else if (ms > 0 && (parsed.km / ms) * 3_600_000 > FASTEST_KMH) wrong.push(atField('typed', 'ride-too-fast'))
  if (ms <= 0) wrong.push(atField('endedAt', 'ride-ends-before'))
  else if (ms > LONGEST_RIDE_MS) wrong.push(atField('endedAt', 'ride-too-long'))
  if (to.getTime() > work.now.getTime() + CLOCK_LEEWAY_MS) wrong.push(atField('endedAt', 'date-in-future'))
  if (wrong.length > 0 || !parsed.ok) throw new ProblemError(422, 'request-invalid', { fields: wrong })
  return { occurredAt: from, endedAt: to, km: parsed.km, surface, title }
}

const sameRide = (
  ride: StandingRide,
): Omit<
  RideRow,
  'id' | 'recordedAt' | 'personId' | 'deviceId' | 'supersedesId' | 'reason' | 'deleted' | 'importId'
> => ({
  bikeId: ride.bikeId,
  occurredAt: ride.from,
  endedAt: ride.to,
  km: ride.km,
  surface: ride.surface,
  title: ride.title,
  source: ride.source,
  profile: ride.profile,
  accountId: ride.accountId,
  externalId: ride.externalId,
})

/** Appends a ride as a fact of whoever writes. */
export async function appendRide(
  work: Work,
  ride: Pick<RideRow, 'id' | 'bikeId' | 'occurredAt' | 'endedAt' | 'km' | 'surface' | 'title' | 'source'> &
    Partial<RideRow>,
): Promise<void> {
  try {
    await work.of(RIDES).create({ ...newFact(work), ...ride }, { transaction: work.transaction })
  } catch (error) {
    throw asConflict(error)
  }
}

function asConflict(error: unknown): unknown {
  const broken = brokenBy(error)
  if (broken?.rule !== 'unique') return error
  return new ProblemError(409, broken.columns.includes('supersedes_id') ? 'corrected-already' : 'id-taken')
}

/** A ride that stands, its bike held until the transaction ends. */
async function lockedRide(work: Work, id: string): Promise<StandingRide> {
  const found = await rideById(work, id)
  if (!found) throw await rideGone(work, id)
  await lockBikeState(work, found.bikeId)
  const now = await rideById(work, id)
  if (!now) throw new ProblemError(409, 'corrected-already')
  return now
}

async function rideGone(work: Work, id: string): Promise<ProblemError> {
  const known = await work.of(RIDES).findOne({ where: { id }, transaction: work.transaction })
  return known ? new ProblemError(409, 'corrected-already') : new ProblemError(404, 'ride-unknown')
}

async function lockedEntry(work: Work, id: string): Promise<{ bikeId: string; entry: StandingEntry }> {
  const known = await work.of(DISTANCE_ENTRIES).findOne({ where: { id }, transaction: work.transaction })
  if (!known) throw new ProblemError(404, 'entry-unknown')
  await lockBikeState(work, known.bikeId)
  const entry = (await standingDistances(work, known.bikeId)).find((one) => one.id === id)
  if (!entry) throw new ProblemError(409, 'corrected-already')
  return { bikeId: known.bikeId, entry }
}
