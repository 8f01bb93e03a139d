import { ChanceOver } from '../forecast/crossing.ts'
import { wearBandAt } from '../forecast/band.ts'
import type { WearPosterior } from '../forecast/fitWear.ts'
import { cassetteDamageRate, type EconomicAssumptions } from './damage.ts'

const STEPS = 60

/** What the cassette has had under a chain over its limit. */
export interface SprocketLife {
  /** Thousand weighted km ridden over the limit: 5, 50 and 95 %. */
  readonly over: readonly [low: number, middle: number, high: number]
  /** Share of the cassette's life used by this chain: by its low, middle and high wear. */
  readonly used: readonly [low: number, middle: number, high: number]
}

/** Three values of sums whose parts are each known so well: the middles add up, what they are off by adds in squares. */
function added(parts: readonly (readonly [number, number, number])[]): [number, number, number] {
  const middle = parts.reduce((sum, part) => sum + part[1], 0)
  return [
    Math.max(0, middle - Math.hypot(...parts.map(([low, mid]) => mid - low))),
    middle,
    middle + Math.hypot(...parts.map(([, mid, high]) => high - mid)),
  ]
}

/** What several chains, one after another or in rotation, did to one cassette. */
export const sprocketsUnder = (lives: readonly SprocketLife[]): SprocketLife => ({
  over: added(lives.map(({ over }) => over)),
  used: added(lives.map(({ used }) => used)),
})

/**
 * How far a cassette has run under a chain that was over its limit, and the life that used up, with the forecast's
 * uncertainty. Damage goes with the distance spent over, far more than with the distance in all.
 *
 * @param limit the limit by speeds, %
 * @param sFrom where the chain was when the cassette was fitted, thousand weighted km: 0 for one that is as old as the chain, or older
 * @param sNow where the chain is
 */
export function sprocketLife(
  posterior: WearPosterior,
  { limit, sFrom, sNow }: { limit: number; sFrom: number; sNow: number },
  assumed: EconomicAssumptions,
): SprocketLife {
  const chance = new ChanceOver(posterior, limit)
  // It crossed early with a small chance: then it has been over the longest.
  const overBy = (probability: number): number => Math.max(0, sNow - Math.max(sFrom, chance.reaches(probability)))
  const law = { limit, lifeToLimit: Math.max(0.1, chance.reaches(0.5)) }
  const used = [0, 0, 0]
  for (let i = 0; i < STEPS; i++) {
    const { low, middle, high } = wearBandAt(posterior, sFrom + ((sNow - sFrom) * (i + 0.5)) / STEPS)
    for (const [k, elongation] of [low, middle, high].entries())
      used[k] = used[k]! + (cassetteDamageRate(elongation, law, assumed) * (sNow - sFrom)) / STEPS
  }
  return { over: [overBy(0.95), overBy(0.5), overBy(0.05)], used: used as unknown as SprocketLife['used'] }
}

/** Whether distance alone says a cassette's life is used up, as likely as not: then its sprockets are to be tried. */
export const spentByDistance = ({ used }: Pick<SprocketLife, 'used'>): boolean => used[1] > 1
