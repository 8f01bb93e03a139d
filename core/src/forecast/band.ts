import { ChanceOver } from './crossing.ts'
import type { WearPosterior } from './fitWear.ts'

/** What a chain's wear is at a distance: 5, 50 and 95 %. */
export interface BandPoint {
  /** Thousand weighted km. */
  readonly s: number
  /** % */
  readonly low: number
  readonly middle: number
  readonly high: number
}

/** Highest elongation drawn, %. */
const HIGHEST = 2
const PRECISION = 0.001

/**
 * The band a chain's wear runs in, at evenly spaced distances.
 *
 * @param range from and to, thousand weighted km; `points` how many, 2 or more
 */
export function wearBand(
  posterior: WearPosterior,
  { from, to, points }: { from: number; to: number; points: number },
): BandPoint[] {
  const ladder = Array.from({ length: Math.round(HIGHEST / 0.02) + 1 }, (_, i) => i * 0.02)
  const chances = ladder.map((limit) => new ChanceOver(posterior, limit))
  return Array.from({ length: points }, (_, i) => {
    const s = from + ((to - from) * i) / (points - 1)
    // Falls with the elongation asked about: one walk up the ladder finds all three.
    const over = chances.map((chance) => chance.at(s))
    return { s, low: where(over, 0.95), middle: where(over, 0.5), high: where(over, 0.05) }
  })

  /** The elongation that is exceeded with a probability. */
  function where(over: readonly number[], probability: number): number {
    const after = over.findIndex((one) => one < probability)
    if (after < 0) return HIGHEST
    if (after === 0) return 0
    const high = over[after - 1]!
    const low = over[after]!
    const part = high - low < PRECISION * PRECISION ? 0 : (high - probability) / (high - low)
    return ladder[after - 1]! + part * 0.02
  }
}
