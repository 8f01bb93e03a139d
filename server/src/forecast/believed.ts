import { shippedPrior, type Assumptions, type CareKind, type Surface, type WearPrior } from '@pelrin/core'
import type { LearnedGroup } from '@pelrin/contract'

/** What is believed of a care on its usual surface: learned of both, else of the care, else shipped. */
export function believedOf(
  care: CareKind,
  surface: Surface | null,
  groups: readonly LearnedGroup[],
  defaults: Assumptions['forecast'],
): WearPrior {
  const shipped = shippedPrior(care, defaults)
  const adopted = groups.filter((group) => group.care === care && group.adopted)
  const learned =
    adopted.find((group) => group.surface === surface && surface !== null) ??
    adopted.find((group) => group.surface === null)
  return learned ? { ...shipped, life: learned.life, lifeSd: learned.lifeSd } : shipped
}
