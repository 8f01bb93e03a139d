import { loopPitches } from './loop.ts'

/** Whether a gear can be ridden: too tight to shift into, near that, fine, or so loose that the chain hangs. */
export const GEAR_VERDICTS = ['forbidden', 'tight', 'fine', 'loose'] as const
export type GearVerdict = (typeof GEAR_VERDICTS)[number]
export interface Gear {
  readonly front: number
  readonly rear: number
  /** Pitches left over for the derailleur to take up. */
  readonly slack: number
  readonly verdict: GearVerdict
}

export interface GearReachInput {
  readonly pitches: number
  /** At its longest, mm. */
  readonly chainstayMm: number
  /** Teeth of every ring and of every sprocket. */
  readonly fronts: readonly number[]
  readonly rears: readonly number[]
  /** Pitches the drive wants beside the loop, without those for larger pulleys. */
  readonly addPitches: number
  /** For pulleys larger than usual; 0 unless given. */
  readonly pulleyPitches?: number
  /** What the derailleur takes up, teeth; left out: looseness is not judged. */
  readonly capacityTeeth?: number
}

/** The derailleur needs so many pitches at most to reach, however many are added. */
const MOST_NEEDED = 4

/**
 * Which gears a chain reaches. Slack = pitches − those for pulleys − loop; with m = min(add, 4), below m − 1 a gear is
 * forbidden, below m tight, above add + 2 + capacity/2 it hangs loose. Without a capacity nothing is called loose.
 *
 * @returns every ring with every sprocket, in the order given
 * @throws RangeError as `loopPitches`
 */
export function gearReach(input: GearReachInput): Gear[] {
  const { pitches, chainstayMm, fronts, rears, addPitches, pulleyPitches = 0, capacityTeeth } = input
  const needed = Math.min(addPitches, MOST_NEEDED)
  const most = capacityTeeth === undefined ? Infinity : addPitches + 2 + capacityTeeth / 2
  return fronts.flatMap((front) =>
    rears.map((rear): Gear => {
      const slack = pitches - pulleyPitches - loopPitches({ chainstayMm, frontTeeth: front, rearTeeth: rear })
      const verdict = slack < needed - 1 ? 'forbidden' : slack < needed ? 'tight' : slack > most ? 'loose' : 'fine'
      return { front, rear, slack, verdict }
    }),
  )
}

/** Gears of one verdict on one ring, as a rider is told: the largest so many sprockets, the smallest, or these. */
export interface KeepOff {
  readonly verdict: 'forbidden' | 'loose'
  readonly front: number
  /** Where the ring stands among the rings; null with one. */
  readonly ring: 'largest' | 'middle' | 'smallest' | null
  readonly which: 'all' | 'largest' | 'smallest' | 'these'
  readonly rears: readonly number[]
}

/** What to tell a rider: per ring, the sprockets to keep off. Empty where every gear can be ridden. */
export function keepOff(gears: readonly Gear[]): KeepOff[] {
  const fronts = [...new Set(gears.map(({ front }) => front))].sort((a, b) => b - a)
  return fronts.flatMap((front, i) => {
    const own = gears.filter((gear) => gear.front === front).sort((a, b) => b.rear - a.rear)
    const ring = fronts.length === 1 ? null : i === 0 ? 'largest' : i === fronts.length - 1 ? 'smallest' : 'middle'
    return (['forbidden', 'loose'] as const).flatMap((verdict): KeepOff[] => {
      const rears = own.filter((gear) => gear.verdict === verdict).map(({ rear }) => rear)
      if (rears.length === 0) return []
      const all = own.map(({ rear }) => rear)
      const same = (part: readonly number[]): boolean => part.join() === rears.join()
      const which = same(all)
        ? 'all'
        : same(all.slice(0, rears.length))
          ? 'largest'
          : same(all.slice(-rears.length))
            ? 'smallest'
            : 'these'
      return [{ verdict, front, ring, which, rears }]
    })
  })
}
