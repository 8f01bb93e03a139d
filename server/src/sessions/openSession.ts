import { randomBytes } from 'node:crypto'
import type { Context } from 'koa'
import { v7 } from 'uuid'
import type { Session } from '@pelrin/contract'
import { audited, type Work } from '../db/work.ts'
import { DEVICES, SESSIONS, type PersonRow, type ShopRow } from '../auth/models.ts'
import { DEVICE_COOKIE, hashOfToken, SESSION_COOKIE, sessionEnd } from './currentSession.ts'
import { asPerson, describe } from './describe.ts'
import type { Origin } from './origin.ts'

/** As long as browsers keep one, ms. */
const DEVICE_MS = 400 * 86_400_000

/** What a device gets when it is signed in. */
export interface SignedIn {
  readonly token: string
  readonly deviceToken: string
  readonly expiresAt: Date
  readonly session: Session
  /** Sessions that ended with it. */
  readonly ended: readonly Buffer[]
}

/** Signs a device in for somebody who has shown who they are. A session it had so far ends. */
export async function openSession(
  plain: Work,
  { shop, person, origin }: { readonly shop: ShopRow; readonly person: PersonRow; readonly origin: Origin },
): Promise<SignedIn> {
  const { of, transaction, now } = plain
  const token = randomBytes(32).toString('base64url')
  const tokenHash = hashOfToken(token)
  const expiresAt = sessionEnd(now)
  const before = await deviceOf(plain, origin)
  const deviceToken = before && origin.deviceToken !== null ? origin.deviceToken : randomBytes(32).toString('base64url')
  const device =
    before ??
    (await of(DEVICES).create(
      { id: v7(), name: origin.deviceName, tokenHash: hashOfToken(deviceToken), lastSeenAt: now },
      { transaction },
    ))
  const work: Work = { ...plain, author: { personId: person.id, deviceId: device.id, requestId: origin.requestId } }
  const ended = await endSessions(work, device.id, origin.sessionToken)
  await of(SESSIONS).create(
    {
      tokenHash,
      shopId: shop.id,
      deviceId: device.id,
      personId: person.id,
      expiresAt,
      lastSeenAt: now,
      provedAt: now,
    },
    { transaction },
  )
  await isHere(work, device.id, person)
  await audited(work, 'signed-in', 'device', device.id)
  const session = await describe(work, {
    tokenHash,
    shop,
    person: asPerson(person),
    deviceId: device.id,
    provedAt: now,
  })
  return { token, deviceToken, expiresAt, session, ended }
}

/** The device that asks, if it was ever signed in in this shop. */
export async function deviceOf(
  { of, transaction }: Work,
  { deviceToken }: Origin,
): Promise<{ readonly id: string } | null> {
  if (deviceToken === null) return null
  return of(DEVICES).findOne({ where: { tokenHash: hashOfToken(deviceToken) }, transaction })
}

/** One session a device: signing in again ends the one before. */
async function endSessions(work: Work, deviceId: string, sessionToken: string | null): Promise<Buffer[]> {
  const rows = await work.select<{ hash: string }>(
    `DELETE FROM sessions WHERE shop_id = :shopId AND (device_id = :deviceId OR token_hash = decode(:hash, 'hex'))
     RETURNING encode(token_hash, 'hex') AS hash`,
    { shopId: work.shopId, deviceId, hash: hashOfToken(sessionToken ?? '').toString('hex') },
  )
  return rows.map(({ hash }) => Buffer.from(hash, 'hex'))
}

/** Writes down that somebody is at a device, with what they may do now. */
export async function isHere(work: Work, deviceId: string, { id, role }: PersonRow): Promise<void> {
  await work.execute(
    `INSERT INTO device_people (device_id, person_id, role, invited_at, last_here_at) VALUES (:deviceId, :id, :role, :now, :now)
     ON CONFLICT (shop_id, device_id, person_id) DO UPDATE SET role = excluded.role, last_here_at = excluded.last_here_at`,
    { deviceId, id, role, now: work.now },
  )
}

/** Gives a browser what it shows from now on. */
export function giveCookies(ctx: Context, { token, deviceToken, expiresAt }: SignedIn): void {
  const cookie = { httpOnly: true, sameSite: 'strict', secure: ctx.secure, overwrite: true } as const
  ctx.cookies.set(SESSION_COOKIE, token, { ...cookie, expires: expiresAt })
  ctx.cookies.set(DEVICE_COOKIE, deviceToken, { ...cookie, expires: new Date(Date.now() + DEVICE_MS) })
}
