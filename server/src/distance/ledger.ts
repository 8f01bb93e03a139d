import { distanceBetween, totalKm, wearWeighted } from '@pelrin/core'
import type { Ledger } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { shopFacts } from '../state/shopFacts.ts'
import { bikeFacts } from '../state/verdictInput.ts'
import { standingDistances } from './store.ts'
import { BIKES } from '../bikes/models.ts'

/** Rides shown; the rest are counted. */
const RIDES_SHOWN = 200

/** What a bike was ridden, with what follows from it. */
export async function ledgerOf(work: Work, bikeId: string): Promise<Ledger> {
  const bike = await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  const shared = await shopFacts(work)
  const { distance, chainDistance } = await bikeFacts(work, bikeId, work.now, shared)
  const { view, rides, rate, mix, usual } = distance
  const fittings = await work.select<{ chainId: string; name: string; from: Date; to: Date | null }>(
    `SELECT f.chain_id AS "chainId", c.name, lower(f.during) AS "from", upper(f.during) AS "to"
     FROM fittings f JOIN chains c ON c.id = f.chain_id WHERE f.bike_id = :bikeId AND NOT isempty(f.during) ORDER BY lower(f.during) DESC`,
    { bikeId },
  )
  const chains = new Map<string, Ledger['chains'][number]>()
  for (const { chainId, name, from, to } of fittings) {
    const ran = distanceBetween(view.segments, from.getTime(), to?.getTime() ?? Infinity)
    const before = chains.get(chainId)
    chains.set(chainId, {
      chainId,
      name,
      fitted: before?.fitted ?? to === null,
      km: (before?.km ?? 0) + totalKm(ran),
      weightedKm: (before?.weightedKm ?? 0) + wearWeighted(ran, usual.factor, shared.assumptions.assumed.distance),
      from: from.toISOString(),
    })
  }
  const recordedKm = chainDistance?.kmAt(chainDistance.lastAt) ?? null
  const daysSince = chainDistance ? Math.max(0, work.now.getTime() - chainDistance.lastAt.getTime()) / 86_400_000 : 0
  return {
    entries: (await standingDistances(work, bikeId))
      .reverse()
      .map(({ id, at, kind, typed, unit, km, restarted, person }) => ({
        id,
        at: at.toISOString(),
        kind,
        typed,
        unit,
        km,
        restarted,
        person,
      })),
    rides: rides
      .slice(-RIDES_SHOWN)
      .reverse()
      .map(({ from, to, bikeId: _, profile: __, accountId: ___, externalId: ____, ...ride }) => ({
        ...ride,
        startedAt: from.toISOString(),
        endedAt: to.toISOString(),
      })),
    ridesTotal: rides.length,
    exceeded: view.stretches
      .filter(({ ridesExceed }) => ridesExceed)
      .map(({ from, to, odometerKm, ridesKm }) => ({
        from: new Date(from).toISOString(),
        to: new Date(to).toISOString(),
        odometerKm,
        ridesKm,
      })),
    rate,
    mix,
    usual,
    lastAt: view.lastAt === null ? null : new Date(view.lastAt).toISOString(),
    chainKmToday: recordedKm === null ? null : recordedKm + daysSince * rate.kmPerDay,
    chains: [...chains.values()],
  }
}
