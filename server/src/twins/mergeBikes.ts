import { isSameRide } from '@pelrin/core'
import type { BikeRecord } from '@pelrin/contract'
import { brokenBy } from '../db/refused.ts'
import { audited, type Work } from '../db/work.ts'
import { dayIn } from '../days/days.ts'
import { shopZone } from '../days/shopZone.ts'
import { followDistance } from '../distance/service.ts'
import { standingRides } from '../distance/store.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { lockBikeState, refreshBikeState } from '../state/bikeState.ts'
import { fittingAt, joinTimelines, type EnteredFitting, type JoinedFitting } from './joinTimelines.ts'
import { BIKES, type BikeRow } from '../bikes/models.ts'
import { bikeRecord } from '../bikes/record.ts'

const DAY_MS = 86_400_000

/** What is recorded of a bike, and of its chain where it names one, goes along; of one a bike may have once it stays where both have it. */
const MOVING: readonly {
  readonly table: string
  readonly chain?: true
  readonly fitting?: true
  readonly unless?: string
}[] = [
  { table: 'readings', chain: true, fitting: true },
  { table: 'care_events', chain: true },
  { table: 'mends', chain: true },
  { table: 'distance_entries' },
  { table: 'rides' },
  { table: 'wear_checks' },
  { table: 'components' },
  { table: 'jobs' },
  { table: 'event_dates' },
  { table: 'ride_imports' },
  { table: 'visits', unless: 'k.day = m.day' },
  { table: 'ride_accounts', unless: 'k.removed_at IS NULL AND m.removed_at IS NULL' },
  { table: 'kept_parts', unless: `k.state = 'kept' AND m.state = 'kept'` },
]
/** Tables whose rows name a bike and go along when it is made one with another. */
export const MOVES: readonly string[] = MOVING.map(({ table }) => table)

/** Stays with the entry it was made for: what was judged then, its drive, whose it was, its picture, what is in the pot. */
export const STAYS: readonly string[] = [
  'bike_state',
  'verdicts',
  'decisions',
  'drives',
  'bike_passings',
  'bike_pictures',
  'pot_chains',
  'bikes',
  'chains',
  'fittings',
]

/** Where a row was before. */
interface Moved {
  readonly table: string
  readonly id: string
  readonly bike: string | null
  readonly chain: string | null
  readonly fitting: string | null
}
interface Moves {
  readonly facts: readonly Moved[]
  /** Bike and range of each fitting, as the database writes it. */
  readonly fittings: readonly { readonly id: string; readonly bike: string; readonly during: string }[]
  /** Chains that had been on the other first. */
  readonly homes: readonly string[]
}

interface FittingRow extends EnteredFitting {
  readonly bike: string
  readonly during: string
}

/**
 * A bike was entered twice: everything of the other is this one's, and the other is looked for no more. Where both name a chain for a time it is
 * the same chain, unless one of them says that a new one was put on then.
 *
 * @throws ProblemError 404; 409 where a job is open, a bike on a stand, or a chain mended or in the pot that turns out to be another entry's
 */
export async function mergeBikes(work: Work, id: string, otherId: string): Promise<BikeRecord> {
  if (id === otherId) throw refuseField('otherId', 'bike-same')
  const [keeps, other] = await lockedBoth(work, id, otherId)
  if (keeps.mergedIntoId !== null || other.mergedIntoId !== null) throw new ProblemError(409, 'bike-merged')
  await refuseAtWork(work, id, otherId)
  const fittings = await fittingsOf(work, id, otherId)
  const joined = joinTimelines(fittings)
  const same = sameChains(fittings, joined)
  await refuseMended(work, same)
  const moves: Moves = {
    facts: [...(await factsOf(work, id, otherId)), ...(await factsOfChains(work, id, same))],
    fittings: fittings.map(({ id: fittingId, bike, during }) => ({ id: fittingId, bike, during })),
    homes: (await work.select<{ id: string }>(`SELECT id FROM chains WHERE home_bike_id = :otherId`, { otherId })).map(
      (chain) => chain.id,
    ),
  }
  await layOut(work, id, otherId, fittings, joined)
  await moveFacts(work, id, moves.facts, joined, same)
  if (moves.homes.length > 0)
    await work.execute('UPDATE chains SET home_bike_id = :id WHERE id IN (:homes)', { id, homes: moves.homes })
  await setAside(work, other, id, moves)
  await followDistance(work, id)
  await refreshBikeState(work, otherId)
  await audited(work, 'merged', 'bike', id, { otherId })
  return bikeRecord(work, id)
}

/** Two entries that were made one are two again, within the day and while nothing was done on the bike since. @throws ProblemError 404, 409 */
export async function unmergeBikes(work: Work, id: string, otherId: string): Promise<BikeRecord> {
  const [, other] = await lockedBoth(work, id, otherId)
  if (other.mergedIntoId !== id || other.mergedAt === null) throw new ProblemError(404, 'bike-unknown')
  if (work.now.getTime() - other.mergedAt.getTime() > DAY_MS) throw new ProblemError(409, 'merge-past')
  const [since] = await work.select(
    `SELECT 1 FROM readings WHERE bike_id = :id AND recorded_at BETWEEN :at AND :now UNION ALL
     SELECT 1 FROM care_events WHERE bike_id = :id AND recorded_at BETWEEN :at AND :now UNION ALL
     SELECT 1 FROM mends WHERE bike_id = :id AND recorded_at BETWEEN :at AND :now UNION ALL
     SELECT 1 FROM fittings WHERE bike_id = :id AND recorded_at BETWEEN :at AND :now UNION ALL
     SELECT 1 FROM jobs WHERE bike_id = :id AND opened_at BETWEEN :at AND :now LIMIT 1`,
    // After a moment, since what made them one was written at it.
    { id, at: new Date(other.mergedAt.getTime() + 1), now: work.now },
  )
  if (since) throw new ProblemError(409, 'merge-worked-since')
  const { facts, fittings, homes } = other.mergeMoved as Moves
  await empty(
    work,
    fittings.map((fitting) => fitting.id),
  )
  for (const { id: fittingId, bike, during } of fittings)
    await work.execute(
      'UPDATE fittings SET bike_id = :bike, during = CAST(:during AS tstzrange) WHERE id = :fittingId',
      {
        ...{ bike, during, fittingId },
      },
    )
  for (const { table, id: rowId, bike, chain, fitting } of facts)
    await work.execute(
      `UPDATE ${known(table)} SET bike_id = CAST(:bike AS uuid)${chain === null ? '' : ', chain_id = :chain'}${fitting === null ? '' : ', fitting_id = :fitting'}
       WHERE id = :rowId`,
      { bike, chain, fitting, rowId },
    )
  if (homes.length > 0)
    await work.execute('UPDATE chains SET home_bike_id = :otherId WHERE id IN (:homes)', { otherId, homes })
  await work
    .of(BIKES)
    .update(
      { mergedIntoId: null, mergedAt: null, mergeMoved: null, goneOn: null, version: other.version + 1 },
      { where: { id: otherId }, transaction: work.transaction },
    )
  await followDistance(work, id)
  await followDistance(work, otherId)
  await audited(work, 'undid', 'bike', id, { otherId })
  return bikeRecord(work, id)
}

async function lockedBoth(work: Work, id: string, otherId: string): Promise<[BikeRow, BikeRow]> {
  for (const one of [id, otherId].sort()) await lockBikeState(work, one)
  const { transaction } = work
  const rows = await work
    .of(BIKES)
    .findAll({ where: { id: [id, otherId] }, transaction, lock: transaction.LOCK.NO_KEY_UPDATE })
  const [keeps, other] = [rows.find((row) => row.id === id), rows.find((row) => row.id === otherId)]
  if (!keeps || !other) throw new ProblemError(404, 'bike-unknown')
  return [keeps, other]
}

async function refuseAtWork(work: Work, id: string, otherId: string): Promise<void> {
  const [job] = await work.select(`SELECT 1 FROM jobs WHERE bike_id IN (:both) AND state = 'open'`, {
    both: [id, otherId],
  })
  if (job) throw new ProblemError(409, 'merge-job-open')
  const [busy] = await work.select(
    `SELECT 1 FROM visits WHERE bike_id = :otherId AND state = 'on-stand'
     UNION ALL SELECT 1 FROM pot_chains WHERE bike_id = :otherId AND state NOT IN ('done', 'left')`,
    { otherId },
  )
  if (busy) throw new ProblemError(409, 'merge-at-work')
}

const fittingsOf = async (work: Work, id: string, otherId: string): Promise<FittingRow[]> =>
  work.select<FittingRow>(
    `SELECT id, bike_id AS bike, chain_id AS "chainId", during::text, start, extract(epoch FROM lower(during))::float8 * 1000 AS "from",
       extract(epoch FROM upper(during))::float8 * 1000 AS "to"
     FROM fittings WHERE bike_id IN (:both) AND NOT isempty(during)`,
    { both: [id, otherId] },
  )

/** Chains that turned out to be another: entered a second time. */
const sameChains = (fittings: readonly FittingRow[], joined: readonly JoinedFitting[]): string[] => {
  const again = new Set(joined.flatMap(({ sameAs }) => sameAs))
  const kept = new Set(joined.map(({ chainId }) => chainId))
  return fittings.filter((one) => again.has(one.id) && !kept.has(one.chainId)).map(({ chainId }) => chainId)
}

/** A chain that was opened and shortened is known by it: which of the two it was is for a person to say. */
async function refuseMended(work: Work, same: readonly string[]): Promise<void> {
  if (same.length === 0) return
  const [mended] = await work.select(
    `SELECT 1 FROM mends WHERE chain_id IN (:same) UNION ALL SELECT 1 FROM chain_events WHERE chain_id IN (:same) AND NOT deleted AND kind <> 'cut'
     UNION ALL SELECT 1 FROM pot_chains WHERE chain_id IN (:same) AND state NOT IN ('done', 'left')`,
    { same },
  )
  if (mended) throw new ProblemError(409, 'merge-chain-mended')
}

/** What is recorded of the other and goes along. A ride both have is one, and stays where it is. */
async function factsOf(work: Work, id: string, otherId: string): Promise<Moved[]> {
  const { assumed } = await assumptionsInForce(work)
  const rides = await standingRides(work, id)
  const span = ({ from, to, km }: { from: Date; to: Date; km: number }) => ({
    from: from.getTime(),
    to: to.getTime(),
    km,
  })
  const twice = (await standingRides(work, otherId))
    .filter((ride) => rides.some((one) => isSameRide(span(one), span(ride), assumed.distance)))
    .map((ride) => ride.id)
  const facts: Moved[] = []
  for (const { table, chain, fitting, unless } of MOVING)
    facts.push(
      ...(await work.select<Moved>(
        `SELECT '${table}' AS "table", m.id, m.bike_id AS bike, ${chain ? 'm.chain_id' : 'NULL'} AS chain, ${fitting ? 'm.fitting_id' : 'NULL'} AS fitting
         FROM ${table} m WHERE m.bike_id = :otherId
         ${unless === undefined ? '' : `AND NOT EXISTS (SELECT 1 FROM ${table} k WHERE k.bike_id = :id AND ${unless})`}
         ${table === 'rides' && twice.length > 0 ? 'AND m.id NOT IN (:twice)' : ''}`,
        { id, otherId, twice },
      )),
    )
  return facts
}

/** What is recorded of chains that turned out to be others, though of this bike or of none. */
async function factsOfChains(work: Work, id: string, same: readonly string[]): Promise<Moved[]> {
  if (same.length === 0) return []
  const facts: Moved[] = []
  for (const { table, fitting } of MOVING.filter(({ chain }) => chain === true))
    facts.push(
      ...(await work.select<Moved>(
        `SELECT '${table}' AS "table", id, bike_id AS bike, chain_id AS chain, ${fitting ? 'fitting_id' : 'NULL'} AS fitting
         FROM ${table} WHERE chain_id IN (:same) AND (bike_id = :id OR bike_id IS NULL)`,
        { id, same },
      )),
    )
  return facts
}

/** Which chain was on when, as both entries say together. Those entered twice stay with the entry that is set aside. */
async function layOut(
  work: Work,
  id: string,
  otherId: string,
  fittings: readonly FittingRow[],
  joined: readonly JoinedFitting[],
): Promise<void> {
  const again = new Set(joined.flatMap(({ sameAs }) => sameAs))
  await empty(
    work,
    fittings.map((fitting) => fitting.id),
  )
  const set = (fittingId: string, bike: string, from: number, to: number | null): Promise<void> =>
    work.execute('UPDATE fittings SET bike_id = :bike, during = tstzrange(:from, :to) WHERE id = :fittingId', {
      ...{ fittingId, bike, from: new Date(from), to: to === null ? null : new Date(to) },
    })
  try {
    for (const { id: fittingId, from, to } of joined) await set(fittingId, id, from, to)
  } catch (error) {
    // One of them was on a third bike meanwhile: then these were not one bike.
    if (brokenBy(error)) throw new ProblemError(409, 'merge-chain-elsewhere')
    throw error
  }
  // An entry of what was on already has no range of its own any more: it is empty, and says so of nothing.
  for (const one of fittings.filter((fitting) => again.has(fitting.id) && fitting.bike === id))
    await work.execute('UPDATE fittings SET bike_id = :otherId WHERE id = :fittingId', { otherId, fittingId: one.id })
}

const empty = async (work: Work, ids: readonly string[]): Promise<void> => {
  if (ids.length > 0) await work.execute(`UPDATE fittings SET during = 'empty' WHERE id IN (:ids)`, { ids })
}

async function moveFacts(
  work: Work,
  id: string,
  facts: readonly Moved[],
  joined: readonly JoinedFitting[],
  same: readonly string[],
): Promise<void> {
  for (const { table, chain, fitting } of MOVING) {
    const ids = facts.filter((fact) => fact.table === table && fact.bike !== null).map((fact) => fact.id)
    if (ids.length > 0) await work.execute(`UPDATE ${table} SET bike_id = :id WHERE id IN (:ids)`, { id, ids })
    const again = facts.filter((fact) => fact.table === table && fact.chain !== null && same.includes(fact.chain))
    if (!chain || again.length === 0) continue
    const rows = await work.select<{ id: string; at: Date }>(
      `SELECT id, occurred_at AS at FROM ${table} WHERE id IN (:ids)`,
      {
        ids: again.map((fact) => fact.id),
      },
    )
    for (const row of rows) {
      const on = fittingAt(joined, row.at.getTime())!
      await work.execute(
        `UPDATE ${table} SET chain_id = :chain${fitting ? ', fitting_id = :fitting' : ''} WHERE id = :rowId`,
        { chain: on.chainId, fitting: on.id, rowId: row.id },
      )
    }
  }
}

async function setAside(work: Work, other: BikeRow, id: string, moves: Moves): Promise<void> {
  await work.of(BIKES).update(
    {
      mergedIntoId: id,
      mergedAt: work.now,
      mergeMoved: moves,
      goneOn: other.goneOn ?? dayIn(await shopZone(work), work.now),
      version: other.version + 1,
    },
    { where: { id: other.id }, transaction: work.transaction },
  )
}

/** A table of those that move, and no other: its name comes out of the database and goes into a statement. */
function known(table: string): string {
  if (!MOVES.includes(table)) throw new Error(`${table} does not move`)
  return table
}
