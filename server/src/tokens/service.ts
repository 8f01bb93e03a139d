import { randomBytes } from 'node:crypto'
import { v7 } from 'uuid'
import type { ApiToken, endpoints, Output } from '@pelrin/contract'
import { API_TOKENS, DEVICES } from '../auth/models.ts'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { hashOfToken } from '../sessions/currentSession.ts'
import { TOKEN_BEGINS } from '../sessions/programs.ts'

const STAMP = (column: string): string => `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`

/** By which other programs ask. */
export const apiTokens = (work: Work): Promise<ApiToken[]> =>
  work.select<ApiToken>(
    `SELECT a.id, a.name, a.rights, ${STAMP('a.made_at')} AS "madeAt", p.name AS person, ${STAMP('a.last_used_at')} AS "lastUsedAt"
     FROM api_tokens a JOIN people p ON p.id = a.person_id
     WHERE a.shop_id = :shopId AND a.revoked_at IS NULL ORDER BY a.made_at, a.id`,
    { shopId: work.shopId },
  )

/** Makes a token for another program. The only time it is told. */
export async function makeToken(
  work: Work,
  { id, name, rights }: Output<typeof endpoints.makeToken.body>,
): Promise<{ token: string; tokens: ApiToken[] }> {
  const { of, transaction, shopId, now } = work
  const token = `${TOKEN_BEGINS}${randomBytes(32).toString('base64url')}`
  const deviceId = v7()
  await of(DEVICES).create({ id: deviceId, name }, { transaction })
  await of(API_TOKENS).create(
    {
      digest: hashOfToken(token),
      id,
      shopId,
      name,
      rights: [...rights],
      personId: authorOf(work).personId,
      deviceId,
      madeAt: now,
    },
    { transaction },
  )
  await audited(work, 'made', 'api-token', id, { name, rights })
  return { token, tokens: await apiTokens(work) }
}

/** @throws ProblemError 404 */
export async function revokeToken(work: Work, id: string): Promise<ApiToken[]> {
  const { shopId, now, transaction } = work
  const [revoked] = await work
    .of(API_TOKENS)
    .update({ revokedAt: now }, { where: { id, shopId, revokedAt: null }, transaction })
  if (revoked === 0) throw new ProblemError(404, 'token-unknown')
  await audited(work, 'revoked', 'api-token', id)
  return apiTokens(work)
}
