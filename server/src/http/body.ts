import { bodyParser } from '@koa/bodyparser'
import type { Middleware } from 'koa'
import type { RequestState } from './request.ts'
import { ProblemError } from './problem.ts'

const LARGEST_BYTES = 256 * 1024

/** Refuses a body that says it is too large before any of it is read. */
export const refuseLarge: Middleware<RequestState> = async (ctx, next) => {
  if (Number(ctx.get('Content-Length') || 0) > LARGEST_BYTES) {
    ctx.set('Connection', 'close')
    throw new ProblemError(413, 'body-too-large')
  }
  await next()
}

/** JSON bodies only, and of a bounded size also where the length was not said. */
export const jsonBody = bodyParser({
  enableTypes: ['json'],
  jsonLimit: LARGEST_BYTES,
  jsonStrict: true,
  extendTypes: { json: ['application/json'] },
})
