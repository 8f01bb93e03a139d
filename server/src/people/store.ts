import type { Colleague } from '@pelrin/contract'
import type { Work } from '../db/work.ts'

/** Everybody who works here or did, those who do first. */
export const colleagues = (work: Work, id: string | null = null): Promise<Colleague[]> =>
  work.select<Colleague>(
    `SELECT p.id, p.version, p.name, p.initials, p.sign_in_name AS "signInName", p.role,
       CASE WHEN p.active THEN NULL ELSE coalesce(p.left_on, CAST('1970-01-01' AS date))::text END AS "leftOn",
       p.password_hash IS NOT NULL AS "hasPassword", p.pin_hash IS NOT NULL AS "hasPin",
       (SELECT to_char(max(i.expires_at) AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') FROM invitations i
        WHERE i.shop_id = p.shop_id AND i.person_id = p.id AND i.used_at IS NULL AND i.expires_at > CAST(:now AS timestamptz)) AS "invitedUntil",
       (SELECT to_char(max(d.last_here_at) AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') FROM device_people d
        WHERE d.person_id = p.id) AS "lastHereAt"
     FROM people p WHERE CAST(:id AS uuid) IS NULL OR p.id = CAST(:id AS uuid)
     ORDER BY p.active DESC, p.name, p.id`,
    { now: work.now, id },
  )
