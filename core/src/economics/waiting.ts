import { ChanceOver } from '../forecast/crossing.ts'
import { wearBandAt } from '../forecast/band.ts'
import type { WearPosterior } from '../forecast/fitWear.ts'
import { cassetteDamageRate, ringsDamageRate, type EconomicAssumptions } from './damage.ts'
import type { WearPrices } from './prices.ts'

/** What it costs to change a chain at some point. */
export interface WaitingPoint {
  /** Where it is changed, thousand weighted km on the chain. */
  readonly s: number
  /** What it is worn to then, %. */
  readonly elongation: number
  /** Chain, cassette and rings per thousand weighted km, in the shop's money. */
  readonly costPer1000: number
}

export interface CostOfWaiting {
  readonly curve: readonly WaitingPoint[]
  readonly cheapest: WaitingPoint
  /** What the next 500 real km on this chain are expected to cost in sprockets and rings, in the shop's money. */
  readonly next500: number
  /** Power lost by wear now, %: an estimate; null where the shop switched it off. */
  readonly efficiencyLost: number | null
}

const STEPS = 60
const AHEAD_KM = 500

/**
 * What waiting costs: the cost of a thousand km as a function of when the chain is changed, the cheapest point, and what
 * the next 500 km on this chain use up.
 *
 * @param limit the limit by speeds, %
 * @param sNow where the chain is, thousand weighted km; `usualFactor` weighted km a real one; `prices` of what it wears
 */
export function costOfWaiting(
  posterior: WearPosterior,
  { limit, sNow, usualFactor, prices }: { limit: number; sNow: number; usualFactor: number; prices: WearPrices },
  assumed: EconomicAssumptions,
): CostOfWaiting {
  const lifeToLimit = Math.max(0.1, new ChanceOver(posterior, limit).reaches(0.5))
  const law = { limit, lifeToLimit }
  const moneyRate = (elongation: number): number =>
    prices.cassette * cassetteDamageRate(elongation, law, assumed) +
    prices.rings * ringsDamageRate(elongation, law, assumed)
  const end = Math.max(2 * lifeToLimit, 1.3 * sNow)
  const step = end / STEPS
  let spent = 0
  const curve = Array.from({ length: STEPS }, (_, i): WaitingPoint => {
    const { middle } = wearBandAt(posterior, (i + 0.5) * step)
    spent += moneyRate(middle) * step
    const s = (i + 1) * step
    return { s, elongation: wearBandAt(posterior, s).middle, costPer1000: (prices.chain + spent) / s }
  })
  const ahead = (AHEAD_KM * usualFactor) / 1000
  // Over all the wear may be, not at its middle: damage grows faster than wear.
  const expected = [0.25, 0.5, 0.75].reduce((sum, part) => {
    const { low, middle, high } = wearBandAt(posterior, sNow + part * ahead)
    return sum + (moneyRate(low) + 4 * moneyRate(middle) + moneyRate(high)) / 6 / 3
  }, 0)
  return {
    curve,
    cheapest: curve.reduce((a, b) => (b.costPer1000 < a.costPer1000 ? b : a)),
    next500: expected * ahead,
    efficiencyLost:
      assumed.efficiencyLoss > 0 ? Math.max(0, wearBandAt(posterior, sNow).middle) * assumed.efficiencyLoss : null,
  }
}
