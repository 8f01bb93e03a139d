import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import type { Shop } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { inShop, type Work } from '../db/work.ts'
import { archivedTables, asArchived, type ArchivedTable } from './archivedTables.ts'
import { settingsOf } from './shopSettings.ts'

/** Of what an archive is made; an older one is brought up to it as it comes in, a newer one is refused. */
export const ARCHIVE_VERSION = 1
/** Rows fetched at a time. */
const MOST = 1_000

/**
 * Writes a whole shop to a file as lines of JSON: a head, a line for each row, a foot with how many there were and their digest. All of one
 * moment, row by row: memory stays the same however large the shop is. To a file, since a client may take its time, and the transaction may not.
 *
 * @param signal ends it, with nothing to be said of it
 */
export async function writeArchive(database: Database, shop: Shop, path: string, signal: AbortSignal): Promise<void> {
  const lines = async function* (work: Work): AsyncGenerator<string> {
    for await (const line of archiveLines(work, shop)) yield `${line}\n`
  }
  await inShop(database, shop.id, null, (work) => pipeline(lines(work), createWriteStream(path), { signal }), {
    snapshot: true,
    long: true,
  })
}

/** By its key; what leads to another row of the same table comes after it. */
const orderOf = ({ key, columns }: ArchivedTable): string =>
  key.length === 0
    ? '1'
    : [...(columns.includes('merged_into_id') ? ['merged_into_id NULLS FIRST'] : []), ...key].join(', ')

async function* archiveLines(work: Work, shop: Shop): AsyncGenerator<string> {
  const tables = await archivedTables(work)
  yield JSON.stringify({
    pelrin: 'archive',
    version: ARCHIVE_VERSION,
    madeAt: work.now.toISOString(),
    // Where it is taken in, it has an id, a version and a door of its own.
    shop: settingsOf(shop),
    tables: tables.map((table) => table.name),
  })
  const digest = createHash('sha256')
  let rows = 0
  for (const table of tables) {
    await work.select(
      `DECLARE walk NO SCROLL CURSOR FOR SELECT ${asArchived('t', table)}::text AS row FROM ${table.name} t
       ORDER BY ${orderOf(table)}`,
    )
    for (;;) {
      const page = await work.select<{ row: string }>(`FETCH ${MOST} FROM walk`)
      for (const { row } of page) {
        const line = `{"table":"${table.name}","row":${row}}`
        digest.update(`${line}\n`)
        rows++
        yield line
      }
      if (page.length < MOST) break
    }
    await work.select('CLOSE walk')
  }
  yield JSON.stringify({ end: true, rows, sha256: digest.digest('hex') })
}
