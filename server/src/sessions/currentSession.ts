import { createHash } from 'node:crypto'
import type { Context } from 'koa'
import type { Access, Person, Right } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { inShop } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { SESSIONS, SHOPS, type ShopRow } from '../auth/models.ts'

export const SESSION_COOKIE = 'pelrin_session'
export const DEVICE_COOKIE = 'pelrin_device'

/** A session nobody has used for so long is over, ms. */
const IDLE_MS = 30 * 86_400_000
/** Until when a session goes on that is used now. */
export const sessionEnd = (now: Date): Date => new Date(now.getTime() + IDLE_MS)
/** That somebody uses it is written down no more often than this, ms. */
const SEEN_EVERY_MS = 5 * 60_000
/** A password typed longer ago has to be typed again for what is the owner's, ms. */
const PROVED_MS = 15 * 60_000

/** Who is at which device, in which shop. */
export interface CurrentSession {
  readonly tokenHash: Buffer
  readonly shop: ShopRow
  readonly person: Person
  readonly deviceId: string
  /** When whoever is present last typed their password here; null since a PIN was enough. */
  readonly provedAt: Date | null
  /** Of a program that asks by a token: what it may beside reading. Absent of somebody at a device. */
  readonly rights?: readonly Right[]
}

/** What of a token is kept: it cannot be turned back into the token. */
export const hashOfToken = (token: string): Buffer => createHash('sha256').update(token).digest()

/** Until when a typed password counts for what is the owner's. */
export const provedUntil = ({ provedAt }: Pick<CurrentSession, 'provedAt'>): Date | null =>
  provedAt && new Date(provedAt.getTime() + PROVED_MS)

/**
 * The session a request's cookie names, with the person who is present at its device now. A hand-over ends what the one before might do there.
 *
 * What was said while nobody listened names who said it in `Pelrin-Person`, since the tablet may have changed hands meanwhile: that person
 * must have worked on this very device, and may no more than they might then.
 *
 * @param queued whether the request may be one of those
 * @returns null without a session in force
 * @throws ProblemError 403 when the named person is not present, and it is no such request or they never were
 */
export async function currentSession(
  database: Database,
  ctx: Context,
  queued: boolean,
): Promise<CurrentSession | null> {
  const token = ctx.cookies.get(SESSION_COOKIE)
  if (token === undefined || token === '') return null
  const tokenHash = hashOfToken(token)
  const session = await database.of(SESSIONS).findByPk(tokenHash)
  const now = Date.now()
  if (!session || session.expiresAt.getTime() < now) return null
  if (session.lastSeenAt.getTime() < now - SEEN_EVERY_MS) await seen(database, ctx, token, tokenHash)
  const shop = await database.of(SHOPS).findByPk(session.shopId)
  if (!shop) return null
  const named = ctx.get('Pelrin-Person')
  const absent = named !== '' && named !== session.personId
  if (absent && !queued) throw new ProblemError(403, 'person-not-here')
  const person = await inShop(database, shop.id, null, async (work) => {
    const [found] = await work.select<Person>(
      absent
        ? `SELECT p.id, p.name, p.initials, d.role FROM people p
           JOIN device_people d ON d.person_id = p.id AND d.device_id = :deviceId WHERE p.id::text = :personId`
        : 'SELECT id, name, initials, role FROM people WHERE id::text = :personId AND active',
      { deviceId: session.deviceId, personId: absent ? named : session.personId },
    )
    return found ?? null
  })
  if (!person) {
    if (absent) throw new ProblemError(403, 'person-not-here')
    return null
  }
  return { tokenHash, shop, person, deviceId: session.deviceId, provedAt: absent ? null : session.provedAt }
}

/** A session goes on as long as it is used, in the database and in the browser. */
async function seen(database: Database, ctx: Context, token: string, tokenHash: Buffer): Promise<void> {
  const now = new Date()
  const expiresAt = sessionEnd(now)
  await database.of(SESSIONS).update({ lastSeenAt: now, expiresAt }, { where: { tokenHash } })
  ctx.cookies.set(SESSION_COOKIE, token, {
    ...{ httpOnly: true, sameSite: 'strict', secure: ctx.secure, overwrite: true, expires: expiresAt },
  })
}

/** @throws ProblemError 403 for an owner's act when the password was not typed lately */
export function refuseUnproved(session: CurrentSession, access: Access): void {
  if (access !== 'owner') return
  const until = provedUntil(session)
  if (!until || until.getTime() < Date.now()) throw new ProblemError(403, 'prove-again')
}
