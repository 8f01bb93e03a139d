import { assumptionsWith, forecastPicture, type AssumptionOverrides, type ChainForecastInput } from '@pelrin/core'

/** What the worker is asked; `ask` names the answer. */
export interface ForecastAsked {
  readonly ask: number
  readonly input: ChainForecastInput
  readonly assumptions: AssumptionOverrides | undefined
}

// The forecast while somebody types: off the main thread, so that no key waits for it.
self.onmessage = ({ data }: MessageEvent<ForecastAsked>) => {
  const { ask, input, assumptions } = data
  self.postMessage({ ask, picture: forecastPicture(input, assumptionsWith(assumptions)) })
}
