import Router from '@koa/router'
import * as v from 'valibot'
import { endpoints, sheetsEndpoints } from '@pelrin/contract'
import { currentSession } from '../auth/currentSession.ts'
import { inShop } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'
import type { RequestState } from '../http/request.ts'
import type { Serving } from '../http/serve.ts'
import { sheetAsPdf } from './page.ts'
import { sheetOf } from './service.ts'
import { localeOf, Words } from './words.ts'

export function sheetsRoutes(serving: Serving): void {
  serving.serve(endpoints.sheet, ({ work, params, query }) => sheetOf(work, params.id, params.kind, query.locale))
}

const { params: Params, query: Query } = sheetsEndpoints.sheet

/** Sheets as files to print: no JSON, so they stand beside the contract's endpoints. */
export function sheetFilesRouter({ database }: Serving): Router<RequestState> {
  const router = new Router<RequestState>({ prefix: '/api/v1' })
  router.get('/bikes/:id/sheets/:kind.pdf', async (ctx) => {
    const session = await currentSession(database, ctx)
    if (!session) throw new ProblemError(401, 'not-signed-in')
    const params = v.safeParse(Params, ctx.params)
    const query = v.safeParse(Query, ctx.query)
    if (!params.success || !query.success) throw new ProblemError(404, 'sheet-unknown')
    const { id, kind } = params.output
    const { locale } = query.output
    const sheet = await inShop(database, session.shop.id, null, (work) => sheetOf(work, id, kind, locale))
    ctx.body = await sheetAsPdf(sheet, new Words(localeOf(locale), session.shop.timeZone, session.shop.distanceUnit))
    ctx.type = 'application/pdf'
    ctx.attachment(`${kind}.pdf`, { type: 'inline' })
  })
  return router
}
