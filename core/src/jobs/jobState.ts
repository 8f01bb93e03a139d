import { fittingSteps, type JobStep } from './fittingSteps.ts'
import type { JobOutcome, JobPlan, JobSchools, OldFate } from './jobPlan.ts'
import type { StepId } from './steps.ts'

/** What somebody decided or found on the way, in the place of what the job began with. */
export interface JobChoice {
  readonly present?: JobPlan['present']
  readonly oldFate?: OldFate
  readonly position?: JobPlan['position']
  readonly schools?: Partial<JobSchools>
}

/** One thing that happened on a job. None is ever rewritten: what is taken back is said anew. */
export type JobEvent = {
  readonly id: string
  /** When it happened, ms. */
  readonly at: number
  /** Initials of who did it. */
  readonly by: string
} & (
  | { readonly kind: 'tick' | 'untick'; readonly step: StepId }
  | { readonly kind: 'outcome' | 'outcome-back'; readonly outcome: JobOutcome }
  | { readonly kind: 'choice'; readonly choice: JobChoice }
  | { readonly kind: 'note'; readonly text: string }
  | { readonly kind: 'take-over' | 'pause' | 'resume' }
)

/** A step with who did it, where it is done. */
export interface StepNow extends JobStep {
  readonly done: { readonly by: string; readonly at: number } | null
}

/** A job as it stands after all that happened. */
export interface JobNow {
  readonly plan: JobPlan
  readonly steps: readonly StepNow[]
  /** The first that is not done; null when all are. */
  readonly next: StepNow | null
  readonly paused: boolean
  /** Minutes somebody worked on it: from its first event to its last, without pauses and without hours it stood. */
  readonly minutes: number
}

/** Longer than this nobody works between two steps: the bike was left standing. */
const UNSEEN_MS = 30 * 60_000

/**
 * What a job has come to: the plan with what was chosen and what happened, its steps, and who did which. Events count by when
 * they happened, so that one that was written without a connection takes its place.
 *
 * A step that was done stays on the list when the plan no longer asks for it: it was done.
 */
export function jobNow(begun: JobPlan, events: readonly JobEvent[]): JobNow {
  const ordered = [...events].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1))
  const done = new Map<StepId, { by: string; at: number }>()
  const outcomes = new Set<JobOutcome>(begun.outcomes)
  let plan = begun
  let paused = false
  let worked = 0
  let last: number | null = null
  for (const event of ordered) {
    if (last !== null && !paused) worked += Math.min(event.at - last, UNSEEN_MS)
    last = event.at
    switch (event.kind) {
      case 'tick':
        // Who did it first, did it.
        if (!done.has(event.step)) done.set(event.step, { by: event.by, at: event.at })
        break
      case 'untick':
        done.delete(event.step)
        break
      case 'outcome':
        outcomes.add(event.outcome)
        break
      case 'outcome-back':
        outcomes.delete(event.outcome)
        break
      case 'choice':
        plan = { ...plan, ...event.choice, schools: { ...plan.schools, ...event.choice.schools } }
        break
      case 'pause':
        paused = true
        break
      case 'resume':
      case 'take-over':
        paused = false
        break
      case 'note':
        break
    }
  }
  const now: JobPlan = { ...plan, outcomes: [...outcomes] }
  const wanted = fittingSteps(now)
  const ids = new Set(wanted.map(({ id }) => id))
  const before = fittingSteps({ ...now, outcomes: [] }).filter(({ id }) => done.has(id) && !ids.has(id))
  const steps = [...before, ...wanted].map((step): StepNow => ({ ...step, done: done.get(step.id) ?? null }))
  return {
    plan: now,
    steps,
    next: steps.find((step) => step.done === null) ?? null,
    paused,
    minutes: worked / 60_000,
  }
}
