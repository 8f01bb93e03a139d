import type { CareKind } from '../forecast/priors.ts'
import type { CutPlan, CutPlanInput } from '../length/cutPlan.ts'
import type { JobDrive, JobJoint, JointNow, RePress } from './chainWork.ts'
import type { JobSchools, Position } from './schools.ts'

/** Why a chain comes off. Only `worn` is a chain that ran to its end. */
export const JOB_REASONS = ['worn', 'early', 'damaged', 'broken', 'swapped'] as const
export type JobReason = (typeof JOB_REASONS)[number]

/** What becomes of the chain that comes off. */
export const OLD_FATES = ['scrapped', 'spare', 'rotation', 'training'] as const
export type OldFate = (typeof OLD_FATES)[number]

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

/** The chain that goes on. */
export interface JobChain {
  readonly pitches: number
  readonly cut: Pick<CutPlan, 'cuts' | 'ends' | 'offcut' | 'boxes'>
  readonly markedOut: boolean
  /** How it comes out of its box and what closes it: what is cut follows from these once its length is found on the bike. Absent of jobs begun before there was that. */
  readonly box?: Pick<CutPlanInput, 'inBox' | 'boxEnds' | 'closedBy'>
  /** Nobody knows its length yet: it is found on the bike. */
  readonly toSize?: boolean
  /** What its drive wants added to a loop that is wrapped round. */
  readonly addPitches?: number
  /** It comes waxed out of its box. */
  readonly readyWaxed: boolean
}

/** Everything the steps of changing a chain follow from. */
export interface JobPlan {
  readonly reason: JobReason
  readonly drive: JobDrive
  /** What it is closed with now; null: nobody looked yet. */
  readonly present: JointNow | null
  readonly oldFate: OldFate
  /** Whether the old chain was shortened after a break: its count says nothing of the right length. */
  readonly shortened: boolean
  readonly chain: JobChain
  readonly joint: JobJoint
  /** What the rules say of pressing an old pin in again on this chain. */
  readonly rePress: RePress
  readonly care: CareKind
  readonly position: Position
  readonly schools: JobSchools
  readonly outcomes: readonly JobOutcome[]
}

export const isWaxed = (care: CareKind): boolean => care === 'immersion-wax' || care === 'drip-wax'
export const isOiled = (care: CareKind): boolean => care === 'dry-oil' || care === 'wet-oil'
