import type { JobOutcome, JobPlan } from './jobPlan.ts'
import type { StepId } from './steps.ts'

/** What may be found at a step, each opening steps of its own. */
export const FOUND_AT: Readonly<Partial<Record<StepId, readonly JobOutcome[]>>> = {
  'look-click': ['no-click'],
  'join-pin': ['pin-broke'],
  'join-re-press': ['pin-broke'],
  'length-after': ['wrong-count'],
  'stiff-link': ['stiff-link'],
  'test-ride': ['skips-cassette', 'skips-old-back'],
}
/** Steps at which schools differ, and which school. */
export const SCHOOL_AT: Readonly<Partial<Record<StepId, 'slack' | 'prepare' | 'close'>>> = {
  slack: 'slack',
  strip: 'prepare',
  'wipe-coat': 'prepare',
  'oil-ends': 'prepare',
  'hang-new': 'prepare',
  'snap-pliers': 'close',
  'snap-pedal': 'close',
}
/** Steps that look at what wears beside the chain: what is seen, or a rotor's thickness, is written down in its own place. */
export const OTHER_WEAR_AT = ['look-teeth', 'rotor-clean'] as const satisfies readonly StepId[]
/** Steps that look at, or prove, what the sprockets are like. */
export const SPROCKETS_AT: readonly StepId[] = ['look-teeth', 'test-ride']

/** The joint is opened by what it is: nobody goes on before it was looked at. */
export const waitsForLook = (step: StepId, { present }: Pick<JobPlan, 'present'>): boolean =>
  step === 'identify-joint' && present === null
