import type { CareReason } from '../care/careDue.ts'
import { STRIPS, type Cleaning } from '../care/cleaning.ts'
import type { PotNeed, PotRecipe } from './potTypes.ts'
import type { BathCondition } from './temperature.ts'

/** When a chain hangs ready for a day it is wanted on: the evening before it is fitted, by the clock of the shop. */
export const READY_AT = '17:00'

/**
 * What a chain wants of the pot, as its care tells it: one never treated, or cleaned down to the metal, is stripped first; one due for a
 * wash brings its water along.
 *
 * @param wasTreated whether anybody treated it before
 * @param because why it is due; null where that is not known
 */
export const potRequest = ({
  wasTreated,
  cleaning,
  recipe,
  because,
}: {
  readonly wasTreated: boolean
  readonly cleaning: Cleaning
  /** By which recipe this bike's chains are waxed. */
  readonly recipe: PotRecipe
  readonly because: CareReason | null
}): { readonly needs: PotNeed; readonly recipe: PotRecipe; readonly condition: BathCondition } => ({
  needs: !wasTreated || STRIPS.includes(cleaning) ? 'strip' : because === 'wash' ? 'dry' : 'nothing',
  recipe,
  condition: because === 'wash' ? 'wet' : 'clean',
})

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
