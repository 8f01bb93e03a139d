import type { JobPlan } from './jobPlan.ts'
import { STEPS, type Hazard, type StepId, type StepPhase, type Tool } from './steps.ts'

/** One step of a job as it is shown: its words are keys of the message catalogue under its id. */
export interface JobStep {
  readonly id: StepId
  readonly phase: StepPhase
  readonly tools: readonly Tool[]
  readonly hazards: readonly Hazard[]
  /** Standard minutes. */
  readonly minutes: number
  /** Minutes it waits by itself: for drying, hanging, creeping in. Null where it does not. */
  readonly waits: number | null
  /** Values its words name. */
  readonly values: Readonly<Record<string, string | number>>
  /** Whether there is something to be seen or felt before it is done. */
  readonly checked: boolean
}

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
  return STEPS.filter(({ when }) => when(plan)).map(
    ({ id, phase, tools, hazards, minutes, waits = null, values, checked = false }): JobStep => ({
      id,
      phase,
      tools: tools?.(plan) ?? [],
      hazards: hazards?.(plan) ?? [],
      minutes,
      waits,
      values: values?.(plan) ?? {},
      checked,
    }),
  )
}

/** Standard minutes of a job. */
export const standardMinutes = (steps: readonly JobStep[]): number =>
  steps.reduce((sum, { minutes }) => sum + minutes, 0)

/** Every tool a job wants, in the order they are taken up. */
export const toolsOf = (steps: readonly JobStep[]): Tool[] => [...new Set(steps.flatMap(({ tools }) => tools))]
