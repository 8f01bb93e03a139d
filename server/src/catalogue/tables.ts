import { join } from 'node:path'
import { stringify } from 'csv-stringify/sync'
import type { Logger } from 'pino'
import { PART_COLUMNS, writePart, type CataloguePart } from '@pelrin/core'
import type { CatalogueImported, CataloguePreview, TableMapping } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { catalogueChanged } from '../parts/catalogueStore.ts'
import { Threads } from '../queue/threads.ts'
import type { Received } from '../transfers/receive.ts'
import { nameLists, partNames } from './names.ts'
import type { RowToWrite, TableAsked, TableRead } from './tableThread.ts'

/** Memory a reading thread may use before it is ended, MB: a table of a hundred thousand parts wants half of it. */
const THREAD_MB = 900
/** Rows of one statement. */
const AT_ONCE = 1_000

/** The whole catalogue; held until the transaction ends where it is going to be written over. */
const allParts = (work: Work, held = false): Promise<(CataloguePart & { id: string })[]> =>
  work.select(
    `SELECT id, kind, maker, name, price, stock, reorder_point AS "reorderPoint", facts FROM parts
     WHERE removed_at IS NULL ORDER BY kind, maker, name, id ${held ? 'FOR UPDATE' : ''}`,
  )

type Catalogued = Pick<TableAsked, 'names' | 'parts'>
type Read = Extract<TableRead, { ok: true }>

/** Tables of parts, in and out. Rows are read in a thread of their own. */
export class CatalogueTables {
  private readonly threads: Threads

  constructor(logger: Logger) {
    this.threads = new Threads(join(import.meta.dirname, 'tableThread.ts'), logger, { most: 1, memoryMb: THREAD_MB })
  }

  close(): Promise<void> {
    return this.threads.close()
  }

  /** What a table is read against. */
  async catalogued(work: Work): Promise<Catalogued> {
    return { names: await nameLists(work), parts: await allParts(work) }
  }

  /** What a table would do to the catalogue; nothing is written, and no transaction is held meanwhile. */
  async preview(
    against: Catalogued,
    { files }: Received,
    mapping: TableMapping | null,
    signal?: AbortSignal,
  ): Promise<CataloguePreview> {
    return (await this.read({ ...against, path: files[0]!.path, mapping, skip: null }, signal)).preview
  }

  /**
   * Writes a previewed table, except for rows left out: all of it or nothing. The shop's parts are held meanwhile, so that the
   * catalogue read is the one that is changed.
   *
   * @throws ProblemError 409 when the file or the meaning of its columns is not what was previewed
   */
  async import(
    work: Work,
    { files }: Received,
    { mapping, skip, fingerprint }: { mapping: TableMapping; skip: readonly number[]; fingerprint: string },
  ): Promise<CatalogueImported> {
    const parts = await allParts(work, true)
    const { preview, write } = await this.read({
      names: await nameLists(work),
      parts,
      path: files[0]!.path,
      mapping,
      skip,
    })
    if (preview.fingerprint !== fingerprint) throw new ProblemError(409, 'file-changed')
    for (let i = 0; i < write.length; i += AT_ONCE) await writeRows(work, write.slice(i, i + AT_ONCE))
    if (write.length > 0) await catalogueChanged(work)
    const added = write.filter(({ isNew }) => isNew).length
    const { counts } = preview
    const done = {
      added,
      changed: write.length - added,
      left: counts.new + counts.changed + counts.same + counts.wrong - write.length,
    }
    await audited(work, 'imported', 'catalogue', work.shopId, done)
    return done
  }

  private async read(asked: TableAsked, signal?: AbortSignal): Promise<Read> {
    const read = (await this.threads.run(asked, signal ? { signal } : {})) as TableRead
    if (!read.ok) throw new ProblemError(422, read.code)
    return read
  }
}

/** Writes rows and, where the count differs, that the stock was counted. */
async function writeRows(work: Work, rows: readonly RowToWrite[]): Promise<void> {
  await work.execute(
    `INSERT INTO parts (id, kind, maker, name, facts, price, stock, reorder_point)
     SELECT id, kind, maker, name, facts, price, stock, "reorderPoint" FROM jsonb_to_recordset(:rows::jsonb)
       AS r (id uuid, kind text, maker text, name text, facts jsonb, price int, stock int, "reorderPoint" int)
     ON CONFLICT (shop_id, id) DO UPDATE SET maker = excluded.maker, name = excluded.name, facts = excluded.facts,
       price = excluded.price, stock = excluded.stock, reorder_point = excluded.reorder_point, version = parts.version + 1`,
    { rows: JSON.stringify(rows.map(({ id, part }) => ({ id, ...part }))) },
  )
  const { personId, deviceId } = authorOf(work)
  const counted = rows.filter(({ part, stockBefore }) => part.stock !== stockBefore)
  if (counted.length === 0) return
  await work.execute(
    `INSERT INTO stock_movements (id, part_id, kind, change, stock_after, occurred_at, recorded_at, person_id, device_id)
     SELECT id, "partId", 'counted', change, "stockAfter", :now, :now, :personId, :deviceId
     FROM jsonb_to_recordset(:rows::jsonb) AS r (id uuid, "partId" uuid, change int, "stockAfter" int)`,
    {
      now: work.now,
      personId,
      deviceId,
      rows: JSON.stringify(
        counted.map(({ id, part, stockBefore }) => ({
          id: v7(),
          partId: id,
          change: part.stock - stockBefore,
          stockAfter: part.stock,
        })),
      ),
    },
  )
}

/** The whole catalogue as a table that comes in again as it went out. A spreadsheet computes nothing in it. */
export async function catalogueAsCsv(work: Work): Promise<string> {
  const names = partNames(await nameLists(work))
  return stringify(
    (await allParts(work)).map((part) => writePart(part, names)),
    { header: true, columns: [...PART_COLUMNS], bom: true, escape_formulas: true },
  )
}
