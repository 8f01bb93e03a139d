import { normalCumulative } from '../numerics/normal.ts'
import type { RideRate } from '../distance/rideRate.ts'

const DAYS_A_WEEK = 7
/** Longest time looked ahead, days. */
const FARTHEST_DAYS = 20 * 365

/** Kilometres to something, each as likely as the others. */
export type LikelyKm = readonly number[]

/**
 * The chance that a distance has been ridden within so many days, 0…1, over everything the distance may be and over the
 * ride rate's own scatter.
 *
 * The days a distance takes scatter by the rate's mean and by the weeks they are made of: few weeks scatter more. Never
 * falls with the days.
 *
 * @param kmLeft possible distances, each as likely as the others; 0 or less is reached already
 */
export function chanceWithin(kmLeft: LikelyKm, days: number, rate: RideRate): number {
  let sum = 0
  for (const km of kmLeft) {
    if (km <= 0) {
      sum += 1
      continue
    }
    if (!(rate.kmPerDay > 0) || days <= 0) continue
    const mean = km / rate.kmPerDay
    const weeks = Math.max(1, mean / DAYS_A_WEEK)
    const scatter = Math.hypot(rate.meanScatter, rate.weekScatter / Math.sqrt(weeks))
    // Logarithmic, so that no time is negative; its median stands below its mean.
    const sd = Math.sqrt(Math.log(1 + scatter * scatter))
    sum += sd > 0 ? normalCumulative((Math.log(days / mean) + 0.5 * sd * sd) / sd) : days >= mean ? 1 : 0
  }
  return sum / kmLeft.length
}

/**
 * Days until a distance has been ridden with a probability.
 *
 * @returns days, 0 when it is reached already; null when it will not be within twenty years
 */
export function daysUntil(kmLeft: LikelyKm, probability: number, rate: RideRate): number | null {
  if (chanceWithin(kmLeft, 0, rate) >= probability) return 0
  let low = 0
  let high = FARTHEST_DAYS
  if (chanceWithin(kmLeft, high, rate) < probability) return null
  while (high - low > 0.05) {
    const middle = (low + high) / 2
    if (chanceWithin(kmLeft, middle, rate) >= probability) high = middle
    else low = middle
  }
  return high
}
