import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import type { IncomingMessage } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import busboy from 'busboy'
import { ProblemError } from '../http/problem.ts'
import type { ReceivedFile } from './unzip.ts'

const FILES = 200
const LARGEST_FILE_BYTES = 600 * 1024 * 1024

export interface Received {
  readonly folder: string
  readonly files: ReceivedFile[]
  /** What was sent beside them, by name. */
  readonly fields: Readonly<Record<string, string>>
}

/** Writes uploaded files to a folder of their own as they come, under names of ours. */
export async function receiveFiles(request: IncomingMessage): Promise<Received> {
  if (!/^multipart\/form-data/i.test(request.headers['content-type'] ?? '')) throw new ProblemError(422, 'upload-empty')
  const folder = await mkdtemp(join(tmpdir(), 'pelrin-import-'))
  const files: ReceivedFile[] = []
  const fields: Record<string, string> = {}
  const writing: Promise<void>[] = []
  const limits = { files: false, size: false }
  try {
    const parser = busboy({
      headers: request.headers,
      limits: { files: FILES, fileSize: LARGEST_FILE_BYTES, fields: 10 },
    })
    parser.on('file', (_, stream, { filename }) => {
      const path = join(folder, `f${files.length}`)
      files.push({ path, name: (filename || 'ride').slice(-120) })
      stream.on('limit', () => (limits.size = true))
      writing.push(pipeline(stream, createWriteStream(path)))
    })
    parser.on('field', (name, value) => (fields[name] = value))
    parser.on('filesLimit', () => (limits.files = true))
    await pipeline(request, parser)
    await Promise.all(writing)
  } catch (error) {
    await rm(folder, { recursive: true, force: true })
    if (error instanceof ProblemError) throw error
    throw new ProblemError(422, 'upload-empty')
  }
  const problem = limits.files
    ? 'upload-too-many'
    : limits.size
      ? 'upload-too-large'
      : files.length === 0
        ? 'upload-empty'
        : null
  if (problem === null) return { folder, files, fields }
  await rm(folder, { recursive: true, force: true })
  throw new ProblemError(problem === 'upload-empty' ? 422 : 413, problem)
}

/** Receives files for as long as a piece of work wants them: whatever becomes of it, nothing is left behind. */
export async function withFiles<T>(request: IncomingMessage, job: (received: Received) => T | Promise<T>): Promise<T> {
  const received = await receiveFiles(request)
  try {
    return await job(received)
  } finally {
    await rm(received.folder, { recursive: true, force: true })
  }
}
