import { createWriteStream } from 'node:fs'
import { basename, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { promisify } from 'node:util'
import yauzl from 'yauzl'
import type { ReceivedFile } from '../transfers/receive.ts'
import { ImportError } from './parsedRide.ts'

/** One file in a zip may grow by so much. */
const LARGEST_RATIO = 200

/** What came of unpacking: files, and those that were not. */
export interface Unpacked {
  readonly files: ReceivedFile[]
  /** What they take, bytes. */
  readonly bytes: number
  readonly refused: { readonly name: string; readonly code: 'file-expands' | 'file-broken' }[]
}

const open = promisify<string, yauzl.Options, yauzl.ZipFile>(yauzl.open)

/**
 * Unpacks the files of a zip into a folder under names of our own: no name in it leads anywhere else.
 *
 * @param room what the upload as a whole may still unpack to: bytes and files. What is over is refused, file by file
 */
export async function unzip(
  zipPath: string,
  into: string,
  prefix: string,
  room: { readonly bytes: number; readonly files: number },
): Promise<Unpacked> {
  let zip: yauzl.ZipFile
  try {
    zip = await open(zipPath, { lazyEntries: true, autoClose: true })
  } catch {
    throw new ImportError('file-broken')
  }
  const files: ReceivedFile[] = []
  const refused: Unpacked['refused'] = []
  let total = 0
  await new Promise<void>((done, reject) => {
    zip.on('error', () => reject(new ImportError('file-broken')))
    zip.on('end', done)
    zip.on('entry', (entry: yauzl.Entry) => {
      const next = (): void => zip.readEntry()
      const name = basename(entry.fileName)
      if (entry.fileName.endsWith('/') || name.startsWith('.') || entry.fileName.startsWith('__MACOSX')) {
        next()
        return
      }
      const grows = entry.uncompressedSize > 10_000_000 && entry.uncompressedSize > LARGEST_RATIO * entry.compressedSize
      if (grows || total + entry.uncompressedSize > room.bytes || files.length >= room.files) {
        refused.push({ name, code: 'file-expands' })
        next()
        return
      }
      total += entry.uncompressedSize
      const path = join(into, `${prefix}-${files.length}`)
      zip.openReadStream(entry, (error, stream) => {
        if (error) {
          refused.push({ name, code: 'file-broken' })
          next()
          return
        }
        pipeline(stream, createWriteStream(path)).then(
          () => {
            files.push({ path, name })
            next()
          },
          () => {
            refused.push({ name, code: 'file-broken' })
            next()
          },
        )
      })
    })
    zip.readEntry()
  })
  return { files, refused, bytes: total }
}
