import { chainForecast, DEFAULTS } from '@pelrin/core'
import { benchChains } from './chains.ts'

/** Forecasts so many chains; run in a worker thread. */
export default function forecastTask({ count, seed }: { count: number; seed: number }): number {
  let shown = 0
  for (const chain of benchChains(count, seed)) if (chainForecast(chain, DEFAULTS)?.forecast.withheld === null) shown++
  return shown
}
