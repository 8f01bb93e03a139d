import { percent } from '../../messages/format.ts'
import type { SpotReading } from './evaluate.ts'

/** What was read at a place, as short as the loop has room for. */
export function shortLabel(reading: SpotReading): string | null {
  if (reading.state === 'empty') return null
  if (reading.state !== 'ready') return '?'
  const { value, over, under } = reading.observed
  if (value !== undefined) return percent(value)
  if (over !== undefined && under !== undefined) return `${percent(over)}–${percent(under).replace(/^0/, '')}`
  return over === undefined ? `< ${percent(under ?? 0)}` : `> ${percent(over)}`
}

/** Largest less smallest of the spots with a value, %; null with fewer than two. */
export function spreadOf(spots: readonly SpotReading[]): number | null {
  const values = spots.flatMap((one) =>
    one.state === 'ready' && one.observed.value !== undefined ? [one.observed.value] : [],
  )
  return values.length < 2 ? null : Math.max(...values) - Math.min(...values)
}

/** A whole mark a rule's end can be read against, without a length: whole inches, or every 50 mm. */
const WHOLE_MARK = /^\s*(?:\d{1,2}\s*(?:in|"|″)|\d{2,4}\s*(?:mm)?)\s*$/i

/** Whether what is typed is a whole mark, which a picture says the rest of. */
export const readAgainstMark = (typed: string): boolean => WHOLE_MARK.test(typed)
