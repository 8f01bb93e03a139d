import { may, type endpoints, type Order, type Output, type Role } from '@pelrin/contract'
import { v7 } from 'uuid'
import type { Database } from '../db/connection.ts'
import { audited, authorOf, inShop, type Author, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import type { ShopJobs } from '../queue/queue.ts'
import { referenceOf } from '../references.ts'
import { moveStock } from '../stock/movements.ts'
import { offersOf, orderById } from './store.ts'
import { SupplierAway, type OrderAnswer, type Supplier } from './supplier.ts'
import { held } from '../db/facts.ts'
import { ORDERS, ORDER_LINES, SUPPLIER_OFFERS, type OrderRow } from './models.ts'

/** Where orders go, and what sees to those that hang. */
export interface Ordering {
  readonly database: Database
  readonly supplier: Supplier | undefined
  readonly jobs: Pick<ShopJobs, 'settleOrder'>
}

/** Who orders. */
export interface Ordered {
  readonly author: Author
  readonly role: Role
}

/** @throws ProblemError 403 for more than the shop lets anybody but an owner order */
async function refuseAboveSum(
  work: Work,
  role: Role,
  lines: readonly { readonly quantity: number; readonly price: number }[],
): Promise<void> {
  if (may(role, 'owner')) return
  const { assumed } = await assumptionsInForce(work)
  const most = assumed.orders.ownerAbove
  const sum = lines.reduce((all, { quantity, price }) => all + quantity * price, 0) / 100
  if (sum > most) throw new ProblemError(403, 'order-owner-wanted', { values: { sum: sum.toFixed(2), most } })
}

const HANGING: readonly OrderRow['state'][] = ['sending', 'unsure']

async function lockedOrder(work: Work, id: string) {
  const order = await work.of(ORDERS).findByPk(id, {
    transaction: work.transaction,
    lock: work.transaction.LOCK.UPDATE,
  })
  if (!order) throw new ProblemError(404, 'order-unknown')
  return order
}

async function requireOrder(work: Work, id: string): Promise<Order> {
  const order = await orderById(work, id)
  if (!order) throw new ProblemError(404, 'order-unknown')
  return order
}

/**
 * Writes an order down, then sends it. From the moment it is written it is seen to until the supplier has said what became
 * of it, whoever stops meanwhile; and because it goes under its own id, it is taken once.
 */
export async function placeOrder(
  ordering: Ordering,
  shopId: string,
  { author, role }: Ordered,
  { id, lines }: Output<typeof endpoints.placeOrder.body>,
): Promise<Order> {
  if (!ordering.supplier) throw new ProblemError(409, 'supplier-none')
  await inShop(ordering.database, shopId, author, async (work) => {
    await refuseAboveSum(work, role, lines)
    const [written] = await work.select(
      `INSERT INTO orders (id, state, sent_at, person_id) VALUES (:id, 'sending', :now, :personId)
       ON CONFLICT DO NOTHING RETURNING id`,
      { id, now: work.now, personId: authorOf(work).personId },
    )
    // Sent again: it is the same order.
    if (!written) return
    const offers = await offersOf(
      work,
      lines.map(({ partId }) => partId),
    )
    await work.of(ORDER_LINES).bulkCreate(
      lines.map(({ partId, quantity, price }, i) => {
        const offer = offers.find((one) => one.partId === partId)
        if (!offer) throw refuseField(`lines.${i}.partId`, 'offer-unknown')
        return {
          id: v7(),
          orderId: id,
          partId,
          sku: offer.sku,
          quantity,
          price,
          priceNow: null,
          stockNow: null,
          received: 0,
        }
      }),
      { transaction: work.transaction },
    )
    await ordering.jobs.settleOrder(work, id)
    await audited(work, 'ordered', 'order', id, { lines })
  })
  return settleOrder(ordering, shopId, id)
}

/**
 * Finds out what became of an order that hangs: asks for it by its reference, and sends it where it never arrived. Nothing
 * is held open while the supplier thinks.
 */
export async function settleOrder({ database, supplier }: Ordering, shopId: string, id: string): Promise<Order> {
  const order = await inShop(database, shopId, null, (work) => requireOrder(work, id))
  if (!HANGING.includes(order.state) || !supplier) return order
  let answer: OrderAnswer | { readonly kind: 'away'; readonly code: string }
  try {
    // Only one that was never sent needs no asking.
    const reference = referenceOf(shopId, id)
    const placed = order.state === 'unsure' ? await supplier.orderOf(reference) : null
    answer = placed ? { kind: 'placed', placed } : await supplier.order(reference, order.lines)
  } catch (error) {
    if (!(error instanceof SupplierAway)) throw error
    answer = { kind: 'away', code: error.code }
  }
  return inShop(database, shopId, null, async (work) => {
    const row = await lockedOrder(work, id)
    // Another attempt may have heard first.
    if (HANGING.includes(row.state)) await takeAnswer(work, row, order, answer)
    return requireOrder(work, id)
  })
}

async function takeAnswer(
  work: Work,
  row: Awaited<ReturnType<typeof lockedOrder>>,
  order: Order,
  answer: OrderAnswer | { readonly kind: 'away'; readonly code: string },
): Promise<void> {
  const { transaction } = work
  const next = { version: row.version + 1, tries: row.tries + 1 }
  if (answer.kind === 'away') {
    await row.update({ ...next, state: 'unsure', problem: answer.code }, { transaction })
    return
  }
  if (answer.kind === 'placed') {
    const { number, expected } = answer.placed
    await row.update(
      { ...next, state: 'placed', problem: null, number, expectedOn: expected, settledAt: work.now },
      { transaction },
    )
    await audited(work, 'placed', 'order', row.id, { number })
    return
  }
  for (const { sku, price, stock } of answer.lines) {
    await work
      .of(ORDER_LINES)
      .update({ priceNow: price, stockNow: stock }, { where: { orderId: row.id, sku }, transaction })
    const line = order.lines.find((one) => one.sku === sku)
    if (line)
      await work
        .of(SUPPLIER_OFFERS)
        .update({ price, stock, askedAt: work.now }, { where: { partId: line.partId }, transaction })
  }
  await row.update({ ...next, state: 'refused', problem: answer.code, settledAt: work.now }, { transaction })
  await audited(work, 'refused', 'order', row.id, { lines: answer.lines })
}

async function refusedOrder(work: Work, id: string, version: number) {
  const row = await lockedOrder(work, id)
  if (HANGING.includes(row.state)) throw new ProblemError(409, 'order-hangs')
  if (row.state !== 'refused') throw new ProblemError(409, 'order-not-refused')
  await held(row, version, () => requireOrder(work, id))
  return row
}

/** Orders again what was refused, at the price and as many as the supplier now says. */
export async function acceptOrder(
  ordering: Ordering,
  shopId: string,
  { author, role }: Ordered,
  id: string,
  version: number,
): Promise<Order> {
  await inShop(ordering.database, shopId, author, async (work) => {
    const row = await refusedOrder(work, id, version)
    const { transaction } = work
    const lines = await work.of(ORDER_LINES).findAll({ where: { orderId: id }, transaction })
    await refuseAboveSum(
      work,
      role,
      lines.map(({ quantity, price, priceNow, stockNow }) => ({
        quantity: Math.min(quantity, stockNow ?? quantity),
        price: priceNow ?? price,
      })),
    )
    let left = 0
    for (const line of lines) {
      const quantity = Math.min(line.quantity, line.stockNow ?? line.quantity)
      if (quantity === 0) {
        await line.destroy({ transaction })
        continue
      }
      left++
      await line.update(
        { quantity, price: line.priceNow ?? line.price, priceNow: null, stockNow: null },
        { transaction },
      )
    }
    await row.update(
      { state: left === 0 ? 'cancelled' : 'sending', problem: null, settledAt: null, version: version + 1 },
      { transaction },
    )
    if (left > 0) await ordering.jobs.settleOrder(work, id)
    await audited(work, 'accepted', 'order', id)
  })
  return settleOrder(ordering, shopId, id)
}

/** Gives up an order the supplier refused. */
export async function cancelOrder(work: Work, id: string, version: number): Promise<Order> {
  const row = await refusedOrder(work, id, version)
  await row.update({ state: 'cancelled', settledAt: work.now, version: version + 1 }, { transaction: work.transaction })
  await audited(work, 'cancelled', 'order', id)
  return requireOrder(work, id)
}

/** Takes what came of an order into stock. */
export async function receiveOrder(
  work: Work,
  id: string,
  came: readonly { readonly id: string; readonly quantity: number }[],
): Promise<Order> {
  const row = await lockedOrder(work, id)
  if (row.state !== 'placed')
    throw new ProblemError(409, HANGING.includes(row.state) ? 'order-hangs' : 'order-not-placed')
  const { transaction } = work
  const lines = await work.of(ORDER_LINES).findAll({ where: { orderId: id }, order: [['partId', 'ASC']], transaction })
  for (const [i, { id: lineId, quantity }] of came.entries()) {
    const line = lines.find((one) => one.id === lineId)
    if (!line) throw refuseField(`lines.${i}.id`, 'order-unknown')
    if (line.received + quantity > line.quantity) throw refuseField(`lines.${i}.quantity`, 'received-many')
    await line.update({ received: line.received + quantity }, { transaction })
    await moveStock(work, line.partId, { id: v7(), kind: 'received', quantity, orderId: id })
  }
  const whole = lines.every(({ received, quantity }) => received === quantity)
  await row.update({ version: row.version + 1, ...(whole ? { state: 'received' as const } : {}) }, { transaction })
  return requireOrder(work, id)
}
