import type { Assumptions } from '../assumptions.ts'
import type { LengthDrive } from './drive.ts'
import { fixedLengths } from './fixedLoop.ts'
import { lengthSchools } from './schools.ts'

/** A drive with where its axle can stand, and a tandem's second loop. */
export type BikeLengthDrive = LengthDrive & {
  /** Where an axle that takes up the slack can stand, mm; null with a derailleur, or not known. */
  readonly axleMm: { readonly from: number; readonly to: number } | null
  /** Two rings at the cranks and how far apart the eccentric lets them stand; null without. */
  readonly timing: { readonly teeth: readonly number[]; readonly fromMm: number; readonly toMm: number } | null
}

/**
 * The count a bike's chain should have: by its derailleur, or the shortest even one its axle takes; else that of the old one.
 *
 * @param oldPitches the count of the chain that comes off, whole as it was when new; null when not known
 */
export function bikeLength(drive: BikeLengthDrive, oldPitches: number | null, assumed: Assumptions): number | null {
  if (drive.type === 'derailleur') return lengthSchools(drive, oldPitches, assumed)[0]?.pitches ?? oldPitches
  const [frontTeeth] = drive.fronts
  const [rearTeeth] = drive.sprockets
  if (drive.axleMm === null || frontTeeth === undefined || rearTeeth === undefined) return oldPitches
  const found = fixedLengths(
    { frontTeeth, rearTeeth, fromMm: drive.axleMm.from, toMm: drive.axleMm.to, halfLink: false },
    assumed,
  )
  return found[0]?.pitches ?? oldPitches
}

/** The shortest even count a tandem's second chain can have; null where it has none or none fits. */
export function timingLength({ timing }: BikeLengthDrive, assumed: Assumptions): number | null {
  if (timing === null) return null
  const [frontTeeth = 0, rearTeeth = 0] = timing.teeth
  const found = fixedLengths(
    { frontTeeth, rearTeeth, fromMm: timing.fromMm, toMm: timing.toMm, halfLink: false },
    assumed,
  )
  return found[0]?.pitches ?? null
}
