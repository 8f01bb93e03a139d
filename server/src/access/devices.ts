import type { SignedDevice } from '@pelrin/contract'
import { audited, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { DEVICES } from '../auth/models.ts'

/** The devices that were ever signed in here, those seen last first; what came with an archive was never here. */
export const signedDevices = (work: Work, thisDevice: string): Promise<SignedDevice[]> =>
  work.select<SignedDevice>(
    `SELECT d.id, d.name, to_char(coalesce(s.last_seen_at, d.last_seen_at) AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS "lastSeenAt",
       p.name AS person, d.id = CAST(:thisDevice AS uuid) AS "isThis"
     FROM devices d LEFT JOIN sessions s ON s.shop_id = d.shop_id AND s.device_id = d.id AND s.expires_at > CAST(:now AS timestamptz)
     LEFT JOIN people p ON p.id = s.person_id
     WHERE d.token_hash IS NOT NULL ORDER BY coalesce(s.last_seen_at, d.last_seen_at) DESC NULLS LAST, d.id LIMIT 200`,
    { thisDevice, now: work.now },
  )

/** @throws ProblemError 404 */
export async function renameDevice(work: Work, id: string, name: string): Promise<void> {
  const [found] = await work.of(DEVICES).update({ name }, { where: { id }, transaction: work.transaction })
  if (found === 0) throw new ProblemError(404, 'device-unknown')
  await audited(work, 'renamed', 'device', id, { name })
}

/**
 * Signs a device out from here. It is nobody's from then on: a PIN is not enough at it, and what it kept of who is not there is refused.
 *
 * @returns the sessions that ended with it
 * @throws ProblemError 404
 */
export async function revokeDevice(work: Work, id: string): Promise<string[]> {
  const device = await work.of(DEVICES).findByPk(id, { transaction: work.transaction })
  if (!device) throw new ProblemError(404, 'device-unknown')
  const ended = await work.select<{ hash: string }>(
    `DELETE FROM sessions WHERE shop_id = :shopId AND device_id = :id RETURNING encode(token_hash, 'hex') AS hash`,
    { shopId: work.shopId, id },
  )
  await work.execute('DELETE FROM device_people WHERE device_id = :id', { id })
  await work.of(DEVICES).update({ tokenHash: null }, { where: { id }, transaction: work.transaction })
  await audited(work, 'revoked', 'device', id, { name: device.name })
  return ended.map(({ hash }) => hash)
}
