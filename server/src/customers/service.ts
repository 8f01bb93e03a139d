import type { CustomerPage, endpoints, Output } from '@pelrin/contract'
import { v7 } from 'uuid'
import { addCustomer } from '../bikes/addBike.ts'
import { BIKES, BIKE_PASSINGS, CUSTOMERS, type CustomerRow } from '../bikes/models.ts'
import { held } from '../db/facts.ts'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { lockBikeState, refreshBikeState } from '../state/bikeState.ts'
import { customerPage } from './store.ts'

const DAY_MS = 86_400_000

/** @throws ProblemError 404 */
export async function customerShown(work: Work, id: string): Promise<CustomerPage> {
  const page = await customerPage(work, id)
  if (!page) throw new ProblemError(404, 'customer-unknown')
  return page
}

/** Corrects what is known of a customer. @throws ProblemError 404; 412 with the newer row; 409 for one erased or merged */
export async function changeCustomer(
  work: Work,
  id: string,
  version: number,
  { optedOut, ...change }: Output<typeof endpoints.changeCustomer.body>,
): Promise<CustomerPage> {
  const customer = await lockedCustomer(work, id)
  await held(customer, version, () => customerShown(work, id))
  const opted = optedOut === undefined ? {} : { optedOutAt: optedOut ? (customer.optedOutAt ?? work.now) : null }
  await write(work, customer, { ...change, ...opted })
  // What lists and the finder know of each of their bikes says their name.
  if (change.name !== undefined || change.phone !== undefined || change.rhythmDays !== undefined)
    await refreshBikes(work, await bikesOf(work, id))
  await audited(work, 'changed', 'customer', id, { change: Object.keys({ ...change, ...opted }) })
  return customerShown(work, id)
}

/**
 * A customer was entered twice: the bikes of the other are theirs, and what is not known of them is taken from there.
 *
 * @throws ProblemError 404, 409 where they are one already, or one of them is erased
 */
export async function mergeCustomer(work: Work, id: string, otherId: string): Promise<CustomerPage> {
  if (id === otherId) throw refuseField('otherId', 'customer-same')
  // In the order of their ids, whoever is merged into whom: two who do it at once wait for each other.
  const locked = new Map<string, CustomerRow>()
  for (const one of [id, otherId].sort()) locked.set(one, await lockedCustomer(work, one))
  const [keeps, other] = [locked.get(id)!, locked.get(otherId)!]
  const bikes = await bikesOf(work, otherId)
  for (const bikeId of bikes) await pass(work, bikeId, otherId, id, true)
  const { phone, email, goodWeekday, careAt, rhythmDays, optedOutAt } = other
  await write(work, keeps, {
    phone: keeps.phone ?? phone,
    email: keeps.email ?? email,
    goodWeekday: keeps.goodWeekday ?? goodWeekday,
    careAt: keeps.careAt ?? careAt,
    rhythmDays: keeps.rhythmDays ?? rhythmDays,
    notes: [keeps.notes, other.notes].filter((one) => one !== '').join('\n'),
    // Whoever did not want to be written to does not want it under either name.
    optedOutAt: keeps.optedOutAt ?? optedOutAt,
  })
  await write(work, other, { mergedIntoId: id, mergedAt: work.now })
  await refreshBikes(work, bikes)
  await audited(work, 'merged', 'customer', id, { otherId })
  return customerShown(work, id)
}

/** Two who were made one are two again, within the day. @throws ProblemError 404, 409 later than that */
export async function unmergeCustomer(work: Work, id: string, otherId: string): Promise<CustomerPage> {
  const { transaction } = work
  const other = await work.of(CUSTOMERS).findByPk(otherId, { transaction, lock: transaction.LOCK.UPDATE })
  if (other?.mergedIntoId !== id || other.mergedAt === null) throw new ProblemError(404, 'customer-unknown')
  if (work.now.getTime() - other.mergedAt.getTime() > DAY_MS) throw new ProblemError(409, 'merge-past')
  const went = await work.of(BIKE_PASSINGS).findAll({
    where: { fromCustomerId: otherId, toCustomerId: id, merge: true },
    transaction,
  })
  const theirs = new Set(await bikesOf(work, id))
  // One that went on to somebody else meanwhile stays there.
  const back = went.map(({ bikeId }) => bikeId).filter((bikeId) => theirs.has(bikeId))
  for (const bikeId of back) await pass(work, bikeId, id, otherId, true)
  await write(work, other, { mergedIntoId: null, mergedAt: null })
  await refreshBikes(work, back)
  await audited(work, 'undid', 'customer', id, { otherId })
  return customerShown(work, id)
}

/** A bike goes to another customer, who may be new. @throws ProblemError 404, 409 */
export async function passBike(
  work: Work,
  bikeId: string,
  { customerId, new: added }: Output<typeof endpoints.passBike.body>,
): Promise<CustomerPage> {
  const bike = await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  if (added) await addCustomer(work, { id: customerId, ...added })
  await lockedCustomer(work, customerId)
  if (bike.customerId === customerId) throw refuseField('customerId', 'customer-same')
  await pass(work, bikeId, bike.customerId, customerId, false)
  // It is here again with whoever has it now.
  await work
    .of(BIKES)
    .update({ goneOn: null, version: bike.version + 1 }, { where: { id: bikeId }, transaction: work.transaction })
  await refreshBikes(work, [bikeId])
  await audited(work, 'passed-on', 'bike', bikeId, { from: bike.customerId, to: customerId })
  return customerShown(work, customerId)
}

async function pass(work: Work, bikeId: string, from: string, to: string, merge: boolean): Promise<void> {
  await lockBikeState(work, bikeId)
  await work.of(BIKES).update({ customerId: to }, { where: { id: bikeId }, transaction: work.transaction })
  await work.of(BIKE_PASSINGS).create(
    {
      id: v7(),
      bikeId,
      fromCustomerId: from,
      toCustomerId: to,
      at: work.now,
      merge,
      personId: authorOf(work).personId,
    },
    { transaction: work.transaction },
  )
}

/** Held until the transaction ends. @throws ProblemError 404; 409 for one erased, or one with another now */
export async function lockedCustomer(work: Work, id: string): Promise<CustomerRow> {
  const { transaction } = work
  const customer = await work.of(CUSTOMERS).findByPk(id, { transaction, lock: transaction.LOCK.NO_KEY_UPDATE })
  if (!customer) throw new ProblemError(404, 'customer-unknown')
  if (customer.erasedAt !== null) throw new ProblemError(409, 'customer-erased')
  if (customer.mergedIntoId !== null) throw new ProblemError(409, 'customer-merged')
  return customer
}

export async function write(
  work: Work,
  { id, version }: CustomerRow,
  change: Partial<{ [K in keyof CustomerRow]: CustomerRow[K] | undefined }>,
): Promise<void> {
  const given = Object.fromEntries(Object.entries(change).filter(([, to]) => to !== undefined))
  await work.of(CUSTOMERS).update({ ...given, version: version + 1 }, { where: { id }, transaction: work.transaction })
}

export async function bikesOf(work: Work, customerId: string): Promise<string[]> {
  const rows = await work.select<{ id: string }>('SELECT id FROM bikes WHERE customer_id = :customerId ORDER BY id', {
    customerId,
  })
  return rows.map(({ id }) => id)
}

export async function refreshBikes(work: Work, bikeIds: readonly string[]): Promise<void> {
  for (const bikeId of [...bikeIds].sort()) {
    await lockBikeState(work, bikeId)
    await refreshBikeState(work, bikeId)
  }
}
