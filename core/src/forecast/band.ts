import { probabilityOverAt } from './crossing.ts'
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

/** Elongations looked among, %, and how finely. */
const LOWEST = -0.3
const HIGHEST = 2.5
const PRECISION = 0.002

/** What a chain's wear is at one distance. */
export function wearBandAt(posterior: WearPosterior, s: number): BandPoint {
  const middle = where(posterior, s, 0.5, LOWEST, HIGHEST)
  return {
    s,
    low: where(posterior, s, 0.95, LOWEST, middle),
    middle,
    high: where(posterior, s, 0.05, middle, HIGHEST),
  }
}

/**
 * The band a chain's wear runs in, at evenly spaced distances.
 *
 * @param range from and to, thousand weighted km; `points` how many, 2 or more
 */
export function wearBand(
  posterior: WearPosterior,
  { from, to, points }: { from: number; to: number; points: number },
): BandPoint[] {
  return Array.from({ length: points }, (_, i) => wearBandAt(posterior, from + ((to - from) * i) / (points - 1)))
}

/**
 * A band read off at any distance within it: straight between its points.
 *
 * @param band by rising distance; `s` thousand weighted km
 * @returns null beyond its ends
 */
export function bandAt(band: readonly BandPoint[], s: number): BandPoint | null {
  const next = band.findIndex((point) => point.s >= s)
  const above = band[next]
  if (!above) return null
  const below = band[next - 1]
  if (!below) return above.s === s ? above : null
  const share = (s - below.s) / (above.s - below.s)
  const between = (of: 'low' | 'middle' | 'high'): number => below[of] + share * (above[of] - below[of])
  return { s, low: between('low'), middle: between('middle'), high: between('high') }
}

/** The elongation that is exceeded at a distance with a probability: it falls with the elongation. */
function where(posterior: WearPosterior, s: number, probability: number, from: number, to: number): number {
  let low = from
  let high = to
  while (high - low > PRECISION) {
    const middle = (low + high) / 2
    if (probabilityOverAt(posterior, { s, limit: middle }) >= probability) low = middle
    else high = middle
  }
  return (low + high) / 2
}
