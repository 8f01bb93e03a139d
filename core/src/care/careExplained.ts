import type { Assumptions } from '../assumptions.ts'
import type { Explanation } from '../explanation.ts'
import type { CareInterval, CareReason } from './careDue.ts'

/** A treatment that falls due, as far as it is to be told why. */
export interface CareToExplain {
  readonly because: CareReason
  readonly interval: CareInterval
  /** Used up of it: dry km, and days fitted; days null where it was never treated here. */
  readonly usedKm: number
  readonly usedDays: number | null
}

/** Why a treatment is due when it is: by what decided. Its result is what is left of it, dry km or days. */
export function careExplained(
  { because, interval, usedKm, usedDays }: CareToExplain,
  { firstCareKm }: Assumptions['care'],
): Explanation {
  if (because === 'days')
    return {
      rule: 'care-by-days',
      inputs: [
        { symbol: 'i', meaning: 'care-days', value: interval.days, unit: 'days' },
        { symbol: 'u', meaning: 'care-days-used', value: usedDays ?? 0, unit: 'days' },
      ],
      formula: 'd = i − u',
      result: { value: interval.days - (usedDays ?? 0), unit: 'days' },
    }
  if (because !== 'distance' && because !== 'first-care')
    return { rule: `care-by-${because}`, inputs: [], result: { value: 'at-once', unit: 'text' } }
  const carries = because === 'first-care' ? Math.min(firstCareKm, interval.km) : interval.km
  return {
    rule: because === 'first-care' ? 'care-by-first' : 'care-by-distance',
    inputs: [
      { symbol: 'i', meaning: because === 'first-care' ? 'coat-km' : 'care-km', value: carries, unit: 'km' },
      { symbol: 'u', meaning: 'care-km-used', value: usedKm, unit: 'km' },
    ],
    formula: 'k = i − u',
    result: { value: carries - usedKm, unit: 'km' },
  }
}
