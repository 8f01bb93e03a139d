import { fittingSteps, type JobStep } from './fittingSteps.ts'
import { cutPlan } from '../length/cutPlan.ts'
import { onBikePitches, type OnBike } from '../length/onBike.ts'
import type { JobChain, JobOutcome, JobPlan, OldFate } from './jobPlan.ts'
import type { JobSchools } from './schools.ts'
import type { StepId } from './steps.ts'

/** What somebody decided or found on the way, in the place of what the job began with. */
export interface JobChoice {
  readonly present?: JobPlan['present']
  readonly oldFate?: OldFate
  readonly position?: JobPlan['position']
  readonly schools?: Partial<JobSchools>
}

/** How a chain looks at one end of its gears. */
export const CHAIN_HANGS = ['hangs', 'right', 'strained'] as const
export type ChainHangs = (typeof CHAIN_HANGS)[number]
export const CLICKS = ['firm', 'weak', 'none'] as const
export type Click = (typeof CLICKS)[number]

/** What was typed or chosen at a step that asks for it. */
export type JobEntry =
  | {
      readonly asks: 'old-count'
      readonly pitches: number
      /** On the two smallest, and on the two largest; null where it was not tried. */
      readonly small: ChainHangs | null
      readonly large: ChainHangs | null
    }
  | { readonly asks: 'way'; readonly way: 'marked' | 'not-known' }
  | ({
      readonly asks: 'size'
      /** What the drive wants added to what was wrapped round. */
      readonly addPitches: number
    } & OnBike)
  | { readonly asks: 'new-count'; readonly pitches: number }
  | { readonly asks: 'click'; readonly click: Click }

/** One thing that happened on a job. None is ever rewritten: what is taken back is said anew. */
export type JobEvent = {
  readonly id: string
  /** When it happened, ms. */
  readonly at: number
  /** Initials of who did it. */
  readonly by: string
} & (
  | { readonly kind: 'tick' | 'untick'; readonly step: StepId }
  | { readonly kind: 'entered'; readonly step: StepId; readonly entry: JobEntry }
  | { readonly kind: 'left-out'; readonly step: StepId; readonly why: string }
  | { readonly kind: 'outcome' | 'outcome-back'; readonly outcome: JobOutcome }
  | { readonly kind: 'choice'; readonly choice: JobChoice }
  | { readonly kind: 'note'; readonly text: string }
  | { readonly kind: 'take-over' | 'pause' | 'resume' }
)

/** A step with who did it, where it is done. */
export interface StepNow extends JobStep {
  readonly done: StepDone | null
}

/** How a step was done. */
export interface StepDone {
  readonly by: string
  readonly at: number
  /** What was entered there, where it asks. */
  readonly entry: JobEntry | null
  /** Why nothing was; null where something was, or nothing is asked. */
  readonly leftOut: string | null
}

/** A job as it stands after all that happened. */
export interface JobNow {
  readonly plan: JobPlan
  readonly steps: readonly StepNow[]
  /** The first that is not done; null when all are that can be before the job is closed. */
  readonly next: StepNow | null
  readonly paused: boolean
  /** Minutes somebody worked on it: from its first event to its last, without pauses and without hours it stood. */
  readonly minutes: number
}

/** Longer than this nobody works between two steps: the bike was left standing. */
const UNSEEN_MS = 30 * 60_000

/** A new chain once its length was found on the bike: what is cut off it follows. */
function sized(chain: JobChain, { way, counted, addPitches }: OnBike & { addPitches: number }): JobChain {
  const pitches = onBikePitches({ way, counted }, addPitches)
  return { ...chain, pitches, ...(chain.box ? { cut: cutPlan({ pitches, ...chain.box }) } : {}) }
}

/**
 * What a job has come to: the plan with what was chosen and what happened, its steps, and who did which. Events count by when
 * they happened, so that one that was written without a connection takes its place.
 *
 * A step that was done stays on the list when the plan no longer asks for it: it was done.
 */
export function jobNow(begun: JobPlan, events: readonly JobEvent[]): JobNow {
  const ordered = [...events].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1))
  const done = new Map<StepId, StepDone>()
  const doing = ({ step, by, at }: { step: StepId; by: string; at: number }, how: Partial<StepDone> = {}): void =>
    void done.set(step, { by, at, entry: null, leftOut: null, ...how })
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
        if (!done.has(event.step)) doing(event)
        break
      case 'entered':
        doing(event, { entry: event.entry })
        if (event.entry.asks === 'size') plan = { ...plan, chain: sized(plan.chain, event.entry) }
        // Half closed is not closed: it wants a new link, and is looked at again.
        if (event.entry.asks === 'click' && event.entry.click !== 'firm') {
          outcomes.add('no-click')
          done.delete(event.step)
        }
        break
      case 'left-out':
        doing(event, { leftOut: event.why })
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
    // A new chain is measured when it has begun: once its job is closed.
    next: steps.find((step) => step.done === null && step.asks !== 'baseline') ?? null,
    paused,
    minutes: worked / 60_000,
  }
}
