import * as v from 'valibot'
import { problems, type ProblemCode } from './messages/index.ts'

/** What is wrong with one field of a value, by its code. */
export interface FieldCode {
  /** Path of the field, such as `spots.0.typed`; '' for the value as a whole. */
  readonly path: string
  readonly code: ProblemCode
}

/** What a schema found wrong, field by field: one thing is said of a field at a time, the first. */
export function fieldCodes(issues: readonly v.BaseIssue<unknown>[]): FieldCode[] {
  const wrong = new Map<string, ProblemCode>()
  for (const issue of issues) {
    const path = v.getDotPath(issue) ?? ''
    if (!wrong.has(path)) wrong.set(path, codeOf(issue))
  }
  return [...wrong].map(([path, code]) => ({ path, code }))
}

/** What a schema refuses of a value: a form refuses what is typed by what the server refuses a request by, so that they say the same. */
export function fieldProblems(schema: v.GenericSchema, value: unknown): FieldCode[] {
  const parsed = v.safeParse(schema, value)
  return parsed.success ? [] : fieldCodes(parsed.issues)
}

/** A missing key is reported by the library in its own words; ours are the codes of the catalogue. */
function codeOf({ message, received }: v.BaseIssue<unknown>): ProblemCode {
  if (message in problems) return message as ProblemCode
  return received === 'undefined' ? 'text-missing' : 'field-invalid'
}
