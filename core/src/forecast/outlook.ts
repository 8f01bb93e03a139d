import { daysUntil, type LikelyKm } from './dates.ts'
import type { RideRate } from '../distance/rideRate.ts'

/** Chances of being over the limit whose days are kept with a forecast, so that any later day can be asked. */
export const OUTLOOK_CHANCES = [
  0.01, 0.02, 0.04, 0.06, 0.08, 0.1, 0.15, 0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5, 0.55, 0.6, 0.65, 0.7, 0.75, 0.8, 0.85,
  0.9, 0.95, 0.98,
] as const

/**
 * Whole days from the last recorded moment after which the chance of being over reaches each of {@link OUTLOOK_CHANCES};
 * 0 where it does already. It ends with the last that is reached within twenty years.
 */
export function outlookOf(likely: LikelyKm, rate: RideRate): number[] {
  const reached: number[] = []
  for (const chance of OUTLOOK_CHANCES) {
    const days = daysUntil(likely, chance, rate)
    if (days === null) break
    reached.push(Math.ceil(days))
  }
  return reached
}

/** The first whole day on which the chance is at least so much; null where an outlook does not reach it. */
export function dayOfChance(reached: readonly number[], chance: number): number | null {
  const last = reached.at(-1)
  if (last === undefined || chanceByDay(reached, last) < chance) return null
  let [low, high] = [-1, last]
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (chanceByDay(reached, middle) >= chance) high = middle
    else low = middle
  }
  return high
}

/**
 * The chance of being over so many days after the last recorded moment, 0…1, between the days an outlook keeps in a
 * straight line. The list of every bike asks the database the same (`pelrin_chance_by`).
 *
 * @param reached what {@link outlookOf} gave
 * @param days whole days
 */
export function chanceByDay(reached: readonly number[], days: number): number {
  let known = 0
  while (known < reached.length && reached[known]! <= days) known++
  const from = known === 0 ? { day: 0, chance: 0 } : { day: reached[known - 1]!, chance: OUTLOOK_CHANCES[known - 1]! }
  if (known >= reached.length) return from.chance
  const to = { day: reached[known]!, chance: OUTLOOK_CHANCES[known]! }
  return from.chance + ((to.chance - from.chance) * Math.max(0, days - from.day)) / (to.day - from.day)
}
