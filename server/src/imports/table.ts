import { createReadStream } from 'node:fs'
import { createHash } from 'node:crypto'
import { parse } from 'csv-parse'
import { ImportError } from './parsedRide.ts'

const LONGEST_CELL = 500
const ROWS_SHOWN = 4

/** A table's header with a few rows, for saying what its columns mean. */
export interface TableHead {
  readonly header: string[]
  readonly rows: string[][]
  readonly delimiter: string
}

/** A table's rows as they come, cells trimmed. @throws ImportError for what is no table */
export async function* rowsOf(path: string, delimiter: string): AsyncGenerator<string[]> {
  const rows = createReadStream(path).pipe(
    parse({
      bom: true,
      delimiter,
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

/** Reads a table's header: its delimiter is the one its first line has most of. */
export async function tableHead(path: string): Promise<TableHead> {
  let first = ''
  for await (const chunk of createReadStream(path, { end: 16_383, encoding: 'utf8' })) first += chunk as string
  const line = first.split(/\r?\n/)[0] ?? ''
  if (line === '' || line.includes('\u0000')) throw new ImportError('file-unreadable')
  const delimiter = [';', '\t', ','].sort((a, b) => line.split(b).length - line.split(a).length)[0]!
  const found: string[][] = []
  for await (const row of rowsOf(path, delimiter)) {
    found.push(row)
    if (found.length > ROWS_SHOWN) break
  }
  const [header, ...rows] = found
  if (!header || header.length < 2 || rows.length === 0) throw new ImportError('file-unreadable')
  return { header, rows, delimiter }
}

/** A cell as it is meant: a sign that keeps a spreadsheet from computing it is no part of it. */
export const meant = (cell: string): string => cell.replace(/^'(?=[=+\-@\t\r])/, '')

/** What a file and the meaning of its columns are told again by. */
export async function fingerprintOf(path: string, mapping: Readonly<Record<string, string>>): Promise<string> {
  const hash = createHash('sha256').update(JSON.stringify(Object.entries(mapping).sort()))
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer)
  return hash.digest('hex')
}
