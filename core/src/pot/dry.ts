import type { Assumptions } from '../assumptions.ts'
import type { PotNeed } from './potTypes.ts'
import type { BathCondition } from './temperature.ts'

/** What a chain wants before the wax, by what it wants anyway and how it came: what came wet is dried. */
export const needsBefore = (needs: PotNeed, condition: BathCondition): PotNeed =>
  condition === 'wet' && needs === 'nothing' ? 'dry' : needs

/** A chain that is to go into the wax. Moments in ms. */
export interface Lowered {
  readonly state: string
  readonly needs: PotNeed
  /** Since when it is where it is. */
  readonly since: number
  readonly addedAt: number
}

/**
 * Why a chain may not go into the wax yet; null where it may. Water spits in hot wax, and what is under oil takes none.
 *
 * @param now moment judged at, ms
 */
export function keptFromWax(
  { state, needs, since, addedAt }: Lowered,
  now: number,
  { dryMinutes }: Pick<Assumptions['pot'], 'dryMinutes'>,
): 'unstripped' | 'undried' | null {
  if (state === 'stripping') return 'undried'
  if (state === 'waiting' && needs === 'strip') return 'unstripped'
  // Whoever says that it is dry, dried it quicker. What only has to dry dries since it lies there.
  const from = needs !== 'dry' ? null : state === 'drying' ? since : state === 'waiting' ? addedAt : null
  return from !== null && now - from < dryMinutes * 60_000 ? 'undried' : null
}
