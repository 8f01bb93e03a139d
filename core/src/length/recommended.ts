import type { Assumptions } from '../assumptions.ts'
import { loopPitches, type Loop } from './loop.ts'

export const SUSPENSIONS = ['rigid', 'hardtail', 'full'] as const
export type Suspension = (typeof SUSPENSIONS)[number]
/** The least even whole number that is not below a length. A hair over is rounding, not length. */
export const ceilEven = (pitches: number): number => 2 * Math.ceil((pitches - 1e-9) / 2) + 0

/** The greatest even whole number that is not above a length. */
export const floorEven = (pitches: number): number => 2 * Math.floor((pitches + 1e-9) / 2)

/**
 * How many pitches a derailleur drive needs: the loop over its largest ring and largest sprocket without the derailleur,
 * and the pitches to add, rounded up to an even count. The connecting link is among them.
 *
 * @param drive teeth of the largest ring and the largest sprocket; the chainstay at its longest; `addPitches` as the
 *   system and the frame want it, see {@link addedPitches}, with {@link pulleyPitches} unless they count already
 */
export const recommendedPitches = (drive: Loop & { readonly addPitches: number }): number =>
  ceilEven(loopPitches(drive) + drive.addPitches)

/** What the pitches to add follow from. */
export interface AddedFor {
  /** What the system's maker says for this frame, where the catalogue has it. */
  readonly stated?: number | null
  readonly rings: number
  readonly largestSprocket: number
  readonly suspension: Suspension
  /** How much longer the chainstay gets through the travel, mm; null where nobody knows. */
  readonly growthMm: number | null
}

/**
 * Pitches to add to the loop for a derailleur drive: its maker's figure, else 2; 4 with one ring and a largest sprocket of
 * 45 or more, and 2 more with full suspension of a short travel on such a drive; of a long travel the shop's own figure *(defaults)*.
 */
export function addedPitches(
  { stated = null, rings, largestSprocket, suspension, growthMm }: AddedFor,
  { length }: Assumptions,
): { readonly pitches: number; readonly from: 'maker' | 'usual' | 'wide' | 'wide-suspended' | 'wide-long-travel' } {
  if (stated !== null) return { pitches: stated, from: 'maker' }
  if (rings > 1 || largestSprocket < length.wideSprocketTeeth) return { pitches: length.added, from: 'usual' }
  if (suspension !== 'full') return { pitches: length.addedWide, from: 'wide' }
  // A short travel takes little; of a long one the shop knows its own.
  return growthMm !== null && growthMm > length.shortTravelMm
    ? { pitches: length.addedWide + length.addedLongTravel, from: 'wide-long-travel' }
    : { pitches: length.addedWide + length.addedSuspended, from: 'wide-suspended' }
}

/**
 * What pulleys larger than 11 teeth take beside the pitches added: a third of the teeth above 11, both pulleys together,
 * rounded up to even *(default)*. To be confirmed on the bike; 0 where the maker's figure counts its own pulleys.
 */
export function pulleyPitches(teeth: readonly number[], { length }: Assumptions): number {
  const above = teeth.reduce((sum, one) => sum + Math.max(0, one - length.pulleyTeeth), 0)
  return ceilEven(above * length.pitchesPerPulleyTooth)
}

/** Chainstay at the longest through the travel, mm. */
export const longestChainstayMm = (chainstayMm: number, suspension: Suspension, growthMm: number | null): number =>
  chainstayMm + (suspension === 'full' ? (growthMm ?? 0) : 0)
