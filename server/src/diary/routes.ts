import { createHash } from 'node:crypto'
import Router from '@koa/router'
import { endpoints } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import type { RequestState } from '../http/request.ts'
import type { Serving } from '../http/serve.ts'
import { calendarFeeds, calendarFile, leadsHere, makeFeed, revokeFeed } from './feeds.ts'
import { book, moveBooking, setClosed } from './service.ts'
import { diaryOf, diaryYear } from './store.ts'
import { SHOPS } from '../auth/models.ts'

export function diaryRoutes(serving: Serving): void {
  serving.serve(endpoints.diary, ({ work, session, query }) => diaryOf(work, session.shop.timeZone, query.days))
  serving.serve(endpoints.diaryYear, ({ work, session }) => diaryYear(work, session.shop.timeZone))
  serving.serve(endpoints.book, ({ work, session, body }) => book(work, session.shop.timeZone, body))
  serving.serve(endpoints.moveBooking, ({ work, session, params, version, body }) =>
    moveBooking(work, session.shop.timeZone, params.id, version, body),
  )
  serving.serve(endpoints.setClosed, ({ work, body }) => setClosed(work, body))
  serving.serve(endpoints.calendarFeeds, ({ work }) => calendarFeeds(work))
  serving.serve(endpoints.makeFeed, ({ work, session, body }) => makeFeed(work, session.shop.code, body))
  serving.serve(endpoints.revokeFeed, ({ work, params }) => revokeFeed(work, params.id))
}

/** Calendars as programs ask for them: by an address alone, to be read and nothing else. */
export function calendarRouter({ database }: Serving): Router<RequestState> {
  const router = new Router<RequestState>({ prefix: '/calendar' })
  router.get('/:shop/:token.ics', async (ctx) => {
    const { shop: code, token } = ctx.params
    const shop = await database.of(SHOPS).findOne({ where: { code: code ?? '' } })
    const file =
      shop &&
      (await inShop(database, shop.id, null, async (work) =>
        (await leadsHere(work, token ?? '')) ? calendarFile(work, shop) : null,
      ))
    if (!file) throw new ProblemError(404, 'feed-unknown')
    ctx.type = 'text/calendar; charset=utf-8'
    ctx.set('Cache-Control', 'private, max-age=300')
    const etag = `"${createHash('sha256').update(file).digest('base64url')}"`
    ctx.set('ETag', etag)
    // A calendar that has it as it is, is told so in few bytes.
    if (ctx.get('If-None-Match').includes(etag)) ctx.status = 304
    else ctx.body = file
  })
  return router
}
