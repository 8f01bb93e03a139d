import { mayBe, type JobDrive } from '../jobs/chainWork.ts'
import { isWaxed } from '../jobs/jobPlan.ts'
import type { Hazard, StepRule } from '../jobs/stepTypes.ts'
import type { CareKind } from '../forecast/priors.ts'

/**
 * How a chain is cleaned before it is treated. On the bike and off it are both ways; none is the only right one. What each is for stands in
 * the message catalogue.
 */
export const CLEANINGS = ['wipe', 'rinse', 'on-bike', 'box', 'soak', 'ultrasonic', 'boil', 'strip'] as const
export type Cleaning = (typeof CLEANINGS)[number]

/** Off the bike: deep, and one more closing of its link. The others are quick and open nothing. */
export const OFF_BIKE: readonly Cleaning[] = ['soak', 'ultrasonic', 'boil', 'strip']
/** Ways down to bare metal: what a first wax wants. */
export const STRIPS: readonly Cleaning[] = ['ultrasonic', 'strip']
const WETS: readonly Cleaning[] = ['rinse', 'on-bike', 'box', 'soak', 'ultrasonic', 'boil', 'strip']

/** How a chain is usually cleaned: as the last time; stripped was once. */
export const usualCleaning = (newestFirst: readonly { readonly cleaning: Cleaning | null }[]): Cleaning =>
  newestFirst.find(({ cleaning }) => cleaning !== null && !STRIPS.includes(cleaning))?.cleaning ?? 'wipe'

/**
 * The cleaning a care really needs: first wax on a chain that had oil, or nobody knows what, is stripped, by whichever way.
 */
export const cleaningNeeded = ({
  care,
  before,
  cleaning,
}: {
  readonly care: CareKind
  readonly before: CareKind
  readonly cleaning: Cleaning
}): Cleaning => (isWaxed(care) && !isWaxed(before) && !STRIPS.includes(cleaning) ? 'strip' : cleaning)

/** Whether a chain was washed, and nothing was done to it since: it may be wet still. */
export const isWet = (newestFirst: readonly { readonly kind: 'treated' | 'wash' | 'squeak' }[]): boolean =>
  newestFirst.find(({ kind }) => kind !== 'squeak')?.kind === 'wash'

/** A chain that is cleaned. */
export interface CleaningJob {
  readonly cleaning: Cleaning
  /** Wet already: washed, and not dried since. */
  readonly wet: boolean
  /** Off its bike, whatever for. */
  readonly off: boolean
  readonly drive: JobDrive
}

export type CleaningStepId =
  | 'rinse'
  | 'brush-on-bike'
  | 'box'
  | 'soak'
  | 'ultrasonic'
  | 'boil'
  | 'strip-chain'
  | 'clean-around'
  | 'wipe-dry'
  | 'dry'

/** Whether a chain is wet once it is cleaned, and has to be dried before anything goes on it. */
export const wantsDrying = ({ cleaning, wet }: Pick<CleaningJob, 'cleaning' | 'wet'>): boolean =>
  wet || WETS.includes(cleaning)

const is =
  (cleaning: Cleaning) =>
  (job: CleaningJob): boolean =>
    job.cleaning === cleaning
const rotor = ({ drive }: CleaningJob): readonly Hazard[] => (mayBe(drive.discBrake) ? ['rotor'] : [])

/** Cleaning a chain, on its bike or off it, until it may be treated. */
export const CLEANING: readonly StepRule<CleaningJob, CleaningStepId>[] = [
  { id: 'rinse', phase: 'clean', when: is('rinse'), minutes: 3, tools: () => ['brush'] },
  {
    id: 'brush-on-bike',
    phase: 'clean',
    when: is('on-bike'),
    minutes: 6,
    tools: () => ['brush', 'degreaser', 'gloves'],
    hazards: (job) => ['solvent', 'fingers', ...rotor(job)],
  },
  {
    id: 'box',
    phase: 'clean',
    when: is('box'),
    minutes: 5,
    tools: () => ['cleaning-box', 'degreaser', 'gloves'],
    hazards: (job) => ['solvent', 'fingers', ...rotor(job)],
  },
  {
    id: 'soak',
    phase: 'clean',
    when: is('soak'),
    minutes: 4,
    waits: () => 10,
    tools: () => ['degreaser', 'brush', 'gloves'],
    hazards: () => ['solvent'],
  },
  {
    id: 'ultrasonic',
    phase: 'clean',
    when: is('ultrasonic'),
    minutes: 4,
    waits: () => 15,
    tools: () => ['ultrasonic-bath', 'degreaser', 'gloves'],
    hazards: () => ['solvent'],
  },
  {
    id: 'boil',
    phase: 'clean',
    when: is('boil'),
    minutes: 4,
    waits: () => 5,
    tools: () => ['wax-remover', 'hook', 'gloves'],
    hazards: () => ['scald'],
  },
  {
    id: 'strip-chain',
    phase: 'clean',
    when: is('strip'),
    minutes: 6,
    waits: () => 20,
    tools: () => ['degreaser', 'gloves'],
    hazards: () => ['solvent'],
    checked: true,
  },
  {
    id: 'clean-around',
    phase: 'clean',
    when: ({ off }) => off,
    minutes: 3,
    tools: () => ['brush', 'cloth'],
    hazards: (job) => ['fingers', ...rotor(job)],
  },
  { id: 'wipe-dry', phase: 'clean', when: () => true, minutes: 2, tools: () => ['cloth'] },
  {
    id: 'dry',
    phase: 'clean',
    when: wantsDrying,
    minutes: 1,
    waits: () => 20,
    tools: () => ['air'],
    hazards: () => ['pressure'],
    checked: true,
  },
]
