import type { AddressInfo } from 'node:net'
import { pino } from 'pino'
import { createApp, WEB_ROOT } from './app.ts'
import { makeBackup } from './backups/backup.ts'
import { CatalogueTables } from './catalogue/tables.ts'
import { openForServing } from './db/connection.ts'
import { GaugeHub } from './gauge/hub.ts'
import { Importer } from './imports/importer.ts'
import { drainOutbox } from './messages/drain.ts'
import { Gateway } from './messages/gateway.ts'
import { Queue } from './queue/queue.ts'
import { Thermometers } from './pot/thermometers.ts'
import { settleOrder } from './orders/service.ts'
import { Supplier } from './orders/supplier.ts'

/** Serves until told to stop. Settings come from the environment: DATABASE_URL, HOST, PORT, LOG_LEVEL, GAUGE_STAND_IN, RIDES_STAND_IN, SUPPLIER, SUPPLIER_TOKEN, THERMOMETER, GATEWAY, GATEWAY_TOKEN, BACKUP_URL, BACKUP_FOLDER, POSTGRES_PROGRAMS. */
const url = process.env['DATABASE_URL']
if (url === undefined) throw new Error('DATABASE_URL is not set')
const logger = pino({ level: process.env['LOG_LEVEL'] ?? 'info' }, pino.destination(2))
const database = await openForServing(url)
const hub = new GaugeHub(database, process.env['GAUGE_STAND_IN'])
const thermometers = new Thermometers(database, process.env['THERMOMETER'])
const ridesService = process.env['RIDES_STAND_IN']
const supplierAddress = process.env['SUPPLIER']
const supplier =
  supplierAddress === undefined ? undefined : new Supplier(supplierAddress, process.env['SUPPLIER_TOKEN'] ?? '')
const gatewayAddress = process.env['GATEWAY']
const gateway =
  gatewayAddress === undefined ? undefined : new Gateway(gatewayAddress, process.env['GATEWAY_TOKEN'] ?? '')
const backups =
  process.env['BACKUP_URL'] === undefined
    ? undefined
    : {
        url: process.env['BACKUP_URL'],
        folder: process.env['BACKUP_FOLDER'] ?? 'backups',
        programs: process.env['POSTGRES_PROGRAMS'] ?? '/usr/bin',
      }
const queue: Queue = new Queue(url, logger, {
  settle: async (shopId, orderId) => {
    const { state } = await settleOrder({ database, supplier, jobs: queue }, shopId, orderId)
    return state !== 'sending' && state !== 'unsure'
  },
  ...(backups ? { backUp: () => makeBackup(backups, new Date()) } : {}),
  drain: (shopId) => (gateway ? drainOutbox({ database, gateway }, shopId) : Promise.resolve(null)),
})
const tables = new CatalogueTables(logger)
const importer = new Importer(database, logger)
const server = createApp({
  database,
  logger,
  webRoot: WEB_ROOT,
  hub,
  jobs: queue,
  importer,
  tables,
  thermometers,
  gateway: gateway !== undefined,
  ...(backups ? { backups } : {}),
  ...(supplier === undefined ? {} : { supplier }),
  ...(ridesService === undefined ? {} : { ridesService }),
}).listen(Number(process.env['PORT'] ?? 7340), process.env['HOST'] ?? '127.0.0.1')

server.on('listening', () => {
  hub.start().catch((error: unknown) => logger.error({ err: error }, 'gauges'))
  thermometers.start().catch((error: unknown) => logger.error({ err: error }, 'thermometers'))
  queue.start().catch((error: unknown) => logger.error({ err: error }, 'queue'))
  process.send?.({ listening: (server.address() as AddressInfo).port })
})
server.on('error', (error: NodeJS.ErrnoException) => {
  process.send?.({ failed: error.code ?? error.message })
  process.exit(1)
})

let stopping = false
/** Takes no new request, finishes those under way, lets go of the database. */
async function stop(): Promise<void> {
  if (stopping) return
  stopping = true
  hub.close()
  thermometers.close()
  server.closeIdleConnections()
  const closed = new Promise((done) => server.close(done))
  // A connection that will not end does not hold up the stop.
  const impatient = setTimeout(() => server.closeAllConnections(), 4_000)
  await closed
  clearTimeout(impatient)
  await importer.close()
  await tables.close()
  await queue.stop()
  await database.close()
  process.exit(0)
}
process.on('SIGTERM', () => void stop())
process.on('SIGINT', () => void stop())
// The start command is gone: nobody would stop us later.
process.on('disconnect', () => void stop())
