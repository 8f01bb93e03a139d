import * as v from 'valibot'

/** Ids are UUIDv7 made by the client, so that a queued reading can be named before the server has seen it. */
export const Id = v.pipe(v.string('text-missing'), v.uuid('id-malformed'))

/** A day that is in the calendar, in the years anybody rides. */
const isDay = (text: string): boolean => {
  const at = new Date(`${text}T00:00:00Z`)
  return Number.isFinite(at.getTime()) && at.toISOString().startsWith(text) && text >= '1970' && text < '2200'
}

/** A moment, ISO 8601 with zone. */
export const Moment = v.pipe(
  v.string('text-missing'),
  v.isoTimestamp('moment-malformed'),
  v.check((text) => isDay(text.slice(0, 10)) && Number.isFinite(Date.parse(text)), 'moment-malformed'),
)

/** A day in the shop's zone, YYYY-MM-DD. */
export const Day = v.pipe(v.string('text-missing'), v.isoDate('day-malformed'), v.check(isDay, 'day-malformed'))

/** Text a person writes: trimmed, not empty, of a bounded length. */
export const line = (longest: number) =>
  v.pipe(v.string('text-missing'), v.trim(), v.nonEmpty('text-missing'), v.maxLength(longest, 'text-too-long'))

export const Email = v.pipe(line(120), v.email('email-malformed'))

/** A change of a row: any of these fields. What is left out stays as it is. */
export const changeOf = <E extends v.ObjectEntries>(entries: E) =>
  v.object(
    Object.fromEntries(Object.entries(entries).map(([name, schema]) => [name, v.exactOptional(schema)])) as {
      readonly [K in keyof E]: v.ExactOptionalSchema<E[K], undefined>
    },
  )

/** Which way round a list is: `up` has the least first. */
export const SortWay = v.picklist(['up', 'down'], 'field-invalid')
export type SortWay = v.InferOutput<typeof SortWay>

/** How many of a list at a time. */
export const PageLimit = v.pipe(
  v.string(),
  v.digits('number-malformed'),
  v.toNumber(),
  v.minValue(1, 'number-malformed'),
  v.maxValue(200, 'number-malformed'),
)

export const DistanceUnit = v.picklist(['km', 'mi'], 'unit-unknown')

const explainedInput = v.object({
  symbol: v.string(),
  meaning: v.string(),
  value: v.union([v.number(), v.string()]),
  unit: v.picklist([
    'mm',
    'in',
    '%',
    'km',
    'mi',
    'days',
    'pitches',
    'probability',
    'spots',
    'visits',
    'u',
    '°C',
    'ppm/°C',
    'kg',
    'text',
  ]),
})

/** Why a number is what it is, as the core returns it. Rule, meanings and textual values are message keys. */
export const Explanation = v.object({
  rule: v.string(),
  inputs: v.array(explainedInput),
  formula: v.exactOptional(v.string()),
  result: v.object({ value: v.union([v.number(), v.string()]), unit: explainedInput.entries.unit }),
})

/** One thing wrong with a request, at the field it concerns. */
/** What a sentence is about, by the names it has for it. */
const ProblemValues = v.exactOptional(v.record(v.string(), v.union([v.string(), v.number()])))

export const FieldProblem = v.object({
  /** Path of the field, such as `spots.0.typed`. */
  path: v.string(),
  /** Message key. */
  code: v.string(),
  values: ProblemValues,
  /** The sentence, in English. */
  detail: v.string(),
})

/** RFC 9457 problem document. */
export const Problem = v.object({
  type: v.string(),
  title: v.string(),
  status: v.number(),
  /** Message key. */
  code: v.string(),
  values: ProblemValues,
  /** The sentence, in English. Whoever has words of their own says it by code and values. */
  detail: v.string(),
  requestId: v.string(),
  fields: v.exactOptional(v.array(FieldProblem)),
  /** With 409 and 412: the row as it stands now. */
  current: v.exactOptional(v.unknown()),
})
export type Problem = v.InferOutput<typeof Problem>
export type FieldProblem = v.InferOutput<typeof FieldProblem>
