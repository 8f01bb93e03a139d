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

/** What the worker is told: the catalogue once a change of it, then questions; `ask` names the answer. */
export type PartsTold =
  | { readonly kind: 'catalogue'; readonly catalogue: Catalogue }
  | {
      readonly kind: 'question'
      readonly ask: number
      readonly bike: BikeForParts
      readonly asked: AskedOfBike
      readonly assumptions: AssumptionOverrides
    }

export interface PartsAnswered {
  readonly ask: number
  readonly match: BikeMatch & { readonly pitches: number | null }
}

let catalogue: Catalogue = { chains: [], joints: [] }

// Matching off the main thread: a catalogue of ten thousand parts holds up no key.
self.onmessage = ({ data }: MessageEvent<PartsTold>) => {
  if (data.kind === 'catalogue') {
    catalogue = data.catalogue
    return
  }
  const { question, pitches } = bikeQuestion(data.bike, data.asked, assumptionsWith(data.assumptions))
  self.postMessage({
    ask: data.ask,
    match: { ...matchForBike(question, withOwn(catalogue, data.bike.kept?.lines ?? [])), pitches },
  } satisfies PartsAnswered)
}
