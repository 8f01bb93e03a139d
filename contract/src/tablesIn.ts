import * as v from 'valibot'
import { SURFACES } from '@pelrin/core'
import { BikeTag, CaliperMode, PinPicture } from './bikes.ts'
import { CleaningField, TreatmentField } from './care.ts'
import { TableMapping } from './catalogue.ts'
import { Pitches } from './chains.ts'
import { DistanceUnit, Id, line } from './common.ts'
import { CareKind } from './forecast.ts'
import { InstrumentKind } from './instruments.ts'
import { DriveType } from './limits.ts'
import { Rings, Speeds, Sprockets } from './parts.ts'
import { DaysWritten, TableGuess } from './imports.ts'
import { Language } from './reminders.ts'

/** A cell that may be empty or not be there. */
const maybe = <S extends v.GenericSchema>(schema: S) => v.exactOptional(schema)
const asNumber = v.pipe(
  v.string('text-missing'),
  v.transform((typed) => Number(typed.replace(',', '.'))),
)
const whole = (lowest: number, highest: number) =>
  v.pipe(
    asNumber,
    v.integer('number-malformed'),
    v.minValue(lowest, 'number-malformed'),
    v.maxValue(highest, 'number-malformed'),
  )
const teeth = v.pipe(
  v.string('teeth-missing'),
  v.transform((typed) => typed.split(/[\s,;/-]+/).map(Number)),
)
/** Marks of an instrument, %, with blanks between. */
const marks = v.pipe(
  v.string('text-missing'),
  v.transform((typed) => typed.split(/[\s;/]+/).map((one) => Number(one.replace(',', '.')))),
  v.array(v.pipe(v.number('number-malformed'), v.minValue(0, 'number-malformed'), v.maxValue(2, 'number-malformed'))),
)
const yesNo = v.pipe(
  v.string('text-missing'),
  v.transform((typed) => typed.toLowerCase()),
  v.picklist(['yes', 'no'], 'yes-or-no'),
  v.transform((typed) => typed === 'yes'),
)
const isDay = (day: string): boolean => {
  const noon = new Date(`${day}T12:00:00Z`)
  return !Number.isNaN(noon.getTime()) && noon.toISOString().startsWith(day)
}
/** A moment with its zone, or a day or a day and time of the shop's own clock. */
const when = v.pipe(
  v.string('text-missing'),
  v.regex(/^\d{4}-\d{2}-\d{2}([T ]\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:?\d{2})?)?$/, 'moment-malformed'),
  v.check((typed) => isDay(typed.slice(0, 10)), 'day-malformed'),
)
/** Whether a cell of a table is a moment or a day. */
export const isMomentField = (name: TableName, field: string): boolean => {
  const entry = (TABLES_IN[name].entries as Readonly<Record<string, v.GenericSchema & { wrapped?: unknown }>>)[field]
  return entry !== undefined && (entry === (when as unknown) || entry.wrapped === when)
}
/** Which bike a row is of: by its id, or by its tag. */
const ofBike = { bike_id: maybe(Id), tag: maybe(BikeTag) }

/** A row of each table that comes in, cell by cell as its column is headed; an empty cell is left out. */
export const TABLES_IN = {
  customers: v.object({
    id: maybe(Id),
    name: line(80),
    phone: maybe(line(40)),
    language: maybe(Language),
    reminders: maybe(yesNo),
    good_weekday: maybe(whole(1, 7)),
    treated_at: maybe(v.picklist(['home', 'workshop'], 'field-invalid')),
    check_every_days: maybe(whole(1, 730)),
  }),
  bikes: v.object({
    id: maybe(Id),
    customer_id: maybe(Id),
    customer: line(80),
    label: line(60),
    tag: maybe(BikeTag),
    frame_mark: maybe(line(40)),
    maker: maybe(line(60)),
    model: maybe(line(60)),
    kind: line(30),
    drive: DriveType,
    speeds: v.pipe(asNumber, Speeds),
    fronts: v.pipe(teeth, Rings),
    sprockets: v.pipe(teeth, Sprockets),
    motor: maybe(yesNo),
    chain: maybe(line(80)),
    pitches: maybe(v.pipe(asNumber, Pitches)),
    chain_care: maybe(CareKind),
    chain_since: maybe(when),
    /** Whether it went on new then; else nobody knows what it had run before. */
    chain_new: maybe(yesNo),
    unit: maybe(DistanceUnit),
    notes: maybe(v.pipe(v.string(), v.maxLength(500, 'text-too-long'))),
  }),
  rides: v.object({
    id: maybe(Id),
    ...ofBike,
    start: when,
    end: when,
    km: line(20),
    surface: maybe(v.picklist(SURFACES, 'field-invalid')),
    title: maybe(line(80)),
  }),
  care: v.object({
    id: maybe(Id),
    ...ofBike,
    at: when,
    what: v.picklist(['treated', 'wash', 'squeak'], 'field-invalid'),
    chain: maybe(line(80)),
    chain_id: maybe(Id),
    care: maybe(TreatmentField),
    cleaning: maybe(CleaningField),
    at_home: maybe(yesNo),
    note: maybe(line(200)),
  }),
  readings: v.object({
    reading_id: maybe(Id),
    ...ofBike,
    at: when,
    chain: maybe(line(80)),
    instrument: line(60),
    /** What it is, for one that is not here yet. */
    instrument_kind: maybe(InstrumentKind),
    instrument_marks: maybe(marks),
    typed: line(40),
    pitches: maybe(whole(2, 300)),
    place: maybe(whole(1, 8)),
    mode: maybe(CaliperMode),
    link_included: maybe(yesNo),
    picture: maybe(PinPicture),
  }),
} as const
export type TableName = keyof typeof TABLES_IN
export type RowOf<Name extends TableName> = v.InferOutput<(typeof TABLES_IN)[Name]>
export const TABLE_NAMES = Object.keys(TABLES_IN) as TableName[]

/** The columns a table comes in with, and which of them have to be there. */
export const tableColumns = (name: TableName): { readonly field: string; readonly required: boolean }[] =>
  Object.entries<v.GenericSchema>(TABLES_IN[name].entries).map(([field, { type }]) => ({
    field,
    required: type !== 'exact_optional',
  }))

/** What a row of a table would do, or did. */
export const TableRow = v.object({
  /** Counted as the file's lines of data are, from 1. */
  row: v.number(),
  /** In conflict: it is here, and says otherwise; what is here stays. */
  outcome: v.picklist(['new', 'same', 'conflict', 'wrong']),
  name: v.string(),
  /** Where it says otherwise. */
  differs: v.array(v.object({ field: v.string(), here: v.string(), given: v.string() })),
  problems: v.array(v.object({ field: v.string(), detail: v.string(), cell: v.string() })),
})
export type TableRow = v.InferOutput<typeof TableRow>

export const TablePreview = v.object({
  header: v.array(v.string()),
  mapping: TableMapping,
  written: TableGuess,
  /** How its days are written where only their order tells; null where every one says so itself. */
  days: v.nullable(DaysWritten),
  /** Instruments named by it that are not here, and of which it does not say what they are: told once for all their rows. */
  instruments: v.array(v.string()),
  counts: v.object({ new: v.number(), same: v.number(), conflict: v.number(), wrong: v.number() }),
  /** What is wrong or in conflict first, as many as a screen can show. */
  rows: v.array(TableRow),
  fingerprint: v.string(),
})
export type TablePreview = v.InferOutput<typeof TablePreview>

export const TableTaken = v.object({ added: v.number(), left: v.number() })
export type TableTaken = v.InferOutput<typeof TableTaken>
