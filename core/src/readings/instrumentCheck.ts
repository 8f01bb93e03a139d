import type { Assumptions } from '../assumptions.ts'
import type { Explanation } from '../explanation.ts'
import { marksTyped } from './gaugeMarks.ts'
import { entryForm } from './instrumentKinds.ts'
import { scaleU, type InstrumentRecord } from './instrumentRecord.ts'
import { observeSpot, type SpotProblem } from './observeSpot.ts'

/** One place of a reference strip (or of a chain measured by a better instrument) and what the instrument showed. */
export interface CheckPair {
  /** What is truly there, %. */
  readonly reference: number
  /** As typed for any reading of this instrument. */
  readonly typed: string
  /** Pitches, for lengths. */
  readonly pitches?: number
}

/** Whether an instrument tells wear when it is there: `late` shows too little, `early` too much. */
export const READS = ['true', 'early', 'late'] as const
export type Reads = (typeof READS)[number]
export interface CheckOutcome {
  /** What it reads too much, %, and the standard uncertainty of that. */
  readonly bias: number
  readonly biasU: number
  readonly reads: Reads
  readonly explanation: Explanation
  /** And why its uncertainty is what it is. */
  readonly uExplanation: Explanation
}

export type CheckProblem = SpotProblem | 'reference-range' | 'check-empty' | 'check-undecided' | 'check-contradicts'

export type CheckResult =
  | { readonly ok: true; readonly outcome: CheckOutcome }
  | { readonly ok: false; readonly at: number | null; readonly problem: CheckProblem }

/** A bias of more than this many of its own u is no chance. */
const CERTAIN = 2

/**
 * What a check against known places says of an instrument.
 *
 * Values: the mean of shown less true. Marks: each lies between the largest wear it stayed out of and the smallest
 * it went into; the middle of that, with half its width over √3 as u, is where the mark truly is.
 *
 * @param check `pairs`, at least one; `referenceU` of the known places, %, shared by all of them
 */
export function checkInstrument({
  record,
  pairs,
  referenceU,
  assumed,
}: {
  record: InstrumentRecord
  pairs: readonly CheckPair[]
  referenceU: number
  assumed: Assumptions
}): CheckResult {
  if (pairs.length === 0) return { ok: false, at: null, problem: 'check-empty' }
  const wrong = pairs.findIndex(({ reference }) => !(reference >= -0.5 && reference <= 3))
  if (wrong >= 0) return { ok: false, at: wrong, problem: 'reference-range' }
  const found =
    entryForm(record.kind) === 'marks' ? biasOfMarks(record, pairs, assumed) : biasOfValues(record, pairs, assumed)
  if (!found.ok) return found
  const biasU = Math.hypot(found.u, referenceU)
  const { bias } = found
  return {
    ok: true,
    outcome: {
      bias,
      biasU,
      reads: bias > CERTAIN * biasU ? 'early' : bias < -CERTAIN * biasU ? 'late' : 'true',
      explanation: {
        rule: entryForm(record.kind) === 'marks' ? 'bias-of-marks' : 'bias-of-values',
        inputs: [
          { symbol: 'n', meaning: 'places-checked', value: pairs.length, unit: 'spots' },
          { symbol: 'y', meaning: 'mean-shown', value: found.shown, unit: '%' },
          { symbol: 't', meaning: 'mean-true', value: found.truth, unit: '%' },
        ],
        formula: 'b = y − t',
        result: { value: bias, unit: '%' },
      },
      uExplanation: {
        rule: 'uncertainty-of-check',
        inputs: [
          { symbol: 'uS', meaning: 'spread-of-check', value: found.u, unit: '%' },
          { symbol: 'uR', meaning: 'reference-uncertainty', value: referenceU, unit: '%' },
        ],
        formula: 'u = √(uS² + uR²)',
        result: { value: biasU, unit: '%' },
      },
    },
  }
}

type Found =
  | {
      readonly ok: true
      readonly bias: number
      readonly u: number
      /** Means of what it showed and of what was truly there, %. */
      readonly shown: number
      readonly truth: number
    }
  | Extract<CheckResult, { ok: false }>

const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length

function biasOfValues(record: InstrumentRecord, pairs: readonly CheckPair[], assumed: Assumptions): Found {
  const shown: number[] = []
  let readU = 0
  for (const [at, { typed, pitches }] of pairs.entries()) {
    const seen = observeSpot({
      record: { ...record, bias: 0 },
      entry: { typed, ...(pitches === undefined ? {} : { pitches }) },
      assumed,
    })
    if (!seen.ok) return { ok: false, at, problem: seen.problem }
    // Past the end of a scale there is no number to compare.
    if (seen.observed.value === undefined) return { ok: false, at, problem: 'check-undecided' }
    shown.push(seen.observed.value)
    readU = Math.max(readU, seen.observed.u)
  }
  const truth = mean(pairs.map(({ reference }) => reference))
  return { ok: true, bias: mean(shown) - truth, u: readU / Math.sqrt(shown.length), shown: mean(shown), truth }
}

function biasOfMarks(record: InstrumentRecord, pairs: readonly CheckPair[], assumed: Assumptions): Found {
  const marks = record.marks ?? []
  const bounds = marks.map(() => ({ low: -Infinity, high: Infinity }))
  for (const [at, { reference, typed }] of pairs.entries()) {
    const seen = marksTyped(record.kind, typed, marks)
    if (!seen.ok) return { ok: false, at, problem: seen.problem }
    for (const [i, { state }] of seen.seen.entries()) {
      const bound = bounds[i]!
      if (state === 'out') bound.low = Math.max(bound.low, reference)
      else bound.high = Math.min(bound.high, reference)
    }
  }
  // Stayed out of more wear than it went into, by more than a mark is uncertain by: the check contradicts itself.
  if (bounds.some(({ low, high }) => low - high > 2 * scaleU(record, assumed)))
    return { ok: false, at: null, problem: 'check-contradicts' }
  const decided = bounds.flatMap(({ low, high }, i) =>
    Number.isFinite(low) && Number.isFinite(high)
      ? [{ mark: marks[i]!, truth: (low + high) / 2, u: Math.abs(high - low) / 2 / Math.sqrt(3) }]
      : [],
  )
  if (decided.length === 0) return { ok: false, at: null, problem: 'check-undecided' }
  const shown = mean(decided.map(({ mark }) => mark))
  const truth = mean(decided.map((one) => one.truth))
  return {
    ok: true,
    bias: shown - truth,
    shown,
    truth,
    u: Math.hypot(...decided.map((one) => one.u)) / decided.length,
  }
}
