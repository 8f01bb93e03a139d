import type { Middleware } from 'koa'
import type { Logger } from 'pino'
import { v7 } from 'uuid'
import type { CurrentSession } from '../sessions/currentSession.ts'

/** What a request carries through the layers. */
export interface RequestState {
  requestId: string
  session?: CurrentSession
}

/** Gives each request an id, answers with it, and logs one line when it is done. */
export function numbered(logger: Logger): Middleware<RequestState> {
  return async (ctx, next) => {
    const started = process.hrtime.bigint()
    ctx.state.requestId = v7()
    ctx.set('X-Request-Id', ctx.state.requestId)
    await next()
    // Assets are many and say nothing; the API's requests are the story.
    if (!ctx.path.startsWith('/api/')) return
    logger.info(
      {
        requestId: ctx.state.requestId,
        method: ctx.method,
        path: ctx.path,
        status: ctx.status,
        ms: Number((process.hrtime.bigint() - started) / 100_000n) / 10,
        person: ctx.state.session?.person.initials,
      },
      'request',
    )
  }
}
