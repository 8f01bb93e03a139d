import type { endpoints, Output } from '@pelrin/contract'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'

type Kind = Output<typeof endpoints.lookOver.body>['kind']

const TABLES: Readonly<Record<Kind, string>> = { reading: 'readings', care: 'care_events' }

/** Writes down that a mechanic has looked; who looked first did. @throws ProblemError 404 for something there is none of */
export async function lookOver(
  work: Work,
  { kind, id }: Output<typeof endpoints.lookOver.body>,
): Promise<{ at: string }> {
  const [there] = await work.select(`SELECT id FROM ${TABLES[kind]} WHERE id = :id`, { id })
  if (!there) throw new ProblemError(404, kind === 'reading' ? 'reading-unknown' : 'care-unknown')
  const [written] = await work.select(
    `INSERT INTO looks (subject_kind, subject_id, at, person_id) VALUES (:kind, :id, :now, :personId)
     ON CONFLICT DO NOTHING RETURNING subject_id`,
    { kind, id, now: work.now, personId: authorOf(work).personId },
  )
  if (written) await audited(work, 'looked-over', kind, id)
  const [look] = await work.select<{ at: Date }>(
    'SELECT at FROM looks WHERE subject_kind = :kind AND subject_id = :id',
    { kind, id },
  )
  return { at: (look?.at ?? work.now).toISOString() }
}
