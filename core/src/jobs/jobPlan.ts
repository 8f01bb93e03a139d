import type { CareKind } from '../forecast/priors.ts'
import type { CutPlan } from '../length/cutPlan.ts'
import type { DriveType } from '../limits/houseRules.ts'
import type { OpenedBy, PinGuide } from '../parts/describe.ts'
import type { PresentJoint } from '../parts/presentJoint.ts'

/** Why a chain comes off. Only `worn` is a chain that ran to its end. */
export const JOB_REASONS = ['worn', 'early', 'damaged', 'broken', 'swapped'] as const
export type JobReason = (typeof JOB_REASONS)[number]

/** What becomes of the chain that comes off. */
export const OLD_FATES = ['scrapped', 'spare', 'rotation', 'training'] as const
export type OldFate = (typeof OLD_FATES)[number]

/** Where the chain is put before it is opened: schools differ. */
export const SLACK_SCHOOLS = ['smallest-ring', 'off-ring', 'largest-ring'] as const
/** What is done with a new chain before it goes on: schools differ. */
export const PREPARE_SCHOOLS = ['strip', 'wipe', 'oil-ends'] as const
/** How a link is snapped home. */
export const CLOSE_SCHOOLS = ['pliers', 'pedal'] as const
/** How the bike stands. */
export const POSITIONS = ['upright', 'upside-down', 'on-side'] as const

/** The schools a shop or a mechanic has chosen. */
export interface JobSchools {
  readonly slack: (typeof SLACK_SCHOOLS)[number]
  readonly prepare: (typeof PREPARE_SCHOOLS)[number]
  readonly close: (typeof CLOSE_SCHOOLS)[number]
  /** Whether a drop of oil goes on a link's pins before it is closed; never on a waxed chain. */
  readonly oilPins: boolean
}

export const SHIPPED_SCHOOLS: JobSchools = { slack: 'smallest-ring', prepare: 'wipe', close: 'pliers', oilPins: false }

/** What happened on the way. Each opens the steps it asks for. */
export const JOB_OUTCOMES = [
  'skips-cassette',
  'skips-old-back',
  'stiff-link',
  'wrong-count',
  'no-click',
  'pin-broke',
  'customer-stops',
] as const
export type JobOutcome = (typeof JOB_OUTCOMES)[number]

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

/** The chain that goes on. */
export interface JobChain {
  readonly pitches: number
  readonly cut: Pick<CutPlan, 'cuts' | 'ends' | 'offcut' | 'boxes'>
  readonly markedOut: boolean
}

/** What closes it. */
export interface JobJoint {
  readonly kind: 'link' | 'pin' | 'clip' | 're-press'
  readonly arrow: boolean
  readonly letteredOut: boolean
  readonly greased: boolean
  readonly guide: PinGuide | null
  /** Its maker's fitting sheet, which comes before the steps here. */
  readonly sheet: string | null
}

/** Everything the steps of changing a chain follow from. */
export interface JobPlan {
  readonly reason: JobReason
  readonly drive: JobDrive
  /** What it is closed with now; null: nobody looked yet. */
  readonly present: { readonly kind: PresentJoint; readonly openedBy: OpenedBy | null; readonly oneUse: boolean } | null
  readonly oldFate: OldFate
  /** Whether the old chain was shortened after a break: its count says nothing of the right length. */
  readonly shortened: boolean
  readonly chain: JobChain
  readonly joint: JobJoint
  /** What the rules say of pressing an old pin in again on this chain. */
  readonly rePress: 'allowed' | 'caution' | 'excluded'
  readonly care: CareKind
  readonly position: (typeof POSITIONS)[number]
  readonly schools: JobSchools
  readonly outcomes: readonly JobOutcome[]
}

export const isWaxed = (care: CareKind): boolean => care === 'immersion-wax' || care === 'drip-wax'
export const isOiled = (care: CareKind): boolean => care === 'dry-oil' || care === 'wet-oil'
