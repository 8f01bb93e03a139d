import { DEFAULTS, PITCH_MM } from '../defaults.ts'
import { elongationFromSpan } from './elongation.ts'

/** A count a length can be, with the elongation it would mean. */
export interface PitchCandidate {
  readonly pitches: number
  /** % of nominal pitch. */
  readonly elongation: number
}

/** A length whose count was left out. */
export interface UncountedLength {
  /** Between pin centres, mm. */
  readonly lengthMm: number
  /** True to consider even counts only. */
  readonly wholeLinks: boolean
}

/** {@link countsWithin} between the shipped bounds, −0.2 % and 2.5 %: the reference. The product asks with the shop's own. */
export const pitchCandidates = (query: UncountedLength): PitchCandidate[] => countsWithin(query, DEFAULTS.measuring)

/**
 * Every count of pitches a length can be, when the count was left out.
 *
 * A count is possible when the elongation it means lies within the bounds, %. The nearest whole number would be wrong
 * for long runs: 60 whole links worn 0.9 % are nearer to 61 unworn.
 *
 * @returns ascending by count; empty when no count fits, or the length is not above 0
 */
export function countsWithin(
  { lengthMm, wholeLinks }: UncountedLength,
  { candidateLowest, candidateHighest }: { readonly candidateLowest: number; readonly candidateHighest: number },
): PitchCandidate[] {
  if (!(lengthMm > 0) || !Number.isFinite(lengthMm)) return []
  const step = wholeLinks ? 2 : 1
  const fewest = lengthMm / PITCH_MM / (1 + candidateHighest / 100)
  const most = lengthMm / PITCH_MM / (1 + candidateLowest / 100)
  const found: PitchCandidate[] = []
  // One step wider on both sides: the exact test below decides, not the rounding of the bounds.
  const first = Math.max(step, (Math.floor(fewest / step) - 1) * step)
  for (let pitches = first; pitches <= most + step; pitches += step) {
    const elongation = elongationFromSpan({ lengthMm, pitches })
    if (elongation >= candidateLowest && elongation <= candidateHighest) found.push({ pitches, elongation })
  }
  return found
}

/** The even counts next below and above a length, for saying what a length that fits no count lies between. */
export function neighbouringCounts(lengthMm: number): { below: PitchCandidate | null; above: PitchCandidate } {
  const belowPitches = Math.floor(lengthMm / PITCH_MM / 2) * 2
  const candidate = (pitches: number): PitchCandidate => ({
    pitches,
    elongation: elongationFromSpan({ lengthMm, pitches }),
  })
  return { below: belowPitches >= 2 ? candidate(belowPitches) : null, above: candidate(belowPitches + 2) }
}
