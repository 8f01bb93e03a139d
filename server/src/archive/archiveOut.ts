import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { PassThrough, type Readable } from 'node:stream'
import type { Database } from '../db/connection.ts'
import { inShop, type Work } from '../db/work.ts'
import { archivedTables, asArchived } from './archivedTables.ts'

/** Of what an archive is made; an older one is brought up to it as it comes in, a newer one is refused. */
export const ARCHIVE_VERSION = 1
/** Rows fetched at a time. */
const MOST = 1_000

/**
 * A whole shop as lines of JSON: a head, a line for each row, a foot with how many there were and their digest. All of one moment, row by
 * row: memory stays the same however large the shop is.
 */
export function shopArchive(database: Database, shop: { id: string; name: string; timeZone: string }): Readable {
  const out = new PassThrough()
  const gone = new AbortController()
  out.on('close', () => gone.abort())
  const write = async (line: string): Promise<void> => {
    if (gone.signal.aborted) throw new Error('nobody reads it any more')
    if (!out.write(`${line}\n`)) await once(out, 'drain', { signal: gone.signal })
  }
  inShop(database, shop.id, null, (work) => writeAll(work, shop, write), { snapshot: true }).then(
    () => out.end(),
    (error: unknown) => out.destroy(error as Error),
  )
  return out
}

async function writeAll(
  work: Work,
  { name, timeZone }: { name: string; timeZone: string },
  write: (line: string) => Promise<void>,
): Promise<void> {
  const tables = await archivedTables(work)
  await write(
    JSON.stringify({
      pelrin: 'archive',
      version: ARCHIVE_VERSION,
      madeAt: work.now.toISOString(),
      shop: { name, timeZone },
      tables: tables.map((table) => table.name),
    }),
  )
  const digest = createHash('sha256')
  let rows = 0
  for (const table of tables) {
    await work.select(
      `DECLARE walk NO SCROLL CURSOR FOR SELECT ${asArchived('t', table)}::text AS row FROM ${table.name} t
       ORDER BY ${table.key.length === 0 ? '1' : table.key.join(', ')}`,
    )
    for (;;) {
      const page = await work.select<{ row: string }>(`FETCH ${MOST} FROM walk`)
      for (const { row } of page) {
        const line = `{"table":"${table.name}","row":${row}}`
        digest.update(`${line}\n`)
        rows++
        await write(line)
      }
      if (page.length < MOST) break
    }
    await work.select('CLOSE walk')
  }
  await write(JSON.stringify({ end: true, rows, sha256: digest.digest('hex') }))
}
