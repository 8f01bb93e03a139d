import { bodyParser } from '@koa/bodyparser'
import type { Middleware } from 'koa'
import type { RequestState } from './request.ts'
import { ProblemError } from '../problems/problem.ts'

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

/** Deeper than anything the contract takes. */
const DEEPEST = 24

/**
 * A value as it can be kept: text without NUL and without halves of characters, which a database refuses; a keyboard or a cut may leave them.
 *
 * @throws ProblemError 400 for one nested deeper than anything that is asked for
 */
function keepable(value: unknown, depth = 0): unknown {
  if (typeof value === 'string') return value.toWellFormed().replaceAll('\u0000', '')
  if (value === null || typeof value !== 'object') return value
  if (depth > DEEPEST) throw new ProblemError(400, 'body-not-json')
  if (Array.isArray(value)) return value.map((part) => keepable(part, depth + 1))
  return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, keepable(part, depth + 1)]))
}

/** Has handlers see only what can be kept. */
export const keepableBody: Middleware<RequestState> = async (ctx, next) => {
  const request = ctx.request as unknown as { body?: unknown }
  if (request.body !== undefined) request.body = keepable(request.body)
  await next()
}
