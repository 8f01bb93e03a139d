import type { Assumptions } from '../assumptions.ts'
import { TREATMENTS, type Treatment } from '../care/careSteps.ts'
import { usualRhythm } from '../care/usualRhythm.ts'
import type { WearPrices } from './prices.ts'

/** Days of a year. */
const YEAR = 365

/** How a bike is ridden, and what its parts and hours cost. */
export interface CareCostsAsked {
  readonly kmPerDay: number
  /** Weighted km a real one is, for wear. */
  readonly wearFactor: number
  /** Dry km a real one uses up of a treatment. */
  readonly careFactor: number
  /** The limit by which its chain is changed, %. */
  readonly limit: number
  /** In the shop's money. */
  readonly prices: WearPrices
  /** Standard minutes of one treatment. */
  readonly minutes: Readonly<Record<Treatment, number>>
}

/** What a year of one way of care comes to. */
export interface CareCosts {
  readonly care: Treatment
  readonly treatments: number
  /** Chains it takes, and the cassettes that go with them, changed in time. */
  readonly chains: number
  readonly cassettes: number
  readonly minutes: number
  /** In the shop's money: wear is chains and cassettes, product what goes on, labour the minutes at the stand. */
  readonly wear: number
  readonly product: number
  readonly labour: number
}

/**
 * What each way of care comes to in a year of this riding: the chains and cassettes it wears, what goes on them, and the time it takes. By the
 * usual life of a chain under that care, not by what this chain was measured to do: the others were never tried on it.
 *
 * A chain's life to a limit L other than 0.5 % is its life to 0.5 % times (L / 0.5)^(1/γ), by the wear law.
 *
 * @throws RangeError for riding of less than nothing, or a limit of nothing
 */
export function careCosts(asked: CareCostsAsked, assumed: Assumptions): CareCosts[] {
  const { kmPerDay, wearFactor, careFactor, limit, prices, minutes } = asked
  if (!(kmPerDay >= 0)) throw new RangeError('nobody rides less than nothing')
  if (!(limit > 0)) throw new RangeError('a chain is changed at some wear')
  const weighted = (kmPerDay * YEAR * wearFactor) / 1000
  return TREATMENTS.map((care) => {
    const { life, gamma } = assumed.forecast.priors[care]
    const chains = weighted / (life * (limit / 0.5) ** (1 / gamma))
    const cassettes = chains / assumed.economics.chainsOutlived
    const treatments = YEAR / usualRhythm(assumed.care[care], kmPerDay, careFactor)
    const spent = treatments * minutes[care]
    return {
      care,
      treatments,
      chains,
      cassettes,
      minutes: spent,
      wear: chains * prices.chain + cassettes * prices.cassette,
      product: treatments * assumed.care[care].product,
      labour: (spent / 60) * assumed.jobs.hourPrice,
    }
  })
}

/** What a year comes to in all: with the shop's time, or without where it is done at home. */
export const yearOf = ({ wear, product, labour }: CareCosts, atHome: boolean): number =>
  wear + product + (atHome ? 0 : labour)
