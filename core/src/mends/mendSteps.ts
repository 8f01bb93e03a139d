import type { CareKind } from '../forecast/priors.ts'
import { PLAIN_LINK, shifts, type ChainHandling, type JobJoint, type Refit, type Removal } from '../jobs/chainWork.ts'
import { CHECKING, type Checked, type CheckStepId } from '../jobs/checking.ts'
import { fittingSteps, standardMinutes } from '../jobs/fittingSteps.ts'
import { isWaxed, type JobPlan } from '../jobs/jobPlan.ts'
import { REFITTING, type RefitStepId } from '../jobs/refitting.ts'
import { REMOVING, type RemovalStepId } from '../jobs/removing.ts'
import type { Position } from '../jobs/schools.ts'
import { lifted, stepsBy, type Step, type StepRule } from '../jobs/stepTypes.ts'
import type { AddedBack } from './addingBack.ts'
import type { MendJoint, MendOption } from './mendOptions.ts'

/** A broken chain that is mended in one way, or a mended one that gets its pitches back. */
export interface MendJob {
  readonly handling: ChainHandling
  readonly care: CareKind
  readonly position: Position
  /** How it is mended; null where pitches are added back to a whole chain. */
  readonly option: MendOption | null
  /** What is put into it; null where it is mended. */
  readonly added: AddedBack | null
  /** For the way home only: it is changed before it is ridden on. */
  readonly roadside: boolean
}

type OwnStepId =
  | 'measure-broken'
  | 'two-pockets'
  | 'lay-bike'
  | 'look-broken'
  | 'take-out'
  | 'put-in'
  | 'count-mended'
  | 'join-others'
  | 'cage-screw'
  | 'find-cause'
  | 'tell-rider'
  | 'way-home'
export type MendStepId = OwnStepId | RemovalStepId | RefitStepId | CheckStepId
export type MendStep = Step<MendStepId>

const jointBy = ({ option, added }: MendJob): MendJoint => option?.joint ?? added?.by ?? 'link'
const pinned = (job: MendJob): boolean => jointBy(job) !== 'link'
/** Pieces that go in, each between two joints. */
const putIn = ({ option, added }: MendJob): readonly number[] =>
  added ? [added.piece] : (option?.inserted.filter((pitches) => pitches > 0) ?? [])
const isBroken = ({ option }: MendJob): boolean => option !== null
const takenOut = ({ option }: MendJob): number => option?.runs.reduce((sum, { length }) => sum + length, 0) ?? 0
/** Joints to close beside the one whose closing is told step by step. */
const others = ({ option, added }: MendJob): number =>
  (added ? added.newJoints + Number(added.ownAgain) : (option?.joints ?? 1)) - 1

function jointOf(job: MendJob): JobJoint {
  const by = jointBy(job)
  return by === 'link' ? PLAIN_LINK : { ...PLAIN_LINK, kind: by, guide: by === 'pin' ? 'snapped' : null }
}

function removalOf(job: MendJob): Removal {
  const { handling } = job
  return {
    drive: handling.drive,
    schools: handling.schools,
    joint: handling.present,
    broken: isBroken(job),
    kept: true,
    toLink: !isBroken(job) && jointBy(job) === 'link',
    rePress: handling.rePress,
    wayToNote: !handling.markedOut,
    // Something damaged comes out of every broken chain, and its pins with it.
    pinTool: true,
  }
}

const refitOf = (job: MendJob): Refit => ({
  drive: job.handling.drive,
  schools: job.handling.schools,
  position: job.position,
  joint: jointOf(job),
  rePress: job.handling.rePress,
  markedOut: job.handling.markedOut,
  asNoted: !job.handling.markedOut && !isBroken(job),
  waxed: job.care === 'immersion-wax',
  dry: isWaxed(job.care),
  newLength: true,
  noClick: false,
  pinBroke: false,
})
const checkedOf = ({ handling: { drive } }: MendJob): Checked => ({ drive, refitted: true, changed: true })

const BEFORE: readonly StepRule<MendJob, OwnStepId>[] = [
  // A worn chain is not mended but changed.
  { id: 'measure-broken', phase: 'before', when: isBroken, minutes: 1, tools: () => ['rule'], checked: true },
  { id: 'two-pockets', phase: 'before', when: isBroken, minutes: 0.2 },
  {
    id: 'lay-bike',
    phase: 'before',
    when: ({ position }) => position !== 'upright',
    minutes: 0.5,
    values: ({ position }) => ({ context: position }),
  },
]
const BETWEEN: readonly StepRule<MendJob, OwnStepId>[] = [
  {
    id: 'look-broken',
    phase: 'off',
    when: isBroken,
    minutes: 3,
    tools: () => ['gloves'],
    hazards: () => ['metal', 'fingers'],
    checked: true,
  },
  {
    id: 'take-out',
    phase: 'cut',
    when: (job) => takenOut(job) > 0,
    minutes: 2,
    tools: () => ['pin-tool'],
    hazards: () => ['metal'],
    values: (job) => ({ context: pinned(job) ? 'pin' : 'link', count: takenOut(job) }),
    checked: true,
  },
  {
    id: 'put-in',
    phase: 'cut',
    when: (job) => putIn(job).length > 0,
    minutes: 2,
    tools: () => ['pin-tool'],
    hazards: () => ['metal'],
    values: (job) => ({
      context: pinned(job) ? 'pin' : 'link',
      count: putIn(job).reduce((sum, pitches) => sum + pitches, 0),
    }),
    checked: true,
  },
  {
    id: 'count-mended',
    phase: 'cut',
    when: () => true,
    minutes: 1,
    tools: () => ['rule'],
    values: ({ option, added }) => ({ pitches: option?.left ?? added?.left ?? 0 }),
    checked: true,
  },
]
const JOINED: readonly StepRule<MendJob, OwnStepId>[] = [
  {
    id: 'join-others',
    phase: 'join',
    when: (job) => others(job) > 0,
    minutes: 2,
    values: (job) => ({ count: others(job) }),
    hazards: () => ['failure'],
    checked: true,
  },
  {
    id: 'cage-screw',
    phase: 'check',
    // A shorter chain pulls the cage on, up against the largest sprocket.
    when: ({ handling, option }) => shifts(handling) && option !== null && option.lost > 0,
    minutes: 1,
    tools: () => ['screwdriver'],
    hazards: () => ['fingers'],
    checked: true,
  },
]
const LAST: readonly StepRule<MendJob, OwnStepId>[] = [
  { id: 'find-cause', phase: 'end', when: isBroken, minutes: 1, checked: true },
  { id: 'way-home', phase: 'end', when: ({ roadside }) => roadside, minutes: 0.2, hazards: () => ['failure'] },
  { id: 'tell-rider', phase: 'end', when: ({ roadside }) => !roadside, minutes: 0.5 },
]

/** Every step of mending a chain, in the usual order. */
export const MEND_STEPS: readonly StepRule<MendJob, MendStepId>[] = [
  ...BEFORE,
  ...lifted(REMOVING, removalOf, () => true),
  ...BETWEEN,
  ...lifted<MendJob, Refit, RefitStepId>(REFITTING, refitOf, () => true),
  ...JOINED,
  ...lifted(CHECKING, checkedOf, () => true),
  ...LAST,
]

/**
 * The steps of mending a broken chain, or of adding pitches back to a mended one, in an order that works.
 *
 * @throws RangeError where neither is wanted, or both
 */
export function mendSteps(job: MendJob): readonly MendStep[] {
  if ((job.option === null) === (job.added === null))
    throw new RangeError('a chain is either mended or gets its pitches back')
  return stepsBy(MEND_STEPS, job)
}

/**
 * Standard minutes of changing the chain instead, to stand beside those of mending it: a new one of its own length, cut and closed by a link.
 */
export const changeMinutes = (
  { drive, schools, present, rePress, markedOut }: ChainHandling,
  care: CareKind,
  pitches: number,
): number => {
  const plan: JobPlan = {
    ...{ reason: 'broken', oldFate: 'scrapped', position: 'upright', outcomes: [], shortened: false },
    ...{ drive, schools, present, rePress, care, joint: PLAIN_LINK },
    chain: {
      pitches,
      markedOut,
      readyWaxed: false,
      cut: { cuts: [{ pitches: 2, end: 'either' }], ends: 'both-inner', offcut: 2, boxes: 1 },
    },
  }
  return standardMinutes(fittingSteps(plan))
}
