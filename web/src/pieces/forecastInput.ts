import { driveClassOf, limitsFor, type ChainForecastInput, type ForecastReading } from '@pelrin/core'
import type { BikeRecord } from '@pelrin/contract'

/** What a forecast of the chain on a bike rests on; null where no chain is fitted. */
export function forecastInput(input: BikeRecord['verdictInput']): ChainForecastInput | null {
  if (!input?.life) return null
  const { countChangedAt } = input.chain
  return {
    readings: input.readings as ForecastReading[],
    life: input.life,
    limit: limitsFor(input.rule, driveClassOf(input.drive)).change,
    ...(countChangedAt === undefined ? {} : { countChangedAt }),
  }
}
