import { ROTOR_MM } from './rotorWear.ts'

export type ThicknessProblem = 'thickness-missing' | 'thickness-letters' | 'thickness-range'
export type ThicknessResult =
  { readonly ok: true; readonly mm: number } | { readonly ok: false; readonly problem: ThicknessProblem }

/** Reads a thickness as a caliper shows it: mm, with a point or a comma. Never throws. */
export function parseThickness(text: string): ThicknessResult {
  const clean = text.trim().toLowerCase()
  if (clean === '') return { ok: false, problem: 'thickness-missing' }
  const [, digits] = /^(\d+(?:[.,]\d+)?|[.,]\d+)\s*(?:mm)?$/.exec(clean) ?? []
  if (digits === undefined) return { ok: false, problem: 'thickness-letters' }
  const mm = Number(digits.replace(',', '.'))
  return mm >= ROTOR_MM.lowest && mm <= ROTOR_MM.highest ? { ok: true, mm } : { ok: false, problem: 'thickness-range' }
}
