import { endpoints, fileRoutes, may, STAND_IN } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { isId } from '../http/id.ts'
import type { Serving } from '../http/serve.ts'
import { instrumentById } from '../instruments/store.ts'
import type { GaugeHub } from './hub.ts'

export function gaugeRoutes(serving: Serving, hub: GaugeHub): void {
  serving.serve(endpoints.moveStandIn, async ({ work, params, body }) => {
    const instrument = await instrumentById(work, params.id)
    if (!instrument) throw new ProblemError(404, 'instrument-unknown')
    if (instrument.connection !== STAND_IN) throw new ProblemError(409, 'gauge-no-stand-in')
    const link = hub.link(work.shopId, params.id)
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
export function gaugeEventsRoutes(serving: Serving, hub: GaugeHub): void {
  serving.file(fileRoutes.gaugeEvents, async ({ ctx, session, params }) => {
    const { id = '' } = params
    const { shop, person, tokenHash } = session
    const own = isId(id) && (await inShop(serving.database, shop.id, null, (work) => instrumentById(work, id)))
    if (!own) throw new ProblemError(404, 'instrument-unknown')
    const asked = (name: string): string => {
      const value = ctx.query[name]
      return typeof value === 'string' ? value.slice(0, 80) : ''
    }
    // The stream answers by itself, for as long as the screen watches.
    ctx.respond = false
    ctx.res.statusCode = 200
    const watched = await hub.watch(
      { shopId: shop.id, instrumentId: id },
      {
        // Who only looks sees what it says and takes it from nobody.
        holder: may(person.role, 'record') ? asked('holder') : null,
        after: asked('after'),
        session: tokenHash.toString('hex'),
      },
      ctx.req,
      ctx.res,
    )
    if (!watched) {
      ctx.respond = true
      throw new ProblemError(409, 'gauge-not-connected')
    }
  })
}
