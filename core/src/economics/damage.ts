import type { Assumptions } from '../assumptions.ts'

export type EconomicAssumptions = Assumptions['economics']

/** What a cassette suffers under a chain. */
export interface DamageLaw {
  /** Elongation from which a chain grinds the teeth to match, %: the limit by speeds of the drive's class. */
  readonly limit: number
  /** Weighted distance a chain takes to that limit, thousand km. */
  readonly lifeToLimit: number
}

/**
 * Share of a cassette's life used per thousand weighted km under a chain of some elongation.
 *
 * Below the limit a cassette outlives a few chains; above it the damage grows exponentially, because a longer pitch bears
 * high on the teeth and grinds them to match.
 */
export function cassetteDamageRate(
  elongation: number,
  { limit, lifeToLimit }: DamageLaw,
  assumed: EconomicAssumptions,
): number {
  const over = Math.max(0, elongation - limit)
  return Math.exp((assumed.damageSlope * over) / assumed.damageStep) / (assumed.chainsOutlived * lifeToLimit)
}

/** The same of the rings, which last longer. */
export const ringsDamageRate = (elongation: number, law: DamageLaw, assumed: EconomicAssumptions): number =>
  cassetteDamageRate(elongation, law, assumed) / assumed.ringsLast
