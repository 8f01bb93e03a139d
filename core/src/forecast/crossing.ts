import type { WearPosterior } from './fitWear.ts'
import { distanceTo } from './wearModel.ts'

/** The chance that the chain is over a limit at a distance s (thousand weighted km from where it is known here), 0…1. */
export function probabilityOverAt(posterior: WearPosterior, { s, limit }: { s: number; limit: number }): number {
  const { life, gamma, epsilon0, before, weight, size } = posterior
  let over = 0
  for (let i = 0; i < size; i++) {
    const run = s + before[i]!
    const epsilon = epsilon0[i]! + (run <= 0 ? 0 : 0.5 * Math.pow(run / life[i]!, gamma[i]!))
    if (epsilon > limit) over += weight[i]!
  }
  return Math.min(1, over)
}

/**
 * The distances at which the limit is crossed with given probabilities.
 *
 * @param query `limit` in %; `probabilities` each between 0 and 1
 * @returns s for each, thousand weighted km from where the chain is known here; it may lie behind, below 0
 */
export function crossing(
  posterior: WearPosterior,
  { limit, probabilities }: { limit: number; probabilities: readonly number[] },
): number[] {
  const { life, gamma, epsilon0, before, weight, size } = posterior
  const at = new Float64Array(size)
  for (let i = 0; i < size; i++)
    at[i] = distanceTo(limit, { epsilon0: epsilon0[i]!, life: life[i]!, gamma: gamma[i]! }) - before[i]!
  const order = new Uint32Array(size)
  for (let i = 0; i < size; i++) order[i] = i
  order.sort((a, b) => at[a]! - at[b]!)
  return probabilities.map((probability) => {
    let below = 0
    let lastAt = at[order[0]!]!
    let lastShare = 0
    for (const i of order) {
      // Each node stands for its surroundings: half of it lies below its own place.
      const share = below + weight[i]! / 2
      if (share >= probability) {
        const part = share === lastShare ? 0 : (probability - lastShare) / (share - lastShare)
        return lastAt + (at[i]! - lastAt) * Math.max(0, part)
      }
      below += weight[i]!
      lastAt = at[i]!
      lastShare = share
    }
    return lastAt
  })
}

/** How likely the newest reading is a stray, 0…1; 0 without a reading. Above a half no forecast is shown. */
export const newestReadingDoubt = (posterior: WearPosterior): number => posterior.doubt

export interface NextCheckQuery {
  /** Where the chain is now. */
  readonly sNow: number
  readonly limit: number
  /** The chance of being over at which to look again at the latest. */
  readonly risk: number
  /** At least so far ahead. */
  readonly floor: number
  /** At most so far ahead; left out: no bound. */
  readonly horizon?: number | null
  /** The first look at a new chain comes at no more than a third of the median crossing. */
  readonly firstCheck: boolean
}

/**
 * Where to look next: the nearer of where the chance of being over reaches the risk and half-way from now to the
 * median crossing, within floor and horizon. All in thousand weighted km.
 */
export function nextCheck(posterior: WearPosterior, query: NextCheckQuery): number {
  const { sNow, limit, risk, floor, horizon, firstCheck } = query
  const [atRisk = 0, median = 0] = crossing(posterior, { limit, probabilities: [risk, 0.5] })
  let next = Math.min(atRisk, (sNow + median) / 2)
  if (firstCheck) next = Math.min(next, median / 3)
  if (horizon != null) next = Math.min(next, sNow + horizon)
  return Math.max(next, sNow + floor)
}
