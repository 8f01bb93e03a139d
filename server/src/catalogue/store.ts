import * as v from 'valibot'
import type { CatalogueLine, CatalogueSort, endpoints, Output, StockMovement } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { decodeCursor, encodeCursor } from '../http/cursor.ts'
import { sortedBy, type SortKey } from '../http/sorted.ts'
import { KEPT_SUMS } from '../parts/catalogueStore.ts'
import { ON_ORDER } from '../stock/kept.ts'
import { escapeLike, searchWords } from '../bikes/find.ts'
import type { PartRow } from './models.ts'

const PAGE = 100

/** Parts with what is kept and on the way; it is time to order where what is free and coming is too little. */
const LINES = `
  SELECT p.id, p.kind, p.maker, p.name, p.facts, p.price, p.stock, p.reorder_point AS "reorderPoint", p.version,
    coalesce(k.kept, 0) AS kept, coalesce(c.coming, 0) AS "onOrder",
    (p.stock - coalesce(k.kept, 0) + coalesce(c.coming, 0) <
      CASE WHEN p.reorder_point > 0 THEN p.reorder_point + 1 ELSE 0 END) AS low
  FROM parts p
  LEFT JOIN (${KEPT_SUMS}) k ON k.part_id = p.id
  LEFT JOIN (${ON_ORDER}) c ON c.part_id = p.id
  WHERE p.removed_at IS NULL`

type Row = Omit<CatalogueLine, 'speeds' | 'teeth'> & Pick<PartRow, 'facts' | 'version'>

interface Facts {
  readonly speeds?: number[]
  readonly sprockets?: number[]
  readonly teeth?: number[]
}

function asLine({ facts, version: _, ...line }: Row): CatalogueLine {
  const { speeds, sprockets, teeth } = facts as Facts
  return { ...line, speeds: speeds ?? (sprockets ? [sprockets.length] : []), teeth: sprockets ?? teeth ?? [] }
}

const ByName = v.tuple([v.string(), v.string(), v.pipe(v.string(), v.uuid())])

/** In order of the shelf, by maker and name, as an index has it; in the shape of `sortedBy`. */
function byName(
  cursor: string | undefined,
): Omit<ReturnType<typeof sortedBy>, 'placeOf'> & { placeOf: (row: Row) => string } {
  const at = cursor === undefined ? undefined : decodeCursor(ByName, cursor)
  return {
    column: 'NULL AS "sortKey"',
    orderBy: 'maker, name, id',
    after: at === undefined ? 'true' : '(maker, name, id) > (:maker, :name, :id::uuid)',
    replacements: at === undefined ? {} : { maker: at[0], name: at[1], id: at[2] },
    placeOf: ({ maker, name, id }) => encodeCursor([maker, name, id]),
  }
}

const SORTS: Record<CatalogueSort, SortKey> = {
  kind: { sql: `kind || ' ' || maker || ' ' || name`, type: 'text' },
  stock: { sql: 'stock - kept', type: 'double precision' },
  price: { sql: 'price', type: 'double precision' },
}

type Query = Output<typeof endpoints.catalogue.query>

/** A page of the catalogue. */
export async function cataloguePage(
  work: Work,
  { q = '', kind, low, sort, way, cursor }: Query,
): Promise<{ parts: CatalogueLine[]; next: string | null; total: number; low: number }> {
  const words = searchWords(q)
  const replacements: Record<string, unknown> = Object.fromEntries(
    words.map((word, i) => [`word${i}`, `%${escapeLike(word)}%`]),
  )
  const conditions = [
    ...words.map((_, i) => `lower(maker || ' ' || name) LIKE :word${i}`),
    ...(kind === undefined ? [] : ['kind = :kind']),
  ]
  if (kind !== undefined) replacements['kind'] = kind
  const filtered = conditions.length === 0 ? 'true' : conditions.join(' AND ')
  const [counted] = await work.select<{ total: number; low: number }>(
    `SELECT count(*)::int AS total, count(*) FILTER (WHERE low)::int AS low FROM (${LINES}) lines WHERE ${filtered}`,
    replacements,
  )
  const sorted = sort === undefined ? byName(cursor) : sortedBy(SORTS[sort], way, 'id', cursor)
  const paged = [filtered, ...(low === undefined ? [] : ['low']), sorted.after]
  const rows = await work.select<Row & { sortKey: string | number | null }>(
    `SELECT *, ${sorted.column} FROM (${LINES}) lines WHERE ${paged.join(' AND ')} ORDER BY ${sorted.orderBy} LIMIT ${PAGE + 1}`,
    { ...replacements, ...sorted.replacements },
  )
  const page = rows.slice(0, PAGE)
  const last = page.at(-1)
  return {
    parts: page.map(({ sortKey: _, ...row }) => asLine(row)),
    next: rows.length > PAGE && last ? sorted.placeOf(last) : null,
    total: low === undefined ? (counted?.total ?? 0) : (counted?.low ?? 0),
    low: counted?.low ?? 0,
  }
}

/** One part; null when it is not there, or was taken out. */
export async function partLine(
  work: Work,
  id: string,
): Promise<{ line: CatalogueLine; facts: Record<string, unknown>; version: number } | null> {
  const [row] = await work.select<Row>(`${LINES} AND p.id = :id`, { id })
  return row ? { line: asLine(row), facts: row.facts as Record<string, unknown>, version: row.version } : null
}

const MOVEMENTS = 30

export async function movementsOf(work: Work, partId: string): Promise<StockMovement[]> {
  const rows = await work.select<Omit<StockMovement, 'occurredAt'> & { occurredAt: Date }>(
    `SELECT m.id, m.kind, m.change, m.stock_after AS "stockAfter", m.occurred_at AS "occurredAt", m.note, p.initials AS person
     FROM stock_movements m JOIN people p ON p.id = m.person_id
     WHERE m.part_id = :partId ORDER BY m.occurred_at DESC, m.id DESC LIMIT ${MOVEMENTS}`,
    { partId },
  )
  return rows.map((row) => ({ ...row, occurredAt: row.occurredAt.toISOString() }))
}

/** Bikes a part is kept for, those who kept it first on top. */
export const keptForBikes = (
  work: Work,
  partId: string,
): Promise<{ bikeId: string; bike: string; quantity: number }[]> =>
  work.select(
    `SELECT b.id AS "bikeId", c.name || ', ' || b.label AS bike, l.quantity FROM kept_part_lines l
     JOIN kept_parts k ON k.id = l.kept_id AND k.state = 'kept'
     JOIN bikes b ON b.id = k.bike_id JOIN customers c ON c.id = b.customer_id
     WHERE l.part_id = :partId AND NOT l.included ORDER BY l.kept_at, l.id`,
    { partId },
  )
