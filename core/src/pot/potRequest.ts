import { STRIPS, wantsDrying, type Cleaning } from '../care/cleaning.ts'
import type { WaxCase } from '../care/waxCase.ts'
import type { PotNeed, PotRecipe } from './potTypes.ts'
import type { BathCondition } from './temperature.ts'

/** When a chain hangs ready for a day it is wanted on: the evening before it is fitted, by the clock of the shop. */
export const READY_AT = '17:00'

/**
 * What a chain wants of the pot, by what it is and how it is cleaned before: down to the metal in the bath; out of water, rain or boiling
 * water it dries; what it was ridden through counts against the bath of wax.
 *
 * @param cleaning how it is cleaned before
 * @param recipe by which this bike's chains are waxed
 */
export const potRequest = ({
  waxCase,
  cleaning,
  washed,
  recipe,
}: {
  readonly waxCase: WaxCase
  readonly cleaning: Cleaning
  /** Washed, and not dried since as far as anybody knows. */
  readonly washed: boolean
  readonly recipe: PotRecipe
}): { readonly needs: PotNeed; readonly recipe: PotRecipe; readonly condition: BathCondition } => ({
  needs: STRIPS.includes(cleaning) ? 'strip' : wantsDrying({ cleaning, wet: washed }) ? 'dry' : 'nothing',
  recipe,
  condition: CONDITION_OF[waxCase],
})
const CONDITION_OF: Readonly<Record<WaxCase, BathCondition>> = {
  first: 'clean',
  rewax: 'clean',
  'ready-waxed': 'clean',
  'rewax-wet': 'wet',
  'rewax-gritty': 'gritty',
}

/**
 * What is in a pot, or goes into it first, says which recipe it is to hold; nothing there: the usual one of the house.
 */
export const recipeInPot = (
  chains: readonly { readonly potId: string | null; readonly state: string; readonly recipe: PotRecipe }[],
  potId: string,
  usual: PotRecipe,
): PotRecipe =>
  chains.find((chain) => chain.potId === potId && chain.state === 'in-pot')?.recipe ??
  chains.find(({ state }) => state !== 'hanging')?.recipe ??
  usual
