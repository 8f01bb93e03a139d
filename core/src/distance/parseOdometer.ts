import { KM_PER_MILE } from '../defaults.ts'

export type DistanceUnit = 'km' | 'mi'

export type OdometerProblem = 'odometer-letters' | 'odometer-two-decimals' | 'odometer-negative' | 'odometer-too-large'

export type OdometerResult =
  | { readonly ok: true; readonly km: number; readonly unit: DistanceUnit }
  | { readonly ok: false; readonly problem: OdometerProblem }

/**
 * Reads an odometer value as it is written on the stand: `3480`, `3 480`, `2162 mi`, `3480,5`.
 *
 * A blank between groups of three digits is taken for the thousands separator; point and comma are decimal
 * signs. Empty text is no value and is the caller's to handle.
 *
 * @param unit the unit meant when none is written
 * @param assumed the largest value believed, km
 */
export function parseOdometer(
  text: string,
  unit: DistanceUnit,
  { odometerHighestKm }: { readonly odometerHighestKm: number },
): OdometerResult {
  const clean = text
    .trim()
    .toLowerCase()
    .replace(/(\d)[\s\u00a0\u202f'](?=\d{3}(\D|$))/g, '$1')
  if (/^[-−]/.test(clean)) return { ok: false, problem: 'odometer-negative' }
  const match = /^(\d+(?:[.,]\d*)?)\s*(km|mi|miles?|m|k)?$/.exec(clean)
  if (!match) {
    const signs = (clean.match(/[.,]/g) ?? []).length
    return { ok: false, problem: signs > 1 ? 'odometer-two-decimals' : 'odometer-letters' }
  }
  const [, digits = '', written] = match
  const writtenUnit = written === undefined ? unit : written.startsWith('k') ? 'km' : 'mi'
  const value = Number(digits.replace(',', '.'))
  const km = writtenUnit === 'mi' ? value * KM_PER_MILE : value
  if (km > odometerHighestKm) return { ok: false, problem: 'odometer-too-large' }
  return { ok: true, km, unit: writtenUnit }
}
