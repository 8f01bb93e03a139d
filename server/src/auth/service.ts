import type { Session, SignIn, SwitchPerson } from '@pelrin/contract'
import { audited, inShop, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { hashOfToken, type CurrentSession } from '../sessions/currentSession.ts'
import { asPerson, describe } from '../sessions/describe.ts'
import { deviceOf, isHere, openSession, type SignedIn } from '../sessions/openSession.ts'
import { authorOf, type Origin } from '../sessions/origin.ts'
import { isSecretOf } from '../sessions/passwords.ts'
import { proven, provenHere, type SignInTools } from '../sessions/proven.ts'
import { DEVICE_PEOPLE, PEOPLE, SESSIONS, SHOPS } from './models.ts'

/** Signs a device in. A session it had so far ends. */
export async function signIn(
  { database, wrongFrom }: SignInTools,
  { shop: code, name, password }: SignIn,
  origin: Origin,
): Promise<SignedIn> {
  const shop = await database.of(SHOPS).findOne({ where: { code } })
  const signInName = name.toLowerCase()
  if (!shop) {
    await wrongFrom.take(origin.address, null)
    await isSecretOf(null, password)
    throw new ProblemError(401, 'sign-in-wrong')
  }
  const known = await inShop(database, shop.id, null, async (work) => {
    const { of, transaction } = work
    const person = await of(PEOPLE).findOne({ where: { signInName, active: true }, transaction })
    const device = await deviceOf(work, origin)
    const invited =
      person && device
        ? await of(DEVICE_PEOPLE).findOne({ where: { deviceId: device.id, personId: person.id }, transaction })
        : null
    return { person, invited: invited !== null }
  })
  // Whoever guesses elsewhere does not keep somebody from their own tablet.
  const subject = `password ${signInName} ${known.invited && origin.deviceToken !== null ? hashOfToken(origin.deviceToken).toString('hex').slice(0, 16) : 'elsewhere'}`
  await proven(
    { database, wrongFrom, origin },
    {
      shopId: shop.id,
      subject,
      kind: 'password',
      who: signInName,
      hashed: known.person?.passwordHash ?? null,
      typed: password,
    },
  )
  const person = known.person!
  return inShop(database, shop.id, null, (work) => openSession(work, { shop, person, origin }))
}

/**
 * Another person takes over the device: by initials and PIN where they have worked on it before, by their password the first time. What the
 * one before might do here ends with it.
 */
export async function switchPerson(
  { database, wrongFrom }: SignInTools,
  current: CurrentSession,
  { initials, pin, password }: SwitchPerson,
  origin: Origin,
): Promise<Session> {
  const { shop, deviceId, tokenHash } = current
  const { person, invited } = await inShop(database, shop.id, null, async ({ of, transaction }) => {
    const found = await of(PEOPLE).findOne({ where: { initials, active: true }, transaction })
    const there = found && (await of(DEVICE_PEOPLE).findOne({ where: { deviceId, personId: found.id }, transaction }))
    return { person: found, invited: there !== null }
  })
  const byPassword = password !== undefined
  if (!byPassword && pin === undefined) throw refuseField('pin', 'pin-malformed')
  await proven(
    { database, wrongFrom, origin },
    {
      shopId: shop.id,
      subject: `${byPassword ? 'password' : 'pin'} ${person?.signInName ?? initials} here`,
      kind: byPassword ? 'password' : 'pin',
      who: initials,
      hashed: (byPassword ? person?.passwordHash : person?.pinHash) ?? null,
      typed: password ?? pin ?? '',
    },
  )
  if (!invited && !byPassword) throw new ProblemError(403, 'pin-first-password')
  return inShop(database, shop.id, authorOf(current, origin), async (work) => {
    const { of, transaction, now } = work
    const provedAt = byPassword ? now : null
    await of(SESSIONS).update({ personId: person!.id, provedAt }, { where: { tokenHash }, transaction })
    await isHere(work, deviceId, person!)
    await audited(work, 'switched-person', 'person', person!.id)
    return describe(work, { ...current, person: asPerson(person!), provedAt })
  })
}

/** Whoever is present types their password again. */
export async function prove(
  tools: SignInTools,
  current: CurrentSession,
  password: string,
  origin: Origin,
): Promise<Session> {
  await provenHere(tools, current, password, origin)
  const { shop, person, tokenHash } = current
  return inShop(tools.database, shop.id, authorOf(current, origin), async (work) => {
    const provedAt = work.now
    await work.of(SESSIONS).update({ provedAt }, { where: { tokenHash }, transaction: work.transaction })
    await audited(work, 'proved', 'person', person.id)
    return describe(work, { ...current, provedAt })
  })
}

/** Ends the device's session. Facts written by it stay. */
export async function signOut(work: Work, current: CurrentSession): Promise<void> {
  await audited(work, 'signed-out', 'device', current.deviceId)
  await work.of(SESSIONS).destroy({ where: { tokenHash: current.tokenHash }, transaction: work.transaction })
}
