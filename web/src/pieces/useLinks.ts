import type { JointModel } from '@pelrin/contract'
import { useBikeParts } from '../api/queries.ts'

/** Links that fit a bike, those in stock first; asked for when one is wanted. */
export function useLinks(bikeId: string, wanted: boolean): readonly JointModel[] {
  const parts = useBikeParts(wanted ? bikeId : undefined)
  return (parts.data?.joints ?? [])
    .flatMap(({ part, outcome }) =>
      part.model !== 're-press' && part.model.kind === 'link' && outcome !== 'does-not-fit' ? [part.model] : [],
    )
    .sort((a, b) => Number(b.stock > 0) - Number(a.stock > 0))
}
