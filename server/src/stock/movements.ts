import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { catalogueChanged } from '../parts/catalogueStore.ts'
import { PARTS } from '../catalogue/models.ts'
import { STOCK_MOVEMENTS, type StockMovementRow } from './models.ts'

/** What happened to a part's stock. */
export interface Movement {
  readonly id: string
  readonly kind: StockMovementRow['kind']
  /** How many came, were used, or are there by count. */
  readonly quantity: number
  readonly note?: string | null
  readonly orderId?: string
  readonly keptId?: string
}

/**
 * Writes a movement down and brings the part's stock up to date with it; the part is locked until the transaction ends.
 *
 * @throws ProblemError 422 at `quantity` when more is used than is there
 */
export async function moveStock(
  work: Work,
  partId: string,
  { id, kind, quantity, note = null, orderId, keptId }: Movement,
): Promise<void> {
  const { of, transaction } = work
  const part = await of(PARTS).findByPk(partId, { transaction, lock: transaction.LOCK.UPDATE })
  if (!part) throw new ProblemError(404, 'part-unknown')
  const change = kind === 'received' ? quantity : kind === 'used' ? -quantity : quantity - part.stock
  const stockAfter = part.stock + change
  if (stockAfter < 0) throw refuseField('quantity', 'stock-short', { stock: part.stock })
  const { personId, deviceId } = authorOf(work)
  await of(STOCK_MOVEMENTS).create(
    {
      id,
      partId,
      kind,
      change,
      stockAfter,
      orderId: orderId ?? null,
      keptId: keptId ?? null,
      note,
      occurredAt: work.now,
      recordedAt: work.now,
      personId,
      deviceId,
    },
    { transaction },
  )
  await part.update({ stock: stockAfter }, { transaction })
  await catalogueChanged(work)
  await audited(work, kind, 'stock', partId, { quantity, stockAfter })
}
