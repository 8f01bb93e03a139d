import { existsSync } from 'node:fs'
import { join } from 'node:path'
import Koa from 'koa'
import compress from 'koa-compress'
import helmet from 'koa-helmet'
import serveStatic from 'koa-static'
import type { Logger } from 'pino'
import { archiveRouter } from './archive/routes.ts'
import { authRoutes } from './auth/routes.ts'
import type { BackupTools } from './backups/backup.ts'
import { backupsRoutes } from './backups/routes.ts'
import { bikesRoutes } from './bikes/routes.ts'
import { careRoutes } from './care/routes.ts'
import { catalogueRoutes, catalogueTablesRouter } from './catalogue/routes.ts'
import { CatalogueTables } from './catalogue/tables.ts'
import { chainsRoutes } from './chains/routes.ts'
import type { Database } from './db/connection.ts'
import { calendarRouter, diaryRoutes } from './diary/routes.ts'
import { distanceRoutes } from './distance/routes.ts'
import { forecastRoutes } from './forecast/routes.ts'
import { GaugeHub } from './gauge/hub.ts'
import { gaugeEventsRouter, gaugeRoutes } from './gauge/routes.ts'
import { healthRouter } from './health/routes.ts'
import { jsonBody, refuseLarge } from './http/body.ts'
import { sameSiteOnly } from './http/crossSite.ts'
import { failures } from './http/failures.ts'
import { numbered, type RequestState } from './http/request.ts'
import { Serving } from './http/serve.ts'
import { Importer } from './imports/importer.ts'
import { importsRoutes, rideFilesRouter } from './imports/routes.ts'
import { instrumentsRoutes } from './instruments/routes.ts'
import { jobsRoutes } from './jobs/routes.ts'
import type { ShopJobs } from './queue/queue.ts'
import { limitsRoutes } from './limits/routes.ts'
import { mendsRoutes } from './mends/routes.ts'
import { messagesRoutes } from './messages/routes.ts'
import { openApiRouter } from './openapi/routes.ts'
import { ordersRoutes } from './orders/routes.ts'
import type { Supplier } from './orders/supplier.ts'
import { otherWearRoutes } from './otherWear/routes.ts'
import { partsRoutes } from './parts/routes.ts'
import { potRoutes } from './pot/routes.ts'
import { Thermometers } from './pot/thermometers.ts'
import { readingsRoutes } from './readings/routes.ts'
import { sheetFilesRouter, sheetsRoutes } from './sheets/routes.ts'
import { standRoutes } from './stand/routes.ts'
import { stockRoutes } from './stock/routes.ts'
import { studiesRoutes } from './studies/routes.ts'

const GONE_AWAY: readonly string[] = ['ECONNRESET', 'EPIPE', 'ERR_STREAM_PREMATURE_CLOSE']

/**
 * The whole server as one Koa application, without a port.
 *
 * @param parts `database` to serve from; `logger`; `webRoot` folder of the built web application, if any; `hub` of
 *   the gauges that send by themselves; `jobs` takes what outlives a request; `ridesService` is where the ride service listens,
 *   `supplier` where parts are ordered; both may be absent; `gateway` whether messages can be sent
 */
export function createApp({
  database,
  logger,
  webRoot,
  hub = new GaugeHub(database),
  jobs,
  importer = new Importer(database, logger),
  tables = new CatalogueTables(logger),
  ridesService,
  supplier,
  thermometers = new Thermometers(database),
  gateway = false,
  backups,
}: {
  database: Database
  logger: Logger
  webRoot?: string
  hub?: GaugeHub
  jobs: ShopJobs
  importer?: Importer
  tables?: CatalogueTables
  ridesService?: string
  supplier?: Supplier
  thermometers?: Thermometers
  gateway?: boolean
  backups?: BackupTools
}): Koa<RequestState> {
  const app = new Koa<RequestState>()
  app.on('error', (error: NodeJS.ErrnoException) => {
    // A browser that went away in mid-answer is no fault.
    if (!GONE_AWAY.includes(error.code ?? '')) logger.error({ err: error }, 'connection')
  })
  const serving = new Serving(database)
  authRoutes(serving)
  standRoutes(serving)
  bikesRoutes(serving)
  readingsRoutes(serving)
  distanceRoutes(serving)
  partsRoutes(serving)
  catalogueRoutes(serving)
  stockRoutes(serving)
  jobsRoutes(serving)
  careRoutes(serving)
  backupsRoutes(serving, backups)
  diaryRoutes(serving)
  messagesRoutes(serving, { gateway, jobs })
  potRoutes(serving, thermometers)
  chainsRoutes(serving)
  mendsRoutes(serving)
  sheetsRoutes(serving)
  otherWearRoutes(serving)
  ordersRoutes(serving, { database, supplier, jobs })
  forecastRoutes(serving, jobs)
  importsRoutes(serving, importer, ridesService)
  instrumentsRoutes(serving, hub)
  gaugeRoutes(serving, hub)
  studiesRoutes(serving)
  limitsRoutes(serving)
  const health = healthRouter(database)
  const openApi = openApiRouter()

  app.use(numbered(logger))
  app.use(failures(logger))
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          // Styles are set by the component library as it runs; scripts never are.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:'],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    }),
  )
  app.use(sameSiteOnly)
  const rideFiles = rideFilesRouter(serving, importer)
  // Files are larger than any other request may be.
  app.use(rideFiles.routes())
  app.use(catalogueTablesRouter(serving, tables).routes())
  app.use(sheetFilesRouter(serving).routes())
  app.use(calendarRouter(serving).routes())
  app.use(archiveRouter(serving).routes())
  app.use(refuseLarge)
  // Before compression, which would hold events back.
  app.use(gaugeEventsRouter(database, hub).routes())
  app.use(compress())
  app.use(health.routes())
  app.use(openApi.routes())
  app.use(jsonBody)
  app.use(serving.router.routes())
  app.use(serving.router.allowedMethods())
  if (webRoot !== undefined && existsSync(webRoot)) {
    app.use(
      serveStatic(webRoot, {
        index: false,
        // Built files carry their content's hash in their name.
        setHeaders: (response, path) =>
          path.includes('/assets/') && response.setHeader('Cache-Control', 'public, max-age=31536000, immutable'),
      }),
    )
    app.use(async (ctx, next) => {
      if (ctx.method !== 'GET' || ctx.path.startsWith('/api/') || /\.\w+$/.test(ctx.path)) {
        await next()
        return
      }
      // Every other address is a place of the application, which finds its own way from there.
      ctx.path = '/index.html'
      ctx.set('Cache-Control', 'no-cache')
      await serveStatic(webRoot)(ctx, next)
    })
  }
  return app
}

/** Where the built web application lies. */
export const WEB_ROOT = join(import.meta.dirname, '../../web/dist')
