import type { NearestFraction } from '@pelrin/core'
import { typedNumber } from '../../messages/typedNumber.ts'

/** Counts as typed: whole numbers of pitches, in any order, each once. */
export function typedCounts(
  typed: string,
):
  | { readonly ok: true; readonly counts: number[] }
  | { readonly ok: false; readonly problem: 'count-malformed' | 'text-missing' } {
  const parts = typed.split(/[\s,;]+/).filter((part) => part !== '')
  if (parts.length === 0) return { ok: false, problem: 'text-missing' }
  const counts = parts.map(Number)
  if (counts.some((count) => !Number.isInteger(count) || count < 1 || count > 300))
    return { ok: false, problem: 'count-malformed' }
  return { ok: true, counts: [...new Set(counts)].sort((a, b) => a - b) }
}

/** Steps of wear as typed, %: none typed leaves the shipped ones. */
export function typedSteps(
  typed: string,
): { readonly ok: true; readonly steps: number[] } | { readonly ok: false; readonly problem: 'chart-steps' } {
  const parts = typed.split(/[\s;]+/).filter((part) => part !== '')
  const steps = parts.map((part) => typedNumber(part) ?? NaN)
  if (steps.length > 20 || steps.some((step) => !(step >= 0 && step <= 3))) return { ok: false, problem: 'chart-steps' }
  return { ok: true, steps: [...new Set(steps)].sort((a, b) => a - b) }
}

/** Inches with a fraction in its own steps, so that a column compares: 12 2/16. */
export function fractionText({ steps, denominator }: Pick<NearestFraction, 'steps' | 'denominator'>): string {
  const whole = Math.floor(steps / denominator)
  const rest = steps - whole * denominator
  return rest === 0 ? `${whole}` : `${whole} ${rest}/${denominator}`
}
