import { DEFAULTS } from '../defaults.ts'
import type { Assumptions } from '../assumptions.ts'
import { chainForecast, type ChainForecastInput } from '../forecast/chainForecast.ts'
import { sprocketLife, type SprocketLife } from './sprockets.ts'
import { costOfWaiting, type CostOfWaiting } from './waiting.ts'

/** What a chain's wear does to what it runs on, and what waiting costs. */
export interface WearCosts {
  /** The limit by speeds it was worked out for, %. */
  readonly bySpeeds: number
  readonly sprockets: SprocketLife
  readonly waiting: CostOfWaiting
}

/**
 * Works both out from what a forecast rests on.
 *
 * @param bySpeeds the limit by speeds of the drive's class, %, whatever rule judges the chain
 * @returns null where no forecast can be made, or none is shown
 */
export function wearCosts(
  input: ChainForecastInput,
  bySpeeds: number,
  assumed: Assumptions = DEFAULTS,
): WearCosts | null {
  const fitted = chainForecast(input, assumed)
  if (fitted?.forecast.withheld !== null) return null
  const { posterior, forecast } = fitted
  const { usualFactor } = input.life
  return {
    bySpeeds,
    sprockets: sprocketLife(posterior, { limit: bySpeeds, sNow: forecast.sNow }, assumed.economics),
    waiting: costOfWaiting(posterior, { limit: bySpeeds, sNow: forecast.sNow, usualFactor }, assumed.economics),
  }
}
