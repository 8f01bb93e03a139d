import { atInZone } from './shopClock.ts'

/**
 * A time of a day as people type it: 14:30, 14.30, 1430.
 *
 * @param day YYYY-MM-DD, by the shop's clock
 * @returns the moment; null for nothing typed; undefined when it is none
 */
export function timeOn(typed: string, day: string): string | null | undefined {
  if (typed.trim() === '') return null
  const [, hours, minutes] = /^(\d{1,2})[:.h ]?(\d{2})$/.exec(typed.trim()) ?? []
  if (hours === undefined || Number(hours) > 23 || Number(minutes) > 59) return undefined
  return atInZone(day, `${hours.padStart(2, '0')}:${minutes}`).toISOString()
}
