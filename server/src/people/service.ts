import type { Colleague, endpoints, Output } from '@pelrin/contract'
import { dayIn } from '../days/days.ts'
import { held } from '../db/facts.ts'
import { brokenBy } from '../db/refused.ts'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { PEOPLE, type PersonRow } from '../auth/models.ts'
import { lockedShop } from '../shop/service.ts'
import { makeInvitation } from './invitations.ts'
import { colleagues } from './store.ts'

export const everybody = (work: Work): Promise<Colleague[]> => colleagues(work)

const shown = async (work: Work, id: string): Promise<Colleague> => (await colleagues(work, id))[0]!

/** Adds somebody, whom nothing lets in yet. @throws ProblemError 422 where initials or the name at the door are somebody's */
export async function addPerson(work: Work, added: Output<typeof endpoints.addPerson.body>): Promise<Colleague> {
  await whereFree(work, () => work.of(PEOPLE).create({ ...added, active: true }, { transaction: work.transaction }))
  const { id, ...said } = added
  await audited(work, 'added', 'person', id, said)
  return shown(work, id)
}

/**
 * @throws ProblemError 404; 412 with the newer row; 422 where initials or the name at the door are somebody's, 409 where the shop would be
 *   without an owner
 */
export async function changePerson(
  work: Work,
  id: string,
  version: number,
  change: Output<typeof endpoints.changePerson.body>,
): Promise<Colleague> {
  const person = await lockedPerson(work, id)
  const before = await shown(work, id)
  await held(person, version, () => before)
  if (change.role !== undefined && change.role !== 'owner') await refuseLastOwner(work, person)
  await whereFree(work, () => write(work, person, change))
  await audited(work, 'changed', 'person', id, { before, change })
  return shown(work, id)
}

/** Makes the link somebody comes in by. Who had left is here again. */
export async function invitePerson(work: Work, id: string): Promise<{ token: string; expiresAt: string }> {
  const person = await lockedPerson(work, id)
  if (!person.active) await whereFree(work, () => write(work, person, { active: true, leftOn: null }))
  const { token, expiresAt } = await makeInvitation(work, id, person.passwordHash === null ? 'invited' : 'way-back')
  await audited(work, 'invited', 'person', id)
  return { token, expiresAt: expiresAt.toISOString() }
}

/**
 * Somebody leaves: no password, no PIN, no session and no link of theirs opens anything from now on.
 *
 * @throws ProblemError 404, 412, 409 for the last owner, 422 for a day that has not come
 */
export async function personLeaves(
  work: Work,
  id: string,
  version: number,
  on: string,
  timeZone: string,
): Promise<Colleague> {
  const person = await lockedPerson(work, id)
  await held(person, version, () => shown(work, id))
  await refuseLastOwner(work, person)
  if (on > dayIn(timeZone, work.now)) throw refuseField('on', 'day-ahead')
  await write(work, person, { active: false, leftOn: on, passwordHash: null, pinHash: null })
  await endSessionsOf(work, id)
  await work.execute('DELETE FROM invitations WHERE shop_id = :shopId AND person_id = :id', { shopId: work.shopId, id })
  await audited(work, 'left', 'person', id, { on })
  return shown(work, id)
}

/** Ends what somebody is signed in at, but for one session. @returns what ended */
export async function endSessionsOf(work: Work, personId: string, butFor: Buffer | null = null): Promise<string[]> {
  const ended = await work.select<{ hash: string }>(
    `DELETE FROM sessions WHERE shop_id = :shopId AND person_id = :personId AND encode(token_hash, 'hex') <> :butFor
     RETURNING encode(token_hash, 'hex') AS hash`,
    { shopId: work.shopId, personId, butFor: butFor?.toString('hex') ?? '' },
  )
  return ended.map(({ hash }) => hash)
}

/** What somebody chose for themselves: their password, their PIN. */
export async function writeSecret(
  work: Work,
  personId: string,
  secret: { readonly passwordHash: string } | { readonly pinHash: string },
): Promise<void> {
  await work
    .of(PEOPLE)
    .update({ ...secret, demoPassword: null }, { where: { id: personId }, transaction: work.transaction })
  await audited(work, 'passwordHash' in secret ? 'password-changed' : 'pin-changed', 'person', personId)
}

/** Writes somebody at the next version. */
export async function write(work: Work, { id, version }: PersonRow, change: Partial<PersonRow>): Promise<void> {
  await work.of(PEOPLE).update({ ...change, version: version + 1 }, { where: { id }, transaction: work.transaction })
}

async function lockedPerson(work: Work, id: string): Promise<PersonRow> {
  // Owners are counted while nobody else can become none.
  await lockedShop(work)
  const { transaction } = work
  const person = await work.of(PEOPLE).findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
  if (!person) throw new ProblemError(404, 'person-unknown')
  return person
}

/** @throws ProblemError 409 where nobody else could open what is the owner's */
async function refuseLastOwner(work: Work, person: PersonRow): Promise<void> {
  if (person.role !== 'owner' || !person.active) return
  const [others] = await work.select<{ n: number }>(
    `SELECT count(*)::int AS n FROM people WHERE role = 'owner' AND active AND password_hash IS NOT NULL AND id <> :id`,
    { id: person.id },
  )
  if ((others?.n ?? 0) === 0) throw new ProblemError(409, 'last-owner')
}

/** @throws ProblemError 422 at the field that is somebody's already */
export async function whereFree<T>(work: Work, job: () => Promise<T>, at = ''): Promise<T> {
  try {
    return await work.savepoint(job)
  } catch (error) {
    const broken = brokenBy(error)
    if (broken?.rule === 'unique') {
      const initials = broken.constraint === 'people_by_initials'
      throw refuseField(
        `${at}${initials ? 'initials' : 'signInName'}`,
        initials ? 'initials-taken' : 'sign-in-name-taken',
      )
    }
    throw error
  }
}
