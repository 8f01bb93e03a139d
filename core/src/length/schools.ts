import type { Assumptions } from '../assumptions.ts'
import { derailleurLength, type LengthDrive, type LengthFact } from './drive.ts'
import { loopPitches } from './loop.ts'
import { oldWasRight, type OldChainLook } from './onBike.ts'
import { ceilEven, floorEven } from './recommended.ts'

/** Ways to find a derailleur chain's length. The first is the one recommended. */
export const LENGTH_SCHOOLS = [
  'largest-and-added',
  'match-old',
  'through-derailleur',
  'smallest-check',
  'in-doubt',
] as const
export type LengthSchool = (typeof LENGTH_SCHOOLS)[number]

/** What a school says for a bike. */
export interface SchoolLength {
  readonly school: LengthSchool
  /** Its count; null where it cannot be told. */
  readonly pitches: number | null
  /** What is wanted for it. */
  readonly missing: readonly (LengthFact | 'old-count')[]
  /** How it stands to the recommended one, pitches; null where either is not known. */
  readonly apart: number | null
  /** A bound rather than a length: the shortest allowed, or the longest that does not hang. */
  readonly bound: 'shortest' | 'longest' | null
}

const UNSEEN: OldChainLook = { small: null, large: null }

/**
 * All schools of finding a derailleur chain's length side by side.
 *
 * - `largest-and-added`: largest ring and sprocket without the derailleur, and the pitches to add.
 * - `match-old`: the old chain's count, which is right only if the old one was.
 * - `through-derailleur`: threaded through it on the largest two, the shortest at which every gear is reached.
 * - `smallest-check`: on the smallest two with the cage just beginning to pull, the longest that does not hang.
 * - `in-doubt`: two pitches more than recommended; removing is easy later.
 *
 * @param oldPitches the count of the chain that comes off, whole as it was when new; null when not known
 * @param oldLook how that chain hung, as far as somebody looked
 */
export function lengthSchools(
  drive: LengthDrive,
  oldPitches: number | null,
  assumed: Assumptions,
  oldLook: OldChainLook = UNSEEN,
): SchoolLength[] {
  const known = derailleurLength(drive, assumed)
  const missing: LengthFact[] = [
    ...(drive.chainstayMm === null ? (['chainstayMm'] as const) : []),
    ...(drive.fronts.length === 0 ? (['fronts'] as const) : []),
    ...(drive.sprockets.length === 0 ? (['sprockets'] as const) : []),
  ]
  const added = known ? known.added.pitches + known.pulleyPitches : 0
  const recommended = known && ceilEven(known.loop + added)
  const told = (
    school: LengthSchool,
    pitches: number | null,
    wanted: SchoolLength['missing'] = missing,
    bound: SchoolLength['bound'] = null,
  ): SchoolLength => ({
    school,
    pitches,
    missing: pitches === null ? wanted : [],
    apart: pitches === null || recommended === null ? null : pitches - recommended,
    bound,
  })
  const { capacityTeeth } = drive
  return [
    told('largest-and-added', recommended),
    // One that hung or was strained is not to be matched.
    ...(oldWasRight(oldLook) === false ? [] : [told('match-old', oldPitches, ['old-count'])]),
    told(
      'through-derailleur',
      known && ceilEven(known.loop + known.pulleyPitches + Math.min(known.added.pitches, 4) - 1),
      missing,
      'shortest',
    ),
    told(
      'smallest-check',
      known && capacityTeeth !== null
        ? floorEven(
            loopPitches({
              chainstayMm: known.chainstayMm,
              frontTeeth: known.smallestRing,
              rearTeeth: known.smallestSprocket,
            }) +
              added +
              2 +
              capacityTeeth / 2,
          )
        : null,
      capacityTeeth === null ? [...missing, 'capacityTeeth'] : missing,
      'longest',
    ),
    told('in-doubt', recommended === null ? null : recommended + assumed.length.doubtPitches),
  ]
}

/** One length in the ways people count it: "a link" is one pitch to some, an inner and an outer to others. */
export interface Counts {
  readonly pitches: number
  /** Counted without the connecting link, which is an outer link of its own. */
  readonly withoutJoint: number
  /** Inner and outer together as one; half of one where it does not come out even. */
  readonly wholeLinks: number
}

export const countsOf = (pitches: number): Counts => ({ pitches, withoutJoint: pitches - 1, wholeLinks: pitches / 2 })
