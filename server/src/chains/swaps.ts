import type { Work } from '../db/work.ts'
import { dayIn } from '../days/days.ts'
import type { FittingRow } from './models.ts'

/** A swap that put on what is on now. */
interface Swap {
  fittingId: string
  chainId: string
  bikeId: string
  from: Date
  beforeId: string
  beforeChainId: string
  cameFrom: NonNullable<FittingRow['cameFrom']>
  timeZone: string
}

/** A swap of today; null with none. */
export async function swapOf(work: Work, where: string, values: Record<string, unknown>): Promise<Swap | null> {
  const [swap] = await work.select<Swap>(
    `SELECT f.id AS "fittingId", f.chain_id AS "chainId", f.bike_id AS "bikeId", lower(f.during) AS "from",
       o.id AS "beforeId", o.chain_id AS "beforeChainId", f.came_from AS "cameFrom",
       s.time_zone AS "timeZone"
     FROM fittings f JOIN fittings o ON o.bike_id = f.bike_id AND upper(o.during) = lower(f.during)
     JOIN shops s ON s.id = f.shop_id
     WHERE upper_inf(f.during) AND f.came_from IS NOT NULL AND ${where}`,
    values,
  )
  return swap && dayIn(swap.timeZone, swap.from) === dayIn(swap.timeZone, work.now) ? swap : null
}

/** The fitting a swap of today began on a bike, if nothing rests on it yet; null with none. */
export async function swapToUndo(work: Work, bikeId: string): Promise<string | null> {
  const swap = await swapOf(
    work,
    `f.bike_id = :bikeId AND NOT EXISTS (SELECT 1 FROM readings r WHERE r.fitting_id = f.id AND NOT r.deleted)`,
    { bikeId },
  )
  return swap?.fittingId ?? null
}
