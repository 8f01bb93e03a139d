import { planPot, type PlannedPot, type PotInput } from '@pelrin/core'

export interface PotAsked {
  readonly ask: number
  readonly input: PotInput
}
export interface PotAnswered {
  readonly ask: number
  /** Of two answers: a good plan, then the best there is. */
  readonly effort: 'quick' | 'whole'
  readonly planned: PlannedPot
}

// Looking through everything may take a second: off the main thread, so that no timer stumbles, and a good plan is there at once, so that
// no key waits for the best.
self.onmessage = ({ data: { ask, input } }: MessageEvent<PotAsked>) => {
  for (const effort of ['quick', 'whole'] as const)
    self.postMessage({ ask, effort, planned: planPot(input, effort) } satisfies PotAnswered)
}
