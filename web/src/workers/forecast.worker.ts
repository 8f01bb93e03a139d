import { expose } from 'comlink'
import {
  assumptionsWith,
  forecastPicture,
  wearCosts,
  type AssumptionOverrides,
  type ChainForecastInput,
  type EarlierChain,
  type ForecastPicture,
  type WearCosts,
  type WearPrices,
} from '@pelrin/core'

/** What the cost of waiting rests on beside the forecast. */
export interface CostsFor {
  /** The limit by speeds, %. */
  readonly bySpeeds: number
  /** Where the chain was when the cassette was fitted, thousand weighted km. */
  readonly sFrom: number
  /** Chains that ran on the same sprockets before, or in turn. */
  readonly earlier: readonly EarlierChain[]
  readonly prices: WearPrices
}

/** What a forecast is made of. */
export interface ForecastAsked {
  readonly input: ChainForecastInput
  readonly assumptions: AssumptionOverrides
  /** Where what waiting costs is wanted as well. */
  readonly costsFor?: CostsFor
}

export interface ForecastAnswer {
  readonly picture: ForecastPicture | null
  readonly costs: WearCosts | null
}

// The forecast while somebody types: off the main thread, so that no key waits for it.
const forecasting = {
  foretell({ input, assumptions, costsFor }: ForecastAsked): ForecastAnswer {
    const assumed = assumptionsWith(assumptions)
    return {
      picture: forecastPicture(input, assumed),
      costs: costsFor === undefined ? null : wearCosts(input, costsFor, assumed),
    }
  },
}
export type Forecasting = typeof forecasting

expose(forecasting)
