import { entryForm, marksProblem } from '@pelrin/core'
import { STAND_IN } from '@pelrin/contract'
import type { AddInstrument, FieldProblem, Instrument, InstrumentHistory, ReviseInstrument } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, authorOf, type Work } from '../db/work.ts'
import type { DeviceAddresses } from '../devices/addresses.ts'
import { atField, ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { dayIn } from '../days/days.ts'
import { shopZone } from '../days/shopZone.ts'
import { evidenceAgainst } from './evidence.ts'
import {
  checkDueOn,
  checkLapsed,
  everyInstrument,
  instrumentById,
  instrumentsInUse,
  versionsOf,
  type InstrumentInUse,
} from './store.ts'
import { INSTRUMENTS, INSTRUMENT_VERSIONS } from './models.ts'

type Recorded = Omit<ReviseInstrument, 'id' | 'fromVersion' | 'check' | 'reason' | 'connection' | 'standing' | 'reads'>

/** Instruments in use, as lists and Measure take them. */
export async function listInstruments(work: Work): Promise<Instrument[]> {
  const { assumed } = await assumptionsInForce(work)
  return (await instrumentsInUse(work)).map((instrument) => shown(instrument, work.now, assumed))
}

export async function register(work: Work): Promise<(Instrument & { retiredAt: string | null })[]> {
  const { assumed } = await assumptionsInForce(work)
  return (await everyInstrument(work)).map((instrument) => ({
    ...shown(instrument, work.now, assumed),
    retiredAt: instrument.retiredAt?.toISOString() ?? null,
  }))
}

function shown(instrument: InstrumentInUse, on: Date, assumed: Parameters<typeof checkLapsed>[2]): Instrument {
  const { versionId: _, connection, retiredAt: __, ...rest } = instrument
  return {
    ...rest,
    checkDueOn: checkDueOn(instrument.checkedOn, assumed),
    checkLapsed: checkLapsed(instrument, on, assumed),
    connected: connection !== null,
    standIn: connection === STAND_IN,
  }
}

/** One instrument with all that was ever written of it. */
export async function instrumentHistory(work: Work, id: string): Promise<InstrumentHistory> {
  const instrument = await instrumentById(work, id)
  if (!instrument) throw new ProblemError(404, 'instrument-unknown')
  const { assumed, overrides } = await assumptionsInForce(work)
  return {
    assumptions: { ...overrides },
    instrument: shown(instrument, work.now, assumed),
    retiredAt: instrument.retiredAt?.toISOString() ?? null,
    connection: instrument.connection,
    versions: await versionsOf(work, id),
    evidence: await evidenceAgainst(work, id, assumed),
  }
}

/** @param devices where the server may talk to */
export async function addInstrument(
  work: Work,
  devices: DeviceAddresses,
  added: AddInstrument,
): Promise<InstrumentHistory> {
  const { id, kind, name, connection = null, ...record } = added
  refuse([...recordProblems(kind, record), ...connectionProblems(devices, connection)])
  await nameIsFree(work, name)
  await work.of(INSTRUMENTS).create({ id, kind, name, connection }, { transaction: work.transaction })
  await writeVersion(work, id, 1, record, {
    id: v7(),
    standing: 'in-use',
    reads: null,
    checkedOn: null,
    checkedHow: null,
    checkDetail: null,
    reason: 'taken into use',
  })
  await audited(work, 'added', 'instrument', id, { kind, name })
  return instrumentHistory(work, id)
}

/** Writes the next version of a record. Readings keep the one they were judged with. */
export async function reviseInstrument(
  work: Work,
  devices: DeviceAddresses,
  id: string,
  revised: ReviseInstrument,
): Promise<InstrumentHistory> {
  const { id: versionId, fromVersion, standing, reads, check, reason, connection, ...record } = revised
  const found = await lockInstrument(work, id)
  refuse([...recordProblems(found.kind, record), ...connectionProblems(devices, connection ?? null)])
  if (found.recordVersion !== fromVersion)
    throw new ProblemError(409, 'record-stale', { current: await instrumentHistory(work, id) })
  await writeVersion(work, id, fromVersion + 1, record, {
    id: versionId,
    standing,
    reads,
    checkedOn: check ? dayIn(await shopZone(work), work.now) : found.checkedOn,
    checkedHow: check?.how ?? null,
    checkDetail: check ? { pairs: check.pairs, referenceU: check.referenceU } : null,
    reason,
  })
  if (connection !== undefined)
    await work.of(INSTRUMENTS).update({ connection }, { where: { id }, transaction: work.transaction })
  await audited(work, check ? 'checked' : 'revised', 'instrument', id, { version: fromVersion + 1, reason })
  return instrumentHistory(work, id)
}

export async function retireInstrument(
  work: Work,
  id: string,
  { retired, reason }: { retired: boolean; reason: string },
): Promise<InstrumentHistory> {
  const found = await lockInstrument(work, id)
  if (!retired && found.retiredAt !== null) await nameIsFree(work, found.name)
  await work
    .of(INSTRUMENTS)
    .update({ retiredAt: retired ? work.now : null }, { where: { id }, transaction: work.transaction })
  await audited(work, retired ? 'retired' : 'took back', 'instrument', id, { reason })
  return instrumentHistory(work, id)
}

/** Holds an instrument until the transaction ends, so that two who revise it take their turn. */
async function lockInstrument(work: Work, id: string): Promise<InstrumentInUse> {
  await work.select('SELECT id FROM instruments WHERE id = :id FOR UPDATE', { id })
  const found = await instrumentById(work, id)
  if (!found) throw new ProblemError(404, 'instrument-unknown')
  return found
}

async function nameIsFree(work: Work, name: string): Promise<void> {
  const taken = await work.select(
    'SELECT id FROM instruments WHERE lower(name) = lower(:name) AND retired_at IS NULL',
    {
      name,
    },
  )
  if (taken.length > 0) throw refuseField('name', 'instrument-name-taken')
}

function refuse(fields: readonly FieldProblem[]): void {
  if (fields.length > 0) throw new ProblemError(422, 'request-invalid', { fields })
}

function recordProblems(kind: Instrument['kind'], { marks }: Pick<Recorded, 'marks'>): FieldProblem[] {
  const needsMarks = entryForm(kind) === 'marks'
  const problem = marks === null ? (needsMarks ? 'marks-none' : null) : marksProblem(marks, kind)
  return problem === null ? [] : [atField('marks', problem)]
}

/** The server opens no connection to anywhere because a form says so: whoever runs the machine lists what it may talk to. */
function connectionProblems(devices: DeviceAddresses, connection: string | null): FieldProblem[] {
  if (connection === null || connection === STAND_IN || devices.allowed(connection) !== null) return []
  return [atField('connection', 'connection-not-listed')]
}

async function writeVersion(
  work: Work,
  instrumentId: string,
  version: number,
  record: Recorded,
  made: {
    id: string
    standing: 'in-use' | 'out-of-use'
    reads: 'true' | 'early' | 'late' | null
    checkedOn: string | null
    checkedHow: string | null
    checkDetail: object | null
    reason: string
  },
): Promise<void> {
  await work.of(INSTRUMENT_VERSIONS).create(
    {
      ...made,
      ...record,
      instrumentId,
      version,
      validFrom: work.now,
      personId: authorOf(work).personId,
    },
    { transaction: work.transaction },
  )
}
