/** What a reminder may say of a visit. */
export const REMINDER_FIELDS = ['name', 'bikes', 'what', 'day', 'shop'] as const
export type ReminderField = (typeof REMINDER_FIELDS)[number]

export type TemplateProblem =
  | { readonly code: 'template-empty' }
  | { readonly code: 'template-long' }
  | { readonly code: 'template-field'; readonly field: string }
  | { readonly code: 'template-brace' }

/** Three short messages' length; more is several. */
const LONGEST = 459
const FIELD = /\{\{\s*([^{}]*?)\s*\}\}/g

/** What is wrong with a template; null for one that can be sent. */
export function templateProblem(text: string): TemplateProblem | null {
  if (text.trim() === '') return { code: 'template-empty' }
  if (text.length > LONGEST) return { code: 'template-long' }
  for (const [, field = ''] of text.matchAll(FIELD))
    if (!REMINDER_FIELDS.some((one) => one === field)) return { code: 'template-field', field }
  return /[{}]/.test(text.replaceAll(FIELD, '')) ? { code: 'template-brace' } : null
}

/** A template with its fields in their places. What stands in a field is text, whatever it looks like. */
export const fillTemplate = (text: string, values: Readonly<Partial<Record<ReminderField, string>>>): string =>
  text.replaceAll(FIELD, (whole: string, field: ReminderField) => values[field] ?? whole)

/**
 * The first moment a message may go out, by the hours of the day it is quiet.
 *
 * @param hour of the day now, with its fraction, 0 to 24, by the shop's clock
 * @param quiet from which hour it is quiet, until which; the same twice is never
 * @returns hours to wait; 0 outside quiet hours
 */
export function quietFor(hour: number, { from, until }: { readonly from: number; readonly until: number }): number {
  if (from === until) return 0
  const isQuiet = from < until ? hour >= from && hour < until : hour >= from || hour < until
  if (!isQuiet) return 0
  return hour < until ? until - hour : 24 - hour + until
}
