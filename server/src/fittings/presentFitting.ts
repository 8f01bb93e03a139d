import type { CareKind } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { stands } from '../db/facts.ts'

export interface PresentFitting {
  id: string
  chainId: string
  bikeId: string
  chainName: string
  pitches: number | null
  care: CareKind
  start: 'fitted' | 'stated' | 'unknown'
  from: Date
  countChangedAt: Date | null
}

/** The chain now on a bike, and since when; null with none. */
export async function presentFitting(work: Work, bikeId: string): Promise<PresentFitting | null> {
  const [found] = await work.prepared<PresentFitting>(
    `SELECT f.id, f.chain_id AS "chainId", c.name AS "chainName", c.pitches, c.care, f.start, f.bike_id AS "bikeId", lower(f.during) AS "from",
       (SELECT max(e.occurred_at) FROM chain_events e
        WHERE e.chain_id = f.chain_id AND ${stands('chain_events', 'e')}) AS "countChangedAt"
     FROM fittings f JOIN chains c ON c.id = f.chain_id
     WHERE f.bike_id = :bikeId AND upper_inf(f.during)`,
    { bikeId },
  )
  return found ?? null
}
