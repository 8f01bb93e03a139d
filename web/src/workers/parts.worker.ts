import { expose } from 'comlink'
import {
  assumptionsWith,
  bikeQuestion,
  matchForBike,
  withOwn,
  type AskedOfBike,
  type AssumptionOverrides,
  type BikeForParts,
  type BikeMatch,
  type Catalogue,
} from '@pelrin/core'

/** What is asked of the catalogue for a bike. */
export interface PartsAsked {
  readonly bike: BikeForParts
  readonly asked: AskedOfBike
  readonly assumptions: AssumptionOverrides
}

let catalogue: Catalogue = { chains: [], joints: [] }

// Matching off the main thread: a catalogue of ten thousand parts holds up no key.
const matching = {
  /** Told once a change of it: it is far larger than any question. */
  take(next: Catalogue): void {
    catalogue = next
  },
  match({ bike, asked, assumptions }: PartsAsked): BikeMatch & { readonly pitches: number | null } {
    const { question, pitches } = bikeQuestion(bike, asked, assumptionsWith(assumptions))
    return { ...matchForBike(question, withOwn(catalogue, bike.kept?.lines ?? [])), pitches }
  },
}
export type Matching = typeof matching

expose(matching)
