import {
  CARE_KINDS,
  CHAINS_TO_LEARN,
  learnLife,
  learnUnsaidWear,
  shippedPrior,
  SURFACES,
  type Assumptions,
} from '@pelrin/core'
import { believedOf } from './believed.ts'
import type { LearnedGroup } from '@pelrin/contract'
import type { LearnAsked, Learned, TaughtChain } from '../queue/learnAsked.ts'

/**
 * What chains teach: each care with enough of them, and each care on one usual surface with enough of those. Pure and
 * slow: run in a worker thread.
 */
export default function learnFrom({ chains, assumed }: LearnAsked): Learned {
  const groups = groupsOf(chains, assumed)
  const unsaid = learnUnsaidWear(
    chains
      .filter(({ surface }) => surface === null)
      .map(({ care, chain }) => ({ care, chain, prior: believedOf(care, null, groups, assumed.forecast) })),
    assumed.forecast,
  )
  return { groups, unsaid: unsaid && { ...unsaid, range: [...unsaid.range] } }
}

function groupsOf(chains: readonly TaughtChain[], assumed: Assumptions): LearnedGroup[] {
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
