import {
  isMomentField,
  tableColumns,
  type DaysWritten,
  TABLES_IN,
  type RowOf,
  type TableMapping,
  type TableName,
  type TablePreview,
  type TableRow,
} from '@pelrin/contract'
import type { InstrumentKind } from '@pelrin/core'
import * as v from 'valibot'
import { analyzeTables, type Work } from '../db/work.ts'
import { atField, ProblemError, sentence } from '../problems/problem.ts'
import { ImportError } from '../imports/parsedRide.ts'
import { plainMoment } from '../imports/tableDays.ts'
import { fingerprintOf, meant, rowsOf, tableHead, type TableHead } from '../imports/table.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { bikesIn } from './bikesIn.ts'
import { careIn } from './careIn.ts'
import { customersIn } from './customersIn.ts'
import { readingsIn } from './readingsIn.ts'
import type { InTable } from './inTable.ts'
import { ridesIn } from './ridesIn.ts'
import { EXPORT_TABLES } from './tables.ts'

/**
 * After so many rows, and each time there are so many times more, the database looks at its tables anew: by what it knew of short ones it would go
 * through all of a long one for every row that comes.
 */
const FIRST_LOOK = 50
const GROWN = 6
/** Rows of each outcome a screen shows. */
const SHOWN = 150

const IN: { readonly [Name in TableName]: InTable<Name> } = {
  customers: customersIn,
  bikes: bikesIn,
  rides: ridesIn,
  care: careIn,
  readings: readingsIn,
}

/** A row as it was read. */
interface Line {
  readonly row: number
  readonly cells: Readonly<Record<string, string>>
  readonly read: RowOf<TableName>
}

/** What columns mean by what they are called: a field's own name, whatever its case and signs. */
export function columnsOf(name: TableName, header: readonly string[]): TableMapping {
  const plain = (column: string): string => column.toLowerCase().replace(/[^a-z0-9]/g, '')
  return Object.fromEntries(
    tableColumns(name).flatMap(({ field }) => {
      const found = header.find((column) => plain(column) === plain(field))
      return found === undefined ? [] : [[field, found]]
    }),
  )
}

/**
 * Takes a table in, row by row, each as if it were typed: what is not here is added; what is here stays as it is, and is told to be
 * the same or in conflict; what is wrong is told at its cell and left out. In whoever's transaction: who only looks takes it back.
 *
 * @param mapping what the columns mean; null: to be guessed
 * @param skip rows to leave out, counted from 1
 * @param timeZone in which days and times without a zone are meant
 * @param dayFirst what was said of days that can be read both ways; undefined where nobody was asked yet
 * @param instruments what kind those are that the table only names
 * @param apply whether it stays: whoever only looks takes it back, and what follows from it is not worked out
 * @throws ProblemError 422 for what is no table, or too long
 */
export async function takeTableIn(
  work: Work,
  name: TableName,
  path: string,
  {
    mapping: told,
    skip,
    timeZone,
    dayFirst,
    instruments,
    apply,
  }: {
    mapping: TableMapping | null
    skip: readonly number[]
    timeZone: string
    dayFirst: boolean | undefined
    instruments: Readonly<Record<string, InstrumentKind>>
    apply: boolean
  },
): Promise<TablePreview & { added: number }> {
  // Which table it is was said by its name: what its rows are read as is what it writes.
  const table = IN[name] as InTable<TableName>
  const head = await tableHead(path).catch(asProblem)
  const { header } = head
  const mapping = told ?? columnsOf(name, header)
  const moments = Object.keys(mapping).filter((field) => isMomentField(name, field))
  const days = daysOf(
    head,
    moments.map((field) => mapping[field]!),
  )
  if (apply && days?.order === null && dayFirst === undefined) throw new ProblemError(422, 'days-unsaid')
  const order = dayFirst ?? (days?.order == null ? undefined : days.order === 'day-first')
  const rows: TableRow[] = []
  const lines: Line[] = []
  for await (const { row, cells } of linesOf(path, head, mapping)) {
    // As the shop's clock had it; what says its own zone, or cannot be read, stays as it is written.
    for (const field of moments)
      if (order !== undefined && cells[field] !== undefined)
        cells[field] = plainMoment(cells[field], order) ?? cells[field]
    const kind = name === 'readings' ? instruments[cells['instrument'] ?? ''] : undefined
    if (kind !== undefined) cells['instrument_kind'] ??= kind
    const read = v.safeParse(TABLES_IN[name], cells)
    if (read.success) lines.push({ row, cells, read: read.output })
    else
      rows.push({
        ...asRow(row, 'wrong', cells),
        problems: read.issues.map(({ path: at, message, type, expected }) => {
          const [{ key } = { key: '' }] = at ?? []
          const field = typeof key === 'string' ? key : ''
          const missing = cells[field] === undefined
          const options = (expected ?? '').replace(/[()"]/g, '').replaceAll(' | ', ', ')
          const detail = missing
            ? sentence('text-missing')
            : type === 'picklist'
              ? sentence('one-of', { options })
              : sentence(message)
          return { field, detail, cell: cells[field] ?? '' }
        }),
      })
  }
  const unknown = name === 'readings' ? await unknownInstruments(work, lines) : []
  const skipped = new Set(skip)
  const followed = new Set<string>()
  let added = 0
  let lookAgainAt = FIRST_LOOK
  for (const together of inOrder([...grouped(lines, table.together)], table.inOrder, timeZone)) {
    const [first] = together
    if (!first || skipped.has(first.row)) continue
    const wrong = await triedOn(work, table.columnAt, async () => {
      const given = together.map(({ read }) => read)
      const here = await table.find(work, given[0]!, timeZone)
      if (here !== null) {
        const differs = await differing(work, name, here, first.cells, table.compared)
        for (const { row, cells } of together)
          rows.push({ ...asRow(row, differs.length > 0 ? 'conflict' : 'same', cells), differs })
        return
      }
      const bikeId = await table.write(work, given, timeZone)
      if (bikeId !== null) followed.add(bikeId)
      added += together.length
      for (const { row, cells } of together) rows.push(asRow(row, 'new', cells))
      if (added < lookAgainAt) return
      await analyzeTables(work)
      lookAgainAt = added * GROWN
    })
    // Refused together: each row stands once, with what is wrong in it.
    if (wrong.length > 0)
      for (const [i, { row, cells }] of together.entries())
        rows.push({
          ...asRow(row, 'wrong', cells),
          problems: wrong
            .filter((one) => one.row === i)
            .map(({ at, detail }) => ({ field: at, detail, cell: cells[at] ?? '' })),
        })
  }
  if (apply && added > 0) await analyzeTables(work)
  // What is only looked at is taken back: nothing follows from it.
  for (const bikeId of apply ? followed : [])
    if (table.follow) await table.follow(work, bikeId)
    else await judgeBike(work, bikeId, { readingId: null, occurredAt: work.now })
  const counts = { new: 0, same: 0, conflict: 0, wrong: 0 }
  for (const { outcome } of rows) counts[outcome]++
  const { encoding, delimiter } = head
  return {
    ...{ header, mapping, counts, days, written: { encoding, delimiter }, instruments: unknown, rows: shown(rows) },
    ...{ fingerprint: await fingerprintOf(path, mapping), added },
  }
}

/** Instruments that rows only name: neither here, nor told what they are. */
async function unknownInstruments(work: Work, lines: readonly Line[]): Promise<string[]> {
  const named = new Set(
    lines.flatMap(({ cells }) =>
      cells['instrument'] === undefined || cells['instrument_kind'] !== undefined ? [] : cells['instrument'],
    ),
  )
  if (named.size === 0) return []
  const here = await work.select<{ name: string }>(
    'SELECT lower(name) AS name FROM instruments WHERE retired_at IS NULL',
  )
  const known = new Set(here.map((one) => one.name))
  return [...named].filter((one) => !known.has(one.toLowerCase()))
}

/** How the days of some columns are written, together: what one of them proves holds for all. */
function daysOf({ days }: TableHead, columns: readonly string[]): DaysWritten | null {
  const all = columns.flatMap((column) => days[column] ?? [])
  if (all.length === 0) return null
  const orders = new Set(all.flatMap(({ order }) => order ?? []))
  const examples = all.flatMap((one) => one.examples).slice(0, 3)
  return { order: orders.size === 1 ? [...orders][0]! : null, examples }
}

/** Runs a row's work so that, where it is refused, nothing of it stays. @returns what was wrong with it */
async function triedOn(
  work: Work,
  named: InTable<TableName>['columnAt'],
  job: () => Promise<void>,
): Promise<{ at: string; row: number; detail: string }[]> {
  try {
    await work.savepoint(job)
    return []
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    const fields = error.fields.length > 0 ? error.fields : [atField('', error.code, error.values)]
    return fields.map(({ path, detail }) => ({
      at: columnAt(path, named),
      row: Number(/^spots\.(\d+)/.exec(path)?.[1] ?? 0),
      detail,
    }))
  }
}

/** The column a problem concerns, by its path. */
const columnAt = (path: string, named: Readonly<Record<string, string>> = {}): string => {
  const field = path.replace(/^(spots\.\d+|drive)\./, '').replace(/\.\d+$/, '')
  return named[field] ?? field
}

function* grouped<One extends { read: unknown }>(
  lines: readonly One[],
  key: ((read: One['read']) => string) | undefined,
): Generator<One[]> {
  if (!key) {
    for (const line of lines) yield [line]
    return
  }
  const groups = new Map<string, One[]>()
  for (const line of lines) groups.set(key(line.read), [...(groups.get(key(line.read)) ?? []), line])
  yield* groups.values()
}

/** By when each happened, where the table has it so. What has no such moment comes last, to be told what is wrong with it. */
function inOrder(groups: Line[][], when: InTable<TableName>['inOrder'], timeZone: string): Line[][] {
  if (!when) return groups
  const at = (group: readonly Line[]): number => {
    try {
      return when(group[0]!.read, timeZone)
    } catch {
      return Infinity
    }
  }
  return groups
    .map((group) => ({ group, at: at(group) }))
    .sort((a, b) => a.at - b.at)
    .map(({ group }) => group)
}

async function* linesOf(
  path: string,
  head: TableHead,
  mapping: TableMapping,
): AsyncGenerator<{ row: number; cells: Record<string, string> }> {
  const columns = Object.entries(mapping).map(([field, column]) => ({ field, at: head.header.indexOf(column) }))
  let row = -1
  try {
    for await (const values of rowsOf(path, head)) {
      row++
      if (row === 0) continue
      const cells: Record<string, string> = {}
      for (const { field, at } of columns) {
        const cell = meant(values[at] ?? '')
        if (cell !== '') cells[field] = cell
      }
      yield { row, cells }
    }
  } catch (error) {
    throw error instanceof ProblemError ? error : asProblem(error)
  }
}

const asProblem = (error: unknown): never => {
  if (error instanceof ImportError && (error.code === 'file-unreadable' || error.code === 'file-broken'))
    throw new ProblemError(422, error.code)
  throw error
}

/** Where what is here says otherwise than what was given. What was not given says nothing. */
async function differing(
  work: Work,
  name: TableName,
  id: string,
  cells: Readonly<Record<string, string>>,
  compared: readonly string[],
): Promise<TableRow['differs']> {
  if (compared.length === 0) return []
  const { sql, key } = EXPORT_TABLES[name]
  const [here] = await work.select<Record<string, unknown>>(`${sql} AND ${key} = CAST(:id AS uuid)`, { id })
  if (!here) return []
  return compared.flatMap((field) => {
    const given = cells[field]
    const value = here[field]
    const known = typeof value === 'string' || typeof value === 'number' ? String(value) : ''
    return given === undefined || alike(given, known) ? [] : [{ field, here: known, given }]
  })
}

/** Whether two cells say the same: as numbers, as moments or as text. */
function alike(one: string, other: string): boolean {
  if (one.trim().toLowerCase() === other.trim().toLowerCase()) return true
  const plain = (cell: string): string => cell.replace(/[\s,;/-]+/g, ' ')
  if (plain(one) === plain(other)) return true
  const numbers = [one, other].map((cell) => Number(cell.replace(',', '.')))
  return numbers.every(Number.isFinite) && Math.abs(numbers[0]! - numbers[1]!) < 1e-6
}

const asRow = (row: number, outcome: TableRow['outcome'], cells: Readonly<Record<string, string>>): TableRow => ({
  row,
  outcome,
  name: [cells['customer'] ?? cells['name'], cells['label'], cells['tag'], cells['start'] ?? cells['at']]
    .filter((part) => part !== undefined)
    .join(', '),
  differs: [],
  problems: [],
})

function shown(rows: readonly TableRow[]): TableRow[] {
  const weight = { wrong: 0, conflict: 1, new: 2, same: 3 } as const
  const sorted = [...rows].sort((a, b) => weight[a.outcome] - weight[b.outcome] || a.row - b.row)
  const told = { wrong: 0, conflict: 0, new: 0, same: 0 }
  return sorted.filter(({ outcome }) => outcome !== 'same' && told[outcome]++ < SHOWN)
}
