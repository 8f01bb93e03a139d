import { distanceBetween, totalKm, type Assumptions } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { bikeDistance, shopRiding, type BikeDistance } from './bikeDistanceStore.ts'

export async function distanceOfBike(
  work: Work,
  bikeId: string,
  assumed: Assumptions,
  shop = shopRiding(work),
): Promise<BikeDistance> {
  const [{ customerId } = { customerId: '' }] = await work.select<{ customerId: string }>(
    'SELECT customer_id AS "customerId" FROM bikes WHERE id = :bikeId',
    { bikeId },
  )
  return bikeDistance(work, { id: bikeId, customerId }, assumed, shop)
}

/** The last moment a bike's distance is known of, ms; -Infinity for never. */
export const lastOf = ({ view, entries }: BikeDistance): number =>
  Math.max(view.lastAt ?? -Infinity, ...entries.map(({ at }) => at.getTime()))

/** What a bike has run up to a moment since it is known here, with what it ran by its rate since the last entry, km. */
export function runOf(distance: BikeDistance): (at: Date) => number | null {
  const { view, rate } = distance
  const last = lastOf(distance)
  if (!Number.isFinite(last)) return () => null
  return (at) =>
    totalKm(distanceBetween(view.segments, -Infinity, at.getTime())) +
    (Math.max(0, at.getTime() - last) / 86_400_000) * rate.kmPerDay
}

/** The same of a bike by its id. */
export async function bikeRun(work: Work, bikeId: string): Promise<(at: Date) => number | null> {
  const { assumed } = await assumptionsInForce(work)
  return runOf(await distanceOfBike(work, bikeId, assumed))
}
