import * as v from 'valibot'
import type { Act, AuditFilter } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { decodeCursor, encodeCursor } from '../http/cursor.ts'

/** Acts of a page. */
export const ACTS_A_PAGE = 60

const Cursor = v.tuple([v.string(), v.pipe(v.string(), v.uuid())])

/** Which bike an act is about, by what it says itself, or by what it was done to. */
const BIKE = `CASE a.subject_kind WHEN 'bike' THEN a.subject_id
  WHEN 'reading' THEN (SELECT r.bike_id FROM readings r WHERE r.id = a.subject_id LIMIT 1)
  WHEN 'job' THEN (SELECT j.bike_id FROM jobs j WHERE j.id = a.subject_id)
  WHEN 'visit' THEN (SELECT v.bike_id FROM visits v WHERE v.id = a.subject_id)
  ELSE CAST(a.detail->>'bikeId' AS uuid) END`
const ABOUT = `(a.subject_id = CAST(:bikeId AS uuid) OR a.detail->>'bikeId' = :bikeId
  OR a.subject_id IN (SELECT id FROM readings WHERE bike_id = CAST(:bikeId AS uuid))
  OR a.subject_id IN (SELECT id FROM jobs WHERE bike_id = CAST(:bikeId AS uuid))
  OR a.subject_id IN (SELECT id FROM visits WHERE bike_id = CAST(:bikeId AS uuid)))`
const STAMP = `to_char(a.at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`

/** A page of what was done in a shop, the newest first. @throws ProblemError 400 for a cursor that was not handed out */
export async function actsOf(
  work: Work,
  { personId, bikeId, action, from, to }: AuditFilter,
  cursor: string | undefined,
): Promise<{ acts: Act[]; next: string | null }> {
  const [at, id] = cursor === undefined ? [null, null] : decodeCursor(Cursor, cursor)
  const wanted = [
    cursor === undefined ? null : '(a.at, a.id) < (CAST(:at AS timestamptz), CAST(:id AS uuid))',
    personId === undefined ? null : 'a.person_id = CAST(:personId AS uuid)',
    action === undefined ? null : 'a.action = :action',
    bikeId === undefined ? null : ABOUT,
    from === undefined ? null : 'a.at >= (CAST(:from AS date)::timestamp AT TIME ZONE s.time_zone)',
    to === undefined ? null : 'a.at < ((CAST(:to AS date) + 1)::timestamp AT TIME ZONE s.time_zone)',
  ].filter((one) => one !== null)
  const rows = await work.select<
    Omit<Act, 'bike'> & { bikeId: string | null; label: string | null; customer: string | null }
  >(
    `SELECT a.*, b.label, c.name AS customer FROM (
       SELECT a.id, ${STAMP} AS at, a.action, a.subject_kind AS "subjectKind", a.subject_id AS "subjectId", a.detail, a.elsewhere,
         p.name AS person, d.name AS device, ${BIKE} AS "bikeId"
       FROM audit a JOIN shops s ON s.id = a.shop_id LEFT JOIN people p ON p.id = a.person_id LEFT JOIN devices d ON d.id = a.device_id
       ${wanted.length === 0 ? '' : `WHERE ${wanted.join(' AND ')}`}
       ORDER BY a.at DESC, a.id DESC LIMIT ${ACTS_A_PAGE + 1}) a
     LEFT JOIN bikes b ON b.id = a."bikeId" LEFT JOIN customers c ON c.id = b.customer_id ORDER BY a.at DESC, a.id DESC`,
    { at, id, personId, bikeId, action, from, to },
  )
  const acts = rows.slice(0, ACTS_A_PAGE).map(({ bikeId: of, label, customer, ...act }) => ({
    ...act,
    bike: of === null || label === null ? null : { id: of, label, customer: customer ?? '' },
  }))
  const last = acts.at(-1)
  return { acts, next: last && rows.length > ACTS_A_PAGE ? encodeCursor([last.at, last.id]) : null }
}

/** Every kind of act there was in a shop. */
export async function kindsOfActs(work: Work): Promise<string[]> {
  const rows = await work.select<{ action: string }>('SELECT DISTINCT action FROM audit ORDER BY action')
  return rows.map(({ action }) => action)
}
