import type { Offer } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { inShop, type Work } from '../db/work.ts'
import { nameKey } from '../catalogue/names.ts'
import { offersOf } from './store.ts'
import { SupplierAway, type Supplier, type SupplierItem } from './supplier.ts'
import { SUPPLIER_OFFERS } from './models.ts'

/**
 * Asks the supplier what it has of some parts, and keeps what it says; what it said last where it does not answer. No
 * transaction is held open meanwhile.
 */
export async function askOffers(
  database: Database,
  shopId: string,
  supplier: Supplier | undefined,
  parts: readonly string[],
): Promise<{ offers: Offer[]; problem: string | null; askedAt: string }> {
  let items: SupplierItem[] = []
  let problem: string | null = null
  try {
    if (supplier) items = await supplier.items()
    else problem = 'supplier-none'
  } catch (error) {
    if (!(error instanceof SupplierAway)) throw error
    problem = error.code
  }
  return inShop(database, shopId, null, async (work) => {
    if (problem === null) await keepOffers(work, parts, items)
    return { offers: await offersOf(work, parts), problem, askedAt: work.now.toISOString() }
  })
}

/** Keeps what a supplier lists of some parts; what it lists no more is forgotten. */
async function keepOffers(work: Work, parts: readonly string[], items: readonly SupplierItem[]): Promise<void> {
  if (parts.length === 0) return
  const byName = new Map(items.map((item) => [nameKey(item.maker, item.name), item]))
  const named = await work.select<{ id: string; maker: string; name: string }>(
    'SELECT id, maker, name FROM parts WHERE id IN (:parts) ORDER BY id',
    { parts },
  )
  for (const { id, maker, name } of named) {
    const item = byName.get(nameKey(maker, name))
    await work.of(SUPPLIER_OFFERS).destroy({ where: { partId: id }, transaction: work.transaction })
    if (!item) continue
    const { sku, price, stock, days } = item
    await work
      .of(SUPPLIER_OFFERS)
      .upsert(
        { partId: id, sku, price, stock, days, askedAt: work.now },
        { transaction: work.transaction, conflictFields: ['shop_id', 'part_id'] as never },
      )
  }
}
