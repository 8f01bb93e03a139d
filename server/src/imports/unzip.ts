import { createWriteStream } from 'node:fs'
import { basename, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { promisify } from 'node:util'
import yauzl from 'yauzl'
import { ImportError } from './parsedRide.ts'

/** A zip may unpack to so much in all, and one file in it grow by so much. */
const LARGEST_BYTES = 1024 * 1024 * 1024
const LARGEST_RATIO = 200
const FILES = 200

/** A file on its way in: where it lies and what it was called. */
export interface ReceivedFile {
  readonly path: string
  readonly name: string
}

/** What came of unpacking: files, and those that were not. */
export interface Unpacked {
  readonly files: ReceivedFile[]
  readonly refused: { readonly name: string; readonly code: 'file-expands' | 'file-broken' }[]
}

const open = promisify<string, yauzl.Options, yauzl.ZipFile>(yauzl.open)

/** Unpacks the files of a zip into a folder under names of our own: no name in it leads anywhere else. */
export async function unzip(zipPath: string, into: string, prefix: string): Promise<Unpacked> {
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
      total += entry.uncompressedSize
      const grows = entry.uncompressedSize > 10_000_000 && entry.uncompressedSize > LARGEST_RATIO * entry.compressedSize
      if (grows || total > LARGEST_BYTES || files.length >= FILES) {
        refused.push({ name, code: 'file-expands' })
        next()
        return
      }
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
  return { files, refused }
}
