import type { CareInterval } from './careDue.ts'

/**
 * How often a chain is treated as its bike is usually ridden, whole days, one at least: the sooner of its distance and its days.
 *
 * @param kmPerDay what it is ridden; 0 for a bike nobody rides
 * @param usualFactor what a kilometre of its usual mix uses up, against a dry one
 * @throws RangeError for an interval of nothing
 */
export function usualRhythm(interval: CareInterval, kmPerDay: number, usualFactor: number): number {
  if (!(interval.km > 0 && interval.days > 0)) throw new RangeError('a treatment lasts some distance and some days')
  const perDay = Math.max(0, kmPerDay) * usualFactor
  return Math.max(1, Math.floor(Math.min(interval.days, perDay > 0 ? interval.km / perDay : interval.days)))
}
