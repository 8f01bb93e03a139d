import { isIP } from 'node:net'
import { hostname } from 'node:os'
import type { Middleware } from 'koa'
import { ProblemError } from '../problems/problem.ts'
import type { RequestState } from './request.ts'

/** How clients reach the server, as whoever runs it has set it. */
export interface Reached {
  /** Whether a proxy stands before it, whose word on the client's address and on encryption counts. */
  readonly proxy?: boolean
  /** Names it is reached under, beside the machine's own and plain addresses. */
  readonly hosts?: readonly string[]
}

/** A year, as browsers want it before they believe. */
const STRICT = 'max-age=31536000'

/**
 * Answers only under names that are its own, so that no page of another site can have its name lead here; and once the connection is known to
 * be encrypted, has browsers come by no other way again.
 */
export function hostKnown({ hosts = [] }: Reached): Middleware<RequestState> {
  const known = new Set(['localhost', hostname(), `${hostname()}.local`, ...hosts].map((name) => name.toLowerCase()))
  return async (ctx, next) => {
    const name = ctx.hostname.toLowerCase()
    if (isIP(name.replace(/^\[|\]$/g, '')) === 0 && !known.has(name)) throw new ProblemError(421, 'host-unknown')
    if (ctx.secure) ctx.set('Strict-Transport-Security', STRICT)
    await next()
  }
}
