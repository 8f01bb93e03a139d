import { rm } from 'node:fs/promises'
import Router from '@koa/router'
import { endpoints, WRITING_ROLES } from '@pelrin/contract'
import type { Context } from 'koa'
import { currentSession, type CurrentSession } from '../auth/currentSession.ts'
import { inShop, type Work } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'
import type { RequestState } from '../http/request.ts'
import type { Serving } from '../http/serve.ts'
import { ridesAsCsv, ridesAsGpx } from './exports.ts'
import { importsOf, type Importer } from './importer.ts'
import { accountOfBike, joinAccount, leaveAccount, pullRides } from './pull.ts'
import { receiveFiles } from './receive.ts'
import { cancelImport, confirmImport, rememberColumns, rideImport } from './service.ts'

/** @param service where the ride service listens, `host:port`; absent where there is none */
export function importsRoutes(serving: Serving, importer: Importer, service: string | undefined): void {
  const account = async (work: Work, bikeId: string) => ({ account: await accountOfBike(work, bikeId) })
  serving.serve(endpoints.rideAccount, ({ work, params }) => account(work, params.id))
  serving.serve(endpoints.joinRideAccount, async ({ work, params, body }) => ({
    account: await joinAccount(work, params.id, service, body),
  }))
  serving.serve(endpoints.leaveRideAccount, async ({ work, params }) => {
    await leaveAccount(work, params.id)
    return { account: null }
  })
  // A pull is many transactions of its own: what came of it stays, whatever stops it, and its cursor makes it once.
  serving.serveWaiting(endpoints.pullRides, async ({ params, session }) => ({
    account: await pullRides(
      serving.database,
      session.shop.id,
      { personId: session.person.id, deviceId: session.deviceId, requestId: null },
      params.id,
      service,
    ),
  }))
  serving.serve(endpoints.imports, ({ work, params }) => importsOf(work, params.id, importer))
  serving.serve(endpoints.rideImport, ({ work, params }) => rideImport(work, params.id))
  serving.serve(endpoints.confirmImport, async ({ work, params, body }) => {
    const done = await confirmImport(work, params.id, body.surface ?? null)
    importer.drop(params.id)
    return done
  })
  serving.serve(endpoints.cancelImport, async ({ work, params }) => {
    importer.drop(params.id)
    return cancelImport(work, params.id)
  })
  serving.serve(endpoints.mapColumns, async ({ work, params, body, session }) => {
    await rememberColumns(work, params.id, body.file, body.mapping)
    // Read once what was remembered is there for the thread to see.
    work.transaction.afterCommit(() => {
      const author = { personId: session.person.id, deviceId: session.deviceId, requestId: null }
      void importer.again(session.shop, author, params.id).catch(() => undefined)
    })
    return rideImport(work, params.id)
  })
}

const ID = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/

/** Uploads and downloads: no JSON, so they stand beside the contract's endpoints. */
export function rideFilesRouter(serving: Serving, importer: Importer): Router<RequestState> {
  const router = new Router<RequestState>({ prefix: '/api/v1' })
  const { database } = serving
  const signedIn = async (ctx: Context): Promise<CurrentSession> => {
    const session = await currentSession(database, ctx)
    if (!session) throw new ProblemError(401, 'not-signed-in')
    return session
  }
  router.post('/bikes/:id/imports', async (ctx) => {
    const koa = ctx as unknown as Context
    const session = await signedIn(koa)
    if (!WRITING_ROLES.includes(session.person.role)) throw new ProblemError(403, 'may-not-write')
    const { id: bikeId = '' } = ctx.params as { id?: string }
    // The key names the import: sent again, it is the same one.
    const key = koa.get('Idempotency-Key')
    if (!ID.test(key)) throw new ProblemError(400, 'idempotency-key-missing')
    if (!ID.test(bikeId)) throw new ProblemError(404, 'bike-unknown')
    const received = await receiveFiles(koa.req)
    const author = { personId: session.person.id, deviceId: session.deviceId, requestId: ctx.state.requestId }
    try {
      ctx.body = await importer.begin(session.shop, author, bikeId, key, received)
      ctx.status = 200
    } catch (error) {
      await rm(received.folder, { recursive: true, force: true })
      throw error
    }
  })
  const download = (
    path: string,
    type: string,
    file: string,
    of: (work: Work, bikeId: string) => Promise<string>,
  ): void => {
    router.get(path, async (ctx) => {
      const session = await signedIn(ctx)
      const { id: bikeId = '' } = ctx.params as { id?: string }
      if (!ID.test(bikeId)) throw new ProblemError(404, 'bike-unknown')
      ctx.body = await inShop(database, session.shop.id, null, (work) => of(work, bikeId))
      ctx.type = type
      ctx.attachment(file)
    })
  }
  download('/bikes/:id/rides.csv', 'text/csv', 'rides.csv', ridesAsCsv)
  download('/bikes/:id/rides.gpx', 'application/gpx+xml', 'rides.gpx', ridesAsGpx)
  return router
}
