import type { Middleware } from 'koa'
import type { Logger } from 'pino'
import { databaseRefused, databaseWentAway, tooMuchAtOnce } from '../db/refused.ts'
import { diskIsFull } from '../transfers/diskFull.ts'
import type { RequestState } from './request.ts'
import { ProblemError } from '../problems/problem.ts'

/** Nobody's fault: the database is away, the disk is full, there is more to do than can be done. */
const PASSING: readonly string[] = ['database-away', 'disk-full', 'server-busy']

const GONE_AWAY: readonly string[] = ['ECONNRESET', 'EPIPE', 'ERR_STREAM_PREMATURE_CLOSE', 'ABORT_ERR']

/** Whether a client went away in mid-answer, which is no fault. */
export const wentAway = (error: NodeJS.ErrnoException): boolean => GONE_AWAY.includes(error.code ?? '')

/** What the server answers for what was thrown. What nobody foresaw is a fault of ours. */
export function asProblem(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error
  // A request that was not read: by the parser of bodies, or of addresses.
  const { status, code } = (error ?? {}) as { status?: unknown; code?: unknown }
  if (status === 413) return new ProblemError(413, 'body-too-large')
  if (status === 415 || (typeof code === 'string' && code.startsWith('Z_')))
    return new ProblemError(415, 'body-encoding')
  if (status === 400 || error instanceof URIError) return new ProblemError(400, 'body-not-json')
  if (typeof status === 'number' && status >= 400 && status < 500) return new ProblemError(404, 'not-found')
  if (diskIsFull(error)) return new ProblemError(507, 'disk-full', { retryAfterSeconds: 30 })
  if (tooMuchAtOnce(error)) return new ProblemError(503, 'server-busy', { retryAfterSeconds: 5 })
  if (databaseWentAway(error)) return new ProblemError(503, 'database-away', { retryAfterSeconds: 2 })
  if (databaseRefused(error)) return new ProblemError(422, 'value-impossible')
  return new ProblemError(500, 'server-fault')
}

/**
 * Turns whatever is thrown into a problem document with the request's id. Faults of ours are logged whole.
 *
 * @param noticed told of everything that was thrown
 */
export function failures(
  logger: Logger,
  noticed: (error: unknown) => void = () => undefined,
): Middleware<RequestState> {
  return async (ctx, next) => {
    try {
      await next()
      if (ctx.status === 404 && ctx.body == null && ctx.path.startsWith('/api/'))
        throw new ProblemError(404, 'not-found')
      if (ctx.status === 405 || ctx.status === 501) throw new ProblemError(405, 'method-not-allowed')
    } catch (error) {
      noticed(error)
      const problem = asProblem(error)
      // What passes by itself is a line; a fault of ours is told whole.
      if (PASSING.includes(problem.code)) logger.warn({ requestId: ctx.state.requestId }, problem.code)
      else if (problem.status >= 500) logger.error({ err: error, requestId: ctx.state.requestId }, problem.code)
      ctx.status = problem.status
      if (problem.retryAfterSeconds !== undefined) ctx.set('Retry-After', String(problem.retryAfterSeconds))
      ctx.body = problem.toDocument(ctx.state.requestId)
      ctx.type = 'application/problem+json'
    }
  }
}
