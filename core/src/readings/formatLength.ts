import { MM_PER_INCH } from '../defaults.ts'
import type { LengthUnit } from './parseLength.ts'

/** How a length is to be written. */
export interface LengthFormat {
  readonly unit: LengthUnit
  /** Steps per inch to write a fraction in; without it a decimal is written. Only with `in`. */
  readonly denominator?: number
  /** Decimals of a decimal number: 1 for mm and 3 for inches unless given. */
  readonly decimals?: number
  /** The decimal sign, a point unless given. */
  readonly decimalSign?: '.' | ','
}

const greatestCommonDivisor = (a: number, b: number): number => (b === 0 ? a : greatestCommonDivisor(b, a % b))

/**
 * Writes a length so that `parseLength` reads the same one back (to the step or decimals written).
 *
 * @param lengthMm mm, 0 or more
 */
export function formatLength(lengthMm: number, format: LengthFormat): string {
  if (format.unit === 'in' && format.denominator !== undefined) {
    const steps = Math.round((lengthMm / MM_PER_INCH) * format.denominator)
    const whole = Math.floor(steps / format.denominator)
    const rest = steps - whole * format.denominator
    if (rest === 0) return `${whole} in`
    const shared = greatestCommonDivisor(rest, format.denominator)
    const fraction = `${rest / shared}/${format.denominator / shared}`
    return whole === 0 ? `${fraction} in` : `${whole} ${fraction} in`
  }
  const value = format.unit === 'in' ? lengthMm / MM_PER_INCH : lengthMm
  const digits = value.toFixed(format.decimals ?? (format.unit === 'in' ? 3 : 1))
  return `${format.decimalSign === ',' ? digits.replace('.', ',') : digits} ${format.unit}`
}
