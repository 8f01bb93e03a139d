import {
  DEFAULTS,
  distanceTo,
  shippedPrior,
  wearAt,
  type CareKind,
  type WearObservation,
  type WearParameters,
  type WearStart,
} from '@pelrin/core'
import type { Chance } from '../../server/src/demo/random.ts'
import { secondTruth } from './secondTruth.ts'
import { toolNamed, type ToolName } from './tools.ts'

/** How the simulated shop differs from what the model believes. */
export const GENERATORS = [
  'law',
  'walk-in',
  'sparse',
  'inch-rule',
  'half-mm-rule',
  'two-marks',
  'off-law',
  'second-truth',
] as const
export type Generator = (typeof GENERATORS)[number]

/** What its chains are read with. */
export const TOOL_OF: Readonly<Record<Generator, ToolName>> = {
  law: 'fine',
  'walk-in': 'fine',
  sparse: 'three-marks',
  'inch-rule': 'inch-rule',
  'half-mm-rule': 'half-mm-rule',
  'two-marks': 'two-marks',
  'off-law': 'fine',
  'second-truth': 'fine',
}

/** A chain whose wear is known, and what a shop would have read of it. Distances in thousand weighted km as recorded. */
export interface SimulatedChain {
  readonly care: CareKind
  readonly start: WearStart
  readonly limit: number
  /** True elongation of its worst place at a recorded distance, %. */
  readonly wear: (s: number) => number
  /** Recorded distance at which the limit is truly crossed; below 0 when it came in over it. */
  readonly crossing: number
  /** What eight places round it have worn, as shares of the worst. */
  readonly places: readonly number[]
  /** Readings at moments that do not depend on the truth: of the worst place. */
  readonly observations: readonly WearObservation[]
}

const READINGS = 6
const PLACES = 8
/** How unevenly chains wear, share of their wear. */
const UNEVEN = 0.08
/** A year's riding of a bike that comes in twice a year, as a share of the life assumed for its care. */
const SPARSE_STEP = 0.3

/** Draws a chain. @param lifeFactor its life against the prior's, for planting what is to be learned */
export function simulateChain(chance: Chance, generator: Generator, care: CareKind, lifeFactor = 1): SimulatedChain {
  const prior = shippedPrior(care, DEFAULTS.forecast)
  const draw = (): WearParameters => ({
    epsilon0: chance.normal(DEFAULTS.forecast.epsilon0, DEFAULTS.forecast.epsilon0U),
    life: prior.life * lifeFactor * Math.exp(chance.normal(0, prior.lifeSd)),
    gamma: Math.min(2.5, Math.max(0.8, chance.normal(prior.gamma, prior.gammaSd))),
  })
  const law = draw()
  const { life } = law
  const limit = chance.happens(0.5) ? 0.5 : 0.75
  const stretch = prior.life * (limit / 0.5)
  const walkedIn = generator === 'walk-in'
  const before = walkedIn ? chance.between(0, DEFAULTS.forecast.unknownLives) * prior.life : 0
  const off = generator === 'off-law' ? chance.whole(0, 3) : -1

  let wear = (s: number): number => wearAt(before + s, law)
  let crossing = distanceTo(limit, law) - before
  let bias = 0
  let tool = TOOL_OF[generator]
  if (generator === 'second-truth') {
    const worn = secondTruth(chance, care, draw)
    wear = worn.wear
    crossing = crossingOf(wear, limit, worn.changedAt)
  } else if (off === 0) {
    // A drop-in gauge that reads late by less than its u twice over.
    tool = 'three-marks'
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
    crossing = crossingOf(wear, limit, at)
  } else if (off === 3) {
    // Two regimes: from some wear on it goes half as fast again.
    const bend = chance.between(0.4, 0.8) * distanceTo(limit, law)
    wear = (s) => wearAt(s <= bend ? s : bend + 1.5 * (s - bend), law)
    crossing = inverse(wear, limit)
  }

  const observations: WearObservation[] = []
  let s = walkedIn ? 0 : chance.between(0.08, 0.3) * stretch
  for (let i = 0; i < READINGS; i++) {
    observations.push({ s, ...toolNamed[tool].read(chance, wear(s), bias) })
    s += (generator === 'sparse' ? SPARSE_STEP * chance.between(0.7, 1.3) : chance.between(0.08, 0.25)) * stretch
  }
  return { care, start: walkedIn ? 'unknown' : 'fitted', limit, wear, crossing, places: placesOf(chance), observations }
}

function placesOf(chance: Chance): number[] {
  const places = Array.from({ length: PLACES }, () => chance.normal(1, UNEVEN))
  const worst = Math.max(...places)
  return places.map((one) => one / worst)
}

/** Where wear crosses a limit: of the chain that was on when it did, where one was changed on the way. */
function crossingOf(wear: (s: number) => number, limit: number, changedAt: number | null): number {
  if (changedAt === null) return inverse(wear, limit)
  const before = inverse((s) => wear(Math.min(s, changedAt - 1e-9)), limit)
  return before < changedAt ? before : inverse((s) => wear(Math.max(s, changedAt)), limit)
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
