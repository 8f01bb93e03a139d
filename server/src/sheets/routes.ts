import * as v from 'valibot'
import { endpoints, fileRoutes, sheetsEndpoints } from '@pelrin/contract'
import { rhythmCalendar } from './rhythmCalendar.ts'
import { inShop } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import type { Serving } from '../http/serve.ts'
import type { Printer } from './printer.ts'
import { sheetOf } from './service.ts'
import { localeOf, Words } from './words.ts'

export function sheetsRoutes(serving: Serving): void {
  serving.serve(endpoints.sheet, ({ work, params, query }) => sheetOf(work, params.id, params.kind, query.locale))
}

const { params: Params, query: Query } = sheetsEndpoints.sheet

/** Sheets as files to print: no JSON, so they stand beside the contract's endpoints. */
export function sheetFilesRoutes(serving: Serving, printer: Printer): void {
  serving.file(fileRoutes.rhythmCalendar, async ({ ctx, session, params }) => {
    const { shop } = session
    const { id = '' } = params
    const words = new Words(localeOf('en-GB'), shop.timeZone, shop.distanceUnit, shop.currency)
    ctx.body = await inShop(serving.database, shop.id, null, (work) => rhythmCalendar(work, id, words))
    ctx.type = 'text/calendar; charset=utf-8'
    ctx.attachment('chain.ics')
  })
  serving.file(fileRoutes.sheetPdf, async ({ ctx, session, params: given }) => {
    const params = v.safeParse(Params, given)
    const query = v.safeParse(Query, ctx.query)
    if (!params.success || !query.success) throw new ProblemError(404, 'sheet-unknown')
    const { id, kind } = params.output
    const { locale } = query.output
    const { shop } = session
    const sheet = await inShop(serving.database, shop.id, null, (work) => sheetOf(work, id, kind, locale))
    ctx.body = await printer.print(shop.id, {
      sheet,
      locale: localeOf(locale),
      timeZone: shop.timeZone,
      unit: shop.distanceUnit,
      currency: shop.currency,
    })
    ctx.type = 'application/pdf'
    ctx.attachment(`${kind}.pdf`, { type: 'inline' })
  })
}
