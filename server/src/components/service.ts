import type { ComponentEnd, WearItemId } from '@pelrin/core'
import { KIND_OF_ITEM } from '@pelrin/core'
import type { FittedPart } from '@pelrin/contract'
import { v7 } from 'uuid'
import { PARTS } from '../catalogue/models.ts'
import { dayIn } from '../days/days.ts'
import { factBy } from '../db/facts.ts'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { moveStock } from '../stock/movements.ts'
import { COMPONENTS } from './models.ts'

/** What is fitted, and the field it was said at. */
export interface Fitting extends FittedPart {
  readonly id: string
  readonly bikeId: string
  readonly item: WearItemId
  readonly endReason: ComponentEnd
  readonly at: Date
  readonly becauseId: string | null
}

/**
 * Fits a part that is no chain: the one before ends, and what is of the catalogue leaves the stock. Done in whoever's transaction, which
 * holds the bike.
 *
 * @param path of the field the part was said at
 * @throws ProblemError 422 for another kind of part, or none in stock; 409 where a newer one is on by then
 */
export async function fitComponent(work: Work, fitting: Fitting, path = ''): Promise<void> {
  const { id, bikeId, item, partId, name, price, endReason, at, becauseId } = fitting
  const field = (one: string): string => (path === '' ? one : `${path}.${one}`)
  if (partId !== null) await outOfStock(work, item, partId, field('partId'))
  const [newer] = await work.select(
    `SELECT 1 AS one FROM components WHERE bike_id = :bikeId AND item = :item AND NOT isempty(during)
       AND lower(during) >= :at`,
    { bikeId, item, at },
  )
  if (newer) throw new ProblemError(409, 'component-newer')
  await work.execute(
    `UPDATE components SET during = tstzrange(lower(during), :at, '[)'), end_reason = :endReason
     WHERE bike_id = :bikeId AND item = :item AND upper_inf(during) AND NOT isempty(during)`,
    { bikeId, item, at, endReason },
  )
  await work.of(COMPONENTS).create(
    {
      id,
      bikeId,
      item,
      partId,
      name,
      price,
      during: [
        { value: at, inclusive: true },
        { value: null, inclusive: false },
      ],
      endReason: null,
      fromStock: partId !== null,
      becauseId,
      ...factBy(work),
    },
    { transaction: work.transaction },
  )
  await audited(work, 'fitted', 'component', id, { bikeId, item, partId, name, price })
}

async function outOfStock(work: Work, item: WearItemId, partId: string, field: string): Promise<void> {
  const part = await work
    .of(PARTS)
    .findByPk(partId, { transaction: work.transaction, lock: work.transaction.LOCK.UPDATE })
  if (!part || part.kind !== KIND_OF_ITEM[item]) throw refuseField(field, 'part-unknown')
  if (part.stock < 1) throw refuseField(field, 'component-short')
  await moveStock(work, partId, { id: v7(), kind: 'used', quantity: 1 })
}

/** Takes back what was fitted for a fact that is taken back, if anything was. */
export async function unfitFor(work: Work, becauseId: string, reason: string): Promise<void> {
  const rows = await work.of(COMPONENTS).findAll({ where: { becauseId }, transaction: work.transaction })
  for (const row of rows) await unfit(work, row.id, reason)
}

/**
 * Takes back that a part was fitted: the one before is on again, and what came out of stock lies there.
 *
 * @returns the bike it was on
 * @throws ProblemError 404; 409 where another one followed it
 */
export async function unfit(work: Work, id: string, reason: string): Promise<string> {
  const { of, transaction } = work
  const row = await of(COMPONENTS).findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
  if (!row) throw new ProblemError(404, 'component-unknown')
  const [span] = await work.select<{ from: Date | null; open: boolean }>(
    'SELECT lower(during) AS "from", upper_inf(during) AND NOT isempty(during) AS open FROM components WHERE id = :id',
    { id },
  )
  if (!span?.from) return row.bikeId
  if (!span.open) throw new ProblemError(409, 'component-newer')
  await work.execute(`UPDATE components SET during = 'empty' WHERE id = :id`, { id })
  await work.execute(
    `UPDATE components SET during = tstzrange(lower(during), NULL, '[)'), end_reason = NULL
     WHERE bike_id = :bikeId AND item = :item AND NOT isempty(during) AND upper(during) = :from`,
    { bikeId: row.bikeId, item: row.item, from: span.from },
  )
  if (row.fromStock && row.partId !== null)
    await moveStock(work, row.partId, { id: v7(), kind: 'received', quantity: 1, note: reason })
  await audited(work, 'undid', 'component', id, { reason })
  return row.bikeId
}

/** @throws ProblemError 409 after the day it was fitted on */
export async function requireToday(work: Work, id: string): Promise<void> {
  const [found] = await work.select<{ from: Date | null; timeZone: string }>(
    `SELECT lower(c.during) AS "from", s.time_zone AS "timeZone" FROM components c JOIN shops s ON s.id = c.shop_id
     WHERE c.id = :id`,
    { id },
  )
  if (found?.from && dayIn(found.timeZone, found.from) !== dayIn(found.timeZone, work.now))
    throw new ProblemError(409, 'undo-late')
}
