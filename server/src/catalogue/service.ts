import { readPart, writePart, type CataloguePart, type PartCells, type PartProblem } from '@pelrin/core'
import type { CatalogueItem } from '@pelrin/contract'
import type { ProblemCode } from '@pelrin/contract/messages'
import { v7 } from 'uuid'
import { audited, type Work } from '../db/work.ts'
import { atField, ProblemError, refuseField } from '../problems/problem.ts'
import { catalogueChanged } from '../parts/catalogueStore.ts'
import { moveStock, type Movement } from '../stock/movements.ts'
import { nameLists, partNames } from './names.ts'
import { keptForBikes, movementsOf, partLine } from './store.ts'
import { held } from '../db/facts.ts'
import { PARTS } from './models.ts'
import { SUPPLIER_OFFERS } from '../orders/models.ts'

/** One part with all that is known of it. @throws ProblemError 404 */
export async function catalogueItem(work: Work, id: string): Promise<CatalogueItem> {
  const found = await partLine(work, id)
  if (!found) throw new ProblemError(404, 'part-unknown')
  const { line, facts, version } = found
  const { kind, maker, name, price, stock, reorderPoint } = line
  const part: CataloguePart = { kind, maker, name, price, stock, reorderPoint, facts }
  const offer = await work.of(SUPPLIER_OFFERS).findByPk(id, { transaction: work.transaction })
  return {
    ...line,
    version,
    cells: writePart(part, partNames(await nameLists(work, maker))),
    movements: await movementsOf(work, id),
    keptFor: await keptForBikes(work, id),
    offer: offer && { ...offer.get({ plain: true }), askedAt: offer.askedAt.toISOString() },
  }
}

/** A part by its words. @throws ProblemError 422 with everything that is wrong, at its field */
async function partOf(work: Work, cells: PartCells): Promise<CataloguePart> {
  const read = readPart(cells, partNames(await nameLists(work, cells['maker'] ?? '')))
  if (read.ok) return read.part
  throw new ProblemError(422, 'request-invalid', {
    fields: read.problems.map(({ at, problem }: { at: string; problem: PartProblem }) =>
      atField(at, problem satisfies ProblemCode),
    ),
  })
}

/** Refuses a second part of one kind, maker and name. */
async function refuseNamesake(work: Work, { kind, maker, name }: CataloguePart, id: string): Promise<void> {
  const [other] = await work.select<{ id: string }>(
    `SELECT id FROM parts WHERE kind = :kind AND lower(maker) = lower(:maker) AND lower(name) = lower(:name)
     AND removed_at IS NULL AND id <> :id`,
    { kind, maker, name, id },
  )
  if (other) throw refuseField('name', 'part-name-taken')
}

export async function addPart(work: Work, id: string, cells: PartCells): Promise<CatalogueItem> {
  const { stock, ...part } = await partOf(work, cells)
  await refuseNamesake(work, { ...part, stock }, id)
  await work.of(PARTS).create({ id, ...part, stock: 0, version: 1, removedAt: null }, { transaction: work.transaction })
  await audited(work, 'added', 'part', id, part)
  if (stock > 0) await moveStock(work, id, { id: v7(), kind: 'counted', quantity: stock })
  else await catalogueChanged(work)
  return catalogueItem(work, id)
}

/**
 * Changes what is known of a part. Its kind stays, and its stock changes by movements only.
 *
 * @throws ProblemError 412 with the part as it is when somebody was faster
 */
export async function changePart(work: Work, id: string, version: number, cells: PartCells): Promise<CatalogueItem> {
  const row = await work.of(PARTS).findOne({
    where: { id, removedAt: null },
    transaction: work.transaction,
    lock: work.transaction.LOCK.UPDATE,
  })
  if (!row) throw new ProblemError(404, 'part-unknown')
  await held(row, version, () => catalogueItem(work, id))
  const { stock: _, ...part } = await partOf(work, { ...cells, kind: row.kind, stock: String(row.stock) })
  await refuseNamesake(work, { ...part, stock: row.stock }, id)
  const { kind: _kind, ...change } = part
  await row.update({ ...change, version: version + 1 }, { transaction: work.transaction })
  await catalogueChanged(work)
  await audited(work, 'changed', 'part', id, change)
  return catalogueItem(work, id)
}

/** Takes a part out of the catalogue. What was written down of it stays. @throws ProblemError 409 while it is kept or coming */
export async function removePart(work: Work, id: string, version: number): Promise<void> {
  const found = await partLine(work, id)
  if (!found) throw new ProblemError(404, 'part-unknown')
  await held(found, version, () => catalogueItem(work, id))
  if (found.line.kept > 0 || found.line.onOrder > 0) throw new ProblemError(409, 'part-in-use')
  await work
    .of(PARTS)
    .update({ removedAt: work.now, version: version + 1 }, { where: { id, version }, transaction: work.transaction })
  await catalogueChanged(work)
  await audited(work, 'removed', 'part', id)
}

export async function writeMovement(work: Work, partId: string, movement: Movement): Promise<CatalogueItem> {
  await moveStock(work, partId, movement)
  return catalogueItem(work, partId)
}
