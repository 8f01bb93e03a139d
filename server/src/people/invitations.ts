import { randomBytes } from 'node:crypto'
import type { Database } from '../db/connection.ts'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { hashOfToken } from '../sessions/currentSession.ts'
import { INVITATIONS, type InvitationRow } from '../auth/models.ts'

/** How long a link lets somebody in, ms: who is at the machine comes at once, a colleague maybe tomorrow. */
const LASTS: Readonly<Record<InvitationRow['kind'], number>> = {
  'first-day': 3_600_000,
  'way-back': 3_600_000,
  invited: 3 * 86_400_000,
}

/** Makes a one-time link for somebody. Those they had before let nobody in any more. */
export async function makeInvitation(
  work: Work,
  personId: string,
  kind: InvitationRow['kind'],
): Promise<{ token: string; expiresAt: Date }> {
  const { transaction, now, shopId } = work
  const token = randomBytes(32).toString('base64url')
  const expiresAt = new Date(now.getTime() + LASTS[kind])
  // These rows are found before it is known which shop they are of: no policy keeps them apart, so each statement names the shop.
  await work.of(INVITATIONS).destroy({ where: { shopId, personId }, transaction })
  await work
    .of(INVITATIONS)
    .create({ tokenHash: hashOfToken(token), shopId, personId, kind, expiresAt }, { transaction })
  return { token, expiresAt }
}

/** The link a token is of. @throws ProblemError 401 for one that lets nobody in any more, or never did */
export async function invitationOf(database: Database, token: string): Promise<InvitationRow> {
  const found = await database.of(INVITATIONS).findByPk(hashOfToken(token))
  if (found?.usedAt !== null || found.expiresAt.getTime() < Date.now()) throw new ProblemError(401, 'link-over')
  return found
}

/** Uses a link up: of two who come at once, one. @throws ProblemError 401 for the other */
export async function useUp(work: Work, { tokenHash }: InvitationRow): Promise<void> {
  const { shopId, now, transaction } = work
  const [used] = await work
    .of(INVITATIONS)
    .update({ usedAt: now }, { where: { tokenHash, shopId, usedAt: null }, transaction })
  if (used === 0) throw new ProblemError(401, 'link-over')
}
