import type { Context } from 'koa'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import type { Person, Right } from '@pelrin/contract'
import { API_TOKENS, SHOPS } from '../auth/models.ts'
import type { Database } from '../db/connection.ts'
import { inShop } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { hashOfToken, type CurrentSession } from './currentSession.ts'

/** By this a token is told apart from anything else, also by who finds one in a file. */
export const TOKEN_BEGINS = 'pelrin_'

/** So often a program may ask within a minute. */
const A_MINUTE = 240
const asked = new RateLimiterMemory({ points: A_MINUTE, duration: 60 })
/** That it is used is written down no more often than this, ms. */
const SEEN_EVERY_MS = 60_000

const BEARER = new RegExp(`^Bearer (${TOKEN_BEGINS}[\\w-]{20,80})$`)

/** The token another program shows; null where it shows none. */
export const tokenOf = (ctx: Context): string | null => BEARER.exec(ctx.get('Authorization'))?.[1] ?? null

/**
 * Who asks by a token: whoever made it, at a device of the program's own, with no more rights than the token has and they have themselves.
 *
 * @returns null for a token that is none, or is taken back
 * @throws ProblemError 429 for one that asks too often
 */
export async function programSession(database: Database, token: string): Promise<CurrentSession | null> {
  const digest = hashOfToken(token)
  const row = await database.of(API_TOKENS).findByPk(digest)
  if (row?.revokedAt !== null) return null
  await asked.consume(row.id).catch((error: unknown) => {
    if (!(error instanceof RateLimiterRes)) throw error
    throw new ProblemError(429, 'token-too-often', { retryAfterSeconds: Math.ceil(error.msBeforeNext / 1000) })
  })
  const shop = await database.of(SHOPS).findByPk(row.shopId)
  const person = await inShop(database, row.shopId, null, async (work) => {
    const [found] = await work.select<Person>(
      'SELECT id, name, initials, role FROM people WHERE id = :personId AND active',
      { personId: row.personId },
    )
    return found ?? null
  })
  if (!shop || !person) return null
  if (row.lastUsedAt === null || row.lastUsedAt.getTime() < Date.now() - SEEN_EVERY_MS)
    await database.of(API_TOKENS).update({ lastUsedAt: new Date() }, { where: { digest } })
  return { tokenHash: digest, shop, person, deviceId: row.deviceId, provedAt: null, rights: row.rights as Right[] }
}
