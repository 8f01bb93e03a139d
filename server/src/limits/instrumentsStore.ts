import dayjs from 'dayjs'
import { DEFAULTS, PITCH_MM, type AvailableInstrument } from '@pelrin/core'
import type { Instrument } from '@pelrin/contract'
import type { Work } from '../db/work.ts'

export interface InstrumentInUse extends Omit<Instrument, 'checkLapsed'> {
  /** Id of the record's version, which readings are stored with. */
  readonly versionId: string
}

/** Instruments not retired, each with the newest version of its record. */
export function instrumentsInUse(work: Work): Promise<InstrumentInUse[]> {
  return work.select<InstrumentInUse>(
    `SELECT DISTINCT ON (i.kind, i.name, i.id)
       i.id, i.kind, i.name, w.id AS "versionId", w.version AS "recordVersion", w.u_mm AS "uMm", w.u, w.bias,
       w.bias_u AS "biasU", w.marks, w.checked_on::text AS "checkedOn"
     FROM instruments i JOIN instrument_versions w ON w.instrument_id = i.id
     WHERE i.retired_at IS NULL
     ORDER BY i.kind, i.name, i.id, w.version DESC`,
  )
}

/** Whether an instrument's last check is too long ago to trust it, on a day. */
export function checkLapsed(checkedOn: string | null, on: Date): boolean {
  if (checkedOn === null) return true
  return dayjs(checkedOn).add(DEFAULTS.measuring.instrumentCheckMonths, 'month').isBefore(on)
}

/** The run a rule or caliper is usually laid along: twelve inches. */
const USUAL_RUN_PITCHES = 24

/** An instrument as the verdict weighs it against the one used. */
export function asAvailable(instrument: InstrumentInUse, on: Date): AvailableInstrument {
  const u = instrument.u ?? (100 * (instrument.uMm ?? 1)) / (USUAL_RUN_PITCHES * PITCH_MM)
  return {
    id: instrument.id,
    kind: instrument.kind,
    u: Math.hypot(u, instrument.biasU),
    inDate: !checkLapsed(instrument.checkedOn, on),
    ...(instrument.marks === null ? {} : { marks: instrument.marks }),
  }
}
