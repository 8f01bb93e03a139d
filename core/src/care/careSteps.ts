import type { CareKind } from '../forecast/priors.ts'
import { isWaxed } from '../jobs/jobPlan.ts'
import type { Hazard, Tool } from '../jobs/steps.ts'

/** Every {@link CareKind} a chain can be treated with. */
export const TREATMENTS = ['immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil'] as const satisfies readonly CareKind[]
export type Treatment = (typeof TREATMENTS)[number]

/** How a chain is cleaned before it is treated. On the bike and off it are both ways; neither is the only right one. */
export const CLEANINGS = ['wipe', 'rinse', 'on-bike', 'soak', 'boil', 'strip'] as const
export type Cleaning = (typeof CLEANINGS)[number]

/** How a chain is usually cleaned: as the last time; stripped was once. */
export const usualCleaning = (newestFirst: readonly { readonly cleaning: Cleaning | null }[]): Cleaning =>
  newestFirst.find(({ cleaning }) => cleaning !== null && cleaning !== 'strip')?.cleaning ?? 'wipe'

export type CareStepId =
  | 'measure-first'
  | 'motor-off'
  | 'identify-joint'
  | 'take-off'
  | 'fit-link'
  | 'rinse'
  | 'brush-on-bike'
  | 'soak'
  | 'boil'
  | 'strip'
  | 'wipe-dry'
  | 'dry'
  | 'cover-rotor'
  | 'smallest-sprocket'
  | 'drop-each-roller'
  | 'drip-each-roller'
  | 'turn-cranks'
  | 'creep-in'
  | 'set'
  | 'wipe-outside'
  | 'wax-in-pot'
  | 'hang'
  | 'flex'
  | 'back-on'
  | 'stiff-links'
  | 'rotor-look'
  | 'motor-on'

/** One step of a care. */
export interface CareStep {
  readonly id: CareStepId
  readonly minutes: number
  /** Minutes nothing can be done but wait; null where it does not. */
  readonly waits: number | null
  readonly tools: readonly Tool[]
  readonly hazards: readonly Hazard[]
}

/** What a care is given to. */
export interface CareJob {
  readonly care: Treatment
  readonly cleaning: Cleaning
  /** What it had before: oil under wax keeps the wax off, so it is stripped whatever was chosen. */
  readonly before: CareKind
  readonly checkFirst: boolean
  /** Closed by a joining pin, as far as anybody knows. */
  readonly pinned: boolean
  /** Null is not known: what may be there is asked for. */
  readonly motor: boolean | null
  readonly discBrake: boolean | null
}

const OFF: readonly Cleaning[] = ['soak', 'boil', 'strip']
const WETS: readonly Cleaning[] = ['rinse', 'on-bike', 'soak', 'boil', 'strip']

/**
 * The cleaning a care really needs: first wax on a chain that had oil, or nobody knows what, is stripped.
 */
export const cleaningNeeded = ({ care, before, cleaning }: Pick<CareJob, 'care' | 'before' | 'cleaning'>): Cleaning =>
  isWaxed(care) && !isWaxed(before) ? 'strip' : cleaning

/**
 * The steps of a care, in an order that works: what is worn is found before it is treated, a motor is off before the cranks are
 * turned, a joint is known before it is opened, and a wet chain is dried before anything goes on it.
 */
export function careSteps(job: CareJob): readonly CareStep[] {
  const { care, checkFirst, pinned, motor, discBrake } = job
  const cleaning = cleaningNeeded(job)
  const off = care === 'immersion-wax' || OFF.includes(cleaning)
  const rotor: readonly Hazard[] = discBrake === false ? [] : ['rotor']
  const steps: CareStep[] = []
  const add = (
    id: CareStepId,
    minutes: number,
    {
      waits = null,
      tools = [],
      hazards = [],
    }: { waits?: number | null; tools?: readonly Tool[]; hazards?: readonly Hazard[] } = {},
  ): void => void steps.push({ id, minutes, waits, tools, hazards })

  if (checkFirst) add('measure-first', 1, { tools: ['rule'] })
  if (motor !== false) add('motor-off', 1, { hazards: ['motor'] })
  if (off) {
    add('identify-joint', 1)
    add('take-off', 2, { tools: ['link-pliers', 'gloves'], hazards: ['spring', 'fingers'] })
    // What comes off for every wax is opened often: no pin is pressed in twice.
    if (care === 'immersion-wax' && pinned) add('fit-link', 4, { tools: ['pin-tool', 'link-pliers'] })
  }
  if (cleaning === 'rinse') add('rinse', 3, { tools: ['brush'] })
  if (cleaning === 'on-bike')
    add('brush-on-bike', 6, { tools: ['brush', 'degreaser', 'gloves'], hazards: ['solvent', 'fingers', ...rotor] })
  if (cleaning === 'soak') add('soak', 4, { waits: 10, tools: ['degreaser', 'brush', 'gloves'], hazards: ['solvent'] })
  if (cleaning === 'boil') add('boil', 4, { waits: 5, tools: ['gloves'], hazards: ['heat'] })
  if (cleaning === 'strip') add('strip', 6, { waits: 20, tools: ['degreaser', 'gloves'], hazards: ['solvent'] })
  add('wipe-dry', 2, { tools: ['cloth'] })
  if (WETS.includes(cleaning)) add('dry', 1, { waits: 20 })
  if (care === 'immersion-wax') {
    add('wax-in-pot', 2, { tools: ['wax-pot', 'gloves'], hazards: ['heat'] })
    add('hang', 1, { waits: 25, hazards: ['heat'] })
    add('flex', 3)
  }
  if (off) add('back-on', 4, { tools: ['link-pliers'], hazards: ['fingers', 'failure'] })
  if (care !== 'immersion-wax') {
    if (discBrake !== false) add('cover-rotor', 1, { tools: ['paper'], hazards: rotor })
    add('smallest-sprocket', 1)
    add(care === 'drip-wax' ? 'drip-each-roller' : 'drop-each-roller', 3, { tools: ['oil'], hazards: rotor })
    add('turn-cranks', 1, { hazards: ['fingers'] })
    if (care === 'drip-wax') add('set', 1, { waits: 240 })
    else {
      add('creep-in', 1, { waits: 5 })
      add('wipe-outside', 2, { tools: ['cloth'] })
    }
  }
  add('stiff-links', 1)
  if (discBrake !== false) add('rotor-look', 1, { hazards: ['rotor'] })
  if (motor !== false) add('motor-on', 1, { hazards: ['motor'] })
  return steps
}

/** How long steps take with hands on, all together, min. */
export const stepsMinutes = (steps: readonly Pick<CareStep, 'minutes'>[]): number =>
  steps.reduce((sum, { minutes }) => sum + minutes, 0)
