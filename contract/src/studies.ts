import { ANOVA_SOURCES, STUDY_GAPS } from '@pelrin/core'
import * as v from 'valibot'
import { Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { InstrumentKind } from './instruments.ts'

const percentValue = v.pipe(
  v.number('reference-range'),
  v.minValue(-0.5, 'reference-range'),
  v.maxValue(3, 'reference-range'),
)

/** A spot of a study: what it is called, and what is truly there where that is known, %. */
const StudySpot = v.object({
  label: line(30),
  reference: v.exactOptional(percentValue),
})

export const PlanStudy = v.object({
  id: Id,
  title: line(80),
  peopleIds: v.pipe(v.array(Id), v.minLength(1, 'study-people-missing'), v.maxLength(8, 'study-people-many')),
  spots: v.pipe(v.array(StudySpot), v.minLength(1, 'study-spots-missing'), v.maxLength(15, 'study-spots-many')),
  repeats: v.pipe(
    v.number('study-repeats'),
    v.integer('study-repeats'),
    v.minValue(1, 'study-repeats'),
    v.maxValue(6, 'study-repeats'),
  ),
  /** Pitches of every spot, for instruments that read lengths. */
  pitches: v.exactOptional(
    v.pipe(
      v.number('count-malformed'),
      v.integer('count-malformed'),
      v.minValue(2, 'count-malformed'),
      v.maxValue(300, 'count-malformed'),
    ),
  ),
  /** Standard uncertainty of the references, %. */
  referenceU: v.optional(
    v.pipe(v.number('number-malformed'), v.minValue(0, 'number-malformed'), v.maxValue(0.5, 'number-malformed')),
    0.01,
  ),
})
export type PlanStudy = v.InferOutput<typeof PlanStudy>

const StudyValue = v.object({
  id: Id,
  personId: Id,
  spot: v.number(),
  repeat: v.number(),
  typed: v.string(),
  value: v.nullable(v.number()),
})

const Deviation = v.object({ sd: v.number(), low: v.number(), high: v.number() })
const MarkFit = v.variant('state', [
  v.object({ state: v.literal('fitted'), at: v.number(), u: v.number(), sigma: v.number(), trials: v.number() }),
  v.object({ state: v.literal('between'), low: v.number(), high: v.number(), trials: v.number() }),
  v.object({
    state: v.literal('beyond'),
    side: v.picklist(['always-in', 'never-in']),
    wear: v.number(),
    trials: v.number(),
  }),
  v.object({ state: v.literal('nothing') }),
])

/** What a study says. Values: the analysis of variance. Marks: where each truly goes in. */
export const StudyResult = v.variant('kind', [
  v.object({
    kind: v.literal('values'),
    values: v.number(),
    gaps: v.array(v.picklist(STUDY_GAPS)),
    anova: v.nullable(
      v.array(
        v.object({
          source: v.picklist(ANOVA_SOURCES),
          df: v.number(),
          sumOfSquares: v.number(),
          meanSquare: v.number(),
          f: v.nullable(v.number()),
          p: v.nullable(v.number()),
        }),
      ),
    ),
    parts: v.nullable(
      v.object({
        repeatability: Deviation,
        reproducibility: Deviation,
        person: Deviation,
        interaction: Deviation,
        spot: Deviation,
        gauge: Deviation,
      }),
    ),
    repeatability: v.nullable(Deviation),
    bias: v.nullable(v.object({ value: v.number(), u: v.number(), spots: v.number() })),
    smallestChange: v.object({ anybody: v.nullable(v.number()), samePerson: v.nullable(v.number()) }),
  }),
  v.object({
    kind: v.literal('marks'),
    values: v.number(),
    marks: v.array(
      v.object({ mark: v.number(), fit: MarkFit, byPerson: v.array(v.object({ personId: Id, fit: MarkFit })) }),
    ),
  }),
])
export type StudyResult = v.InferOutput<typeof StudyResult>

export const Study = v.object({
  id: Id,
  title: v.string(),
  instrument: v.object({ id: Id, name: v.string(), kind: InstrumentKind, marks: v.nullable(v.array(v.number())) }),
  people: v.array(v.object({ id: Id, name: v.string(), entered: v.number() })),
  spots: v.array(StudySpot),
  repeats: v.number(),
  pitches: v.nullable(v.number()),
  referenceU: v.number(),
  startedAt: Moment,
  closedAt: v.nullable(Moment),
  /** While it is open only those of the person who asks: nobody sees the others'. */
  values: v.array(StudyValue),
  /** Once it is closed. */
  result: v.nullable(StudyResult),
})
export type Study = v.InferOutput<typeof Study>

const byId = v.object({ id: Id })

export const studiesEndpoints = {
  studies: endpoint({
    name: 'studies',
    method: 'GET',
    path: '/instruments/:id/studies',
    summary: 'The gauge studies of an instrument, newest first.',
    access: 'signed-in',
    params: byId,
    result: v.array(
      v.object({
        id: Id,
        title: v.string(),
        startedAt: Moment,
        closedAt: v.nullable(Moment),
        entered: v.number(),
        planned: v.number(),
      }),
    ),
  }),
  study: endpoint({
    name: 'study',
    method: 'GET',
    path: '/studies/:id',
    summary: 'One gauge study: its plan, how far it is, the asker’s own values, and once it is closed its result.',
    access: 'signed-in',
    params: byId,
    result: Study,
  }),
  planStudy: endpoint({
    name: 'planStudy',
    method: 'POST',
    path: '/instruments/:id/studies',
    summary: 'Plan a gauge study: who measures which spots how often.',
    access: 'instruments',
    params: byId,
    body: PlanStudy,
    result: Study,
    creates: true,
  }),
  enterStudyValue: endpoint({
    name: 'enterStudyValue',
    method: 'POST',
    path: '/studies/:id/values',
    summary:
      'Enter what the instrument showed, as the person who writes. Entered again, it takes the place of the one before.',
    access: 'record',
    params: byId,
    body: v.object({
      id: Id,
      spot: v.pipe(v.number('field-invalid'), v.integer('field-invalid'), v.minValue(0, 'field-invalid')),
      repeat: v.pipe(v.number('field-invalid'), v.integer('field-invalid'), v.minValue(0, 'field-invalid')),
      typed: line(40),
    }),
    result: Study,
    creates: true,
  }),
  closeStudy: endpoint({
    name: 'closeStudy',
    method: 'POST',
    path: '/studies/:id/closing',
    summary: 'Close a study, whole or not: from now on everybody sees its values and what can be said of them.',
    access: 'instruments',
    params: byId,
    result: Study,
    creates: true,
  }),
}
