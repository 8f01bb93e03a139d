import type { Assumptions } from '../assumptions.ts'
import { distanceBetween, type Segment } from './ledger.ts'
import { totalKm } from './surface.ts'

const DAY_MS = 86_400_000
const WEEK_DAYS = 7
/** Weeks that must be recorded before their scatter says more than what is usual. */
const WEEKS_FOR_SCATTER = 4
/** The values a rate reads; a shop's own or the shipped ones. */
type RateAssumptions = Pick<
  Assumptions['distance'],
  'rateDays' | 'rateHalfLifeDays' | 'weekScatter' | 'statedRateScatter' | 'shopRateScatter'
>

/** How much a bike is ridden. */
export interface RideRate {
  readonly kmPerDay: number
  /** Standard deviation of one week's distance, share of the mean week. */
  readonly weekScatter: number
  /** Standard deviation of the mean itself, share. */
  readonly meanScatter: number
  /** What it rests on, best first. */
  readonly basis: 'recent' | 'older' | 'statement' | 'shop' | 'none'
}

export interface RideRateInput {
  readonly segments: readonly Segment[]
  /** The last recorded day, ms; days after it are unknown, not zero. */
  readonly lastAt: number | null
  /** What the customer said a year's distance is, km. */
  readonly statedKmPerYear?: number | null
  /** The mean of the shop's bikes, km a day. */
  readonly shopKmPerDay?: number | null
}

/**
 * Ride rate, km a day: over the 84 days before the last recorded one, a day counting half after 42; with nothing in
 * them, over all that is older; else by what the customer said, else the shop's mean.
 */
export function rideRate(
  { segments, lastAt, statedKmPerYear = null, shopKmPerDay = null }: RideRateInput,
  assumed: RateAssumptions,
): RideRate {
  const first = segments[0]?.from
  if (lastAt !== null && first !== undefined) {
    const since = Math.max(first, lastAt - assumed.rateDays * DAY_MS)
    const recent = recorded(segments, since, lastAt, assumed.rateHalfLifeDays, assumed.weekScatter)
    if (recent) return { ...recent, basis: 'recent' }
    const older = recorded(segments, first, lastAt, assumed.rateHalfLifeDays * 4, assumed.weekScatter)
    if (older) return { ...older, basis: 'older' }
  }
  if (statedKmPerYear !== null && statedKmPerYear > 0)
    return {
      kmPerDay: statedKmPerYear / 365.25,
      weekScatter: assumed.weekScatter,
      meanScatter: assumed.statedRateScatter,
      basis: 'statement',
    }
  if (shopKmPerDay !== null && shopKmPerDay > 0)
    return {
      kmPerDay: shopKmPerDay,
      weekScatter: assumed.weekScatter,
      meanScatter: assumed.shopRateScatter,
      basis: 'shop',
    }
  return { kmPerDay: 0, weekScatter: assumed.weekScatter, meanScatter: assumed.shopRateScatter, basis: 'none' }
}

/** The rate over some recorded days, from weekly sums back from the last; null with less than a week or no distance. */
function recorded(
  segments: readonly Segment[],
  since: number,
  lastAt: number,
  halfLifeDays: number,
  usualScatter: number,
): Omit<RideRate, 'basis'> | null {
  const days = (lastAt - since) / DAY_MS
  if (days < WEEK_DAYS) return null
  const weeks: { perDay: number; weight: number }[] = []
  for (let end = lastAt; end - since > DAY_MS; end -= WEEK_DAYS * DAY_MS) {
    const start = Math.max(since, end - WEEK_DAYS * DAY_MS)
    const length = (end - start) / DAY_MS
    const age = (lastAt - (start + end) / 2) / DAY_MS
    weeks.push({
      perDay: totalKm(distanceBetween(segments, start, end)) / length,
      weight: length * Math.pow(0.5, age / halfLifeDays),
    })
  }
  const weight = weeks.reduce((sum, week) => sum + week.weight, 0)
  const kmPerDay = weeks.reduce((sum, week) => sum + week.weight * week.perDay, 0) / weight
  if (!(kmPerDay > 0)) return null
  const variance = weeks.reduce((sum, week) => sum + week.weight * (week.perDay - kmPerDay) ** 2, 0) / weight
  const effective = weight ** 2 / weeks.reduce((sum, week) => sum + week.weight ** 2, 0)
  // The odometer alone spreads its distance evenly: weeks that look alike are not known to be.
  const byRide = segments.some(({ rideId, to }) => rideId !== null && to > since)
  const seen = Math.sqrt((variance * effective) / Math.max(1, effective - 1)) / kmPerDay
  const weekScatter = weeks.length >= WEEKS_FOR_SCATTER && byRide ? seen : Math.max(seen, usualScatter)
  return { kmPerDay, weekScatter, meanScatter: weekScatter / Math.sqrt(effective) }
}
