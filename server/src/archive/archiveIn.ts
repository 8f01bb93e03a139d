import { createHash } from 'node:crypto'
import * as v from 'valibot'
import type { ProblemCode } from '@pelrin/contract/messages'
import { brokenBy } from '../db/refused.ts'
import { analyzeTables, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { clearBornWith, isAsBorn } from '../shop/bornShop.ts'
import { ARCHIVE_VERSION } from './archiveOut.ts'
import { archivedTables, asBelieved, DERIVED, NOT_BELIEVED, type ArchivedTable } from './archivedTables.ts'
import { shopDiffers, takeSettings, type ShopDiffers } from './shopSettings.ts'

/** Rows written at a time. */
const MOST = 500
/**
 * How much a table grows before the database looks at it anew: by what it knew of a short one, it would go through all of a long one
 * for every row that comes.
 */
const GROWN = 8

/** What an archive brings into a shop, table by table. */
export interface TakenIn {
  readonly name: string
  /** Not there yet. */
  readonly added: number
  /** There, and the same. */
  readonly same: number
  /** There, and different; or in the way of something that is there. Left as it is. */
  readonly conflicts: number
}

/** What an archive brings into a shop. */
export interface ArchiveTaken {
  readonly tables: TakenIn[]
  /** The shop had only what it was born with, which made room. */
  readonly replaces: boolean
  /** What the archive's shop says of itself otherwise than this one. */
  readonly settings: ShopDiffers[]
}

const Head = v.object({ pelrin: v.literal('archive'), version: v.number(), shop: v.exactOptional(v.unknown()) })
const Line = v.object({ table: v.string(), row: v.record(v.string(), v.unknown()) })
const Foot = v.object({ end: v.literal(true), rows: v.number(), sha256: v.string() })

/**
 * Takes an archive into a shop: what is not there is added, what is there stays as it is. Of a shop that has only what it was born with, that
 * makes room first. In whoever's transaction, all or nothing.
 *
 * @param lines of the archive, as they come
 * @param options `settings`: this shop says of itself from now on what the archive's did
 * @throws ProblemError 422 with the line, for one that is none, truncated, of a newer version, or holds what no archive has; 409 where
 *   something that is here is in the way of what much of it rests on
 */
export async function takeIn(
  work: Work,
  lines: AsyncIterable<string>,
  { settings }: { readonly settings: boolean },
): Promise<ArchiveTaken> {
  const replaces = await isAsBorn(work)
  if (replaces) await clearBornWith(work)
  let differs: ShopDiffers[] = []
  const tables = new Map((await archivedTables(work)).map((table) => [table.name, table]))
  const counts = new Map<string, { added: number; same: number; conflicts: number }>()
  let lookAgainAt = 0
  const digest = createHash('sha256')
  let number = 0
  let rows = 0
  let ended = false
  const batch: { table: ArchivedTable | null; given: string; texts: string[] } = { table: null, given: '', texts: [] }
  const refuse = (code: Parameters<typeof problem>[0]): ProblemError => problem(code, number)
  const flush = async (): Promise<void> => {
    const { table, given, texts } = batch
    if (!table) return
    Object.assign(batch, { table: null, texts: [] })
    const before = counts.get(table.name)
    if (!before) lookAgainAt = 0
    const { added, same } = await writeRows(work, table, given.split(' '), texts).catch((error: unknown) => {
      if (brokenBy(error)?.rule === 'reference') throw problemAt(409, 'archive-collides', number)
      throw error
    })
    const now = {
      added: (before?.added ?? 0) + added,
      same: (before?.same ?? 0) + same,
      conflicts: (before?.conflicts ?? 0) + texts.length - added - same,
    }
    counts.set(table.name, now)
    if (now.added > lookAgainAt) {
      await analyzeTables(work, table.name)
      lookAgainAt = now.added * GROWN
    }
  }
  for await (const line of lines) {
    number++
    if (line.trim() === '') continue
    if (ended) throw refuse('archive-after-end')
    const read = parsed(line)
    if (number === 1) {
      const head = v.safeParse(Head, read)
      if (!head.success) throw refuse('archive-none')
      if (head.output.version > ARCHIVE_VERSION) throw refuse('archive-newer')
      differs = await shopDiffers(work, head.output.shop)
      if (settings) await takeSettings(work, differs)
      continue
    }
    const foot = v.safeParse(Foot, read)
    if (foot.success) {
      if (foot.output.rows !== rows || foot.output.sha256 !== digest.digest('hex')) throw refuse('archive-changed')
      ended = true
      continue
    }
    const told = v.safeParse(Line, read)
    if (!told.success) throw refuse('archive-line')
    if (DERIVED.includes(told.output.table)) {
      digest.update(`${line}\n`)
      rows++
      continue
    }
    const table = tables.get(told.output.table)
    if (!table) throw refuse('archive-table')
    // A shop is where it is taken in: no row says so itself.
    if ('shop_id' in told.output.row) throw refuse('archive-foreign')
    const columns = Object.keys(told.output.row)
    if (columns.some((column) => !table.columns.includes(column))) throw refuse('archive-column')
    // What an older archive does not know of takes what it is by default.
    const given = table.columns.filter((column) => column in told.output.row).join(' ')
    digest.update(`${line}\n`)
    rows++
    if (batch.table !== table || batch.given !== given || batch.texts.length >= MOST) await flush()
    batch.table = table
    batch.given = given
    batch.texts.push(JSON.stringify(told.output.row))
  }
  await flush()
  if (!ended) throw refuse(number === 0 ? 'archive-none' : 'archive-truncated')
  return { tables: [...counts].map(([name, one]) => ({ name, ...one })), replaces, settings: differs }
}

const problem = (
  code:
    | 'archive-none'
    | 'archive-newer'
    | 'archive-changed'
    | 'archive-truncated'
    | 'archive-after-end'
    | 'archive-line'
    | 'archive-table'
    | 'archive-column'
    | 'archive-foreign',
  line: number,
): ProblemError => problemAt(422, code, line)

const problemAt = (status: number, code: ProblemCode, line: number): ProblemError =>
  new ProblemError(status, code, { values: { line } })

function parsed(line: string): unknown {
  try {
    return JSON.parse(line)
  } catch {
    return null
  }
}

/** What is there already, or lies where something else is, stays as it is. */
function leavingOut({ name, key, apart }: ArchivedTable, onKey: string): string {
  if (apart.length === 0) return 'ON CONFLICT DO NOTHING'
  const meets = apart.map(([column, operator]) => `t.${column} ${operator} g.${column}`).join(' AND ')
  return `WHERE NOT EXISTS (SELECT 1 FROM ${name} t WHERE ${meets} AND NOT (${onKey}))
       ON CONFLICT (${['shop_id', ...key].join(', ')}) DO NOTHING`
}

async function writeRows(
  work: Work,
  table: ArchivedTable,
  columns: readonly string[],
  texts: readonly string[],
): Promise<{ added: number; same: number }> {
  const { name, key } = table
  const unbelieved = NOT_BELIEVED[name] ?? {}
  const given = `jsonb_populate_recordset(NULL::${name}, CAST(:rows AS jsonb)) g`
  // A table of one row a shop has no key beside it.
  const onKey = key.length === 0 ? 'true' : key.map((column) => `t.${column} = g.${column}`).join(' AND ')
  const rows = `[${texts.join(',')}]`
  const [{ same } = { same: 0 }] = await work.select<{ same: number }>(
    // Each is looked up by itself: nobody's statistics know yet how long the table has become.
    `SELECT count(*)::int AS same FROM ${given} CROSS JOIN LATERAL (SELECT * FROM ${name} t WHERE ${onKey} LIMIT 1) t
     WHERE ${asBelieved('t', table, columns)} = ${asBelieved('g', table, columns)}`,
    { rows },
  )
  const written = [...new Set([...columns, ...Object.keys(unbelieved)])]
  const [{ added } = { added: 0 }] = await work.select<{ added: number }>(
    `WITH written AS (
       INSERT INTO ${name} (${written.join(', ')})
       SELECT ${written.map((column) => unbelieved[column] ?? `g.${column}`).join(', ')} FROM ${given}
       ${leavingOut(table, onKey)} RETURNING 1)
     SELECT count(*)::int AS added FROM written`,
    { rows },
  )
  return { added, same }
}
