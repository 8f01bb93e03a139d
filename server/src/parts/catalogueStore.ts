import type { Catalogue } from '@pelrin/core'
import type { ChainModel, DriveSystem, JointModel } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import type { PartRow } from '../catalogue/models.ts'

interface Kept {
  readonly version: number
  readonly catalogue: Catalogue
}

/** Catalogues read last, by shop: a large one takes longer to fetch than to match. */
const kept = new Map<string, Kept>()
const MOST_SHOPS = 50

/** How many of each part are held back for bikes. */
export const KEPT_SUMS = `
  SELECT l.part_id, sum(l.quantity)::int AS kept FROM kept_part_lines l
  JOIN kept_parts k ON k.id = l.kept_id AND k.state = 'kept' WHERE NOT l.included GROUP BY l.part_id`

/** How often a shop's catalogue or its stock was changed. */
export async function catalogueVersion(work: Work): Promise<number> {
  const [found] = await work.select<{ version: number }>('SELECT version FROM catalogue_versions')
  return found?.version ?? 0
}

/** Counts a change of the catalogue or its stock; to be called in the transaction that makes it. */
export async function catalogueChanged(work: Work): Promise<void> {
  await work.execute(
    `INSERT INTO catalogue_versions (version) VALUES (1)
     ON CONFLICT (shop_id) DO UPDATE SET version = catalogue_versions.version + 1`,
  )
}

/**
 * The catalogue as parts are matched from: everything that can be had. Read once per change. Not for a transaction that has
 * changed it: what that sees may yet be taken back.
 */
export async function catalogue(work: Work): Promise<Kept> {
  const version = await catalogueVersion(work)
  const known = kept.get(work.shopId)
  if (known?.version === version) return known
  const rows = await work.select<Pick<PartRow, 'id' | 'kind' | 'maker' | 'name' | 'facts' | 'price' | 'stock'>>(
    `SELECT p.id, p.kind, p.maker, p.name, p.facts, p.price, greatest(0, p.stock - coalesce(k.kept, 0)) AS stock
     FROM parts p LEFT JOIN (${KEPT_SUMS}) k ON k.part_id = p.id
     WHERE p.removed_at IS NULL AND p.kind IN ('chain', 'link', 'pin', 'clip')`,
  )
  const chains: ChainModel[] = []
  const joints: JointModel[] = []
  for (const { kind, facts, ...part } of rows)
    if (kind === 'chain') chains.push({ ...part, ...facts } as ChainModel)
    else joints.push({ ...part, kind, ...facts } as JointModel)
  const found: Kept = { version, catalogue: { chains, joints } }
  if (kept.size >= MOST_SHOPS) kept.delete(kept.keys().next().value!)
  kept.set(work.shopId, found)
  return found
}

export const systems = (work: Work): Promise<DriveSystem[]> =>
  work.select<DriveSystem>(
    'SELECT id, name, flat_top AS "flatTop", large_roller AS "largeRoller" FROM drive_systems ORDER BY name',
  )
