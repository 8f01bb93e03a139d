import type { Assumptions } from '../assumptions.ts'
import { derailleurLength, type LengthDrive } from './drive.ts'
import { gearReach, type Gear } from './gearReach.ts'

/**
 * Which gears of a bike a chain of some count reaches, at the longest its chainstay gets.
 *
 * @returns null without a derailleur, or where the chainstay or the teeth are not known
 */
export function bikeReach(drive: LengthDrive, pitches: number, assumed: Assumptions): Gear[] | null {
  const known = drive.type === 'derailleur' ? derailleurLength(drive, assumed) : null
  if (!known) return null
  return gearReach({
    pitches,
    chainstayMm: known.chainstayMm,
    fronts: drive.fronts,
    rears: drive.sprockets,
    addPitches: known.added.pitches,
    pulleyPitches: known.pulleyPitches,
    ...(drive.capacityTeeth === null ? {} : { capacityTeeth: drive.capacityTeeth }),
  })
}
