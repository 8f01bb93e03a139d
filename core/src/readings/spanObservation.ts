import type { Explanation } from '../explanation.ts'
import { PITCH_MM } from '../defaults.ts'
import { elongationFromSpan } from './elongation.ts'

/** A length read on a rule or caliper, as an elongation with its uncertainty. */
export interface SpanObservation {
  /** % of nominal pitch, the instrument's bias already subtracted. */
  readonly value: number
  /** Standard uncertainty, %. The shared part of the bias is not in it. */
  readonly u: number
  /** An odd count mixes a half of wear that shows with one that does not. */
  readonly oddCount: boolean
  readonly explanation: Explanation
  readonly uExplanation: Explanation
}

/**
 * What a measured length says of the chain.
 *
 * u in % is 100 × u_mm / (n × 12.7). All wear shows across inner links and none across outer plates, so an odd
 * count is wrong by a factor 1 ± 1/n: it is kept, flagged, and |ε|/n is added to its u by root sum of squares.
 *
 * @param span `lengthMm` between pin centres, mm; `pitches` in it; `uMm` of the length, mm;
 *   `bias` of the instrument, %, positive when it reads too much
 * @throws RangeError as {@link elongationFromSpan}
 */
export function spanObservation({
  lengthMm,
  pitches,
  uMm,
  bias = 0,
}: {
  lengthMm: number
  pitches: number
  uMm: number
  bias?: number
}): SpanObservation {
  const raw = elongationFromSpan({ lengthMm, pitches })
  const value = raw - bias
  const oddCount = pitches % 2 === 1
  const lengthU = (100 * uMm) / (pitches * PITCH_MM)
  const oddU = oddCount ? Math.abs(value) / pitches : 0
  const u = Math.hypot(lengthU, oddU)
  const explanation: Explanation = {
    rule: 'elongation-from-span',
    inputs: [
      { symbol: 'L', meaning: 'measured-length', value: lengthMm, unit: 'mm' },
      { symbol: 'n', meaning: 'pitch-count', value: pitches, unit: 'pitches' },
      { symbol: 'p', meaning: 'nominal-pitch', value: PITCH_MM, unit: 'mm' },
      ...(bias === 0 ? [] : [{ symbol: 'b', meaning: 'instrument-bias', value: bias, unit: '%' } as const]),
    ],
    formula: bias === 0 ? 'ε = 100 × (L − n·p) / (n·p)' : 'ε = 100 × (L − n·p) / (n·p) − b',
    result: { value, unit: '%' },
  }
  const uExplanation: Explanation = {
    rule: oddCount ? 'uncertainty-of-odd-span' : 'uncertainty-of-span',
    inputs: [
      { symbol: 'uL', meaning: 'length-uncertainty', value: uMm, unit: 'mm' },
      { symbol: 'n', meaning: 'pitch-count', value: pitches, unit: 'pitches' },
      { symbol: 'p', meaning: 'nominal-pitch', value: PITCH_MM, unit: 'mm' },
      ...(oddCount ? [{ symbol: 'ε', meaning: 'elongation', value, unit: '%' } as const] : []),
    ],
    formula: oddCount ? 'u = √((100 × uL / (n·p))² + (ε / n)²)' : 'u = 100 × uL / (n·p)',
    result: { value: u, unit: '%' },
  }
  return { value, u, oddCount, explanation, uExplanation }
}

/**
 * How far off a length is read, mm, of how far off the elongation it gives is, %.
 *
 * @param pitches what was read over
 */
export const spanUMm = (u: number, pitches: number): number => (u * pitches * PITCH_MM) / 100
