import { v7 } from 'uuid'
import { PART_COLUMNS, readPart, writePart, type CataloguePart, type PartCells } from '@pelrin/core'
import type { CataloguePreview, RowOutcome, TableMapping } from '@pelrin/contract'
import { fingerprintOf, meant, rowsOf, tableHead } from '../imports/table.ts'
import { ImportError } from '../imports/parsedRide.ts'
import { nameKey, partNames, type NameLists } from './names.ts'

/** Rows of a catalogue; a shop of so many parts has other tools. */
const ROWS = 200_000
/** Rows of each outcome a screen shows. */
const SHOWN = 150

export interface TableAsked {
  readonly path: string
  /** What the columns mean; null: to be guessed. */
  readonly mapping: TableMapping | null
  readonly names: NameLists
  /** The catalogue as it is. */
  readonly parts: readonly (CataloguePart & { readonly id: string })[]
  /** Rows to leave out, when it is to be written; null for a preview. */
  readonly skip: readonly number[] | null
}

/** A row to be written. */
export interface RowToWrite {
  readonly id: string
  readonly isNew: boolean
  readonly part: CataloguePart
  readonly stockBefore: number
}

export type TableRead =
  | { readonly ok: true; readonly preview: CataloguePreview; readonly write: readonly RowToWrite[] }
  | { readonly ok: false; readonly code: 'file-unreadable' | 'file-broken' | 'file-too-large' }

/** What columns are called elsewhere, by field. */
const CALLED: Readonly<Record<string, RegExp>> = {
  kind: /^(kind|type|category)$/,
  maker: /^(maker|brand|manufacturer|make)$/,
  name: /^(name|model|title|part|description|item)$/,
  price: /^(price|retail|rrp|unitprice|cost)$/,
  stock: /^(stock|qty|quantity|onhand|instock|count)$/,
  reorderPoint: /^(reorderpoint|reorder|minimum|minstock)$/,
  speeds: /^(speeds?|sprocketcount)$/,
  innerMm: /^(innermm|innerwidth|inner)$/,
  outerMm: /^(outermm|outerwidth|pinlength|outer)$/,
  inBox: /^(inbox|pitches|length|links)$/,
  sprockets: /^(sprockets|cogs|range)$/,
}

/** What columns probably mean, by what they are called. */
export function guessMapping(header: readonly string[]): TableMapping {
  const mapping: Record<string, string> = {}
  for (const field of PART_COLUMNS) {
    const found = header.find((column) => {
      const plain = column.toLowerCase().replace(/[^a-z]/g, '')
      return plain === field.toLowerCase() || CALLED[field]?.test(plain) === true
    })
    if (found !== undefined && !Object.values(mapping).includes(found)) mapping[field] = found
  }
  return mapping
}

/** Reads a table of parts against the catalogue: what is new, what changes and how, what is wrong and where. */
export default async function readTable(asked: TableAsked): Promise<TableRead> {
  try {
    return await read(asked)
  } catch (error) {
    const code = error instanceof ImportError ? error.code : 'file-broken'
    return { ok: false, code: code === 'file-unreadable' || code === 'file-too-large' ? code : 'file-broken' }
  }
}

async function read({ path, mapping: told, names: lists, parts, skip }: TableAsked): Promise<TableRead> {
  const head = await tableHead(path)
  const { header, rows: sample } = head
  const mapping = told ?? guessMapping(header)
  const columns = Object.entries(mapping)
    .filter(([field, column]) => PART_COLUMNS.includes(field) && header.includes(column))
    .map(([field, column]) => ({ field, at: header.indexOf(column) }))
  const names = partNames(lists)
  const known = new Map(parts.map((part) => [nameKey(part.kind, part.maker, part.name), part]))
  const kindsOf = new Map<string, string[]>()
  for (const { kind, maker, name } of parts) {
    const key = nameKey(maker, name)
    kindsOf.set(key, [...(kindsOf.get(key) ?? []), kind])
  }
  const gathered: { row: number; cells: PartCells }[] = []
  let row = -1
  for await (const values of rowsOf(path, head)) {
    row++
    if (row === 0) continue
    if (row > ROWS) throw new ImportError('file-too-large')
    const cells: Record<string, string> = {}
    for (const { field, at } of columns) {
      const cell = meant(values[at] ?? '')
      // An empty cell says nothing: what is known stays.
      if (cell !== '') cells[field] = cell
    }
    if (cells['kind'] === undefined) {
      const kinds = kindsOf.get(nameKey(cells['maker'] ?? '', cells['name'] ?? '')) ?? []
      if (kinds.length === 1) cells['kind'] = kinds[0]!
    }
    gathered.push({ row, cells })
  }
  const counts = { new: 0, changed: 0, same: 0, wrong: 0 }
  const shown: RowOutcome[] = []
  const write: RowToWrite[] = []
  const skipped = new Set(skip ?? [])
  const seen = new Set<string>()
  const tell = (one: RowOutcome): void => {
    if (counts[one.outcome]++ < SHOWN && one.outcome !== 'same') shown.push(one)
  }
  // Chains first: pins name them.
  const isChain = ({ cells }: { cells: PartCells }): boolean => cells['kind']?.toLowerCase() === 'chain'
  for (const { row: at, cells } of [...gathered.filter(isChain), ...gathered.filter((one) => !isChain(one))]) {
    const name = [cells['maker'], cells['name']].filter(Boolean).join(' ')
    const key = nameKey(cells['kind'] ?? '', cells['maker'] ?? '', cells['name'] ?? '')
    const before = known.get(key)
    const beforeCells = before && writePart(before, names)
    const result = readPart({ ...beforeCells, ...cells }, names)
    const problems = result.ok
      ? seen.has(key)
        ? [{ field: 'name', code: 'row-twice', cell: name }]
        : []
      : result.problems.map(({ at: field, problem }) => ({ field, code: problem, cell: cells[field] ?? '' }))
    if (!result.ok || problems.length > 0) {
      tell({ row: at, outcome: 'wrong', name, changes: [], problems })
      continue
    }
    seen.add(key)
    const { part } = result
    const changes = beforeCells
      ? Object.entries(writePart(part, names)).flatMap(([field, to]) => {
          const from = beforeCells[field] ?? ''
          return from === to ? [] : [{ field, from, to }]
        })
      : []
    const outcome = !before ? 'new' : changes.length > 0 ? 'changed' : 'same'
    tell({ row: at, outcome, name, changes, problems: [] })
    const id = before?.id ?? v7()
    if (!before && part.kind === 'chain') names.addChain({ id, maker: part.maker, name: part.name })
    if (outcome !== 'same' && skip !== null && !skipped.has(at))
      write.push({ id, isNew: !before, part, stockBefore: before?.stock ?? 0 })
  }
  const weight = { wrong: 0, changed: 1, new: 2, same: 3 } as const
  return {
    ok: true,
    write,
    preview: {
      header,
      sample,
      mapping,
      counts,
      rows: shown.sort((a, b) => weight[a.outcome] - weight[b.outcome] || a.row - b.row),
      fingerprint: await fingerprintOf(path, mapping),
    },
  }
}
