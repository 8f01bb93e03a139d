import { type WearPriorDefaults } from '../defaults.ts'

/** How a chain is kept, as far as its life depends on it. */
export type CareKind = 'immersion-wax' | 'drip-wax' | 'dry-oil' | 'wet-oil' | 'unknown'

/** Every {@link CareKind}, longest life first. */
export const CARE_KINDS: readonly CareKind[] = ['immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil', 'unknown']

/** What is believed of a chain before it is read: life to 0.5 % and how wear speeds up. */
export interface WearPrior {
  /** Median of T, thousand weighted km, and standard deviation of its logarithm. */
  readonly life: number
  readonly lifeSd: number
  readonly gamma: number
  readonly gammaSd: number
}

/**
 * The prior assumed for a care before anything was learned.
 *
 * @param defaults the shop's own values, or the shipped ones
 */
export function shippedPrior(care: CareKind, defaults: WearPriorDefaults): WearPrior {
  const { life, gamma, gammaSd } = defaults.priors[care]
  return { life, gamma, gammaSd, lifeSd: defaults.lifeSd }
}
