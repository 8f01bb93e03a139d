import { v7 } from 'uuid'
import { KINDS, type InstrumentKind } from '@pelrin/core'
import { audited, authorOf, type Work } from '../db/work.ts'
import { INSTRUMENTS, INSTRUMENT_VERSIONS } from '../instruments/models.ts'
import { refuseField } from '../problems/problem.ts'
import { onlyOne } from './inTable.ts'

/**
 * The instrument a row was read with: by its name, or made of what the table says of it.
 *
 * @param said `kind` and `marks` of one that is not here yet
 * @throws ProblemError 422 where it is not here and the table does not say what it is
 */
export async function instrumentThen(
  work: Work,
  name: string,
  said: { readonly kind?: InstrumentKind | undefined; readonly marks?: readonly number[] | undefined },
): Promise<string> {
  const known = await onlyOne(
    work,
    'SELECT id FROM instruments WHERE lower(name) = lower(:name) AND retired_at IS NULL',
    { name },
    'instrument',
  )
  if (known !== null) return known
  const { kind, marks } = said
  if (kind === undefined) throw refuseField('instrument', 'instrument-unknown')
  if (KINDS[kind].entry === 'marks' && (marks?.length ?? 0) === 0) throw refuseField('instrument_marks', 'marks-none')
  const { of, transaction, now } = work
  const id = v7()
  await of(INSTRUMENTS).create({ id, kind, name }, { transaction })
  await of(INSTRUMENT_VERSIONS).create(
    {
      ...{ id: v7(), instrumentId: id, version: 1, bias: 0, biasU: 0, validFrom: now },
      marks: KINDS[kind].marks > 0 && marks && marks.length > 0 ? [...marks] : null,
      personId: authorOf(work).personId,
      reason: 'came with a table',
    },
    { transaction },
  )
  await audited(work, 'added', 'instrument', id, { kind, name })
  return id
}
