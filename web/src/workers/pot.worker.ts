import { planPot, type PlannedPot, type PotInput } from '@pelrin/core'

export interface PotAsked {
  readonly ask: number
  readonly input: PotInput
}
export interface PotAnswered {
  readonly ask: number
  /** Whether nothing better comes: a good plan may be told before the best. */
  readonly last: boolean
  readonly planned: PlannedPot
}

// Looking through everything may take seconds: off the main thread, so that no timer stumbles, and a good plan is there before, so that no
// key waits for the best.
self.onmessage = ({ data: { ask, input } }: MessageEvent<PotAsked>) => {
  const tell = (planned: PlannedPot, last: boolean): void =>
    self.postMessage({ ask, last, planned } satisfies PotAnswered)
  tell(
    planPot(input, (good) => tell(good, false)),
    true,
  )
}
