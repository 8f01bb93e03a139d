import type { Database } from '../db/connection.ts'
import { inShop, type Work } from '../db/work.ts'
import { shopRiding, type ShopRiding } from '../distance/bikeDistanceStore.ts'
import { lockBikeState, rebuildBike } from './bikeState.ts'
import { judgeBike } from './judgeBike.ts'
import { SHOPS } from '../auth/models.ts'

/** How far a shop's rebuild is. */
export interface RebuildProgress {
  readonly done: number
  readonly of: number
}

/** Bikes of one transaction. */
const AT_ONCE = 10

/** Has every bike's state of a shop derived anew: what is stored is of an older Pelrin. What was left of an earlier one begins anew. */
export async function askForRebuild(work: Work): Promise<void> {
  await work.execute(
    `INSERT INTO state_rebuilds (asked_at) VALUES (:now)
     ON CONFLICT (shop_id) DO UPDATE SET asked_at = excluded.asked_at, after_bike = NULL, done = 0, finished_at = NULL`,
    { now: work.now },
  )
}

/** How far the rebuild of a shop is; null with none under way. */
export async function rebuildProgress(work: Work): Promise<RebuildProgress | null> {
  const [row] = await work.select<{ done: number; of: number }>(
    `SELECT done, (SELECT count(*)::int FROM bikes) AS of FROM state_rebuilds WHERE finished_at IS NULL`,
  )
  return row ?? null
}

/**
 * Goes on with the rebuild of a shop, some bikes at a time, each held while it is derived: whoever writes meanwhile waits for one bike, not for
 * all. May be stopped at any moment.
 *
 * @param until ms since 1970 after which no more is begun; a little is always done
 * @returns whether there is more to do
 */
export async function continueRebuild(database: Database, shopId: string, until: number): Promise<boolean> {
  do {
    const more = await inShop(
      database,
      shopId,
      null,
      async (work) => {
        const [row] = await work.select<{ after: string | null }>(
          `SELECT after_bike AS after FROM state_rebuilds WHERE finished_at IS NULL FOR UPDATE`,
        )
        if (!row) return false
        const bikes = await work.select<{ id: string }>(
          `SELECT id FROM bikes WHERE CAST(:after AS uuid) IS NULL OR id > CAST(:after AS uuid) ORDER BY id LIMIT ${AT_ONCE}`,
          { after: row.after },
        )
        const riding = shopRiding(work)
        for (const { id } of bikes) {
          await lockBikeState(work, id)
          await bringUp(work, id, riding)
        }
        await work.execute(
          `UPDATE state_rebuilds SET done = done + :n, after_bike = coalesce(CAST(:last AS uuid), after_bike),
             finished_at = CASE WHEN :n < ${AT_ONCE} THEN CAST(:now AS timestamptz) END`,
          { n: bikes.length, last: bikes.at(-1)?.id ?? null, now: work.now },
        )
        return bikes.length === AT_ONCE
      },
      { long: true },
    )
    if (!more) return false
  } while (Date.now() < until)
  return true
}

/**
 * Brings a bike up to this version. A verdict of a version that knew nothing of the chain's life rests on too little for a forecast or for care: it is
 * given again from what is known, as of the moment it was given and in the name of who gave it. The old one stays.
 */
async function bringUp(work: Work, bikeId: string, riding: ShopRiding): Promise<void> {
  const [last] = await work.select<{ occurredAt: Date; readingId: string | null; personId: string; whole: boolean }>(
    `SELECT v.occurred_at AS "occurredAt", v.reading_id AS "readingId", v.person_id AS "personId",
       v.fitting_id IS NULL OR jsonb_exists(v.input, 'life') AS whole
     FROM verdicts v WHERE v.bike_id = :bikeId AND NOT v.deleted ORDER BY v.recorded_at DESC, v.id DESC LIMIT 1`,
    { bikeId },
  )
  if (!last || last.whole) {
    await rebuildBike(work, bikeId, riding)
    return
  }
  const { occurredAt, readingId, personId } = last
  await judgeBike({ ...work, author: { personId, deviceId: null, requestId: null } }, bikeId, { readingId, occurredAt })
}

/** Shops whose rebuild is not through. */
export async function shopsToRebuild(database: Database): Promise<string[]> {
  const left: string[] = []
  for (const { id } of await database.of(SHOPS).findAll())
    if (await inShop(database, id, null, rebuildProgress)) left.push(id)
  return left
}
