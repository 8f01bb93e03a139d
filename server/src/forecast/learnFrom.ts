import {
  CARE_KINDS,
  CHAINS_TO_LEARN,
  learnLife,
  shippedPrior,
  SURFACES,
  type Assumptions,
  type CareKind,
  type LearningChain,
  type Surface,
} from '@pelrin/core'
import type { LearnedGroup } from '@pelrin/contract'

/** A chain to learn from: every one with two readings or more, finished, running and changed early alike. */
export interface TaughtChain {
  readonly care: CareKind
  /** What its bike is ridden on most; null when nobody said. */
  readonly surface: Surface | null
  readonly chain: LearningChain
}

export interface LearnAsked {
  readonly chains: readonly TaughtChain[]
  readonly assumed: Assumptions
}

/**
 * What chains teach: each care with enough of them, and each care on one usual surface with enough of those. Pure and
 * slow: run in a worker thread.
 */
export default function learnFrom({ chains, assumed }: LearnAsked): LearnedGroup[] {
  return CARE_KINDS.flatMap((care) => {
    const ofCare = chains.filter((one) => one.care === care)
    return [null, ...SURFACES].flatMap((surface): LearnedGroup[] => {
      const group = surface === null ? ofCare : ofCare.filter((one) => one.surface === surface)
      if (group.length < CHAINS_TO_LEARN) return []
      const learned = learnLife(
        care,
        group.map(({ chain }) => ({ ...chain, defaults: assumed.forecast })),
        assumed.forecast,
      )
      if (!learned) return []
      const { prior: _, lifeRange, ...rest } = learned
      return [{ ...rest, lifeRange: [...lifeRange], care, surface, shipped: shippedPrior(care, assumed.forecast) }]
    })
  })
}
