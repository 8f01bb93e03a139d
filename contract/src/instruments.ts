import * as v from 'valibot'
import { INSTRUMENT_KINDS, RULE_MATERIALS, READS } from '@pelrin/core'
import { Day, Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

export const InstrumentKind = v.picklist(INSTRUMENT_KINDS, 'kind-unknown')

const Standing = v.picklist(['in-use', 'out-of-use'], 'field-invalid')
const Reads = v.picklist(READS, 'field-invalid')
const Material = v.picklist(RULE_MATERIALS, 'material-unknown')

const finite = (lowest: number, highest: number) =>
  v.pipe(
    v.number('number-malformed'),
    v.finite('number-malformed'),
    v.minValue(lowest, 'number-malformed'),
    v.maxValue(highest, 'number-malformed'),
  )

/** What a version of an instrument's record says. Elongations in %. */
const recordEntries = {
  /** Standard uncertainty of a length, mm; null: the assumed one of its kind. */
  uMm: v.nullable(finite(0.001, 5)),
  /** Standard uncertainty of a reading or a mark, %; null: the assumed one of its kind. */
  u: v.nullable(finite(0.001, 1)),
  /** What it reads too much, %, and the standard uncertainty of that. */
  bias: finite(-1, 1),
  biasU: finite(0, 1),
  marks: v.nullable(v.array(finite(0, 2))),
  material: v.nullable(Material),
  rollerMm: v.nullable(finite(5, 12)),
  seesRollerWear: v.boolean(),
  /** The mark at which it says to change, for the "as marked" school, %. */
  changeMark: v.nullable(finite(0.2, 1.5)),
}
export const InstrumentRecord = v.object(recordEntries)

/** A physical instrument of the shop, with its record in force. */
export const Instrument = v.object({
  id: Id,
  kind: InstrumentKind,
  name: v.string(),
  recordVersion: v.number(),
  ...recordEntries,
  standing: Standing,
  reads: v.nullable(Reads),
  checkedOn: v.nullable(Day),
  /** When the next check is due; null if it was never checked. */
  checkDueOn: v.nullable(Day),
  checkLapsed: v.boolean(),
  /** It sends its readings by itself. */
  connected: v.boolean(),
  /** It is the stand-in that ships with Pelrin. */
  standIn: v.boolean(),
})
export type Instrument = v.InferOutput<typeof Instrument>

const CheckHow = v.picklist(['strip', 'better-instrument', 'known-chain', 'study'], 'field-invalid')

const CheckPair = v.object({
  reference: finite(-0.5, 3),
  typed: line(40),
  pitches: v.exactOptional(v.pipe(v.number('count-malformed'), v.integer('count-malformed'))),
})

/** One version of a record, and what made it. */
export const InstrumentVersion = v.object({
  version: v.number(),
  ...recordEntries,
  standing: Standing,
  reads: v.nullable(Reads),
  checkedOn: v.nullable(Day),
  checkedHow: v.nullable(CheckHow),
  check: v.nullable(v.object({ pairs: v.array(CheckPair), referenceU: v.number() })),
  validFrom: Moment,
  person: v.string(),
  reason: v.string(),
  /** Readings judged with it. */
  readings: v.number(),
})
export type InstrumentVersion = v.InferOutput<typeof InstrumentVersion>

/** Evidence of bias: how far it lay from a surer instrument on one chain. */
const Evidence = v.object({
  bikeId: Id,
  bike: v.string(),
  at: Moment,
  against: v.string(),
  bias: v.number(),
  u: v.number(),
})

export const InstrumentHistory = v.object({
  instrument: Instrument,
  retiredAt: v.nullable(Moment),
  connection: v.nullable(v.string()),
  versions: v.array(InstrumentVersion),
  evidence: v.array(Evidence),
  /** The shop's own values for what is assumed. */
  assumptions: v.record(v.string(), v.number()),
})
export type InstrumentHistory = v.InferOutput<typeof InstrumentHistory>

/** `host:port` of a gauge that sends readings. */
const Connection = v.pipe(line(60), v.regex(/^[\w.-]+:\d{1,5}$/, 'connection-malformed'))

export const AddInstrument = v.object({
  id: Id,
  kind: InstrumentKind,
  name: line(60),
  ...recordEntries,
  connection: v.exactOptional(Connection),
})
export type AddInstrument = v.InferOutput<typeof AddInstrument>

/** A new version of a record: after a check, or because something was put right. */
export const ReviseInstrument = v.object({
  id: Id,
  /** The version it was made from: somebody else's newer one is not overwritten. */
  fromVersion: v.number(),
  ...recordEntries,
  standing: Standing,
  reads: v.nullable(Reads),
  check: v.exactOptional(
    v.object({
      how: CheckHow,
      pairs: v.pipe(v.array(CheckPair), v.maxLength(40, 'field-invalid')),
      referenceU: finite(0, 0.5),
    }),
  ),
  connection: v.exactOptional(v.nullable(Connection)),
  reason: line(200),
})
export type ReviseInstrument = v.InferOutput<typeof ReviseInstrument>

const byId = v.object({ id: Id })

export const instrumentsEndpoints = {
  instruments: endpoint({
    name: 'instruments',
    method: 'GET',
    path: '/instruments',
    summary: 'The instruments in use, each with its record in force.',
    access: 'signed-in',
    result: v.array(Instrument),
  }),
  register: endpoint({
    name: 'register',
    method: 'GET',
    path: '/instruments/register',
    summary: 'Every instrument the shop ever had, those in use first.',
    access: 'signed-in',
    result: v.array(v.object({ ...Instrument.entries, retiredAt: v.nullable(Moment) })),
  }),
  instrument: endpoint({
    name: 'instrument',
    method: 'GET',
    path: '/instruments/:id',
    summary: 'One instrument: its record, every version of it with what made it, and evidence of bias.',
    access: 'signed-in',
    params: byId,
    result: InstrumentHistory,
  }),
  addInstrument: endpoint({
    name: 'addInstrument',
    method: 'POST',
    path: '/instruments',
    summary: 'Take an instrument into use.',
    access: 'instruments',
    body: AddInstrument,
    result: InstrumentHistory,
    creates: true,
  }),
  reviseInstrument: endpoint({
    name: 'reviseInstrument',
    method: 'POST',
    path: '/instruments/:id/versions',
    summary: 'Write a new version of an instrument’s record. Readings keep the version they were judged with.',
    access: 'instruments',
    params: byId,
    body: ReviseInstrument,
    result: InstrumentHistory,
    creates: true,
  }),
  retireInstrument: endpoint({
    name: 'retireInstrument',
    method: 'POST',
    path: '/instruments/:id/retirement',
    summary: 'Retire an instrument, or take it back into use.',
    access: 'instruments',
    params: byId,
    body: v.object({ retired: v.boolean(), reason: line(200) }),
    result: InstrumentHistory,
    creates: true,
  }),
}
