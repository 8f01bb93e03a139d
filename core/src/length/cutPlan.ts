/** How a new chain's ends come out of its box. */
export type BoxEnds = 'both-inner' | 'one-outer'
/** What it is closed with. */
export type ClosedBy = 'link' | 'pin'
/** Which end is cut. */
export type CutEnd = 'inner' | 'outer' | 'either'

export interface CutPlanInput {
  /** The length wanted, pitches, the joint among them; even. */
  readonly pitches: number
  /** The closed length one box makes as it comes, its own kind of joint among them; even. */
  readonly inBox: number
  readonly boxEnds: BoxEnds
  readonly closedBy: ClosedBy
}

/** How a new chain is brought to its length. */
export interface CutPlan {
  /** Boxes needed; with more than one the pieces are joined by a further joint each. */
  readonly boxes: number
  /** Joints needed in all. */
  readonly joints: number
  /** Pitches of chain on the bike, without connecting links. */
  readonly chainPitches: number
  /** What is taken off, and from which end; in this order. Nothing where it fits as it comes. */
  readonly cuts: readonly { readonly pitches: number; readonly end: CutEnd }[]
  /** Pitches left over, to be kept for a repair of this chain. */
  readonly offcut: number
  /** What the two ends must be before joining. */
  readonly ends: BoxEnds
  /** Whether the pin that comes in the end plate goes with the piece cut off. */
  readonly losesPresetPin: boolean
}

/**
 * How to cut a new chain. A connecting link is an outer link and wants an inner one at both ends, so that of an even
 * length an odd count is chain; a pin wants one inner and one outer end, and all of the length is chain.
 *
 * A box of 116 for a link holds 115 pitches and closes at 116; one for a pin holds 116, one end of them outer. From
 * the latter the inner end is cut, because its pin sits in the outer one; for a link its outer plate comes off.
 *
 * @throws RangeError for odd counts and for lengths nothing closes at
 */
export function cutPlan({ pitches, inBox, boxEnds, closedBy }: CutPlanInput): CutPlan {
  for (const count of [pitches, inBox])
    if (!Number.isInteger(count) || count < FEWEST || count % 2 === 1)
      throw new RangeError(`a chain closes at an even count of pitches, ${FEWEST} or more`)
  const ends: BoxEnds = closedBy === 'link' ? 'both-inner' : 'one-outer'
  // To be closed with a pin, a piece that is inner at both ends loses an inner link.
  const aBox = closedBy === 'pin' && boxEnds === 'both-inner' ? inBox - 2 : inBox
  const boxes = Math.ceil(pitches / aBox)
  const chainPitches = closedBy === 'link' ? pitches - boxes : pitches
  const chainInBoxes = boxes * (boxEnds === 'both-inner' ? inBox - 1 : inBox)
  const outer = boxEnds === 'one-outer' && closedBy === 'link' ? boxes : 0
  const rest = chainInBoxes - chainPitches - outer
  return {
    boxes,
    joints: boxes,
    chainPitches,
    cuts: [
      ...(outer > 0 ? [{ pitches: outer, end: 'outer' as const }] : []),
      ...(rest > 0
        ? [{ pitches: rest, end: boxEnds === 'both-inner' ? ('either' as const) : ('inner' as const) }]
        : []),
    ],
    offcut: rest,
    ends,
    losesPresetPin: outer > 0,
  }
}

/** Fewest pitches anything rolls on. */
const FEWEST = 20
