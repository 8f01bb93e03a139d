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
  /** Chains that ran on the same sprockets before, or in turn. */
  readonly earlier: readonly EarlierChain[]
  readonly prices: WearPrices
}

/** What the worker is asked; `ask` names the answer. */
export interface ForecastAsked {
  readonly ask: number
  readonly input: ChainForecastInput
  readonly assumptions: AssumptionOverrides
  /** Where what waiting costs is wanted as well. */
  readonly costsFor: CostsFor | undefined
}

export interface ForecastAnswered {
  readonly ask: number
  readonly picture: ForecastPicture | null
  readonly costs: WearCosts | null
}

// The forecast while somebody types: off the main thread, so that no key waits for it.
self.onmessage = ({ data }: MessageEvent<ForecastAsked>) => {
  const { ask, input, assumptions, costsFor } = data
  const assumed = assumptionsWith(assumptions)
  self.postMessage({
    ask,
    picture: forecastPicture(input, assumed),
    costs: costsFor === undefined ? null : wearCosts(input, costsFor, assumed),
  } satisfies ForecastAnswered)
}
