import { PITCH_MM } from '../defaults.ts'

/**
 * Elongation of a measured run of chain.
 *
 * @param span `lengthMm` between two pin centres, mm, above 0; `pitches` in it, a whole number above 0
 * @returns % of nominal pitch, negative for a run shorter than nominal
 * @throws RangeError when the length is not above 0 or the count not a whole number above 0
 *
 * 100 × (L − n × 12.7) / (n × 12.7)
 */
export function elongationFromSpan({ lengthMm, pitches }: { lengthMm: number; pitches: number }): number {
  if (!(lengthMm > 0) || !Number.isFinite(lengthMm)) throw new RangeError('lengthMm must be above 0')
  if (!Number.isInteger(pitches) || pitches < 1) throw new RangeError('pitches must be a whole number above 0')
  const nominalMm = pitches * PITCH_MM
  return (100 * (lengthMm - nominalMm)) / nominalMm
}

/**
 * The length a run of so many pitches has at a given elongation, mm. Inverse of {@link elongationFromSpan}.
 */
export function spanAtElongation({ pitches, elongation }: { pitches: number; elongation: number }): number {
  return pitches * PITCH_MM * (1 + elongation / 100)
}
