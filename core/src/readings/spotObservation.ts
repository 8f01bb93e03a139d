interface Shared {
  /** A named place round the chain. Observations of one place tell of one elongation. */
  readonly place?: string | number
  /** Which instrument saw it: those of one instrument share its bias. */
  readonly instrument?: string
  /** Standard uncertainty of that instrument's bias, %; 0 unless given. */
  readonly biasU?: number
}

/** A spot's elongation and its standard uncertainty, both %. */
export interface PointSpot extends Shared {
  readonly value: number
  readonly u: number
  /** True for a whole chain's length: it tells of the chain's mean, not of any one spot. */
  readonly wholeChain?: boolean
}

/** A gauge's marks: the spot is over those that went in and under those that stayed out; u of a mark, %. */
export interface IntervalSpot extends Shared {
  readonly over?: number
  readonly under?: number
  readonly u: number
}

export type SpotObservation = PointSpot | IntervalSpot

export const isPoint = (spot: SpotObservation): spot is PointSpot => 'value' in spot
