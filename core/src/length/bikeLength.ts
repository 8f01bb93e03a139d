import type { Assumptions } from '../assumptions.ts'
import type { LengthDrive } from './drive.ts'
import { fixedLengths, type FixedLoop } from './fixedLoop.ts'
import { lengthSchools } from './schools.ts'

/** A drive with where its axle can stand, and a tandem's second loop. */
export type BikeLengthDrive = LengthDrive & {
  /** Where an axle that takes up the slack can stand, mm; null with a derailleur, or not known. */
  readonly axleMm: { readonly from: number; readonly to: number } | null
  /** Found on the bike itself; null: nobody sized it there. */
  readonly ownPitches: number | null
  /** Two rings at the cranks and how far apart the eccentric lets them stand; null without. */
  readonly timing: { readonly teeth: readonly number[]; readonly fromMm: number; readonly toMm: number } | null
}

/** What a loop with no derailleur goes over: the drive's own, or a tandem's second; null where it is not known. */
export function fixedLoopOf(
  { axleMm, fronts, sprockets, timing }: Pick<BikeLengthDrive, 'axleMm' | 'fronts' | 'sprockets' | 'timing'>,
  of: 'drive' | 'timing',
  halfLink: boolean,
): FixedLoop | null {
  const stands = of === 'timing' ? timing && { from: timing.fromMm, to: timing.toMm } : axleMm
  const [frontTeeth, rearTeeth] = of === 'timing' ? (timing?.teeth ?? []) : [fronts[0], sprockets[0]]
  return stands && frontTeeth !== undefined && rearTeeth !== undefined
    ? { frontTeeth, rearTeeth, fromMm: stands.from, toMm: stands.to, halfLink }
    : null
}

/** Counts nobody's chain is shorter or longer than. */
const COUNTS = { fewest: 20, most: 400 } as const

/** Whether a chain whose plates alternate can have a count: even, and as long as any chain is. */
export const isWholeChain = (pitches: number): boolean =>
  pitches >= COUNTS.fewest && pitches <= COUNTS.most && pitches % 2 === 0

/** A count some pitches longer or shorter, as far as there are such chains. */
export const steppedPitches = (pitches: number, by: number): number =>
  Math.min(COUNTS.most, Math.max(COUNTS.fewest, pitches + by))

/**
 * The count a bike's chain should have: by its derailleur, or the shortest even one its axle takes; else that of the old one.
 *
 * @param oldPitches the count of the chain that comes off, whole as it was when new; null when not known
 */
export function bikeLength(drive: BikeLengthDrive, oldPitches: number | null, assumed: Assumptions): number | null {
  // What was found on the bike comes before what is worked out.
  if (drive.ownPitches !== null) return drive.ownPitches
  if (drive.type === 'derailleur') return lengthSchools(drive, oldPitches, assumed)[0]?.pitches ?? oldPitches
  const loop = fixedLoopOf(drive, 'drive', false)
  return (loop && fixedLengths(loop, assumed)[0]?.pitches) ?? oldPitches
}

/** The shortest even count a tandem's second chain can have; null where it has none or none fits. */
export function timingLength(drive: BikeLengthDrive, assumed: Assumptions): number | null {
  const loop = fixedLoopOf(drive, 'timing', false)
  return (loop && fixedLengths(loop, assumed)[0]?.pitches) ?? null
}
