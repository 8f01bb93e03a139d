import type { Work } from '../db/work.ts'
import { instrumentsInUse, type InstrumentInUse } from '../instruments/store.ts'
import { assumptionsInForce, type AssumptionsInForce } from '../limits/assumptionsStore.ts'
import { shopRiding, type ShopRiding } from '../distance/bikeDistanceStore.ts'
import { priorsInForce, type PriorsInForce } from '../forecast/priorsStore.ts'
import { rulesInForce, type RuleInForce } from '../limits/houseRulesStore.ts'

/** What every verdict of a shop rests on, read once for many bikes. */
export interface ShopFacts {
  readonly rules: readonly RuleInForce[]
  readonly instruments: readonly InstrumentInUse[]
  readonly assumptions: AssumptionsInForce
  readonly riding: ShopRiding
  readonly priors: PriorsInForce
}

export async function shopFacts(work: Work): Promise<ShopFacts> {
  return {
    rules: await rulesInForce(work),
    instruments: await instrumentsInUse(work),
    assumptions: await assumptionsInForce(work),
    riding: shopRiding(work),
    priors: await priorsInForce(work),
  }
}
