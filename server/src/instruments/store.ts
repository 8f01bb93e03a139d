import dayjs from 'dayjs'
import {
  entryForm,
  lengthUMm,
  PITCH_MM,
  scaleU,
  type Assumptions,
  type AvailableInstrument,
  type InstrumentRecord,
  KINDS,
  hangsWholeChain,
  measuresNothing,
} from '@pelrin/core'
import type { Instrument, InstrumentVersion } from '@pelrin/contract'
import type { Work } from '../db/work.ts'

export interface InstrumentInUse extends Omit<Instrument, 'checkLapsed' | 'checkDueOn' | 'connected' | 'standIn'> {
  /** Id of the record's version, which readings are stored with. */
  readonly versionId: string
  readonly connection: string | null
  readonly retiredAt: Date | null
}

/** Columns of a record's version, as every reader of it names them. */
export const RECORD_COLUMNS = `
  w.u_mm AS "uMm", w.u, w.bias, w.bias_u AS "biasU", w.marks, w.material, w.roller_mm AS "rollerMm",
  w.sees_roller_wear AS "seesRollerWear", w.change_mark AS "changeMark"`

const SELECT_INSTRUMENTS = `
  SELECT DISTINCT ON (i.retired_at IS NOT NULL, i.kind, i.name, i.id)
    i.id, i.kind, i.name, i.connection, i.retired_at AS "retiredAt", w.id AS "versionId",
    w.version AS "recordVersion", ${RECORD_COLUMNS}, w.standing, w.reads, w.checked_on::text AS "checkedOn"
  FROM instruments i JOIN instrument_versions w ON w.instrument_id = i.id`
const NEWEST = 'ORDER BY i.retired_at IS NOT NULL, i.kind, i.name, i.id, w.version DESC'

/** Instruments not retired, each with the newest version of its record. */
export const instrumentsInUse = (work: Work): Promise<InstrumentInUse[]> =>
  work.select<InstrumentInUse>(`${SELECT_INSTRUMENTS} WHERE i.retired_at IS NULL ${NEWEST}`)

/** Every instrument there ever was, those in use first. */
export const everyInstrument = (work: Work): Promise<InstrumentInUse[]> =>
  work.select<InstrumentInUse>(`${SELECT_INSTRUMENTS} ${NEWEST}`)

export async function instrumentById(work: Work, id: string): Promise<InstrumentInUse | null> {
  const [found] = await work.select<InstrumentInUse>(`${SELECT_INSTRUMENTS} WHERE i.id = :id ${NEWEST}`, { id })
  return found ?? null
}

/** Every version of an instrument's record, newest first, with how many readings were judged with it. */
export async function versionsOf(work: Work, instrumentId: string): Promise<InstrumentVersion[]> {
  const rows = await work.select<Omit<InstrumentVersion, 'validFrom'> & { validFrom: Date }>(
    `SELECT w.version, ${RECORD_COLUMNS}, w.standing, w.reads, w.checked_on::text AS "checkedOn",
       w.checked_how AS "checkedHow", w.check_detail AS "check", w.valid_from AS "validFrom", p.name AS person, w.reason,
       (SELECT count(*)::int FROM readings r WHERE r.instrument_version_id = w.id) AS readings
     FROM instrument_versions w JOIN people p ON p.id = w.person_id
     WHERE w.instrument_id = :instrumentId ORDER BY w.version DESC`,
    { instrumentId },
  )
  return rows.map((row) => ({ ...row, validFrom: row.validFrom.toISOString() }))
}

/** The day an instrument's next check is due, YYYY-MM-DD; null if it was never checked. */
export function checkDueOn(checkedOn: string | null, assumed: Assumptions): string | null {
  if (checkedOn === null) return null
  return dayjs(checkedOn).add(assumed.measuring.instrumentCheckMonths, 'month').format('YYYY-MM-DD')
}

/** Whether an instrument's last check is too long ago to trust it, on a day. Hands need no check. */
export function checkLapsed(
  { kind, checkedOn }: Pick<InstrumentInUse, 'kind' | 'checkedOn'>,
  on: Date,
  assumed: Assumptions,
): boolean {
  if (measuresNothing(kind)) return false
  const due = checkDueOn(checkedOn, assumed)
  return due === null || dayjs(due).isBefore(on)
}

/** An instrument's record as the core takes it. */
export const asRecord = ({
  kind,
  uMm,
  u,
  bias,
  biasU,
  marks,
  material,
  rollerMm,
}: InstrumentRecord): InstrumentRecord => ({
  kind,
  uMm,
  u,
  bias,
  biasU,
  marks,
  material,
  rollerMm,
})

/** The run a rule or caliper is usually laid along: twelve inches; of a whole chain its usual count. */
const USUAL_RUN_PITCHES = 24
const USUAL_CHAIN_PITCHES = 112

/** How far off it is on a usual run, %. */
function usualU(instrument: InstrumentInUse, assumed: Assumptions): number {
  const { kind } = instrument
  if (KINDS[kind].entry === 'length')
    return (
      (100 * lengthUMm(instrument, assumed)) /
      ((hangsWholeChain(kind) ? USUAL_CHAIN_PITCHES : USUAL_RUN_PITCHES) * PITCH_MM)
    )
  // A hand is never asked to settle anything: any number will do, and this one is what was always written.
  return measuresNothing(kind) ? assumed.measuring.digitalU : scaleU(instrument, assumed)
}

/** An instrument as the verdict weighs it against the one used. */
export function asAvailable(instrument: InstrumentInUse, on: Date, assumed: Assumptions): AvailableInstrument {
  const { id, kind, marks } = instrument
  return {
    id,
    kind,
    u: Math.hypot(usualU(instrument, assumed), instrument.biasU),
    inDate: instrument.standing === 'in-use' && !checkLapsed(instrument, on, assumed),
    // Only a gauge that tells over from under is bound to its marks; others read between them.
    ...(entryForm(kind) === 'marks' && marks !== null ? { marks: marks.map((mark) => mark - instrument.bias) } : {}),
  }
}
