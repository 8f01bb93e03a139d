import type { PartsDrive, WidthClass } from './describe.ts'

/** Chains of these speeds are one width, and share their chains; all others stand alone. */
const SHARED = [6, 7, 8]
/** From so few sprockets on, a derailleur drive runs on the chains 6, 7 and 8 speeds share. */
const FEWEST_SHARED = 2

/** The number of speeds a drive wants of its chain: a hub gear's and a single speed's chain runs on one sprocket. */
export const chainSpeeds = ({ type, speeds }: Pick<PartsDrive, 'type' | 'speeds'>): number =>
  type === 'derailleur' ? speeds : 1

/** Whether something made for some speeds goes with a number of them: 6, 7 and 8 share, all others stand alone. */
export const speedsMatch = (made: readonly number[], speeds: number): boolean =>
  made.includes(speeds) ||
  (speeds >= FEWEST_SHARED && speeds <= Math.max(...SHARED) && made.some((one) => SHARED.includes(one)))

const WIDTHS: readonly (readonly [WidthClass, number])[] = [
  ['3/32', 2.4],
  ['1/8', 3.2],
]

/** The width class of a chain by a caliper between its inner plates, mm: the nearest of 2.4 and 3.2. */
export const widthClassOf = (innerMm: number): WidthClass =>
  WIDTHS.reduce((near, one) => (Math.abs(one[1] - innerMm) < Math.abs(near[1] - innerMm) ? one : near))[0]
