import type { AccessLog } from '@pelrin/contract'
import type { Work } from '../db/work.ts'

/** How far back, and how many at most. */
const BACK = `interval '30 days'`
const MOST = 60

const ACTIONS = ['sign-in-failed', 'signed-in', 'switched-person', 'took-out', 'took-in', 'restored', 'backed-up']

/** Who got in and who did not, and what left the shop or came into it, the newest first: for the owner. */
export async function accessLog(work: Work): Promise<AccessLog> {
  const entries = await work.select<AccessLog['entries'][number]>(
    `SELECT a.id, to_char(a.at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS at, a.action,
       coalesce(p.name, a.detail->>'who') AS who, coalesce(d.name, a.detail->>'device') AS device,
       a.detail->>'address' AS address, a.detail->>'kind' AS kind,
       CASE WHEN a.action IN ('took-out', 'took-in') THEN coalesce(a.detail->>'name', a.subject_kind)
         WHEN a.action = 'switched-person' THEN t.name END AS what,
       coalesce((a.detail->>'waitSeconds')::int, 0) AS "waitSeconds"
     FROM audit a LEFT JOIN people p ON p.id = a.person_id LEFT JOIN devices d ON d.id = a.device_id
     LEFT JOIN people t ON t.id = a.subject_id AND a.subject_kind = 'person'
     WHERE a.action IN (:actions) AND a.at > CAST(:now AS timestamptz) - ${BACK} ORDER BY a.at DESC, a.id DESC LIMIT ${MOST}`,
    { actions: ACTIONS, now: work.now },
  )
  const failed = await work.select<{ n: number }>(
    `SELECT count(*)::int AS n FROM audit WHERE action = 'sign-in-failed' AND at > CAST(:now AS timestamptz) - interval '1 day'`,
    { now: work.now },
  )
  return { failedToday: failed[0]?.n ?? 0, entries }
}
