import type { Assumptions } from '../assumptions.ts'
import type { RewaxSchool } from '../care/waxCase.ts'
import type { StepRule } from '../jobs/stepTypes.ts'
import type { PotRecipe } from './potTypes.ts'

/** What wax is heated in. */
export const POT_VESSELS = ['slow-cooker', 'thermostat', 'bag'] as const
export type PotVessel = (typeof POT_VESSELS)[number]
/** What is done with a chain that has hung: schools differ. */
export const WAX_FINISHES = ['flex', 'fit-stiff'] as const
export type WaxFinish = (typeof WAX_FINISHES)[number]

/** How a chain is waxed. */
export interface Waxing {
  readonly recipe: PotRecipe
  readonly vessel: PotVessel
  readonly finish: WaxFinish
  /** Its connecting link goes into the wax with it. */
  readonly linkInPot: boolean
  readonly times: { readonly minutes: number; readonly hangMinutes: number; readonly heatMinutes: number }
}

export type WaxStepId =
  | 'heat'
  | 'untangle'
  | 'link-apart'
  | 'hook-through'
  | 'lower-in'
  | 'soak-wax'
  | 'swish'
  | 'pot-off'
  | 'skin'
  | 'draw'
  | 'slow-draw'
  | 'hang'
  | 'flex'
  | 'fit-stiff'

const by =
  (...recipes: readonly PotRecipe[]) =>
  ({ recipe }: Waxing): boolean =>
    recipes.includes(recipe)

/** Slowly, and under way while the chain is cleaned. */
export const HEATING: StepRule<Waxing, WaxStepId> = {
  id: 'heat',
  phase: 'before',
  when: () => true,
  minutes: 1,
  waits: ({ times }) => times.heatMinutes,
  values: ({ vessel }) => ({ context: vessel }),
  tools: () => ['wax-pot', 'timer'],
  hazards: () => ['heat'],
}

/** Waxing a clean, dry chain in hot wax, by its recipe. */
export const WAXING: readonly StepRule<Waxing, WaxStepId>[] = [
  {
    id: 'link-apart',
    phase: 'prepare',
    when: () => true,
    minutes: 0.2,
    values: ({ linkInPot }) => ({ context: linkInPot ? 'in' : 'out' }),
  },
  { id: 'hook-through', phase: 'prepare', when: ({ vessel }) => vessel !== 'bag', minutes: 0.5, tools: () => ['hook'] },
  { id: 'untangle', phase: 'prepare', when: () => true, minutes: 0.3 },
  {
    id: 'lower-in',
    phase: 'prepare',
    when: () => true,
    minutes: 0.5,
    values: ({ vessel }) => ({ context: vessel === 'bag' ? 'bag' : 'pot' }),
    tools: () => ['gloves'],
    hazards: () => ['heat'],
  },
  {
    id: 'soak-wax',
    phase: 'prepare',
    when: by('soak-and-hang'),
    minutes: 0.2,
    waits: ({ times }) => times.minutes,
    tools: () => ['timer'],
    hazards: () => ['heat'],
  },
  {
    id: 'swish',
    phase: 'prepare',
    when: () => true,
    minutes: 2,
    values: ({ recipe }) => ({ context: recipe === 'soak-and-hang' ? 'soaked' : 'bubbles' }),
    tools: () => ['hook', 'gloves'],
    hazards: () => ['heat'],
    checked: true,
  },
  {
    id: 'pot-off',
    phase: 'prepare',
    when: by('cool-draw'),
    minutes: 0.5,
    values: ({ vessel }) => ({ context: vessel }),
    tools: () => ['gloves', 'cloth'],
    hazards: () => ['heat'],
  },
  {
    id: 'skin',
    phase: 'prepare',
    when: by('cool-draw'),
    minutes: 0.5,
    waits: ({ times }) => times.minutes,
    checked: true,
  },
  {
    id: 'slow-draw',
    phase: 'prepare',
    when: by('cool-draw'),
    minutes: 2,
    tools: () => ['hook', 'gloves'],
    hazards: () => ['heat'],
  },
  {
    id: 'draw',
    phase: 'prepare',
    when: by('soak-and-hang', 'bubble-out'),
    minutes: 1,
    tools: () => ['hook', 'gloves'],
    hazards: () => ['heat'],
  },
  {
    id: 'hang',
    phase: 'prepare',
    when: () => true,
    minutes: 0.5,
    waits: ({ times }) => times.hangMinutes,
    hazards: () => ['heat'],
  },
  { id: 'flex', phase: 'prepare', when: ({ finish }) => finish === 'flex', minutes: 3, tools: () => ['bar', 'cloth'] },
  { id: 'fit-stiff', phase: 'prepare', when: ({ finish }) => finish === 'fit-stiff', minutes: 0.2 },
]

/** How a shop waxes, where schools differ. */
export interface WaxSchools {
  readonly recipe: PotRecipe
  readonly finish: WaxFinish
  /** A chain's connecting link goes into the wax with it. */
  readonly linkInPot: boolean
  /** What is done with old wax after dry rides. */
  readonly rewax: RewaxSchool
}

export const SHIPPED_WAX: WaxSchools = { recipe: 'soak-and-hang', finish: 'flex', linkInPot: false, rewax: 'nothing' }

/** How a chain is waxed: as the house does it, in one of its pots. */
export const waxingAsUsual = (
  { recipe, finish, linkInPot }: Omit<WaxSchools, 'rewax'>,
  times: Assumptions['pot'],
  { vessel, heatMinutes }: { readonly vessel: PotVessel; readonly heatMinutes: number },
): Waxing => ({
  recipe,
  vessel,
  finish,
  linkInPot,
  times: { minutes: times[recipe].minutes, hangMinutes: times.hangMinutes, heatMinutes },
})
