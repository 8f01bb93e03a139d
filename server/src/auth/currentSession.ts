import { createHash } from 'node:crypto'
import type { Context } from 'koa'
import type { Person } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import type { ShopRow } from '../db/models/rows.ts'
import { inShop } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'

export const SESSION_COOKIE = 'pelrin_session'

/** Who is at which device, in which shop. */
export interface CurrentSession {
  readonly tokenHash: Buffer
  readonly shop: ShopRow
  readonly person: Person
  readonly deviceId: string
}

/** What of a token is kept: it cannot be turned back into the token. */
export const hashOfToken = (token: string): Buffer => createHash('sha256').update(token).digest()

/**
 * The session a request's cookie names, with the person who writes.
 *
 * A queued write names its person in `Pelrin-Person`, since the tablet may have changed hands meanwhile; that
 * person must have signed in on this very session.
 *
 * @returns null without a session in force
 * @throws ProblemError 403 when the named person has not signed in here
 */
export async function currentSession(database: Database, ctx: Context): Promise<CurrentSession | null> {
  const token = ctx.cookies.get(SESSION_COOKIE)
  if (token === undefined || token === '') return null
  const tokenHash = hashOfToken(token)
  const session = await database.models.Session.findByPk(tokenHash)
  if (!session || session.expiresAt.getTime() < Date.now()) return null
  const shop = await database.models.Shop.findByPk(session.shopId)
  if (!shop) return null
  const named = ctx.get('Pelrin-Person')
  const personId = named === '' ? session.personId : named
  const person = await inShop(database, shop.id, null, async (work) => {
    const [found] = await work.select<Person>(
      `SELECT p.id, p.name, p.initials, p.role FROM people p
       JOIN session_people sp ON sp.person_id = p.id AND sp.token_hash = :tokenHash
       WHERE p.id::text = :personId AND p.active`,
      { tokenHash, personId },
    )
    return found ?? null
  })
  if (!person) {
    if (named !== '') throw new ProblemError(403, 'person-not-here')
    return null
  }
  return { tokenHash, shop, person, deviceId: session.deviceId }
}
