import type { Assumptions } from '@pelrin/core'
import type { EarlierChain, VerdictInput } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { distanceOfChain, shopRiding, type BikeDistance } from '../distance/bikeDistanceStore.ts'

/**
 * Chains that ran on a bike before the present one, or in turn with it: what their last verdict rested on, brought up to
 * the moment they came off. What they did to the sprockets follows from it.
 *
 * @param presentId the chain now fitted
 * @param since when the sprockets that are on were fitted; null where nobody said: then every chain ran on them
 */
export async function earlierChains(
  work: Work,
  bike: { id: string; presentId: string | null; since: Date | null },
  here: BikeDistance,
  assumed: Assumptions,
): Promise<EarlierChain[]> {
  const chains = await work.select<{ chainId: string; start: string; from: Date; to: Date; input: VerdictInput }>(
    `SELECT DISTINCT ON (v.chain_id) v.chain_id AS "chainId", v.input, f.start, lower(f.during) AS "from",
       upper(f.during) AS "to"
     FROM verdicts v JOIN LATERAL (
       SELECT start, during FROM fittings WHERE chain_id = v.chain_id AND bike_id = v.bike_id AND NOT isempty(during)
       ORDER BY lower(during) DESC LIMIT 1) f ON upper(f.during) IS NOT NULL
     WHERE v.bike_id = :id AND v.chain_id IS NOT NULL AND v.chain_id IS DISTINCT FROM :presentId AND NOT v.deleted
       AND v.input ? 'life' AND (CAST(:since AS timestamptz) IS NULL OR upper(f.during) > CAST(:since AS timestamptz))
     ORDER BY v.chain_id, v.recorded_at DESC, v.id DESC`,
    bike,
  )
  const riding = shopRiding(work)
  const found: EarlierChain[] = []
  for (const { chainId, start, from, to, input } of chains) {
    if (!input.life) continue
    const run = await distanceOfChain(work, { chainId, bikeId: bike.id, start, from }, here, assumed, riding)
    const { countChangedAt } = input.chain
    found.push({
      readings: input.readings,
      life: { ...input.life, sNow: run.sAt(to) ?? input.life.sNow, at: to.getTime() },
      ...(countChangedAt === undefined ? {} : { countChangedAt }),
      sFrom: bike.since === null || bike.since <= from ? 0 : (run.sAt(bike.since) ?? 0),
    })
  }
  return found
}
