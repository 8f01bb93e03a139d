import { randomBytes } from 'node:crypto'
import { v7 } from 'uuid'
import type { Session, SignIn, SwitchPerson } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { audited, inShop, type Author, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { rebuildProgress } from '../state/rebuild.ts'
import { hashOfToken, provedUntil, type CurrentSession } from '../sessions/currentSession.ts'
import { isSecretOf } from './passwords.ts'
import { forgetWrong, takeTry, tellWrong, type WrongFrom } from './tries.ts'
import { DEVICES, DEVICE_PEOPLE, PEOPLE, SESSIONS, SHOPS, type PersonRow } from './models.ts'

const SESSION_DAYS = 30

/** Where a request comes from. */
export interface Origin {
  readonly address: string
  /** The device's own token, which outlives its sessions; null for one that was never signed in. */
  readonly deviceToken: string | null
  /** The session it had so far. */
  readonly sessionToken: string | null
  readonly deviceName: string
  readonly requestId: string
}

/** What a device gets when it is signed in. */
export interface SignedIn {
  readonly token: string
  readonly deviceToken: string
  readonly expiresAt: Date
  readonly session: Session
  /** Sessions that ended with it. */
  readonly ended: readonly Buffer[]
}

const asPerson = ({ id, name, initials, role }: PersonRow): Session['person'] => ({ id, name, initials, role })

/**
 * Checks what somebody typed, in transactions of its own, so that none is held while it is worked out. A wrong one is told to the owner and
 * makes the next wait; each counts as wrong until it is known to be right.
 *
 * @param subject whose tries are counted
 * @throws ProblemError 429 while they have to wait, 401 for a wrong one
 */
async function proven(
  { database, wrongFrom, origin }: { database: Database; wrongFrom: WrongFrom; origin: Origin },
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

export type SignInTools = { database: Database; wrongFrom: WrongFrom }

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
  const known = await inShop(database, shop.id, null, async ({ of, transaction }) => {
    const person = await of(PEOPLE).findOne({ where: { signInName, active: true }, transaction })
    const device = await deviceOf(of, transaction, origin)
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
  return inShop(database, shop.id, null, async (plain) => {
    const { of, transaction, now } = plain
    const token = randomBytes(32).toString('base64url')
    const tokenHash = hashOfToken(token)
    const expiresAt = new Date(now.getTime() + SESSION_DAYS * 86_400_000)
    const before = await deviceOf(of, transaction, origin)
    const deviceToken =
      before && origin.deviceToken !== null ? origin.deviceToken : randomBytes(32).toString('base64url')
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
  })
}

/** The device that asks, if it was ever signed in in this shop. */
async function deviceOf(
  of: Work['of'],
  transaction: Work['transaction'],
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
async function isHere(work: Work, deviceId: string, { id, role }: PersonRow): Promise<void> {
  await work.execute(
    `INSERT INTO device_people (device_id, person_id, role, invited_at, last_here_at) VALUES (:deviceId, :id, :role, :now, :now)
     ON CONFLICT (shop_id, device_id, person_id) DO UPDATE SET role = excluded.role, last_here_at = excluded.last_here_at`,
    { deviceId, id, role, now: work.now },
  )
}

/** Everything a screen shows of the session. */
export async function describe(work: Work, current: CurrentSession): Promise<Session> {
  const { of, transaction } = work
  const people = await of(PEOPLE).findAll({ where: { active: true }, order: [['name', 'ASC']], transaction })
  const here = await of(DEVICE_PEOPLE).findAll({ where: { deviceId: current.deviceId }, transaction })
  const device = await of(DEVICES).findByPk(current.deviceId, { transaction })
  const hereIds = new Set(here.map((row) => row.personId))
  const { id, code, name, timeZone, distanceUnit } = current.shop
  return {
    shop: { id, code, name, timeZone, distanceUnit },
    person: current.person,
    people: people.map(asPerson),
    peopleHere: people.filter((person) => hereIds.has(person.id)).map(asPerson),
    device: { id: current.deviceId, name: device?.name ?? '' },
    provedUntil: provedUntil(current)?.toISOString() ?? null,
    rebuilding: await rebuildProgress(work),
  }
}

const authorOf = ({ person, deviceId }: CurrentSession, { requestId }: Origin): Author => ({
  personId: person.id,
  deviceId,
  requestId,
})

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
  { database, wrongFrom }: SignInTools,
  current: CurrentSession,
  password: string,
  origin: Origin,
): Promise<Session> {
  const { shop, person: here, tokenHash } = current
  const person = await inShop(database, shop.id, null, ({ of, transaction }) =>
    of(PEOPLE).findOne({ where: { id: here.id, active: true }, transaction }),
  )
  await proven(
    { database, wrongFrom, origin },
    {
      shopId: shop.id,
      subject: `password ${person?.signInName ?? here.id} here`,
      kind: 'password',
      who: here.initials,
      hashed: person?.passwordHash ?? null,
      typed: password,
    },
  )
  return inShop(database, shop.id, authorOf(current, origin), async (work) => {
    const provedAt = work.now
    await work.of(SESSIONS).update({ provedAt }, { where: { tokenHash }, transaction: work.transaction })
    await audited(work, 'proved', 'person', here.id)
    return describe(work, { ...current, provedAt })
  })
}

/** Ends the device's session. Facts written by it stay. */
export async function signOut(work: Work, current: CurrentSession): Promise<void> {
  await audited(work, 'signed-out', 'device', current.deviceId)
  await work.of(SESSIONS).destroy({ where: { tokenHash: current.tokenHash }, transaction: work.transaction })
}
