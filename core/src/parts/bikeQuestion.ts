import type { Assumptions } from '../assumptions.ts'
import type { CareKind } from '../forecast/priors.ts'
import { bikeLength, timingLength, type BikeLengthDrive } from '../length/bikeLength.ts'
import type { JointModel, PartsDrive } from './describe.ts'
import type { MatchQuestion } from './matchForBike.ts'

/** What is known of a bike for choosing its parts. */
export interface BikeForParts {
  readonly drive: BikeLengthDrive & Omit<PartsDrive, 'pitches' | 'sprocketsSuspect' | 'care'>
  readonly care: CareKind
  readonly sprocketsSuspect: boolean
  readonly oldPitches: number | null
  /** Which part the chain that is on is; null when not known. */
  readonly presentChainId: string | null
  /** What it is closed with, as far as somebody looked. */
  readonly present: {
    readonly model: JointModel | null
    readonly closings: number | null
    readonly firm: boolean | null
  } | null
  /** What is held back for it; null when nothing is. */
  readonly kept: {
    readonly lines: readonly { readonly partId: string; readonly quantity: number; readonly included: boolean }[]
  } | null
}

/** Which chain of a bike parts are chosen for. */
export const CHAINS_OF = ['drive', 'timing'] as const
export type ChainOf = (typeof CHAINS_OF)[number]
/** What somebody asks at a bike. */
export interface AskedOfBike {
  readonly of: ChainOf
  /** A count other than the one worked out. */
  readonly pitches?: number | undefined
  readonly chainId?: string | undefined
  readonly ask?: string | undefined
  /** Joints for a new chain, or to close the one that is on again. */
  readonly joints: 'new' | 'on'
  readonly school: 'strict' | 'by-feel'
}

/**
 * A tandem's second chain runs over two rings only: nothing shifts, so that system and level say nothing, and what the
 * sprockets are suspected of does not concern it. Beside a derailleur its rings are 3/32″ as well.
 */
const overTwoRings = (drive: PartsDrive): PartsDrive => ({
  ...drive,
  ringWidth: drive.ringWidth ?? (drive.type === 'derailleur' ? '3/32' : null),
  sprocketsSuspect: false,
  type: 'single-speed',
  speeds: 1,
  system: null,
  level: null,
})

/** The question a bike's facts and what is asked of it come to, and the count it is asked for. */
export function bikeQuestion(
  bike: BikeForParts,
  { of, pitches, chainId, ask, joints, school }: AskedOfBike,
  assumed: Assumptions,
): { readonly question: MatchQuestion; readonly pitches: number | null } {
  const { drive, care, sprocketsSuspect, oldPitches, present, presentChainId } = bike
  const worked = of === 'timing' ? timingLength(drive, assumed) : bikeLength(drive, oldPitches, assumed)
  const count = pitches ?? worked
  const wants: PartsDrive = { ...drive, pitches: count, sprocketsSuspect, care }
  return {
    pitches: count,
    question: {
      wants: of === 'timing' ? overTwoRings(wants) : wants,
      chainId: joints === 'on' ? (presentChainId ?? undefined) : chainId,
      ask,
      ...(joints === 'on'
        ? {
            closedBefore: {
              present: present?.model
                ? {
                    model: present.model,
                    closings: present.closings,
                    ...(present.firm === null ? {} : { firm: present.firm }),
                  }
                : null,
            },
          }
        : {}),
      school,
      assumed,
    },
  }
}
