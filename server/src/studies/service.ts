import { entryForm, observeSpot } from '@pelrin/core'
import type { PlanStudy, Study } from '@pelrin/contract'
import { brokenBy } from '../db/refused.ts'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { asRecord, instrumentById, type InstrumentInUse } from '../instruments/store.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { resultOf } from './result.ts'
import { studyById, valuesOf, type StudyFact } from './store.ts'
import { PEOPLE } from '../auth/models.ts'
import { STUDIES, STUDY_VALUES } from './models.ts'

/** Plans a study: who measures which spots how often. */
export async function planStudy(work: Work, instrumentId: string, plan: PlanStudy): Promise<Study> {
  const instrument = await instrumentById(work, instrumentId)
  if (!instrument) throw new ProblemError(404, 'instrument-unknown')
  const form = entryForm(instrument.kind)
  if (form === 'signs') throw refuseField('title', 'study-by-hand')
  if (form === 'length' && plan.pitches === undefined) throw refuseField('pitches', 'study-needs-count')
  const unknown = plan.spots.findIndex(({ reference }) => reference === undefined)
  if (form === 'marks' && unknown >= 0) throw refuseField(`spots.${unknown}.reference`, 'study-needs-references')
  const people = [...new Set(plan.peopleIds)]
  const found = await work.of(PEOPLE).count({ where: { id: people }, transaction: work.transaction })
  if (found !== people.length) throw refuseField('peopleIds', 'person-unknown')
  try {
    await work.of(STUDIES).create(
      {
        id: plan.id,
        instrumentId,
        title: plan.title,
        people,
        spots: plan.spots,
        repeats: plan.repeats,
        pitches: plan.pitches ?? null,
        referenceU: plan.referenceU,
        startedAt: work.now,
        personId: authorOf(work).personId,
      },
      { transaction: work.transaction },
    )
  } catch (error) {
    if (brokenBy(error)?.rule === 'unique') throw new ProblemError(409, 'id-taken')
    throw error
  }
  await audited(work, 'planned', 'study', plan.id, { instrumentId, title: plan.title })
  return shownStudy(work, plan.id)
}

/** One study as the asker may see it: while it is open, only their own values. */
export async function shownStudy(work: Work, id: string): Promise<Study> {
  const { study, instrument } = await found(work, id)
  const values = await valuesOf(work, id)
  const people = await work.of(PEOPLE).findAll({ where: { id: study.people }, transaction: work.transaction })
  const asker = work.author?.personId
  return {
    id,
    title: study.title,
    instrument: { id: instrument.id, name: instrument.name, kind: instrument.kind, marks: instrument.marks },
    people: study.people.map((personId) => ({
      id: personId,
      name: people.find((person) => person.id === personId)?.name ?? '',
      entered: values.filter((value) => value.personId === personId).length,
    })),
    spots: study.spots,
    repeats: study.repeats,
    pitches: study.pitches,
    referenceU: study.referenceU,
    startedAt: study.startedAt.toISOString(),
    closedAt: study.closedAt?.toISOString() ?? null,
    values: study.closedAt === null ? values.filter((value) => value.personId === asker) : values,
    result: study.result,
  }
}

/** Enters a value as the person who writes; entered again it supersedes the one before. */
export async function enterStudyValue(
  work: Work,
  id: string,
  entered: { id: string; spot: number; repeat: number; typed: string },
): Promise<Study> {
  const { study, instrument } = await found(work, id, true)
  const { personId, deviceId } = authorOf(work)
  if (study.closedAt !== null) throw new ProblemError(409, 'study-closed')
  if (!study.people.includes(personId)) throw new ProblemError(403, 'study-not-in-it')
  const { spot, repeat, typed } = entered
  if (spot >= study.spots.length || repeat >= study.repeats) throw refuseField('spot', 'study-no-such-turn')
  const { assumed } = await assumptionsInForce(work)
  // The instrument as it is: what its record already subtracts must not hide what the study is to find.
  const seen = observeSpot({
    record: { ...asRecord(instrument), bias: 0 },
    entry: { typed, pitches: study.pitches },
    assumed,
  })
  if (!seen.ok) throw refuseField('typed', seen.problem, seen.values)
  const before = (await valuesOf(work, id)).find(
    (value) => value.personId === personId && value.spot === spot && value.repeat === repeat,
  )
  try {
    await work.of(STUDY_VALUES).create(
      {
        id: entered.id,
        studyId: id,
        personId,
        deviceId,
        recordedAt: work.now,
        supersedesId: before?.id ?? null,
        spot,
        repeat,
        typed,
        value: seen.observed.value ?? null,
      },
      { transaction: work.transaction },
    )
  } catch (error) {
    if (brokenBy(error)?.rule === 'unique') throw new ProblemError(409, 'id-taken')
    throw error
  }
  return shownStudy(work, id)
}

/** Closes a study, whole or not, with what can be said of it. */
export async function closeStudy(work: Work, id: string): Promise<Study> {
  const { study, instrument } = await found(work, id, true)
  if (study.closedAt !== null) throw new ProblemError(409, 'study-closed')
  const result = resultOf(study, await valuesOf(work, id), instrument)
  await work.of(STUDIES).update({ closedAt: work.now, result }, { where: { id }, transaction: work.transaction })
  await audited(work, 'closed', 'study', id, { values: result.values })
  return shownStudy(work, id)
}

async function found(work: Work, id: string, lock = false): Promise<{ study: StudyFact; instrument: InstrumentInUse }> {
  const study = await studyById(work, id, lock)
  const instrument = study && (await instrumentById(work, study.instrumentId))
  if (!study || !instrument) throw new ProblemError(404, 'study-unknown')
  return { study, instrument }
}
