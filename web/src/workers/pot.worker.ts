import { expose } from 'comlink'
import { planPot, type PlannedPot, type PotInput } from '@pelrin/core'

// Looking through everything may take seconds: off the main thread, so that no timer stumbles.
const planning = {
  /** @param meanwhile is given a good plan on the way, so that no key waits for the best */
  plan(input: PotInput, meanwhile: (good: PlannedPot) => void): PlannedPot {
    return planPot(input, meanwhile)
  },
}
export type Planning = typeof planning

expose(planning)
