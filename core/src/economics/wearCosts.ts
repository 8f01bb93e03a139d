import type { Assumptions } from '../assumptions.ts'
import { chainForecast, type ChainForecastInput } from '../forecast/chainForecast.ts'
import type { WearPosterior } from '../forecast/fitWear.ts'
import type { WearPrices } from './prices.ts'
import { sprocketLife, sprocketsUnder, type SprocketLife } from './sprockets.ts'
import { costOfWaiting, type CostOfWaiting } from './waiting.ts'

/** What a chain's wear does to what it runs on, and what waiting costs. */
export interface WearCosts {
  /** The limit by speeds it was worked out for, %. */
  readonly bySpeeds: number
  /** What this chain did to the sprockets. */
  readonly sprockets: SprocketLife
  /** What it and those before it did together, and how many of those could be told of. */
  readonly together: SprocketLife & { readonly chains: number; readonly untold: number }
  readonly waiting: CostOfWaiting
}

/** A chain that ran on the same sprockets, as it was when it came off. */
export type EarlierChain = Omit<ChainForecastInput, 'limit'> & {
  /** Where it was when the cassette that is on was fitted, thousand weighted km; 0 for a younger chain. */
  readonly sFrom: number
}

/**
 * Works both out from what a forecast rests on.
 *
 * @param on `bySpeeds` the limit by speeds of the drive's class, %, whatever rule judges the chain; `prices` of what it
 *   wears; `sFrom` where this chain was when the cassette was fitted, thousand weighted km; `earlier` chains that ran on the same sprockets before or in turn, each as it was when it came off
 * @returns null where no forecast can be made, or none is shown
 */
export function wearCosts(
  input: ChainForecastInput,
  {
    bySpeeds,
    prices,
    sFrom,
    earlier,
  }: {
    readonly bySpeeds: number
    readonly prices: WearPrices
    readonly sFrom: number
    readonly earlier: readonly EarlierChain[]
  },
  assumed: Assumptions,
): WearCosts | null {
  const fitted = chainForecast(input, assumed)
  if (fitted?.forecast.withheld !== null) return null
  const { posterior, forecast } = fitted
  const { usualFactor } = input.life
  const lifeUnder = (posterior: WearPosterior, from: number, sNow: number): SprocketLife =>
    sprocketLife(posterior, { limit: bySpeeds, sFrom: Math.min(from, sNow), sNow }, assumed.economics)
  const sprockets = lifeUnder(posterior, sFrom, forecast.sNow)
  const told = earlier.flatMap((chain) => {
    const before = chainForecast({ ...chain, limit: bySpeeds }, assumed)
    return before?.forecast.withheld === null ? [lifeUnder(before.posterior, chain.sFrom, before.forecast.sNow)] : []
  })
  return {
    bySpeeds,
    sprockets,
    together: {
      ...sprocketsUnder([sprockets, ...told]),
      chains: told.length + 1,
      untold: earlier.length - told.length,
    },
    waiting: costOfWaiting(posterior, { limit: bySpeeds, sNow: forecast.sNow, usualFactor, prices }, assumed.economics),
  }
}
