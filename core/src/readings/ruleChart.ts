import { MM_PER_INCH } from '../defaults.ts'
import { spanAtElongation } from './elongation.ts'

/** An inch fraction nearest to a length. */
export interface NearestFraction {
  /** Steps of 1/denominator inch. */
  readonly steps: number
  readonly denominator: 16 | 32
  /** How much longer the fraction is than the length, mm, and what that is in elongation over the run, %. */
  readonly offMm: number
  readonly offPercent: number
}

/** The length a run has at one wear step. */
export interface ChartCell {
  readonly elongation: number
  readonly lengthMm: number
  readonly inches: number
  readonly sixteenths: NearestFraction
  readonly thirtySeconds: NearestFraction
}

export interface ChartRow {
  readonly pitches: number
  readonly cells: readonly ChartCell[]
}

/**
 * What a rule shows over each count at each step of wear.
 *
 * @param query `counts` in pitches, whole numbers from 1; `steps` of elongation, %
 * @returns a row a count and a cell a step, both in the order given
 * @throws RangeError for a count that is none
 */
export function ruleChart({ counts, steps }: { counts: readonly number[]; steps: readonly number[] }): ChartRow[] {
  return counts.map((pitches) => {
    if (!Number.isInteger(pitches) || pitches < 1) throw new RangeError('counts are whole numbers from 1')
    return {
      pitches,
      cells: steps.map((elongation) => {
        const lengthMm = spanAtElongation({ pitches, elongation })
        return {
          elongation,
          lengthMm,
          inches: lengthMm / MM_PER_INCH,
          sixteenths: nearest(lengthMm, pitches, 16),
          thirtySeconds: nearest(lengthMm, pitches, 32),
        }
      }),
    }
  })
}

function nearest(lengthMm: number, pitches: number, denominator: 16 | 32): NearestFraction {
  const steps = Math.round((lengthMm / MM_PER_INCH) * denominator)
  const offMm = (steps * MM_PER_INCH) / denominator - lengthMm
  return { steps, denominator, offMm, offPercent: (100 * offMm) / spanAtElongation({ pitches, elongation: 0 }) }
}
