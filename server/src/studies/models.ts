import type { PlanStudy, StudyResult } from '@pelrin/contract'
import { integer, json, key, maybe, moment, real, table, text, uuid, uuids, type RowOf } from '../db/table.ts'

export const STUDIES = table('studies', {
  id: key(uuid()),
  instrumentId: uuid(),
  title: text(),
  people: uuids(),
  spots: json<PlanStudy['spots']>(),
  repeats: integer(),
  pitches: maybe(integer()),
  referenceU: real(),
  startedAt: moment(),
  personId: uuid(),
  closedAt: maybe(moment()),
  result: maybe(json<StudyResult>()),
})
export type StudyRow = RowOf<typeof STUDIES>

export const STUDY_VALUES = table('study_values', {
  id: key(uuid()),
  studyId: uuid(),
  personId: uuid(),
  deviceId: maybe(uuid()),
  recordedAt: moment(),
  supersedesId: maybe(uuid()),
  spot: integer(),
  repeat: integer(),
  typed: text(),
  value: maybe(real()),
})
export type StudyValueRow = RowOf<typeof STUDY_VALUES>
