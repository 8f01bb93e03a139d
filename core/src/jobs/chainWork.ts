import type { DriveType } from '../limits/houseRules.ts'
import type { OpenedBy, PinGuide } from '../parts/describe.ts'
import type { PresentJoint } from '../parts/presentJoint.ts'
import type { JobSchools, Position } from './schools.ts'

/** The bike as far as the steps follow from it; null is not known, and what may be is then asked for. */
export interface JobDrive {
  readonly type: DriveType
  readonly motor: boolean | null
  /** A front derailleur's cage, a chain guide, or neither. */
  readonly guide: 'front-derailleur' | 'chain-guide' | 'none' | null
  /** Teeth wide and narrow by turns on the ring. */
  readonly wideNarrow: boolean | null
  readonly clutch: boolean | null
  readonly cageLock: boolean | null
  readonly discBrake: boolean | null
  /** The chain over a tandem's two cranksets. */
  readonly timing: boolean
  readonly speeds: number
}

/** What a chain is closed with now. */
export interface JointNow {
  readonly kind: PresentJoint
  readonly openedBy: OpenedBy | null
  readonly oneUse: boolean
}

/** What closes a chain. */
export interface JobJoint {
  readonly kind: 'link' | 'pin' | 'clip' | 're-press'
  readonly arrow: boolean
  readonly letteredOut: boolean
  readonly greased: boolean
  /** Of a joining pin; null where it has none, as one that is preset in the end plate. */
  readonly guide: PinGuide | null
  /** Its maker's fitting sheet, which comes before the steps here. */
  readonly sheet: string | null
}

/** What the rules say of pressing an old pin in again. */
export type RePress = 'allowed' | 'caution' | 'excluded'

/** How a chain is taken off. */
export interface Removal {
  readonly drive: JobDrive
  readonly schools: JobSchools
  /** What it is closed with now; null: nobody looked yet. */
  readonly joint: JointNow | null
  /** It hangs open already. */
  readonly broken: boolean
  /** It is used again, here or elsewhere: nothing is cut out of it, and no pin's hole is hurt. */
  readonly kept: boolean
  /** It is to be closed by a link from now on. */
  readonly toLink: boolean
  readonly rePress: RePress
  /** It goes back on as it ran, and nothing on its plates says which way that is. */
  readonly wayToNote: boolean
  /** Whether a pin is driven anywhere in this work, later too. */
  readonly pinTool: boolean
}

/** How a chain is put on and closed. */
export interface Refit {
  readonly drive: JobDrive
  readonly schools: JobSchools
  readonly position: Position
  readonly joint: JobJoint
  readonly rePress: RePress
  /** One side of it is marked to face away from the bike. */
  readonly markedOut: boolean
  /** It goes on again as it was noted that it ran. */
  readonly asNoted: boolean
  /** It comes out of hot wax, which sits in the joint's holes as well. */
  readonly waxed: boolean
  /** It is waxed in any way: no oil goes near it. */
  readonly dry: boolean
  /** Its length is not proved on this bike yet. */
  readonly newLength: boolean
  readonly noClick: boolean
  readonly pinBroke: boolean
}

/** What of a bike and its chain the way off it and on again follows from. */
export interface ChainHandling {
  readonly drive: JobDrive
  readonly schools: JobSchools
  /** What it is closed with now; null: nobody looked yet. */
  readonly present: JointNow | null
  /** What it is closed with when it goes back on: the same again, or a new one in its place. */
  readonly joint: JobJoint
  readonly rePress: RePress
  readonly markedOut: boolean
}

/** A link of which nothing is said. */
export const PLAIN_LINK: JobJoint = {
  kind: 'link',
  arrow: false,
  letteredOut: false,
  greased: false,
  guide: null,
  sheet: null,
}

/** Whether a drive has a derailleur that this chain runs through. */
export const shifts = ({ drive }: { readonly drive: JobDrive }): boolean => drive.type === 'derailleur' && !drive.timing
/** What may be there, unless it is known that it is not. */
export const mayBe = (known: boolean | null): boolean => known !== false
/** A locked cage holds the clutch as well. */
export const clutchTurned = ({ drive }: { readonly drive: JobDrive }): boolean =>
  shifts({ drive }) && mayBe(drive.clutch) && drive.cageLock !== true
/** A chain of which both ends are to be inner for a link, and that no link closes now. */
export const convertsPin = ({ toLink, joint, broken }: Removal): boolean =>
  toLink && !broken && (joint?.kind === 'pin' || joint?.kind === 'riveted')

/** How far from the joint a chain that is used again is opened: no pin is driven twice. */
const FAR = 8

/**
 * The pins driven out to take a chain off, as {@link piecesAfter} counts them; none where its joint is opened without.
 */
export function pinsDriven(removal: Removal): number[] {
  const { joint, broken, kept } = removal
  if (broken || joint === null) return []
  if (convertsPin(removal)) return [0, -1]
  if (joint.kind === 'pin') return [kept ? FAR : 0]
  return joint.kind === 'riveted' ? [0] : []
}
