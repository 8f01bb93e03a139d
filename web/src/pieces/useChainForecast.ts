import {
  assumptionsWith,
  driveClassOf,
  pricesOf,
  SHIPPED_RULES,
  type ChainForecastInput,
  type EarlierChain,
} from '@pelrin/core'
import type { BikeRecord } from '@pelrin/contract'
import { useForecast, type LiveForecast } from '../workers/useForecast.ts'
import { ownPricesOf } from './ownPricesOf.ts'
import { forecastInput } from './forecastInput.ts'

/** The forecast of the chain on a bike, with what it rests on. */
export interface ChainForecastShown extends LiveForecast {
  readonly input: ChainForecastInput | null
}

/**
 * Works out the forecast of the chain on a bike as its record stands: once for everything on a screen that shows it.
 *
 * @param withCosts whether what waiting costs is shown as well
 */
export function useChainForecast(record: BikeRecord | undefined, withCosts = false): ChainForecastShown {
  const given = record?.verdictInput ?? null
  const input = forecastInput(given)
  const costsFor =
    record && given && withCosts
      ? {
          bySpeeds: SHIPPED_RULES[0].limits[driveClassOf(given.drive)].change,
          sFrom: record.sprocketsFrom,
          earlier: record.earlierChains as EarlierChain[],
          prices: pricesOf(ownPricesOf(record), assumptionsWith(record.assumptions).economics),
        }
      : undefined
  return { input, ...useForecast(input, record?.assumptions ?? {}, costsFor) }
}
