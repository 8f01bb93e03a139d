import type { Offer, Order, OrderLine } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import type { OrderRow } from './models.ts'

type Head = Pick<OrderRow, 'id' | 'version' | 'state' | 'number' | 'expectedOn' | 'problem' | 'sentAt'> & { by: string }

const HEADS = `SELECT o.id, o.version, o.state, o.number, o.expected_on::text AS "expectedOn", o.problem,
  o.sent_at AS "sentAt", p.initials AS by FROM orders o JOIN people p ON p.id = o.person_id`
const SHOWN = 50

async function withLines(work: Work, heads: readonly Head[]): Promise<Order[]> {
  if (heads.length === 0) return []
  const lines = await work.select<OrderLine & { orderId: string }>(
    `SELECT l.id, l.order_id AS "orderId", l.part_id AS "partId", p.maker, p.name, l.sku, l.quantity, l.price,
       l.price_now AS "priceNow", l.stock_now AS "stockNow", l.received
     FROM order_lines l JOIN parts p ON p.id = l.part_id WHERE l.order_id IN (:ids) ORDER BY l.id`,
    { ids: heads.map(({ id }) => id) },
  )
  return heads.map((head) => {
    const own = lines.filter(({ orderId }) => orderId === head.id).map(({ orderId: _, ...line }) => line)
    return {
      ...head,
      sentAt: head.sentAt.toISOString(),
      lines: own,
      cost: own.reduce((sum, { price, quantity }) => sum + price * quantity, 0),
    }
  })
}

/** Orders, the latest first. */
export const latestOrders = async (work: Work): Promise<Order[]> =>
  withLines(work, await work.select<Head>(`${HEADS} ORDER BY o.sent_at DESC, o.id DESC LIMIT ${SHOWN}`))

export async function orderById(work: Work, id: string): Promise<Order | null> {
  const [order] = await withLines(work, await work.select<Head>(`${HEADS} WHERE o.id = :id`, { id }))
  return order ?? null
}

/** What the supplier said last of parts. */
export async function offersOf(work: Work, parts: readonly string[]): Promise<Offer[]> {
  if (parts.length === 0) return []
  const rows = await work.select<Omit<Offer, 'askedAt'> & { askedAt: Date }>(
    `SELECT part_id AS "partId", sku, price, stock, days, asked_at AS "askedAt" FROM supplier_offers
     WHERE part_id IN (:parts)`,
    { parts },
  )
  return rows.map((row) => ({ ...row, askedAt: row.askedAt.toISOString() }))
}
