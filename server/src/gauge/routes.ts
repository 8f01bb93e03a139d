import Router from '@koa/router'
import { endpoints, STAND_IN } from '@pelrin/contract'
import { currentSession } from '../auth/currentSession.ts'
import type { Database } from '../db/connection.ts'
import { inShop } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'
import type { RequestState } from '../http/request.ts'
import type { Serving } from '../http/serve.ts'
import { instrumentById } from '../instruments/store.ts'
import type { GaugeHub } from './hub.ts'

export function gaugeRoutes(serving: Serving, hub: GaugeHub): void {
  serving.serve(endpoints.moveStandIn, async ({ work, params, body }) => {
    const instrument = await instrumentById(work, params.id)
    if (!instrument) throw new ProblemError(404, 'instrument-unknown')
    if (instrument.connection !== STAND_IN) throw new ProblemError(409, 'gauge-no-stand-in')
    const link = hub.link(params.id)
    if (body.do === 'unplug') link?.drop()
    else {
      const line =
        body.do === 'press'
          ? 'PRESS'
          : body.do === 'squeeze'
            ? 'SQUEEZE'
            : body.do === 'wear'
              ? `WEAR ${body.percent}`
              : `FAULT ${body.fault} ${body.on ? 'on' : 'off'}`
      if (link?.send(line) !== true) throw new ProblemError(409, 'gauge-not-connected')
    }
    return undefined
  })
}

/** The stream of a gauge's events. It is no request with an answer, so it stands beside the contract's endpoints. */
export function gaugeEventsRouter(database: Database, hub: GaugeHub): Router<RequestState> {
  const router = new Router<RequestState>({ prefix: '/api/v1' })
  router.get('/instruments/:id/events', async (ctx) => {
    const session = await currentSession(database, ctx)
    if (!session) throw new ProblemError(401, 'not-signed-in')
    const { id = '' } = ctx.params as { id?: string }
    const own = await inShop(database, session.shop.id, null, (work) => instrumentById(work, id))
    if (!own) throw new ProblemError(404, 'instrument-unknown')
    const asked = (name: string): string => {
      const value = ctx.query[name]
      return typeof value === 'string' ? value.slice(0, 80) : ''
    }
    // The stream answers by itself, for as long as the screen watches.
    ctx.respond = false
    ctx.res.statusCode = 200
    if (!(await hub.watch(id, { holder: asked('holder'), after: asked('after') }, ctx.req, ctx.res))) {
      ctx.respond = true
      throw new ProblemError(409, 'gauge-not-connected')
    }
  })
  return router
}
