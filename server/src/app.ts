import { existsSync } from 'node:fs'
import { join } from 'node:path'
import Koa from 'koa'
import compress from 'koa-compress'
import helmet from 'koa-helmet'
import serveStatic from 'koa-static'
import type { Logger } from 'pino'
import { accessRoutes, auditFilesRoutes } from './access/routes.ts'
import { archiveRoutes } from './archive/routes.ts'
import { authRoutes } from './auth/routes.ts'
import type { Backups } from './backups/backups.ts'
import { backupsRoutes } from './backups/routes.ts'
import { bikesRoutes, pictureFilesRoutes } from './bikes/routes.ts'
import { careRoutes } from './care/routes.ts'
import { catalogueRoutes, catalogueTablesRoutes } from './catalogue/routes.ts'
import { CatalogueTables } from './catalogue/tables.ts'
import { chainsRoutes } from './chains/routes.ts'
import { customerFilesRoutes, customersRoutes } from './customers/routes.ts'
import type { Database } from './db/connection.ts'
import type { DeviceAddresses } from './devices/addresses.ts'
import { calendarRouter, diaryRoutes } from './diary/routes.ts'
import { distanceRoutes } from './distance/routes.ts'
import { forecastRoutes } from './forecast/routes.ts'
import { GaugeHub } from './gauge/hub.ts'
import { gaugeEventsRoutes, gaugeRoutes } from './gauge/routes.ts'
import { Health } from './health/routes.ts'
import { jsonBody, keepableBody, refuseLarge } from './http/body.ts'
import { sameSiteOnly } from './http/crossSite.ts'
import { failures, wentAway } from './http/failures.ts'
import { hostKnown, type Reached } from './http/host.ts'
import { numbered, type RequestState } from './http/request.ts'
import { Serving } from './http/serve.ts'
import { Importer } from './imports/importer.ts'
import { importsRoutes, rideFilesRoutes } from './imports/routes.ts'
import { instrumentsRoutes } from './instruments/routes.ts'
import { jobsRoutes } from './jobs/routes.ts'
import type { ShopJobs } from './queue/queue.ts'
import { limitsRoutes } from './limits/routes.ts'
import { looksRoutes } from './looks/routes.ts'
import { mendsRoutes } from './mends/routes.ts'
import { mailRoutes } from './mail/routes.ts'
import { messagesRoutes } from './messages/routes.ts'
import { hurryMail } from './messages/service.ts'
import { stopRouter } from './messages/stopRoutes.ts'
import { openApiRouter } from './openapi/routes.ts'
import { ordersRoutes } from './orders/routes.ts'
import type { Supplier } from './orders/supplier.ts'
import { componentsRoutes } from './components/routes.ts'
import { otherWearRoutes } from './otherWear/routes.ts'
import { partsRoutes } from './parts/routes.ts'
import { potRoutes } from './pot/routes.ts'
import { peopleRoutes } from './people/routes.ts'
import { Thermometers } from './pot/thermometers.ts'
import { readingsRoutes } from './readings/routes.ts'
import { WrongFrom } from './sessions/tries.ts'
import { shopRoutes } from './shop/routes.ts'
import { Printer } from './sheets/printer.ts'
import { sheetFilesRoutes, sheetsRoutes } from './sheets/routes.ts'
import { standRoutes } from './stand/routes.ts'
import { stockRoutes } from './stock/routes.ts'
import type { Secrets } from './secrets.ts'
import { studiesRoutes } from './studies/routes.ts'
import { tokensRoutes } from './tokens/routes.ts'
import { twinsRoutes } from './twins/routes.ts'
import { Scratch } from './transfers/scratch.ts'

/**
 * The whole server as one Koa application, without a port.
 *
 * @param parts `database` to serve from; `logger`; `webRoot` folder of the built web application, if any; `hub` of
 *   the gauges that send by themselves; `jobs` takes what outlives a request; `ridesService` is where the ride service listens,
 *   `supplier` where parts are ordered; both may be absent; `gateway` whether messages can be sent; `devices` where the server may talk to;
 *   `reached` under which names, and whether by a proxy
 */
export function createApp({
  database,
  logger,
  webRoot,
  devices,
  hub = new GaugeHub(database, devices),
  scratch = new Scratch(),
  jobs,
  importer = new Importer(database, logger),
  tables = new CatalogueTables(logger),
  printer = new Printer(logger),
  ridesService,
  supplier,
  thermometers = new Thermometers(database, devices),
  gateway = false,
  backups,
  secrets,
  reached = {},
}: {
  database: Database
  logger: Logger
  webRoot?: string
  devices: DeviceAddresses
  hub?: GaugeHub
  scratch?: Scratch
  jobs: ShopJobs
  importer?: Importer
  tables?: CatalogueTables
  printer?: Printer
  ridesService?: string
  supplier?: Supplier
  thermometers?: Thermometers
  gateway?: boolean
  backups?: Backups
  secrets?: Secrets
  reached?: Reached
}): Koa<RequestState> {
  const app = new Koa<RequestState>()
  // What a proxy says of the client counts only where one is said to stand before us.
  app.proxy = reached.proxy === true
  app.maxIpsCount = 1
  app.on('error', (error: NodeJS.ErrnoException) => {
    // A browser that went away in mid-answer is no fault.
    if (!wentAway(error)) logger.error({ err: error }, 'connection')
  })
  const serving = new Serving(database, scratch, logger)
  const tools = { database, wrongFrom: new WrongFrom() }
  authRoutes(serving, tools, hub)
  peopleRoutes(serving, tools, hub)
  accessRoutes(serving, hub)
  shopRoutes(serving, jobs)
  tokensRoutes(serving)
  twinsRoutes(serving)
  standRoutes(serving)
  bikesRoutes(serving)
  customersRoutes(serving)
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
  mailRoutes(serving, secrets, (work) => hurryMail(work, jobs))
  potRoutes(serving, thermometers)
  chainsRoutes(serving)
  mendsRoutes(serving)
  sheetsRoutes(serving)
  otherWearRoutes(serving)
  componentsRoutes(serving)
  ordersRoutes(serving, { database, supplier, jobs })
  forecastRoutes(serving, jobs)
  importsRoutes(serving, importer, { address: ridesService, secrets })
  instrumentsRoutes(serving, hub, devices)
  gaugeRoutes(serving, hub)
  studiesRoutes(serving)
  limitsRoutes(serving)
  looksRoutes(serving)
  archiveRoutes(serving)
  pictureFilesRoutes(serving)
  customerFilesRoutes(serving)
  auditFilesRoutes(serving)
  catalogueTablesRoutes(serving, tables)
  gaugeEventsRoutes(serving, hub)
  rideFilesRoutes(serving, importer)
  sheetFilesRoutes(serving, printer)
  const health = new Health(database)
  const openApi = openApiRouter()

  app.use(numbered(logger))
  app.use(failures(logger, (error) => health.noticed(error)))
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
      // Said only where the connection is known to be encrypted: a workshop without a certificate stays reachable.
      strictTransportSecurity: false,
    }),
  )
  app.use(hostKnown(reached))
  app.use(sameSiteOnly)
  app.use(calendarRouter(serving).routes())
  app.use(stopRouter(serving, secrets).routes())
  // Files are larger than any other request may be, and streams must not wait for compression.
  app.use(serving.files.routes())
  app.use(refuseLarge)
  app.use(compress())
  app.use(health.routes().routes())
  app.use(openApi.routes())
  app.use(jsonBody)
  app.use(keepableBody)
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
      if (!['GET', 'HEAD'].includes(ctx.method) || ctx.path.startsWith('/api/') || /\.\w+$/.test(ctx.path)) {
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
