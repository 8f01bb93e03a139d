import {
  assumptionsWith,
  forecastPicture,
  wearCosts,
  type AssumptionOverrides,
  type ChainForecastInput,
  type ForecastPicture,
  type WearCosts,
} from '@pelrin/core'

/** What the worker is asked; `ask` names the answer. */
export interface ForecastAsked {
  readonly ask: number
  readonly input: ChainForecastInput
  readonly assumptions: AssumptionOverrides | undefined
  /** The limit by speeds, where what waiting costs is wanted as well. */
  readonly bySpeeds: number | undefined
}

export interface ForecastAnswered {
  readonly ask: number
  readonly picture: ForecastPicture | null
  readonly costs: WearCosts | null
}

// The forecast while somebody types: off the main thread, so that no key waits for it.
self.onmessage = ({ data }: MessageEvent<ForecastAsked>) => {
  const { ask, input, assumptions, bySpeeds } = data
  const assumed = assumptionsWith(assumptions)
  self.postMessage({
    ask,
    picture: forecastPicture(input, assumed),
    costs: bySpeeds === undefined ? null : wearCosts(input, bySpeeds, assumed),
  } satisfies ForecastAnswered)
}
