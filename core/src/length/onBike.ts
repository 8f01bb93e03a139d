import { ceilEven, floorEven } from './recommended.ts'

/** Ways to find a chain's length on the bike itself, where nothing is known of it. */
export const ON_BIKE_WAYS = ['wrapped', 'threaded', 'smallest'] as const
export type OnBikeWay = (typeof ON_BIKE_WAYS)[number]
/** How it looks held at a count; only `right` is a length. */
export const ON_BIKE_LOOKS = ['slack', 'right', 'strained'] as const
export type OnBikeLook = (typeof ON_BIKE_LOOKS)[number]

/** A count that was tried on the bike. */
export interface OnBike {
  readonly way: OnBikeWay
  /** Pitches where the ends meet, the joint among them. */
  readonly counted: number
}

/**
 * The length a count found on the bike comes to.
 *
 * - `wrapped` round the two largest without the derailleur, through the front cage first: the pitches to add come on top.
 * - `threaded` through the derailleur on the two largest: the count is the length, rounded up: shorter tears something off.
 * - `smallest`: on the two smallest until the cage just lifts: the count is the length, rounded down: longer hangs.
 *
 * @param addPitches what the drive wants added to its loop
 * @returns an even count
 */
export const onBikePitches = ({ way, counted }: OnBike, addPitches: number): number =>
  way === 'wrapped' ? ceilEven(counted + addPitches) : way === 'threaded' ? ceilEven(counted) : floorEven(counted)

/** How the old chain hung: on the two smallest, and on the two largest; null where nobody looked. */
export interface OldChainLook {
  readonly small: 'hangs' | 'right' | 'strained' | null
  readonly large: 'hangs' | 'right' | 'strained' | null
}

/** Whether an old chain was of the right length, as far as somebody looked at it; null where nobody did. */
export function oldWasRight({ small, large }: OldChainLook): boolean | null {
  if (small === null && large === null) return null
  return (small ?? 'right') === 'right' && (large ?? 'right') === 'right'
}
