import type { JobPlan } from './jobPlan.ts'
import { STEPS, type StepId } from './steps.ts'
import { stepsBy, type Step, type Tool } from './stepTypes.ts'

/** One step of a job as it is shown. */
export type JobStep = Step<StepId>

/**
 * The steps of changing a chain on one bike, in an order that works: only those that apply, each with what it wants. What
 * happened on the way opens its own steps; a customer who stops the work leaves what makes the bike safe.
 *
 * @throws RangeError where an old pin is to be pressed in that must not be, or a clip is to close a shifting chain
 */
export function fittingSteps(plan: JobPlan): JobStep[] {
  if (plan.joint.kind === 're-press' && plan.rePress === 'excluded')
    throw new RangeError('this chain’s pins must not be pressed in again')
  if (plan.joint.kind === 'clip' && plan.drive.type === 'derailleur' && !plan.drive.timing)
    throw new RangeError('a clip link closes chains that run on one sprocket')
  return stepsBy(STEPS, plan)
}

/** Standard minutes of a job. */
export const standardMinutes = (steps: readonly { readonly minutes: number }[]): number =>
  steps.reduce((sum, { minutes }) => sum + minutes, 0)

/** Every tool a job wants, in the order they are taken up. */
export const toolsOf = (steps: readonly { readonly tools: readonly Tool[] }[]): Tool[] => [
  ...new Set(steps.flatMap(({ tools }) => tools)),
]
