import type { PlanStudy, StudyResult } from '@pelrin/contract'
import type { Work } from '../db/work.ts'

export interface StudyFact {
  id: string
  instrumentId: string
  title: string
  people: string[]
  spots: PlanStudy['spots']
  repeats: number
  pitches: number | null
  referenceU: number
  startedAt: Date
  closedAt: Date | null
  result: StudyResult | null
}

export interface StudyValueFact {
  id: string
  personId: string
  spot: number
  repeat: number
  typed: string
  value: number | null
}

/** A study; locked until the transaction ends where it is going to be changed. */
export async function studyById(work: Work, id: string, lock = false): Promise<StudyFact | null> {
  const [found] = await work.select<StudyFact>(
    `SELECT id, instrument_id AS "instrumentId", title, people, spots, repeats, pitches, reference_u AS "referenceU",
       started_at AS "startedAt", closed_at AS "closedAt", result
     FROM studies WHERE id = :id ${lock ? 'FOR UPDATE' : ''}`,
    { id },
  )
  return found ?? null
}

/** The values that stand, in the order they were entered. */
export const valuesOf = (work: Work, studyId: string): Promise<StudyValueFact[]> =>
  work.select<StudyValueFact>(
    `SELECT v.id, v.person_id AS "personId", v.spot, v.repeat, v.typed, v.value FROM study_values v
     LEFT JOIN study_values later ON later.supersedes_id = v.id
     WHERE v.study_id = :studyId AND later.id IS NULL ORDER BY v.recorded_at, v.id`,
    { studyId },
  )

export const studiesOf = (
  work: Work,
  instrumentId: string,
): Promise<{ id: string; title: string; startedAt: Date; closedAt: Date | null; entered: number; planned: number }[]> =>
  work.select(
    `SELECT s.id, s.title, s.started_at AS "startedAt", s.closed_at AS "closedAt",
       (SELECT count(*)::int FROM study_values v WHERE v.study_id = s.id AND v.supersedes_id IS NULL) AS entered,
       cardinality(s.people) * jsonb_array_length(s.spots) * s.repeats AS planned
     FROM studies s WHERE s.instrument_id = :instrumentId ORDER BY s.started_at DESC, s.id DESC`,
    { instrumentId },
  )
