import { mayBe } from './chainWork.ts'
import { isOiled, isWaxed, type JobOutcome, type JobPlan } from './jobPlan.ts'
import type { Hazard, StepRule } from './stepTypes.ts'

export type ChangeStepId =
  | 'pick'
  | 'count-old'
  | 'look-broken'
  | 'keep-old'
  | 'clean'
  | 'look-teeth'
  | 'strip'
  | 'wax-first'
  | 'ready-waxed'
  | 'wipe-coat'
  | 'hang-new'
  | 'degrease-link'
  | 'size-on-bike'
  | 'length-new'
  | 'cut'
  | 'wipe-ends'
  | 'oil-ends'
  | 'keep-offcut'
  | 'check-ends'
  | 'length-after'
  | 'mend-count'
  | 'free-stiff'
  | 'first-oil'
  | 'fit-cassette'
  | 'old-back'
  | 'ride-again'
  | 'make-safe'
  | 'old-goes'
  | 'baseline'
  | 'carry-card'

export const had =
  (outcome: JobOutcome) =>
  ({ outcomes }: JobPlan): boolean =>
    outcomes.includes(outcome)
const broken = ({ reason }: JobPlan): boolean => reason === 'broken'
const jointIs =
  (...kinds: readonly JobPlan['joint']['kind'][]) =>
  ({ joint }: JobPlan): boolean =>
    kinds.includes(joint.kind)
/** A brake's disc near the chain, unless it is known that there is none. */
const rotor = ({ drive }: JobPlan): readonly Hazard[] => (mayBe(drive.discBrake) ? ['rotor'] : [])
const and =
  (...more: readonly Hazard[]) =>
  (plan: JobPlan): readonly Hazard[] => [...more, ...rotor(plan)]
/** It goes on as it comes: its box's own wax is its first coat. */
const comesWaxed = ({ care, chain }: Pick<JobPlan, 'care' | 'chain'>): boolean => isWaxed(care) && chain.readyWaxed
/** Pitches that come off the new chain. */
export const pitchesCut = ({ cut }: JobPlan['chain']): number => cut.cuts.reduce((sum, { pitches }) => sum + pitches, 0)

/** What a change of chain begins with. */
export const BEFORE_REMOVING: readonly StepRule<JobPlan, ChangeStepId>[] = [
  { id: 'pick', phase: 'before', when: () => true, minutes: 1.5, tools: () => ['stand'] },
  {
    id: 'count-old',
    phase: 'before',
    when: (plan) => !broken(plan),
    minutes: 1.5,
    values: ({ shortened }) => ({ context: shortened ? 'shortened' : 'whole' }),
    asks: 'old-count',
  },
  {
    id: 'look-broken',
    phase: 'before',
    when: broken,
    minutes: 3,
    tools: () => ['gloves'],
    hazards: () => ['metal', 'fingers'],
    checked: true,
  },
]

/** What is done between the old chain and the new one. */
export const BETWEEN: readonly StepRule<JobPlan, ChangeStepId>[] = [
  { id: 'keep-old', phase: 'off', when: () => true, minutes: 0.2 },
  {
    id: 'clean',
    phase: 'clean',
    when: () => true,
    minutes: 6,
    tools: () => ['brush', 'degreaser', 'cloth', 'gloves'],
    hazards: and('solvent', 'fingers'),
  },
  { id: 'look-teeth', phase: 'clean', when: () => true, minutes: 1, checked: true },
  {
    id: 'strip',
    phase: 'prepare',
    when: ({ schools, care, chain }) => (schools.prepare === 'strip' || isWaxed(care)) && !comesWaxed({ care, chain }),
    minutes: 8,
    waits: () => 10,
    tools: () => ['degreaser', 'gloves'],
    hazards: () => ['solvent'],
  },
  {
    id: 'wax-first',
    phase: 'prepare',
    when: ({ care, chain }) => care === 'immersion-wax' && !comesWaxed({ care, chain }),
    minutes: 5,
    waits: () => 25,
    tools: () => ['wax-pot', 'gloves'],
    hazards: and('heat'),
  },
  { id: 'ready-waxed', phase: 'prepare', when: comesWaxed, minutes: 0.5, tools: () => ['cloth'] },
  {
    id: 'wipe-coat',
    phase: 'prepare',
    when: ({ schools, care }) => schools.prepare === 'wipe' && !isWaxed(care),
    minutes: 1,
    tools: () => ['cloth'],
  },
  { id: 'hang-new', phase: 'prepare', when: () => true, minutes: 0.2, tools: () => ['paper'] },
  {
    id: 'degrease-link',
    phase: 'prepare',
    when: (plan) => jointIs('link', 'clip')(plan) && plan.joint.greased && isWaxed(plan.care),
    minutes: 1,
    tools: () => ['degreaser', 'cloth', 'gloves'],
    hazards: () => ['solvent'],
  },
  {
    id: 'size-on-bike',
    phase: 'cut',
    when: ({ chain }) => chain.toSize === true,
    minutes: 6,
    tools: () => ['hook', 'rule'],
    hazards: () => ['fingers', 'spring'],
    checked: true,
    asks: 'size',
  },
  {
    id: 'length-new',
    phase: 'cut',
    when: () => true,
    minutes: 1.5,
    tools: () => ['rule'],
    values: ({ chain, shortened }) => ({ pitches: chain.pitches, context: shortened ? 'shortened' : 'whole' }),
    checked: true,
    asks: 'new-count',
  },
  {
    id: 'cut',
    phase: 'cut',
    when: ({ chain }) => pitchesCut(chain) > 0,
    minutes: 1.5,
    tools: () => ['pin-tool'],
    hazards: () => ['metal'],
    values: ({ chain }) => ({ count: pitchesCut(chain), pitches: chain.pitches }),
  },
  {
    id: 'wipe-ends',
    phase: 'cut',
    when: ({ chain }) => pitchesCut(chain) > 0,
    minutes: 0.3,
    tools: () => ['cloth'],
  },
  {
    id: 'oil-ends',
    phase: 'cut',
    when: (plan) => plan.schools.prepare === 'oil-ends' && pitchesCut(plan.chain) > 0 && !isWaxed(plan.care),
    minutes: 0.3,
    tools: () => ['oil', 'cloth'],
    hazards: rotor,
  },
  {
    id: 'keep-offcut',
    phase: 'cut',
    when: ({ chain }) => chain.cut.offcut > 0,
    minutes: 0.2,
    values: ({ chain }) => ({ count: chain.cut.offcut }),
  },
  {
    id: 'check-ends',
    phase: 'cut',
    when: () => true,
    minutes: 0.3,
    values: ({ chain }) => ({ context: chain.cut.ends }),
    checked: true,
  },
]

/** What is found as the new chain is proved. */
export const AFTER_REFITTING: readonly StepRule<JobPlan, ChangeStepId>[] = [
  { id: 'length-after', phase: 'join', when: () => true, minutes: 0.5, checked: true },
  {
    id: 'mend-count',
    phase: 'join',
    when: had('wrong-count'),
    minutes: 5,
    tools: () => ['pin-tool', 'hook'],
    hazards: () => ['spring', 'metal', 'failure'],
    checked: true,
  },
  {
    id: 'free-stiff',
    phase: 'check',
    when: had('stiff-link'),
    minutes: 1.5,
    tools: () => ['pin-tool'],
    hazards: () => ['fingers'],
    checked: true,
  },
  {
    id: 'first-oil',
    phase: 'check',
    // The factory's coat carries a wiped chain to its first oil; a stripped one runs dry without.
    when: (plan) => plan.schools.prepare === 'strip' && isOiled(plan.care),
    minutes: 4,
    waits: () => 5,
    tools: () => ['oil', 'cloth'],
    hazards: and('fingers'),
  },
]

/** What the ride leads to, and what is written of both chains. */
export const AFTER_RIDING: readonly StepRule<JobPlan, ChangeStepId>[] = [
  {
    id: 'fit-cassette',
    phase: 'ride',
    when: had('skips-cassette'),
    minutes: 10,
    tools: () => ['cassette-tools', 'gloves'],
    hazards: and('metal'),
    checked: true,
  },
  {
    id: 'old-back',
    phase: 'ride',
    when: (plan) => had('skips-old-back')(plan) && !broken(plan),
    minutes: 8,
    tools: () => ['hook', 'link-pliers'],
    hazards: () => ['spring', 'failure'],
    checked: true,
  },
  {
    id: 'ride-again',
    phase: 'ride',
    when: (plan) => had('skips-cassette')(plan) || (had('skips-old-back')(plan) && !broken(plan)),
    minutes: 4,
    hazards: () => ['failure'],
    checked: true,
  },
  {
    id: 'make-safe',
    phase: 'end',
    when: had('customer-stops'),
    minutes: 3,
    hazards: () => ['failure', 'spring'],
    checked: true,
  },
  {
    id: 'old-goes',
    phase: 'end',
    when: (plan) => !had('skips-old-back')(plan) || broken(plan),
    minutes: 0.3,
    values: ({ oldFate }) => ({ context: oldFate }),
  },
  {
    id: 'baseline',
    phase: 'end',
    when: (plan) => !had('skips-old-back')(plan),
    minutes: 1.5,
    tools: () => ['rule'],
    asks: 'baseline',
  },
  { id: 'carry-card', phase: 'end', when: () => true, minutes: 0.5 },
]
