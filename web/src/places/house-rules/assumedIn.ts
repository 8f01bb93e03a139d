import { KM_PER_MILE, type Assumption } from '@pelrin/core'
import { formats } from '../../messages/shopFormats.ts'
import { typedNumber } from '../../messages/typedNumber.ts'

/** Degrees by which something changes, which begin nowhere. */
const isStep = (key: string): boolean => key.endsWith('.spikeCelsius')

/** How a value is told in the shop's units: its own unit where they have none. */
interface Told {
  readonly unit: string
  readonly to: (value: number) => number
  readonly from: (told: number) => number
}

function toldIn({ key, unit }: Pick<Assumption, 'key' | 'unit'>): Told | null {
  const { distanceUnit, temperatureUnit } = formats()
  if (unit === 'celsius' && temperatureUnit === 'F') {
    const begins = isStep(key) ? 0 : 32
    return { unit: '°F', to: (value) => value * 1.8 + begins, from: (told) => (told - begins) / 1.8 }
  }
  const miles = { km: 'mi', 'km/h': 'mph', '1000 km': '1000 mi' }[unit as string]
  if (miles === undefined || distanceUnit === 'km') return null
  return { unit: miles, to: (value) => value / KM_PER_MILE, from: (told) => told * KM_PER_MILE }
}

/** As it stands in its field, in the shop's units, to two decimals. */
export function shownIn(one: Pick<Assumption, 'key' | 'unit'>, value: number): string {
  const told = toldIn(one)
  return String(told === null ? value : Math.round(told.to(value) * 100) / 100)
}

/**
 * What was typed in the shop's units, as it is kept; undefined for no number.
 *
 * @param known values it may stand for: one that would be shown as it was typed is meant to its last digit
 */
export function typedIn(
  one: Pick<Assumption, 'key' | 'unit'>,
  text: string,
  known: readonly number[],
): number | undefined {
  const typed = typedNumber(text)
  const told = toldIn(one)
  if (told === null || typed === undefined) return typed
  return known.find((value) => Number(shownIn(one, value)) === typed) ?? told.from(typed)
}

/** The unit that stands behind its field, where the shop's is another than the one it is kept in. */
export const unitIn = (one: Pick<Assumption, 'key' | 'unit'>): string | null =>
  (one.unit as string) === 'money' ? formats().currency : (toldIn(one)?.unit ?? null)
