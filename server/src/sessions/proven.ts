import type { Database } from '../db/connection.ts'
import { inShop } from '../db/work.ts'
import { PEOPLE } from '../auth/models.ts'
import { ProblemError } from '../problems/problem.ts'
import { hashOfToken, type CurrentSession } from './currentSession.ts'
import type { Origin } from './origin.ts'
import { isSecretOf } from './passwords.ts'
import { forgetWrong, takeTry, tellWrong, type WrongFrom } from './tries.ts'

export type SignInTools = { database: Database; wrongFrom: WrongFrom }

/**
 * Checks what somebody typed, in transactions of its own, so that none is held while it is worked out. A wrong one is told to the owner and
 * makes the next wait; each counts as wrong until it is known to be right.
 *
 * @param subject whose tries are counted
 * @throws ProblemError 429 while they have to wait, 401 for a wrong one
 */
export async function proven(
  { database, wrongFrom, origin }: SignInTools & { origin: Origin },
  {
    shopId,
    subject,
    kind,
    who,
    hashed,
    typed,
  }: {
    shopId: string
    subject: string
    kind: 'password' | 'pin'
    who: string
    hashed: string | null
    typed: string
  },
): Promise<void> {
  const { address, deviceToken, deviceName } = origin
  const device = deviceToken === null ? null : hashOfToken(deviceToken).toString('hex')
  await wrongFrom.take(address, device)
  const waitSeconds = await inShop(database, shopId, null, (work) => takeTry(work, subject)).catch(
    async (error: unknown) => {
      // Not looked at: who cannot wait keeps nobody else at this address waiting.
      await wrongFrom.giveBack(address, device)
      throw error
    },
  )
  if (await isSecretOf(hashed, typed)) {
    await wrongFrom.giveBack(address, device)
    await inShop(database, shopId, null, (work) => forgetWrong(work, subject))
    return
  }
  await inShop(database, shopId, null, (work) =>
    tellWrong(work, { kind, who: who.slice(0, 80), address, device: deviceName, waitSeconds }),
  )
  throw new ProblemError(401, kind === 'pin' ? 'pin-wrong' : 'sign-in-wrong')
}

/** Whoever is present types their password once more, at the device they are at. @throws ProblemError 401, 429 */
export async function provenHere(
  tools: SignInTools,
  { shop, person: here }: CurrentSession,
  password: string,
  origin: Origin,
): Promise<void> {
  const person = await inShop(tools.database, shop.id, null, ({ of, transaction }) =>
    of(PEOPLE).findOne({ where: { id: here.id, active: true }, transaction }),
  )
  await proven(
    { ...tools, origin },
    {
      shopId: shop.id,
      subject: `password ${person?.signInName ?? here.id} here`,
      kind: 'password',
      who: here.initials,
      hashed: person?.passwordHash ?? null,
      typed: password,
    },
  )
}
