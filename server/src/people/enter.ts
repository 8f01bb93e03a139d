import type { Enter, Session, Welcome } from '@pelrin/contract'
import { minutesByDay } from '@pelrin/core'
import { audited, inShop, type Work } from '../db/work.ts'
import { writeChange } from '../limits/changes.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { asPerson, asShop, describe } from '../sessions/describe.ts'
import type { CurrentSession } from '../sessions/currentSession.ts'
import { openSession, type SignedIn } from '../sessions/openSession.ts'
import { authorOf, type Origin } from '../sessions/origin.ts'
import { hashOfSecret, refuseCommon } from '../sessions/passwords.ts'
import { provenHere, type SignInTools } from '../sessions/proven.ts'
import { writeShop } from '../shop/service.ts'
import { PEOPLE, SHOPS, type InvitationRow, type PersonRow, type ShopRow } from '../auth/models.ts'
import { invitationOf, useUp } from './invitations.ts'
import { endSessionsOf, whereFree, write, writeSecret } from './service.ts'

/** What a one-time link opens. @throws ProblemError 401 for one that opens nothing, 429 for who tries many */
export async function welcome(tools: SignInTools, token: string, origin: Origin): Promise<Welcome> {
  const invitation = await opened(tools, token, origin)
  return inShop(tools.database, invitation.shopId, null, async (work) => {
    const { shop, person } = await whoComes(work, invitation)
    const { id: _id, version: _version, ...settings } = asShop(shop)
    const { name, initials, role } = asPerson(person)
    return {
      kind: invitation.kind,
      shop: settings,
      person: { name, initials, role, signInName: person.signInName },
      expiresAt: invitation.expiresAt.toISOString(),
    }
  })
}

/**
 * Somebody comes in by a link: their password and PIN are what they chose, the link is used up, and this device is theirs to work at. What
 * they were signed in at before ends.
 *
 * @throws ProblemError 401 for a link that opens nothing, 422 at the field for a password everybody tries first or a name that is taken
 */
export async function enter(
  tools: SignInTools,
  { token, password, pin, firstDay }: Enter,
  origin: Origin,
): Promise<SignedIn> {
  const invitation = await opened(tools, token, origin)
  refuseCommon(password, 'password')
  if (invitation.kind === 'first-day' && firstDay === undefined) throw refuseField('firstDay', 'text-missing')
  // Before anything is held: each takes a while.
  const passwordHash = await hashOfSecret(password)
  const pinHash = pin === undefined ? null : await hashOfSecret(pin)
  return inShop(tools.database, invitation.shopId, null, async (plain) => {
    await useUp(plain, invitation)
    const { shop, person } = await whoComes(plain, invitation)
    const work: Work = {
      ...plain,
      author: { personId: person.id, deviceId: null, requestId: origin.requestId },
    }
    if (invitation.kind === 'first-day' && firstDay) {
      const { shop: settings, dayMinutes, ...said } = firstDay
      await writeShop(work, shop, settings, { begunAt: work.now })
      await whereFree(work, () => write(work, person, said), 'firstDay.')
      await writeChange(
        work,
        { kind: 'assumptions', fromVersion: 0, overrides: minutesByDay(settings.opening, dayMinutes) },
        'first day',
      )
      await audited(work, 'began', 'shop', shop.id, { shop: settings.name })
    }
    await writeSecret(work, person.id, { passwordHash })
    if (pinHash !== null) await writeSecret(work, person.id, { pinHash })
    const ended = await endSessionsOf(work, person.id)
    const now = await whoComes(work, invitation)
    const signedIn = await openSession(plain, { ...now, origin })
    return { ...signedIn, ended: [...signedIn.ended, ...ended.map((hash) => Buffer.from(hash, 'hex'))] }
  })
}

/** Tries of links are counted like those of passwords: who guesses waits. */
async function opened({ database, wrongFrom }: SignInTools, token: string, origin: Origin): Promise<InvitationRow> {
  await wrongFrom.take(origin.address, null)
  const invitation = await invitationOf(database, token)
  await wrongFrom.giveBack(origin.address, null)
  return invitation
}

async function whoComes(work: Work, { personId }: InvitationRow): Promise<{ shop: ShopRow; person: PersonRow }> {
  const { of, transaction, shopId } = work
  const shop = await of(SHOPS).findByPk(shopId, { transaction })
  const person = await of(PEOPLE).findOne({ where: { id: personId, active: true }, transaction })
  if (!shop || !person) throw new ProblemError(401, 'link-over')
  return { shop, person }
}

/** A new password of whoever is present. @returns what it ended: everything else they were signed in at */
export async function changeOwnPassword(
  tools: SignInTools,
  current: CurrentSession,
  { now, next }: { readonly now: string; readonly next: string },
  origin: Origin,
): Promise<{ session: Session; ended: readonly string[] }> {
  refuseCommon(next, 'next')
  await provenHere(tools, current, now, origin)
  const passwordHash = await hashOfSecret(next)
  return inShop(tools.database, current.shop.id, authorOf(current, origin), async (work) => {
    await writeSecret(work, current.person.id, { passwordHash })
    const ended = await endSessionsOf(work, current.person.id, current.tokenHash)
    return { session: await describe(work, current), ended }
  })
}

/** A new PIN of whoever is present, who shows by their password that they are it. */
export async function changeOwnPin(
  tools: SignInTools,
  current: CurrentSession,
  { password, pin }: { readonly password: string; readonly pin: string },
  origin: Origin,
): Promise<Session> {
  await provenHere(tools, current, password, origin)
  const pinHash = await hashOfSecret(pin)
  return inShop(tools.database, current.shop.id, authorOf(current, origin), async (work) => {
    await writeSecret(work, current.person.id, { pinHash })
    return describe(work, current)
  })
}
