import { InstrumentKind, TableMapping } from '@pelrin/contract'
import * as v from 'valibot'
import { ProblemError } from '../problems/problem.ts'

const Told = v.object({
  mapping: v.optional(v.pipe(v.string(), v.parseJson(), TableMapping)),
  skip: v.optional(v.pipe(v.string(), v.parseJson(), v.array(v.number())), '[]'),
  fingerprint: v.optional(v.string(), ''),
  /** What kind instruments are that the table only names. */
  instruments: v.optional(v.pipe(v.string(), v.parseJson(), v.record(v.string(), InstrumentKind)), '{}'),
  /** What somebody said of days that can be read both ways. */
  dayFirst: v.optional(
    v.pipe(
      v.picklist(['yes', 'no']),
      v.transform((said) => said === 'yes'),
    ),
  ),
})

/** What was sent beside a table: what its columns mean, which rows stay out, and what was looked at. @throws ProblemError 422 */
export function tableTold(fields: Readonly<Record<string, string>>): v.InferOutput<typeof Told> {
  const parsed = v.safeParse(Told, fields)
  if (!parsed.success) throw new ProblemError(422, 'field-invalid')
  return parsed.output
}
