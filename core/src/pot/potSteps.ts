import { CLEANING, type CleaningJob } from '../care/cleaning.ts'
import { stepsBy, type Step } from '../jobs/stepTypes.ts'
import { WAXING, type Waxing, type WaxStepId } from './waxSteps.ts'

/** What is done to chains at the pot, one after the other. */
export const POT_ACTIONS = ['strip', 'unstrip', 'load', 'draw', 'flex'] as const
export type PotActionKind = (typeof POT_ACTIONS)[number]

const AT: Readonly<Record<'load' | 'draw' | 'flex', readonly WaxStepId[]>> = {
  load: ['link-apart', 'hook-through', 'untangle', 'lower-in'],
  draw: ['soak-wax', 'swish', 'pot-off', 'skin', 'draw', 'slow-draw', 'hang'],
  flex: ['flex', 'fit-stiff'],
}

/** A chain that lies in the bath, far from any bike. */
const STRIPPED: CleaningJob = {
  cleaning: 'strip',
  wet: true,
  off: true,
  drive: {
    type: 'derailleur',
    motor: null,
    guide: null,
    wideNarrow: null,
    clutch: null,
    cageLock: null,
    discBrake: false,
    timing: false,
    speeds: 1,
  },
}

/** A step at the pot. */
export type PotStep = Step<WaxStepId | (typeof CLEANING)[number]['id']>

/** What is done at an action of a session, by the recipe of the chains it is done to. */
export function potSteps(what: PotActionKind, waxing: Waxing): readonly PotStep[] {
  if (what === 'strip' || what === 'unstrip') {
    const id = what === 'strip' ? 'strip-chain' : 'dry'
    return stepsBy(
      CLEANING.filter((rule) => rule.id === id),
      STRIPPED,
    )
  }
  return stepsBy(
    WAXING.filter(({ id }) => AT[what].includes(id)),
    waxing,
  )
}
