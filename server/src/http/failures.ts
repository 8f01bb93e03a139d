import type { Middleware } from 'koa'
import type { Logger } from 'pino'
import { databaseWentAway } from '../db/refused.ts'
import type { RequestState } from './request.ts'
import { ProblemError } from './problem.ts'

function asProblem(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error
  const status = (error as { status?: number }).status
  if (status === 413) return new ProblemError(413, 'body-too-large')
  if (status === 400) return new ProblemError(400, 'body-not-json')
  if (databaseWentAway(error)) return new ProblemError(503, 'database-away', { retryAfterSeconds: 2 })
  return new ProblemError(500, 'server-fault')
}

/** Turns whatever is thrown into a problem document with the request's id. Faults of ours are logged whole. */
export function failures(logger: Logger): Middleware<RequestState> {
  return async (ctx, next) => {
    try {
      await next()
      if (ctx.status === 404 && ctx.body == null && ctx.path.startsWith('/api/'))
        throw new ProblemError(404, 'not-found')
      if (ctx.status === 405 || ctx.status === 501) throw new ProblemError(405, 'method-not-allowed')
    } catch (error) {
      const problem = asProblem(error)
      if (problem.status >= 500) logger.error({ err: error, requestId: ctx.state.requestId }, problem.code)
      ctx.status = problem.status
      if (problem.retryAfterSeconds !== undefined) ctx.set('Retry-After', String(problem.retryAfterSeconds))
      ctx.body = problem.toDocument(ctx.state.requestId)
      ctx.type = 'application/problem+json'
    }
  }
}
