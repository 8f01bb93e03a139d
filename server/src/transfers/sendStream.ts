import { PassThrough, pipeline, type Readable } from 'node:stream'
import type { Context } from 'koa'

/**
 * Answers with what is read from a stream. A source that fails in mid-answer cuts the connection, so that nobody takes a part for the
 * whole; a client that goes away ends the source.
 *
 * @param sources read one through the other, the last to the client
 * @param ended does what is to be done once it is over, whatever ended it
 */
export function sendStream(
  ctx: Context,
  sources: readonly [Readable, ...NodeJS.ReadWriteStream[]],
  ended: (error: NodeJS.ErrnoException | null) => void,
): void {
  const out = new PassThrough()
  pipeline([...sources, out], (error) => ended(error ?? null))
  ctx.res.on('close', () => out.destroy())
  out.on('error', () => ctx.res.destroy())
  ctx.body = out
}
