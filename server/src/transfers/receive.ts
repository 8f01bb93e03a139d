import { createWriteStream } from 'node:fs'
import type { IncomingMessage } from 'node:http'
import { join } from 'node:path'
import { PassThrough, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import busboy from 'busboy'
import { ProblemError } from '../problems/problem.ts'
import { diskIsFull } from './diskFull.ts'
import type { Folder, Scratch } from './scratch.ts'

const FILES = 200
const FIELDS = 10
const LONGEST_FIELD_BYTES = 256 * 1024
/** An upload that says nothing for so long is given up, ms. */
const SILENT_MS = 60_000

/** What one upload may hold in all, bytes. */
const UPLOAD_BYTES = 700 * 1024 * 1024

/** A file on its way in: where it lies and what it was called. */
export interface ReceivedFile {
  readonly path: string
  readonly name: string
}

export interface Received {
  readonly folder: Folder
  readonly files: ReceivedFile[]
  /** What was sent beside them, by name. */
  readonly fields: Readonly<Record<string, string>>
  /** How many bytes more this upload may take on disk when it is unpacked. */
  readonly bytesLeft: number
}

/** Passes bytes on until there are too many of them. */
class Counted extends Transform {
  bytes = 0

  constructor(private readonly most: number) {
    super()
  }

  override _transform(chunk: Buffer, _: BufferEncoding, done: (error: Error | null, chunk?: Buffer) => void): void {
    this.bytes += chunk.length
    if (this.bytes > this.most) done(new ProblemError(413, 'upload-too-large'))
    else done(null, chunk)
  }
}

/** What went wrong with an upload, in words: an upload that was cut off is nobody's fault of ours. */
function refusalOf(error: unknown): unknown {
  if (error instanceof ProblemError) return error
  return diskIsFull(error) ? error : new ProblemError(422, 'upload-empty')
}

/**
 * The body of a request, apart from its connection: whatever goes wrong with what is read from it, an answer can still be given. Ends in an
 * error where the client goes away or falls silent.
 */
function bodyOf(request: IncomingMessage): PassThrough {
  const body = new PassThrough()
  request.setTimeout(SILENT_MS, () => request.destroy(new Error('the upload went silent')))
  request.on('error', (error) => body.destroy(error))
  const cut = (): void => {
    if (!request.complete) body.destroy(new Error('the upload was cut off'))
  }
  request.on('close', cut)
  // Gone before anybody listened: it will not say so again.
  if (request.destroyed) cut()
  body.on('close', () => {
    // What is done with it may take minutes, in which nothing more is sent.
    request.setTimeout(0)
    request.unpipe(body)
    // What is still coming is not wanted, and must not hold up the answer.
    request.resume()
  })
  return request.pipe(body)
}

/** Writes uploaded files to a folder of their own as they come, under names of ours. Whatever ends it early, nothing is left behind. */
export async function receiveFiles(request: IncomingMessage, scratch: Scratch, shopId: string): Promise<Received> {
  if (!/^multipart\/form-data/i.test(request.headers['content-type'] ?? '')) throw new ProblemError(422, 'upload-empty')
  const room = await scratch.roomOf(shopId)
  const folder = await scratch.folder(shopId)
  const files: ReceivedFile[] = []
  const fields: Record<string, string> = {}
  const writing: Promise<unknown>[] = []
  const limits = { files: false, size: false }
  try {
    const counted = new Counted(Math.min(UPLOAD_BYTES, room))
    const parser = busboy({
      headers: request.headers,
      limits: { files: FILES, fileSize: UPLOAD_BYTES, fields: FIELDS, fieldSize: LONGEST_FIELD_BYTES },
    })
    parser.on('file', (_, stream, { filename }) => {
      const path = join(folder.path, `f${files.length}`)
      files.push({ path, name: (filename || 'ride').slice(-120) })
      stream.on('limit', () => (limits.size = true))
      // Heard at once: an upload that is cut off fails here first.
      writing.push(
        pipeline(stream, createWriteStream(path)).catch((error: unknown) => {
          parser.destroy(error as Error)
          return error
        }),
      )
    })
    parser.on('field', (name, value) => (fields[name] = value))
    parser.on('filesLimit', () => (limits.files = true))
    await pipeline(bodyOf(request), counted, parser)
    await Promise.all(writing)
    if (limits.files) throw new ProblemError(413, 'upload-too-many')
    if (limits.size) throw new ProblemError(413, 'upload-too-large')
    if (files.length === 0) throw new ProblemError(422, 'upload-empty')
    return { folder, files, fields, bytesLeft: Math.max(0, room - counted.bytes) }
  } catch (error) {
    await Promise.all(writing)
    await folder.remove()
    throw refusalOf(error)
  }
}

/** Receives files for as long as a piece of work wants them: whatever becomes of it, nothing is left behind. */
export async function withFiles<T>(
  request: IncomingMessage,
  scratch: Scratch,
  shopId: string,
  job: (received: Received) => T | Promise<T>,
): Promise<T> {
  const received = await receiveFiles(request, scratch, shopId)
  try {
    return await job(received)
  } finally {
    await received.folder.remove()
  }
}

/**
 * Receives a body that is one file, whole, before anything is done with it: what a client takes its time over holds nothing but disk.
 *
 * @param job gets the file's path; the file is gone afterwards
 */
export async function withBody<T>(
  request: IncomingMessage,
  scratch: Scratch,
  shopId: string,
  job: (path: string) => Promise<T>,
): Promise<T> {
  const room = await scratch.roomOf(shopId)
  return scratch.during(shopId, async (folder) => {
    const path = join(folder, 'body')
    try {
      await pipeline(bodyOf(request), new Counted(room), createWriteStream(path))
    } catch (error) {
      throw refusalOf(error)
    }
    return job(path)
  })
}

/** A body that is held in memory whole. @throws ProblemError 413 for more bytes than that, 422 for none */
export async function smallBody(request: IncomingMessage, most: number): Promise<Buffer> {
  const chunks: Buffer[] = []
  let bytes = 0
  try {
    for await (const chunk of bodyOf(request)) {
      bytes += (chunk as Buffer).length
      if (bytes > most) throw new ProblemError(413, 'upload-too-large')
      chunks.push(chunk as Buffer)
    }
  } catch (error) {
    throw refusalOf(error)
  }
  if (bytes === 0) throw new ProblemError(422, 'upload-empty')
  return Buffer.concat(chunks)
}
