import {
  DEFAULTS,
  distanceTo,
  shippedPrior,
  wearAt,
  type CareKind,
  type WearObservation,
  type WearStart,
} from '@pelrin/core'
import type { Chance } from '../../server/src/db/seed/random.ts'

/** How the simulated shop differs from what the model believes. */
export const GENERATORS = ['law', 'off-law', 'sparse', 'walk-in'] as const
export type Generator = (typeof GENERATORS)[number]

/** A chain whose wear is known, and what a shop would have read of it. Distances in thousand weighted km as recorded. */
export interface SimulatedChain {
  readonly care: CareKind
  readonly start: WearStart
  readonly limit: number
  /** True elongation at a recorded distance, %. */
  wear(s: number): number
  /** Recorded distance at which the limit is truly crossed; below 0 when it came in over it. */
  readonly crossing: number
  /** Readings at moments that do not depend on the truth. */
  readonly observations: readonly WearObservation[]
  /** Reads the chain anew, %. */
  read(s: number): number
}

const U = 0.05
const LAW_U = 0.02
const STRAY = 0.03
const READINGS = 6
/** A year's riding of a bike that comes in twice a year, as a share of the life assumed for its care. */
const SPARSE_STEP = 0.3

/** Draws a chain. @param lifeFactor its life against the prior's, for planting what is to be learned */
export function simulateChain(chance: Chance, generator: Generator, care: CareKind, lifeFactor = 1): SimulatedChain {
  const prior = shippedPrior(care, DEFAULTS.forecast)
  const epsilon0 = chance.normal(DEFAULTS.forecast.epsilon0, DEFAULTS.forecast.epsilon0U)
  const life = prior.life * lifeFactor * Math.exp(chance.normal(0, prior.lifeSd))
  const gamma = Math.min(2.5, Math.max(0.8, chance.normal(prior.gamma, prior.gammaSd)))
  const law = { epsilon0, life, gamma }
  const limit = chance.happens(0.5) ? 0.5 : 0.75
  const stretch = prior.life * (limit / 0.5)
  const before = generator === 'walk-in' ? chance.between(0, DEFAULTS.forecast.unknownLives) * prior.life : 0
  const off = generator === 'off-law' ? chance.whole(0, 3) : -1

  let wear = (s: number): number => wearAt(before + s, law)
  let crossing = distanceTo(limit, law) - before
  let bias = 0
  let marks: readonly number[] | null = null
  if (off === 0) {
    // A drop-in gauge that reads late by less than its u twice over.
    marks = [0.25, 0.5, 0.75]
    bias = chance.between(0.02, 0.08)
  } else if (off === 1) {
    // Some months of sand that nobody wrote down: a stretch wears twice as fast.
    const from = chance.between(0.1, 0.6) * life
    const length = chance.between(0.1, 0.3) * life
    const worn = (s: number): number => s + Math.min(length, Math.max(0, s - from))
    wear = (s) => wearAt(worn(s), law)
    crossing = inverse(wear, limit)
  } else if (off === 2) {
    // Another chain hung in its place, and nobody said so.
    const at = chance.between(0.2, 0.7) * life
    const other = { ...law, life: prior.life * Math.exp(chance.normal(0, prior.lifeSd)) }
    const run = chance.between(0, 0.5) * life
    wear = (s) => (s < at ? wearAt(s, law) : wearAt(s - at + run, other))
    crossing = inverse((s) => wear(Math.max(at, s)), limit)
  } else if (off === 3) {
    // Two regimes: from some wear on it goes half as fast again.
    const bend = chance.between(0.4, 0.8) * distanceTo(limit, law)
    wear = (s) => wearAt(s <= bend ? s : bend + 1.5 * (s - bend), law)
    crossing = inverse(wear, limit)
  }
  if (generator === 'sparse') marks = [0.25, 0.5, 0.75]

  const read = (s: number): number => {
    // As the model has it: the law itself is off by a little at every reading.
    const u = Math.hypot(chance.happens(STRAY) ? 5 * U : U, LAW_U)
    return wear(s) + chance.normal(0, u) - bias
  }
  const observe = (s: number): WearObservation => {
    const value = read(s)
    if (marks === null) return { s, value, u: U }
    const over = marks.filter((mark) => value > mark).at(-1)
    const under = marks.find((mark) => value <= mark)
    return { s, u: U, ...(over === undefined ? {} : { over }), ...(under === undefined ? {} : { under }) }
  }
  const observations: WearObservation[] = []
  let s = generator === 'walk-in' ? 0 : chance.between(0.08, 0.3) * stretch
  for (let i = 0; i < READINGS; i++) {
    observations.push(observe(s))
    s += (generator === 'sparse' ? SPARSE_STEP * chance.between(0.7, 1.3) : chance.between(0.08, 0.25)) * stretch
  }
  return { care, start: generator === 'walk-in' ? 'unknown' : 'fitted', limit, wear, crossing, observations, read }
}

/** Where a rising function reaches a value. */
function inverse(of: (s: number) => number, value: number): number {
  let low = 0
  let high = 200
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (of(middle) < value) low = middle
    else high = middle
  }
  return high
}
