import { planPot, type PlannedPot, type PotInput } from '@pelrin/core'

export interface PotAsked {
  readonly ask: number
  readonly input: PotInput
}
export interface PotAnswered {
  readonly ask: number
  readonly planned: PlannedPot
}

// Forty chains take some tenths of a second: off the main thread, so that no timer stumbles.
self.onmessage = ({ data: { ask, input } }: MessageEvent<PotAsked>) => {
  self.postMessage({ ask, planned: planPot(input) } satisfies PotAnswered)
}
