import type { CareKind } from '../forecast/priors.ts'
import {
  convertsPin,
  mayBe,
  PLAIN_LINK,
  shifts,
  type ChainHandling,
  type Refit,
  type Removal,
} from '../jobs/chainWork.ts'
import { CHECKING, type Checked, type CheckStepId } from '../jobs/checking.ts'
import { isOiled, isWaxed } from '../jobs/jobPlan.ts'
import { REFITTING, type RefitStepId } from '../jobs/refitting.ts'
import { REMOVING, type RemovalStepId } from '../jobs/removing.ts'
import { lifted, stepsBy, type Hazard, type Step, type StepRule } from '../jobs/stepTypes.ts'
import { HEATING, WAXING, type Waxing, type WaxStepId } from '../pot/waxSteps.ts'
import { CLEANING, cleaningNeeded, OFF_BIKE, type Cleaning, type CleaningJob, type CleaningStepId } from './cleaning.ts'

/** Every {@link CareKind} a chain can be treated with. */
export const TREATMENTS = ['immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil'] as const satisfies readonly CareKind[]
export type Treatment = (typeof TREATMENTS)[number]

/** What a care is given to. */
export interface CareJob {
  readonly care: Treatment
  readonly cleaning: Cleaning
  /** What it had before: oil under wax keeps the wax off, so it is stripped whatever was chosen. */
  readonly before: CareKind
  /** Washed, or ridden wet, and not treated since. */
  readonly wet: boolean
  readonly checkFirst: boolean
  readonly handling: ChainHandling
  /** How it is waxed, where it is; its vessel too. */
  readonly waxing: Waxing
}

type OwnStepId =
  | 'measure-first'
  | 'cover-rotor'
  | 'smallest-sprocket'
  | 'drop-each-roller'
  | 'drip-each-roller'
  | 'turn-cranks'
  | 'creep-in'
  | 'set'
  | 'wipe-outside'
export type CareStepId = OwnStepId | RemovalStepId | RefitStepId | CheckStepId | CleaningStepId | WaxStepId
export type CareStep = Step<CareStepId>

/** Whether a care takes the chain off its bike, so that its joint is opened and closed once more. */
export const takesOff = (job: Pick<CareJob, 'care' | 'cleaning' | 'before'>): boolean =>
  job.care === 'immersion-wax' || OFF_BIKE.includes(cleaningNeeded(job))

function removalOf({ handling, care }: Pick<CareJob, 'handling' | 'care'>): Removal {
  const { drive, schools, present, joint, rePress, markedOut } = handling
  const driven = present === null || present.kind === 'pin' || present.kind === 'riveted'
  return {
    drive,
    schools,
    joint: present,
    broken: false,
    kept: true,
    // What comes off for every wax is opened often: no pin is pressed in twice.
    toLink: care === 'immersion-wax',
    rePress,
    wayToNote: !markedOut && !(joint.kind === 'link' && joint.arrow),
    pinTool: driven || joint.kind === 'pin' || joint.kind === 're-press',
  }
}

function refitOf({ handling, care }: Pick<CareJob, 'handling' | 'care'>): Refit {
  const { drive, schools, joint, rePress, markedOut } = handling
  return {
    drive,
    schools,
    position: 'upright',
    joint: convertsPin(removalOf({ handling, care })) ? PLAIN_LINK : joint,
    rePress,
    markedOut,
    asNoted: !markedOut,
    waxed: care === 'immersion-wax',
    dry: isWaxed(care),
    newLength: false,
    noClick: false,
    pinBroke: false,
  }
}

const cleaningOf = (job: CareJob): CleaningJob => ({
  cleaning: cleaningNeeded(job),
  wet: job.wet,
  off: takesOff(job),
  drive: job.handling.drive,
})
const waxingOf = ({ waxing }: CareJob): Waxing => waxing
const isDipped = ({ care }: CareJob): boolean => care === 'immersion-wax'
const rotor = ({ handling: { drive } }: CareJob): readonly Hazard[] => (mayBe(drive.discBrake) ? ['rotor'] : [])
const hasDisc = ({ handling: { drive } }: CareJob): boolean => mayBe(drive.discBrake)
const dripped = ({ care }: CareJob): boolean => care === 'drip-wax'
const oiled = ({ care }: CareJob): boolean => isOiled(care)
const onBike = ({ care }: CareJob): boolean => care !== 'immersion-wax'

const checkedOf = (job: CareJob): Checked => ({ drive: job.handling.drive, refitted: takesOff(job), changed: false })

const FIRST: readonly StepRule<CareJob, OwnStepId>[] = [
  { id: 'measure-first', phase: 'before', when: ({ checkFirst }) => checkFirst, minutes: 1, tools: () => ['rule'] },
]
/** What goes on by drops, and how it is left. */
const DROPS: readonly StepRule<CareJob, OwnStepId>[] = [
  {
    id: 'cover-rotor',
    phase: 'check',
    when: (job) => onBike(job) && hasDisc(job),
    minutes: 1,
    tools: () => ['paper'],
    hazards: rotor,
  },
  { id: 'smallest-sprocket', phase: 'check', when: (job) => onBike(job) && shifts(job.handling), minutes: 1 },
  { id: 'drip-each-roller', phase: 'check', when: dripped, minutes: 3, tools: () => ['oil'], hazards: rotor },
  { id: 'drop-each-roller', phase: 'check', when: oiled, minutes: 3, tools: () => ['oil'], hazards: rotor },
  { id: 'turn-cranks', phase: 'check', when: onBike, minutes: 1, hazards: () => ['fingers'] },
  { id: 'set', phase: 'check', when: dripped, minutes: 1, waits: () => 240 },
  { id: 'creep-in', phase: 'check', when: oiled, minutes: 1, waits: () => 5 },
  { id: 'wipe-outside', phase: 'check', when: oiled, minutes: 2, tools: () => ['cloth'] },
]
/** A motor is off before the cranks are turned, whether the chain comes off or not. */
const removing = lifted(REMOVING, removalOf, () => true).map((rule): StepRule<CareJob, RemovalStepId> => ({
  ...rule,
  when: (job) => (rule.id === 'motor-off' || takesOff(job)) && rule.when(job),
}))

/** Every step of every care, in the usual order. */
export const CARE_STEPS: readonly StepRule<CareJob, CareStepId>[] = [
  ...FIRST,
  ...removing.filter(({ phase }) => phase === 'before'),
  ...lifted([HEATING], waxingOf, isDipped),
  ...removing.filter(({ phase }) => phase !== 'before'),
  ...lifted(CLEANING, cleaningOf, () => true),
  ...lifted(WAXING, waxingOf, isDipped),
  ...lifted<CareJob, Refit, RefitStepId>(REFITTING, refitOf, takesOff),
  ...DROPS,
  ...lifted(CHECKING, checkedOf, () => true),
]

/**
 * The steps of a care, in an order that works: what is worn is found before it is treated, a motor is off before the cranks are
 * turned, a joint is known before it is opened, and a wet chain is dried before anything goes on it.
 */
export const careSteps = (job: CareJob): readonly CareStep[] => stepsBy(CARE_STEPS, job)
