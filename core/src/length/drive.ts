import { PITCH_MM } from '../defaults.ts'
import type { DriveType } from '../limits/houseRules.ts'
import { loopPitches } from './loop.ts'
import { teethOrderProblem, teethProblem, type TeethOrderProblem, type TeethProblem } from './teeth.ts'
import { addedPitches, longestChainstayMm, pulleyPitches, type Suspension } from './recommended.ts'
import type { Assumptions } from '../assumptions.ts'

/** What a chain's length follows from. What is not known is null. */
export interface LengthDrive {
  readonly type: DriveType
  /** Teeth of the rings, any order. */
  readonly fronts: readonly number[]
  /** Teeth of the sprockets, any order. */
  readonly sprockets: readonly number[]
  /** Unloaded, mm. */
  readonly chainstayMm: number | null
  readonly suspension: Suspension
  /** How much longer the chainstay gets through the travel, mm. */
  readonly growthMm: number | null
  /** Pitches its maker adds to the loop on this frame. */
  readonly statedAdd: number | null
  /** Teeth of the pulleys. */
  readonly pulleys: readonly number[] | null
  /** Whether the maker's figure counts its own pulleys. */
  readonly pulleysCounted: boolean
  /** What the derailleur takes up, teeth. */
  readonly capacityTeeth: number | null
  /** The largest sprocket the derailleur is made for. */
  readonly largestSprocketTeeth: number | null
}

/** Why a drive's numbers cannot be, or cannot be right. Keys of the message catalogue. */
export type DriveProblem =
  | TeethProblem
  | TeethOrderProblem
  | 'chainstay-inches'
  | 'chainstay-range'
  | 'chainstay-short'
  | 'growth-range'
  | 'capacity-range'

export type DriveField = 'fronts' | 'sprockets' | 'chainstayMm' | 'growthMm' | 'capacityTeeth' | 'largestSprocketTeeth'

const CHAINSTAY_MM = { lowest: 320, highest: 900 } as const
/** A number that is a chainstay in inches, and no chainstay in mm. */
const INCHES = { lowest: 12, highest: 36 } as const
const MOST_GROWTH_MM = 80
const CAPACITY = { lowest: 8, highest: 80 } as const

/**
 * What is wrong with a drive's numbers, and where. A cassette may be given either way round, but in one.
 *
 * @returns one problem a field at most; empty where everything that is known can be
 */
export function driveProblems(drive: LengthDrive): { readonly at: DriveField; readonly problem: DriveProblem }[] {
  const { fronts, sprockets, chainstayMm, growthMm, capacityTeeth, largestSprocketTeeth } = drive
  const at = (field: DriveField, problem: DriveProblem | null) => (problem === null ? [] : [{ at: field, problem }])
  return [
    ...at('fronts', teethProblem(fronts)),
    ...at('sprockets', teethProblem(sprockets) ?? teethOrderProblem(sprockets)),
    ...at('chainstayMm', chainstayMm === null ? null : chainstayProblem(drive, chainstayMm)),
    ...at('growthMm', growthMm !== null && !(growthMm >= 0 && growthMm <= MOST_GROWTH_MM) ? 'growth-range' : null),
    ...at(
      'capacityTeeth',
      capacityTeeth !== null && !(capacityTeeth >= CAPACITY.lowest && capacityTeeth <= CAPACITY.highest)
        ? 'capacity-range'
        : null,
    ),
    ...at('largestSprocketTeeth', largestSprocketTeeth === null ? null : teethProblem([largestSprocketTeeth])),
  ]
}

function chainstayProblem(drive: LengthDrive, chainstayMm: number): DriveProblem | null {
  if (chainstayMm >= INCHES.lowest && chainstayMm <= INCHES.highest) return 'chainstay-inches'
  if (!(chainstayMm >= CHAINSTAY_MM.lowest && chainstayMm <= CHAINSTAY_MM.highest)) return 'chainstay-range'
  if (teethProblem(drive.fronts) !== null || teethProblem(drive.sprockets) !== null) return null
  try {
    for (const frontTeeth of drive.fronts)
      for (const rearTeeth of drive.sprockets) loopPitches({ chainstayMm, frontTeeth, rearTeeth })
    return null
  } catch {
    return 'chainstay-short'
  }
}

/** What a length cannot be told without, in the words of the catalogue. */
export type LengthFact = 'chainstayMm' | 'fronts' | 'sprockets' | 'growthMm' | 'capacityTeeth' | 'pulleys'

/** A derailleur drive's numbers as its length is worked out from. */
export interface DerailleurLength {
  readonly largestRing: number
  readonly smallestRing: number
  readonly largestSprocket: number
  readonly smallestSprocket: number
  /** At its longest, mm. */
  readonly chainstayMm: number
  /** The exact loop over the largest two. */
  readonly loop: number
  readonly added: ReturnType<typeof addedPitches>
  /** For larger pulleys. */
  readonly pulleyPitches: number
}

/** @returns null where the chainstay, the rings or the sprockets are not known */
export function derailleurLength(drive: LengthDrive, assumed: Assumptions): DerailleurLength | null {
  const { fronts, sprockets, chainstayMm, suspension, growthMm, statedAdd, pulleys, pulleysCounted } = drive
  if (chainstayMm === null || fronts.length === 0 || sprockets.length === 0) return null
  const largestRing = Math.max(...fronts)
  const largestSprocket = Math.max(...sprockets)
  const longest = longestChainstayMm(chainstayMm, suspension, growthMm)
  return {
    largestRing,
    smallestRing: Math.min(...fronts),
    largestSprocket,
    smallestSprocket: Math.min(...sprockets),
    chainstayMm: longest,
    loop: loopPitches({ chainstayMm: longest, frontTeeth: largestRing, rearTeeth: largestSprocket }),
    added: addedPitches({ stated: statedAdd, rings: fronts.length, largestSprocket, suspension, growthMm }, assumed),
    pulleyPitches: pulleys === null || (pulleysCounted && statedAdd !== null) ? 0 : pulleyPitches(pulleys, assumed),
  }
}

/** Teeth a derailleur has to take up: (largest − smallest ring) + (largest − smallest sprocket). */
export const capacityNeeded = ({ fronts, sprockets }: Pick<LengthDrive, 'fronts' | 'sprockets'>): number =>
  Math.max(...fronts) - Math.min(...fronts) + Math.max(...sprockets) - Math.min(...sprockets)

/** What a derailleur is not made for on this drive. */
export type DerailleurCaution = 'capacity-small' | 'sprocket-beyond'

export function derailleurCautions(drive: LengthDrive): DerailleurCaution[] {
  if (drive.type !== 'derailleur' || drive.fronts.length === 0 || drive.sprockets.length === 0) return []
  const { capacityTeeth, largestSprocketTeeth, sprockets } = drive
  return [
    ...(capacityTeeth !== null && capacityNeeded(drive) > capacityTeeth ? ['capacity-small' as const] : []),
    ...(largestSprocketTeeth !== null && Math.max(...sprockets) > largestSprocketTeeth
      ? ['sprocket-beyond' as const]
      : []),
  ]
}

/** What a chain of so many pitches is longer than its loop over the largest two, mm: what the derailleur takes up there. */
export const slackOverLargestMm = (
  { loop, pulleyPitches }: Pick<DerailleurLength, 'loop' | 'pulleyPitches'>,
  pitches: number,
): number => (pitches - pulleyPitches - loop) * PITCH_MM
