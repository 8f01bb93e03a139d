import type { Assumptions } from '@pelrin/core'
import { createReadStream, createWriteStream } from 'node:fs'
import type { CsvMapping } from '@pelrin/contract'
import { pipeline } from 'node:stream/promises'
import { createGunzip } from 'node:zlib'
import iconv from 'iconv-lite'
import { encodingOf } from './encoding.ts'
import { csvRides, type RefusedRow } from './csvRides.ts'
import { fitRides } from './fitRides.ts'
import { ImportError, type ParsedRide } from './parsedRide.ts'
import { tableHead, type TableHead } from './table.ts'
import { xmlRides } from './xmlRides.ts'

/** What is in one file. */
export interface FileRead {
  readonly rides: ParsedRide[]
  readonly refused: RefusedRow[]
  /** A table whose columns are not known yet. */
  readonly table: TableHead | null
}

/** What a file is by its content; a wrong ending does not matter. */
type Kind = 'xml' | 'fit' | 'csv' | 'zip' | 'gzip'

export async function kindOf(path: string): Promise<Kind> {
  let head = Buffer.alloc(0)
  for await (const chunk of createReadStream(path, { end: 1023 })) head = Buffer.concat([head, chunk as Buffer])
  if (head.subarray(0, 2).toString('latin1') === 'PK') return 'zip'
  if (head[0] === 0x1f && head[1] === 0x8b) return 'gzip'
  if (head.subarray(8, 12).toString('latin1') === '.FIT') return 'fit'
  if (head.length === 0) throw new ImportError('file-unreadable')
  const encoding = await encodingOf(path)
  const text = iconv.decode(head, encoding).replace(/^\ufeff/, '')
  if (text.trimStart().startsWith('<')) return 'xml'
  if (text.includes('\u0000')) throw new ImportError('file-unreadable')
  return 'csv'
}

/**
 * Reads one ride file of whatever kind its content is.
 *
 * @param mappingFor what the columns of a table with a header mean; null when nobody has said
 * @throws ImportError saying what is wrong with the file
 */
export async function readRideFile(
  path: string,
  timeZone: string,
  assumed: Assumptions['distance'],
  mappingFor: (header: readonly string[]) => CsvMapping | null,
): Promise<FileRead> {
  const none = { refused: [], table: null }
  switch (await kindOf(path)) {
    case 'xml':
      return { rides: await xmlRides(path, assumed), ...none }
    case 'fit':
      return { rides: await fitRides(path, assumed), ...none }
    case 'csv': {
      const head = await tableHead(path)
      const mapping = mappingFor(head.header)
      if (!mapping) return { rides: [], refused: [], table: head }
      return { ...(await csvRides(path, head, mapping, timeZone, assumed)), table: head }
    }
    case 'gzip': {
      const plain = await unpacked(path)
      return readRideFile(plain, timeZone, assumed, mappingFor)
    }
    case 'zip':
      throw new ImportError('file-unreadable')
  }
}

/** A packed file may grow to so much, bytes. */
const LARGEST_UNPACKED = 600 * 1024 * 1024

/** Unpacks a file beside itself, into the same passing folder. @throws ImportError for one that is broken, packed twice, or grows beyond what is read */
async function unpacked(path: string): Promise<string> {
  const into = `${path}.plain`
  let bytes = 0
  try {
    await pipeline(
      createReadStream(path),
      createGunzip(),
      async function* (chunks: AsyncIterable<Buffer>) {
        for await (const chunk of chunks) {
          bytes += chunk.length
          if (bytes > LARGEST_UNPACKED) throw new ImportError('file-expands')
          yield chunk
        }
      },
      createWriteStream(into),
    )
  } catch (error) {
    throw error instanceof ImportError ? error : new ImportError('file-broken')
  }
  if ((await kindOf(into)) === 'gzip') throw new ImportError('file-expands')
  return into
}
