import { isOneUse } from '@pelrin/core'
import type { JointModel } from '@pelrin/contract'
import { useBikeParts } from '../api/queries.ts'

/**
 * Links that fit a bike, those in stock first; asked for when one is wanted.
 *
 * @param often it is opened often from now on: one that may be closed once only comes after those
 */
export function useLinks(bikeId: string, wanted: boolean, often = false): readonly JointModel[] {
  const parts = useBikeParts(wanted ? bikeId : undefined)
  return (parts.data?.joints ?? [])
    .flatMap(({ part, outcome }) =>
      part.model !== 're-press' && part.model.kind === 'link' && outcome !== 'does-not-fit' ? [part.model] : [],
    )
    .sort(
      (a, b) =>
        Number(b.stock > 0) - Number(a.stock > 0) ||
        (often ? Number(isOneUse(a.reuse)) - Number(isOneUse(b.reuse)) : 0),
    )
}
