import * as v from 'valibot'
import { ById, endpoints, fileRoutes } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import type { Serving } from '../http/serve.ts'
import { ProblemError } from '../problems/problem.ts'
import { smallBody } from '../transfers/receive.ts'
import { addBike } from './addBike.ts'
import { changeBike } from './changeBike.ts'
import { findCustomers } from './customers.ts'
import { decide, withdrawDecision } from './decide.ts'
import { findBikes } from './find.ts'
import { dropPicture, keepPicture, PICTURE_BYTES, pictureBytes } from './picture.ts'
import { rackPage } from './rack.ts'
import { bikeRecord } from './record.ts'

/** Pictures: no JSON, so they stand beside the contract's endpoints. */
export function pictureFilesRoutes(serving: Serving): void {
  const { database } = serving
  serving.file(fileRoutes.bikePicture, async ({ ctx, session, params }) => {
    ctx.body = await inShop(database, session.shop.id, null, (work) => pictureBytes(work, knownId(params)))
    ctx.type = 'image/jpeg'
    // The next picture has another address.
    ctx.set('Cache-Control', 'private, max-age=31536000, immutable')
  })
  serving.file(fileRoutes.keepPicture, async ({ ctx, session, author, params }) => {
    const id = knownId(params)
    const jpeg = await smallBody(ctx.req, PICTURE_BYTES)
    ctx.body = await inShop(database, session.shop.id, author, (work) => keepPicture(work, id, jpeg))
  })
}

const knownId = (params: Readonly<Record<string, string>>): string => {
  const given = v.safeParse(ById, params)
  if (!given.success) throw new ProblemError(404, 'bike-unknown')
  return given.output.id
}

export function bikesRoutes(serving: Serving): void {
  serving.serve(endpoints.rack, ({ work, query, session }) => rackPage(work, query, session.shop.timeZone))
  serving.serve(endpoints.customers, ({ work, query }) => findCustomers(work, query.q))
  serving.serve(endpoints.addBike, ({ work, body }) => addBike(work, body))
  serving.serve(endpoints.find, ({ work, query }) => findBikes(work, query.q))
  serving.serve(endpoints.bike, ({ work, params }) => bikeRecord(work, params.id))
  serving.serve(endpoints.dropPicture, async ({ work, params }) => {
    await dropPicture(work, params.id)
    return bikeRecord(work, params.id)
  })
  serving.serve(endpoints.decide, ({ work, params, body }) => decide(work, params.id, body))
  serving.serve(endpoints.withdrawDecision, ({ work, params, body }) => withdrawDecision(work, params.id, body))
  serving.serve(endpoints.changeBike, ({ work, params, version, body }) => changeBike(work, params.id, version, body))
}
