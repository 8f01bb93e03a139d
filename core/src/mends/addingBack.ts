import type { BoxEnds } from '../length/cutPlan.ts'

/** What goes into a chain that gets pitches back. */
export interface AddedBack {
  readonly by: 'link' | 'pin'
  /** Pitches of the piece that is put in. */
  readonly piece: number
  /** What the ends of that piece have to be. */
  readonly ends: BoxEnds
  /** Joints that are new: of links, or of pins pressed in. */
  readonly newJoints: number
  /** The link it has now is closed once more, beside the new ones. */
  readonly ownAgain: boolean
  /** The count when it is closed. */
  readonly left: number
}

/**
 * Putting pitches back into a chain that was shortened. Between two links goes a piece with inner ends, one pitch shorter than what is
 * added, since each link is an outer link itself; the link it has now is one of the two where it may be closed again, and where it has none
 * an outer link of it comes out first. With pins a piece with one inner and one outer end goes in whole.
 *
 * @param pitches the count it has now
 * @param add pitches to be added; even
 * @param ownLink it is closed by a link now that may be closed once more
 * @param linked it is closed by a link now, whatever may be done with it
 * @throws RangeError for an odd count or addition, or none
 */
export function addingBack({
  pitches,
  add,
  by,
  linked,
  ownLink,
}: {
  readonly pitches: number
  readonly add: number
  readonly by: 'link' | 'pin'
  readonly linked: boolean
  readonly ownLink: boolean
}): AddedBack {
  if (!Number.isInteger(pitches) || pitches < 4 || pitches % 2 !== 0)
    throw new RangeError(`a chain whose plates alternate has an even count, not ${pitches}`)
  if (!Number.isInteger(add) || add < 2 || add % 2 !== 0)
    throw new RangeError(`an even count of pitches is added, two at least, not ${add}`)
  const left = pitches + add
  if (by === 'pin') return { by, piece: add, ends: 'one-outer', newJoints: 2, ownAgain: false, left }
  const ownAgain = linked && ownLink
  return { by, piece: add - 1, ends: 'both-inner', newJoints: ownAgain ? 1 : 2, ownAgain, left }
}
