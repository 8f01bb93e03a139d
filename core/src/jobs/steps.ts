import {
  AFTER_REFITTING,
  AFTER_RIDING,
  BEFORE_REMOVING,
  BETWEEN,
  had,
  pitchesCut,
  type ChangeStepId,
} from './changing.ts'
import { CHECKING, type Checked, type CheckStepId } from './checking.ts'
import { pinsDriven, type Refit, type Removal } from './chainWork.ts'
import { isWaxed, type JobPlan } from './jobPlan.ts'
import { REFITTING, type RefitStepId } from './refitting.ts'
import { REMOVING, type RemovalStepId } from './removing.ts'
import { lifted, type StepRule } from './stepTypes.ts'

/** Every step of changing a chain. */
export type StepId = RemovalStepId | RefitStepId | CheckStepId | ChangeStepId

/** How a job takes the old chain off. */
export function removalOf(plan: JobPlan): Removal {
  const { drive, schools, present, reason, oldFate, rePress, chain, joint, care } = plan
  const removal: Removal = {
    drive,
    schools,
    joint: present,
    broken: reason === 'broken',
    kept: oldFate !== 'scrapped',
    // A chain that goes on into the wax leaves its pin behind.
    toLink: oldFate === 'rotation' && isWaxed(care),
    rePress,
    wayToNote: oldFate === 'rotation',
    pinTool: false,
  }
  const opened = present === null || pinsDriven(removal).length > 0 || (present.oneUse && !removal.kept)
  const joined = joint.kind === 'pin' || joint.kind === 're-press'
  return { ...removal, pinTool: (opened && !removal.broken) || joined || pitchesCut(chain) > 0 }
}

/** How a job puts the new chain on. */
export const refitOf = ({
  drive,
  schools,
  position,
  joint,
  rePress,
  chain: { markedOut },
  care,
  outcomes,
}: JobPlan): Refit => ({
  drive,
  schools,
  position,
  joint,
  rePress,
  markedOut,
  asNoted: false,
  waxed: care === 'immersion-wax',
  dry: isWaxed(care),
  newLength: true,
  noClick: outcomes.includes('no-click'),
  pinBroke: outcomes.includes('pin-broke'),
})

const checkedOf = ({ drive }: JobPlan): Checked => ({ drive, refitted: true, changed: true })

/** The work goes on: nobody stopped it. */
const goes = (plan: JobPlan): boolean => !had('customer-stops')(plan)
const going = (rules: readonly StepRule<JobPlan, ChangeStepId>[]): StepRule<JobPlan, ChangeStepId>[] =>
  rules.map((rule) => ({ ...rule, when: (plan) => (rule.id === 'make-safe' || goes(plan)) && rule.when(plan) }))
/** A motor is switched off even where the work is stopped. */
const removing = lifted(REMOVING, removalOf, () => true).map((rule): StepRule<JobPlan, RemovalStepId> => ({
  ...rule,
  when: (plan) => (rule.id === 'motor-off' || goes(plan)) && rule.when(plan),
}))
const [motorOff, identify, ...off] = removing

/**
 * Every step of changing a chain, in the order it is usually done; what must come before what is told apart from it (`COMES_BEFORE`).
 * Nothing else decides what a job consists of.
 */
export const STEPS: readonly StepRule<JobPlan, StepId>[] = [
  motorOff!,
  ...going(BEFORE_REMOVING),
  identify!,
  ...off,
  ...going(BETWEEN),
  ...lifted(REFITTING, refitOf, goes),
  ...lifted(CHECKING, checkedOf, goes),
  ...going(AFTER_REFITTING),
  ...going(AFTER_RIDING),
]
