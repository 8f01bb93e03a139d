import { endpoints, fileRoutes, type FileRoute } from '@pelrin/contract'
import { inShop, type Work } from '../db/work.ts'
import { isId } from '../http/id.ts'
import { ProblemError } from '../problems/problem.ts'
import type { Serving } from '../http/serve.ts'
import { inBackground } from '../queue/background.ts'
import { receiveFiles } from '../transfers/receive.ts'
import { ridesAsCsv, ridesAsGpx } from './exports.ts'
import { importsOf, type Importer } from './importer.ts'
import { accountOfBike, joinAccount, leaveAccount, pullRides, type RideService } from './pull.ts'
import { cancelImport, confirmImport, rememberColumns, rideImport } from './service.ts'

export function importsRoutes(serving: Serving, importer: Importer, service: RideService): void {
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
  serving.serveWaiting(endpoints.pullRides, async ({ params, session, author }) => ({
    account: await pullRides(serving.database, session.shop.id, author, params.id, service),
  }))
  serving.serve(endpoints.imports, ({ work, params }) => importsOf(work, params.id, importer))
  serving.serve(endpoints.rideImport, ({ work, params }) => rideImport(work, params.id))
  serving.serve(endpoints.confirmImport, async ({ work, params, body }) => {
    const done = await confirmImport(work, params.id, body.surface ?? null)
    await importer.drop(work.shopId, params.id)
    return done
  })
  serving.serve(endpoints.cancelImport, async ({ work, params }) => {
    await importer.drop(work.shopId, params.id)
    return cancelImport(work, params.id)
  })
  serving.serve(endpoints.mapColumns, async ({ work, params, body, session }) => {
    await rememberColumns(work, params.id, body.file, body.mapping)
    // Read once what was remembered is there for the thread to see.
    work.transaction.afterCommit(() => {
      const author = { personId: session.person.id, deviceId: session.deviceId, requestId: null }
      inBackground(serving.logger, 'import', () => importer.again(session.shop, author, params.id))
    })
    return rideImport(work, params.id)
  })
}

/** Uploads and downloads: no JSON, so they stand beside the contract's endpoints. */
export function rideFilesRoutes(serving: Serving, importer: Importer): void {
  const { database, scratch } = serving
  serving.file(fileRoutes.importRides, async ({ ctx, session, author, params }) => {
    const { id: bikeId = '' } = params
    // The key names the import: sent again, it is the same one.
    const key = ctx.get('Idempotency-Key')
    if (!isId(key)) throw new ProblemError(400, 'idempotency-key-missing')
    if (!isId(bikeId)) throw new ProblemError(404, 'bike-unknown')
    const received = await receiveFiles(ctx.req, scratch, session.shop.id)
    try {
      ctx.body = await importer.begin(session.shop, author, bikeId, key, received)
      ctx.status = 200
    } catch (error) {
      await received.folder.remove()
      throw error
    }
  })
  const download = (
    route: FileRoute,
    type: string,
    file: string,
    of: (work: Work, bikeId: string) => Promise<string>,
  ): void =>
    serving.file(route, async ({ ctx, session, params }) => {
      const { id: bikeId = '' } = params
      if (!isId(bikeId)) throw new ProblemError(404, 'bike-unknown')
      ctx.body = await inShop(database, session.shop.id, null, (work) => of(work, bikeId))
      ctx.type = type
      ctx.attachment(file)
    })
  download(fileRoutes.ridesCsv, 'text/csv', 'rides.csv', ridesAsCsv)
  download(fileRoutes.ridesGpx, 'application/gpx+xml', 'rides.gpx', ridesAsGpx)
}
