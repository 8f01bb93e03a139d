import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { Readable } from 'node:stream'
import { parse } from 'csv-parse'
import { decoded, encodingOf } from './encoding.ts'
import type { DaysWritten } from '@pelrin/contract'
import { ImportError } from './parsedRide.ts'
import { DaysSeen } from './tableDays.ts'

const LONGEST_CELL = 500
const ROWS_SHOWN = 4
/** So many rows are looked through for how their days are written. */
const ROWS_LOOKED_THROUGH = 20_000

/** How a table is written. */
export interface TableWritten {
  readonly delimiter: string
  /** How its letters are written, by a name iconv-lite knows. */
  readonly encoding: string
  /** Lines before its header, such as one that only names the delimiter. */
  readonly skip: number
}

/** A table's header with a few rows, for saying what its columns mean. */
export interface TableHead extends TableWritten {
  readonly header: string[]
  readonly rows: string[][]
  /** Of each column with days told by the order of their numbers, by its name. */
  readonly days: Readonly<Record<string, DaysWritten>>
}

/** A table's rows as they come, cells trimmed. @throws ImportError for what is no table */
export async function* rowsOf(path: string, { delimiter, encoding, skip }: TableWritten): AsyncGenerator<string[]> {
  const rows = Readable.from(decoded(path, encoding)).pipe(
    parse({
      bom: true,
      delimiter,
      from_line: skip + 1,
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: true,
      trim: true,
      max_record_size: 100_000,
    }),
  )
  try {
    for await (const row of rows) yield (row as string[]).map((cell) => cell.slice(0, LONGEST_CELL))
  } catch {
    throw new ImportError('file-broken')
  }
}

/** Letters of a file's beginning in which its first lines are looked for. */
const BEGINNING = 16_384

/** Reads a table's header: its delimiter is the one its first line names, or has most of. */
export async function tableHead(path: string): Promise<TableHead> {
  const encoding = await encodingOf(path)
  let first = ''
  for await (const chunk of decoded(path, encoding)) {
    first += chunk
    if (first.length > BEGINNING) break
  }
  const lines = first.replace(/^\ufeff/, '').split(/\r?\n/)
  const named = /^"?sep=(.)"?$/i.exec(lines[0] ?? '')?.[1]
  const skip = named === undefined ? 0 : 1
  const line = lines[skip] ?? ''
  if (line === '' || line.includes('\u0000')) throw new ImportError('file-unreadable')
  const delimiter = named ?? [';', '\t', ','].sort((a, b) => line.split(b).length - line.split(a).length)[0]!
  const written = { delimiter, encoding, skip }
  const found: string[][] = []
  const seen: DaysSeen[] = []
  let n = 0
  for await (const row of rowsOf(path, written)) {
    if (found.length <= ROWS_SHOWN) found.push(row)
    for (const [i, cell] of row.entries()) (seen[i] ??= new DaysSeen()).see(cell)
    if (++n > ROWS_LOOKED_THROUGH) break
  }
  const [header, ...rows] = found
  if (!header || header.length < 2 || rows.length === 0) throw new ImportError('file-unreadable')
  const days = Object.fromEntries(
    header.flatMap((name, i) => {
      const told = seen[i]?.told()
      return told ? [[name, told]] : []
    }),
  )
  return { header, rows, days, ...written }
}

/** A cell as it is meant: a sign that keeps a spreadsheet from computing it is no part of it. */
export const meant = (cell: string): string => cell.replace(/^'(?=[=+\-@\t\r])/, '')

/** What a file and the meaning of its columns are told again by. */
export async function fingerprintOf(path: string, mapping: Readonly<Record<string, string>>): Promise<string> {
  const hash = createHash('sha256').update(JSON.stringify(Object.entries(mapping).sort()))
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer)
  return hash.digest('hex')
}
