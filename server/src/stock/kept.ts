import type { endpoints } from '@pelrin/contract'
import type { KeptLine, KeptParts, Output } from '@pelrin/contract'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { catalogueChanged } from '../parts/catalogueStore.ts'
import { held } from '../db/facts.ts'
import { PARTS } from '../catalogue/models.ts'
import { KEPT_PARTS, KEPT_PART_LINES, type KeptPartsRow } from './models.ts'

/**
 * Lines of open lists with how many lie in stock for each: whoever kept a part earlier comes first, so that nothing has to be
 * written when stock comes or goes.
 */
export const KEPT_LINES = `
  SELECT l.id, l.kept_id, l.part_id, l.quantity, l.included, l.kept_at,
    CASE WHEN l.included THEN l.quantity ELSE
      greatest(0, least(l.quantity, p.stock - (coalesce(sum(l.quantity) FILTER (WHERE NOT l.included) OVER (
        PARTITION BY l.part_id ORDER BY l.kept_at, l.id ROWS BETWEEN UNBOUNDED PRECEDING AND 1 PRECEDING), 0))))::int
    END AS here
  FROM kept_part_lines l JOIN kept_parts k ON k.id = l.kept_id AND k.state = 'kept' JOIN parts p ON p.id = l.part_id`

/** How many of each part are on the way from a supplier. */
export const ON_ORDER = `
  SELECT ol.part_id, sum(ol.quantity - ol.received)::int AS coming FROM order_lines ol JOIN orders o ON o.id = ol.order_id
  WHERE o.state IN ('sending', 'unsure', 'placed') AND ol.received < ol.quantity GROUP BY ol.part_id`

/** The parts kept for a bike; null when there are none. */
export async function keptFor(work: Work, bikeId: string): Promise<KeptParts | null> {
  const [kept] = await work.select<Pick<KeptPartsRow, 'id' | 'version' | 'pitches' | 'keptAt'> & { by: string }>(
    `SELECT k.id, k.version, k.pitches, k.kept_at AS "keptAt", p.initials AS by FROM kept_parts k
     JOIN people p ON p.id = k.person_id WHERE k.bike_id = :bikeId AND k.state = 'kept'`,
    { bikeId },
  )
  if (!kept) return null
  const lines = await work.select<KeptLine>(
    // The window looks over every list before one bike's lines are taken out.
    `WITH asked AS (SELECT part_id FROM kept_part_lines WHERE kept_id = :id),
       shares AS (${KEPT_LINES} WHERE l.part_id IN (SELECT part_id FROM asked)), coming AS (${ON_ORDER})
     SELECT s.id, s.part_id AS "partId", p.kind, p.maker, p.name, s.quantity, s.included, p.price, s.here,
       coalesce(c.coming, 0) AS "onOrder"
     FROM shares s JOIN parts p ON p.id = s.part_id LEFT JOIN coming c ON c.part_id = s.part_id
     WHERE s.kept_id = :id ORDER BY s.id`,
    { id: kept.id },
  )
  const paid = lines.filter(({ included }) => !included)
  return {
    ...kept,
    keptAt: kept.keptAt.toISOString(),
    lines,
    cost: paid.some(({ price }) => price === null)
      ? null
      : paid.reduce((sum, { price, quantity }) => sum + (price ?? 0) * quantity, 0),
  }
}

/** Keeps parts for a bike in the place of what was kept for it. */
export async function keepParts(
  work: Work,
  bikeId: string,
  { id, pitches, lines }: Output<typeof endpoints.keepParts.body>,
): Promise<KeptParts> {
  const { of, transaction } = work
  // Two who keep parts for one bike take their turn; the later one stands.
  const [bike] = await work.select('SELECT id FROM bikes WHERE id = :bikeId FOR NO KEY UPDATE', { bikeId })
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  for (const [i, { partId }] of lines.entries())
    if (!(await of(PARTS).findOne({ where: { id: partId, removedAt: null }, transaction })))
      throw refuseField(`lines.${i}.partId`, 'part-unknown')
  await of(KEPT_PARTS).update(
    { state: 'dropped', settledAt: work.now },
    { where: { bikeId, state: 'kept' }, transaction },
  )
  await of(KEPT_PARTS).create(
    {
      id,
      bikeId,
      pitches,
      state: 'kept',
      keptAt: work.now,
      settledAt: null,
      personId: authorOf(work).personId,
      version: 1,
    },
    { transaction },
  )
  await of(KEPT_PART_LINES).bulkCreate(
    lines.map((line) => ({ ...line, keptId: id, keptAt: work.now })),
    { transaction },
  )
  await catalogueChanged(work)
  await audited(work, 'kept', 'parts', id, { bikeId, lines })
  return (await keptFor(work, bikeId))!
}

/** Lets kept parts go. */
export async function dropParts(work: Work, id: string, version: number): Promise<void> {
  const kept = await work.of(KEPT_PARTS).findByPk(id, {
    transaction: work.transaction,
    lock: work.transaction.LOCK.UPDATE,
  })
  if (!kept) throw new ProblemError(404, 'kept-unknown')
  if (kept.state === 'dropped') return
  if (kept.state === 'used') throw new ProblemError(409, 'kept-used')
  await held(kept, version, () => ({ version: kept.version }))
  await kept.update({ state: 'dropped', settledAt: work.now }, { transaction: work.transaction })
  await catalogueChanged(work)
  await audited(work, 'let go', 'parts', id, { bikeId: kept.bikeId })
}
