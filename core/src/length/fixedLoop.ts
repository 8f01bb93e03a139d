import type { Assumptions } from '../assumptions.ts'
import { chainstayFor, loopPitches } from './loop.ts'

/** A loop with nothing to take up slack but moving an axle: single speed, hub gear, a tandem's timing chain. */
export interface FixedLoop {
  readonly frontTeeth: number
  readonly rearTeeth: number
  /** Where the axle can stand, mm between axles; both alike where it cannot be moved. */
  readonly fromMm: number
  readonly toMm: number
  /** Whether a half link may be used, for odd counts. */
  readonly halfLink: boolean
}

export interface FixedLength {
  readonly pitches: number
  /** Where the axle stands with it, mm. */
  readonly chainstayMm: number
  readonly halfLink: boolean
}

/**
 * Every count that goes round a loop within the range of its dropout, each with where the axle stands; fewest first. An
 * axle that cannot be moved is given half a millimetre to either side *(default)*.
 *
 * @returns empty where none fits: then the loop wants a tensioner, or other teeth
 * @throws RangeError as `loopPitches`, and for a range the wrong way round
 */
export function fixedLengths(
  { frontTeeth, rearTeeth, fromMm, toMm, halfLink }: FixedLoop,
  { length }: Assumptions,
): FixedLength[] {
  if (toMm < fromMm) throw new RangeError('a dropout range goes from near to far')
  const play = toMm === fromMm ? length.fixedPlayMm : 0
  const near = loopPitches({ chainstayMm: fromMm - play, frontTeeth, rearTeeth })
  const far = loopPitches({ chainstayMm: toMm + play, frontTeeth, rearTeeth })
  const found: FixedLength[] = []
  for (let pitches = Math.ceil(near - 1e-9); pitches <= far + 1e-9; pitches++) {
    const odd = pitches % 2 === 1
    if (odd && !halfLink) continue
    found.push({ pitches, chainstayMm: chainstayFor({ pitches, frontTeeth, rearTeeth }), halfLink: odd })
  }
  return found
}

/** The shortest even chain that can be closed round a loop at all, for one with a tensioner. */
export const tensionedPitches = (loop: Pick<FixedLoop, 'frontTeeth' | 'rearTeeth' | 'toMm'>): number =>
  2 *
  Math.ceil(
    loopPitches({ chainstayMm: loop.toMm, frontTeeth: loop.frontTeeth, rearTeeth: loop.rearTeeth }) / 2 + 0.5 - 1e-9,
  )
