import { createReadStream } from 'node:fs'
import { pipeline } from 'node:stream'
import chardet from 'chardet'
import iconv from 'iconv-lite'

/** So much of a file is looked at to know how its letters are written, bytes. */
const LOOKED_AT = 64 * 1024

async function headOf(path: string): Promise<Buffer> {
  let head = Buffer.alloc(0)
  for await (const chunk of createReadStream(path, { end: LOOKED_AT - 1 }))
    head = Buffer.concat([head, chunk as Buffer])
  return head
}

/** Whether bytes are UTF-8, but for a letter the end of them cut in two. */
function isUtf8(bytes: Buffer): boolean {
  for (let cut = 0; cut < 4; cut++)
    try {
      new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(0, bytes.length - cut))
      return true
    } catch {
      // One byte less may end at a whole letter.
    }
  return false
}

/**
 * How the letters of a text file are written: by its byte order mark, by what its first line says of itself, else by what they look like. What is
 * neither is taken for what old spreadsheets of western Europe write.
 *
 * @param declared finds what a file says of itself in its first line; null where it says nothing
 * @returns a name iconv-lite decodes
 */
export async function encodingOf(
  path: string,
  declared: (firstLine: string) => string | null = () => null,
): Promise<string> {
  const head = await headOf(path)
  if (head[0] === 0xff && head[1] === 0xfe) return 'utf-16le'
  if (head[0] === 0xfe && head[1] === 0xff) return 'utf-16be'
  const said = declared(head.toString('latin1').split('\n')[0] ?? '')
  if (said !== null && iconv.encodingExists(said)) return said
  if (isUtf8(head)) {
    // Every second byte nothing: wide letters without their mark, which are UTF-8 by accident.
    if (head.length > 3 && head[1] === 0 && head[3] === 0) return 'utf-16le'
    if (head.length > 3 && head[0] === 0 && head[2] === 0) return 'utf-16be'
    return 'utf-8'
  }
  const guessed = chardet.detect(head)
  return guessed !== null && /^windows-125|^ISO-8859-/i.test(guessed) && iconv.encodingExists(guessed)
    ? guessed
    : 'windows-1252'
}

/** Bytes read at a time. */
const CHUNK = 256 * 1024

/** A text file as letters, however they are written in it. Who stops reading stops the reading of the file. */
export async function* decoded(path: string, encoding: string, signal?: AbortSignal): AsyncGenerator<string> {
  const bytes = createReadStream(path, { highWaterMark: CHUNK, ...(signal ? { signal } : {}) })
  const letters = iconv.decodeStream(encoding)
  // What ends one ends the other; who reads is told by the loop.
  pipeline(bytes, letters, () => undefined)
  try {
    for await (const text of letters) yield String(text)
  } finally {
    bytes.destroy()
  }
}
