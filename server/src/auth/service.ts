import { randomBytes } from 'node:crypto'
import { hash, verify } from '@node-rs/argon2'
import { v7 } from 'uuid'
import type { Session, SignIn } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import type { PersonRow } from '../db/models/rows.ts'
import { audited, inShop, type Work } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'
import { hashOfToken, type CurrentSession } from './currentSession.ts'

const SESSION_DAYS = 30

/** Checked when no such person exists, so that the answer takes as long as for one who does. */
const NOBODY = await hash('nobody signs in with this')

const asPerson = ({ id, name, initials, role }: PersonRow): Session['person'] => ({ id, name, initials, role })

/** Signs a device in. The device's id is made here and lives as long as its session. */
export async function signIn(
  database: Database,
  { shop: code, name, password }: SignIn,
  deviceName: string,
  requestId: string,
): Promise<{ token: string; expiresAt: Date; session: Session }> {
  const shop = await database.models.Shop.findOne({ where: { code } })
  const wrong = new ProblemError(401, 'sign-in-wrong')
  if (!shop) {
    await verify(NOBODY, password)
    throw wrong
  }
  return inShop(database, shop.id, null, async (work) => {
    const { models, transaction } = work
    const person = await models.Person.findOne({
      where: { signInName: name.toLowerCase(), active: true },
      transaction,
    })
    if (!(await verify(person?.passwordHash ?? NOBODY, password)) || !person) throw wrong
    const token = randomBytes(32).toString('base64url')
    const tokenHash = hashOfToken(token)
    const expiresAt = new Date(work.now.getTime() + SESSION_DAYS * 86_400_000)
    const device = await models.Device.create({ id: v7(), name: deviceName }, { transaction })
    await models.Session.create(
      { tokenHash, shopId: shop.id, deviceId: device.id, personId: person.id, expiresAt, lastSeenAt: work.now },
      { transaction },
    )
    await models.SessionPerson.create({ tokenHash, personId: person.id }, { transaction })
    await audited(
      { ...work, author: { personId: person.id, deviceId: device.id, requestId } },
      'signed-in',
      'device',
      device.id,
    )
    const session = await describe(work, { tokenHash, shop, person: asPerson(person), deviceId: device.id })
    return { token, expiresAt, session }
  })
}

/** Everything a screen shows of the session. */
export async function describe(work: Work, current: CurrentSession): Promise<Session> {
  const { models, transaction } = work
  const people = await models.Person.findAll({ where: { active: true }, order: [['name', 'ASC']], transaction })
  const here = await models.SessionPerson.findAll({ where: { tokenHash: current.tokenHash }, transaction })
  const device = await models.Device.findByPk(current.deviceId, { transaction })
  const hereIds = new Set(here.map((row) => row.personId))
  const { id, code, name, timeZone, distanceUnit } = current.shop
  return {
    shop: { id, code, name, timeZone, distanceUnit },
    person: current.person,
    people: people.map(asPerson),
    peopleHere: people.filter((person) => hereIds.has(person.id)).map(asPerson),
    device: { id: current.deviceId, name: device?.name ?? '' },
  }
}

/** Another person takes over the device, by initials and PIN. */
export async function switchPerson(
  work: Work,
  current: CurrentSession,
  { initials, pin }: { initials: string; pin: string },
): Promise<Session> {
  const { models, transaction } = work
  const person = await models.Person.findOne({ where: { initials, active: true }, transaction })
  if (!(await verify(person?.pinHash ?? NOBODY, pin)) || !person) throw new ProblemError(401, 'pin-wrong')
  await models.Session.update({ personId: person.id }, { where: { tokenHash: current.tokenHash }, transaction })
  await models.SessionPerson.bulkCreate([{ tokenHash: current.tokenHash, personId: person.id }], {
    ignoreDuplicates: true,
    transaction,
  })
  await audited(work, 'switched-person', 'person', person.id)
  return describe(work, { ...current, person: asPerson(person) })
}

/** Ends the device's session. Facts written by it stay. */
export async function signOut(work: Work, current: CurrentSession): Promise<void> {
  await audited(work, 'signed-out', 'device', current.deviceId)
  await work.models.Session.destroy({ where: { tokenHash: current.tokenHash }, transaction: work.transaction })
}
