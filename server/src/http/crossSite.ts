import type { Middleware } from 'koa'
import type { RequestState } from './request.ts'
import { ProblemError } from '../problems/problem.ts'

/**
 * Defence against forged requests, beside the same-site cookie: a browser says where a request comes from, and
 * only our own pages may change anything. Programs without a browser send neither header and no cookie of ours.
 */
export const sameSiteOnly: Middleware<RequestState> = async (ctx, next) => {
  if (!['GET', 'HEAD', 'OPTIONS'].includes(ctx.method)) {
    const site = ctx.get('Sec-Fetch-Site')
    const origin = ctx.get('Origin')
    if (site !== '' && site !== 'same-origin' && site !== 'none') throw new ProblemError(403, 'cross-site')
    if (origin !== '' && (!URL.canParse(origin) || new URL(origin).host !== ctx.host))
      throw new ProblemError(403, 'cross-site')
  }
  await next()
}
