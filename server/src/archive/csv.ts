import { Readable } from 'node:stream'
import { stringify } from 'csv-stringify'
import type { Database } from '../db/connection.ts'
import { inShop } from '../db/work.ts'
import { EXPORT_TABLES, type ExportName } from './tables.ts'

/** Rows fetched at a time: memory stays the same however long a table is. */
const MOST = 2_000
const FIRST = '00000000-0000-0000-0000-000000000000'

/**
 * A table of a shop as CSV, one stream to be read through the other, row by row: a spreadsheet computes nothing in it. Pages are read in transactions of their own, so
 * that none is held open for whoever reads slowly; a row written meanwhile may or may not be in it.
 */
export function tableAsCsv(
  database: Database,
  shopId: string,
  name: ExportName,
): readonly [Readable, NodeJS.ReadWriteStream] {
  const { columns } = EXPORT_TABLES[name]
  return [
    Readable.from(rowsOf(database, shopId, name)),
    stringify({ header: true, columns: [...columns], bom: true, escape_formulas: true }),
  ]
}

async function* rowsOf(database: Database, shopId: string, name: ExportName): AsyncGenerator<unknown[]> {
  const { columns, key, sql } = EXPORT_TABLES[name]
  const page = `${sql} AND ${key} > CAST(:after AS uuid) ORDER BY ${key} LIMIT :most`
  for (let after = FIRST; ;) {
    const rows = await inShop(database, shopId, null, (work) =>
      work.select<Record<string, unknown> & { key: string }>(page, { after, most: MOST }),
    )
    for (const row of rows) yield columns.map((column) => row[column] ?? '')
    const last = rows.at(-1)
    if (!last || rows.length < MOST) return
    after = last.key
  }
}
