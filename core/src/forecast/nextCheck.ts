import { ChanceOver } from './crossing.ts'
import type { WearPosterior } from './fitWear.ts'

/** All distances in thousand weighted km. */
export interface NextCheckQuery {
  /** Where the chain is now. */
  readonly sNow: number
  /** % */
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
 * median crossing, within floor and horizon.
 *
 * @returns s, thousand weighted km
 */
export function nextCheck(posterior: WearPosterior, query: NextCheckQuery): number {
  return nextCheckBy(new ChanceOver(posterior, query.limit), query)
}

/** As {@link nextCheck}, by any chance of being over: the product asks with what the law may be off in it. */
export function nextCheckBy(chance: Pick<ChanceOver, 'reaches'>, query: Omit<NextCheckQuery, 'limit'>): number {
  const { sNow, risk, floor, horizon, firstCheck } = query
  const atRisk = chance.reaches(risk)
  const median = chance.reaches(0.5)
  let next = Math.min(atRisk, (sNow + median) / 2)
  if (firstCheck) next = Math.min(next, median / 3)
  if (horizon != null) next = Math.min(next, sNow + horizon)
  return Math.max(next, sNow + floor)
}
