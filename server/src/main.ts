import type { AddressInfo } from 'node:net'
import { pino } from 'pino'
import { createApp, WEB_ROOT } from './app.ts'
import { BackupsOfParent } from './backups/backups.ts'
import { CatalogueTables } from './catalogue/tables.ts'
import { openForServing } from './db/connection.ts'
import { LOGGED } from './db/logged.ts'
import { databaseWentAway } from './db/refused.ts'
import { DeviceAddresses } from './devices/addresses.ts'
import { GaugeHub } from './gauge/hub.ts'
import { keepHouse } from './housekeeping.ts'
import { Importer } from './imports/importer.ts'
import { drainOutbox } from './messages/drain.ts'
import { Gateway } from './messages/gateway.ts'
import { settleOrder } from './orders/service.ts'
import { Supplier } from './orders/supplier.ts'
import { Thermometers } from './pot/thermometers.ts'
import { inBackground } from './queue/background.ts'
import { Queue } from './queue/queue.ts'
import { Secrets } from './secrets.ts'
import { Printer } from './sheets/printer.ts'
import { continueRebuild, shopsToRebuild } from './state/rebuild.ts'
import { Scratch } from './transfers/scratch.ts'

/**
 * Serves until told to stop. Settings come from the environment; docs/running.md tells them: DATABASE_URL, HOST, PORT, LOG_LEVEL, TRUST_PROXY,
 * PUBLIC_HOSTS, DEVICE_ADDRESSES, GAUGE_STAND_IN, RIDES_STAND_IN, SUPPLIER, SUPPLIER_TOKEN, THERMOMETER, GATEWAY, GATEWAY_TOKEN, BACKUPS,
 * ONLY_SERVER, SECRET_KEY.
 */
const url = process.env['DATABASE_URL']
if (url === undefined) throw new Error('DATABASE_URL is not set')
const logger = pino({ level: process.env['LOG_LEVEL'] ?? 'info', ...LOGGED }, pino.destination(2))

/** A rebuild goes on for so long before others have their turn, ms. */
const REBUILD_MS = 10_000
const HOURLY_MS = 3_600_000
/** How often streams of sessions that are over are looked for, ms. */
const STREAMS_MS = 15_000
/** A stop takes no longer than this, whatever hangs, ms. */
const LONGEST_STOP_MS = 4_000

// What escaped all that waits for it. The database going away is told by each request; anything else may have left things half done, and the
// process that started this one starts another.
function escaped(error: unknown): void {
  logger.fatal({ err: error }, 'escaped')
  if (!databaseWentAway(error)) stop(1)
}
process.on('unhandledRejection', escaped)
process.on('uncaughtException', escaped)

const database = await openForServing(url)
const devices = new DeviceAddresses(process.env['DEVICE_ADDRESSES'] ?? '')
const scratch = new Scratch()
const hub = new GaugeHub(database, devices, process.env['GAUGE_STAND_IN'])
const thermometers = new Thermometers(database, devices, process.env['THERMOMETER'])
const ridesService = process.env['RIDES_STAND_IN']
const supplierAddress = process.env['SUPPLIER']
const supplier =
  supplierAddress === undefined ? undefined : new Supplier(supplierAddress, process.env['SUPPLIER_TOKEN'] ?? '')
const gatewayAddress = process.env['GATEWAY']
const gateway =
  gatewayAddress === undefined ? undefined : new Gateway(gatewayAddress, process.env['GATEWAY_TOKEN'] ?? '')
const secretKey = process.env['SECRET_KEY'] ?? ''
const secrets = secretKey === '' ? undefined : new Secrets(secretKey)
const backups = process.env['BACKUPS'] === 'parent' ? new BackupsOfParent() : undefined
const printer = new Printer(logger)
const queue: Queue = new Queue(
  url,
  logger,
  {
    settle: async (shopId, orderId) => {
      const { state } = await settleOrder({ database, supplier, jobs: queue }, shopId, orderId)
      return state !== 'sending' && state !== 'unsure'
    },
    ...(backups ? { backUp: () => backups.make() } : {}),
    drain: (shopId) => drainOutbox({ database, gateway, mail: secrets && { secrets, printer } }, shopId),
    rebuild: (shopId) => continueRebuild(database, shopId, Date.now() + REBUILD_MS),
  },
  process.env['ONLY_SERVER'] === 'yes',
)
const tables = new CatalogueTables(logger)
const importer = new Importer(database, logger)
const server = createApp({
  database,
  logger,
  webRoot: WEB_ROOT,
  devices,
  hub,
  scratch,
  jobs: queue,
  importer,
  tables,
  printer,
  thermometers,
  gateway: gateway !== undefined,
  reached: {
    proxy: process.env['TRUST_PROXY'] === 'yes',
    hosts: [...(process.env['PUBLIC_HOSTS'] ?? '').split(','), process.env['HOST'] ?? ''].filter((name) => name !== ''),
  },
  ...(backups ? { backups } : {}),
  ...(secrets ? { secrets } : {}),
  ...(supplier === undefined ? {} : { supplier }),
  ...(ridesService === undefined ? {} : { ridesService }),
}).listen(Number(process.env['PORT'] ?? 7340), process.env['HOST'] ?? '127.0.0.1')
// Who takes longer to say what they want is not waited for.
server.headersTimeout = 15_000
server.requestTimeout = 30 * 60_000

const timers: NodeJS.Timeout[] = []
const every = (ms: number, what: string, job: () => Promise<unknown>): void => {
  inBackground(logger, what, job)
  timers.push(setInterval(() => inBackground(logger, what, job), ms))
}

server.on('listening', () => {
  inBackground(logger, 'gauges', () => hub.start())
  inBackground(logger, 'thermometers', () => thermometers.start())
  inBackground(logger, 'queue', async () => {
    await queue.startPatiently()
    for (const shopId of await shopsToRebuild(database)) await queue.rebuildShop(shopId)
  })
  every(HOURLY_MS, 'housekeeping', () => keepHouse(database, scratch, secrets))
  every(STREAMS_MS, 'streams', () => hub.endOver())
  process.send?.({ listening: (server.address() as AddressInfo).port })
})
server.on('error', (error: NodeJS.ErrnoException) => {
  process.send?.({ failed: error.code ?? error.message })
  process.exit(1)
})

let stopping = false
/** Takes no new request, finishes those under way, lets go of the database. Ends in any case. */
function stop(code: number): void {
  if (stopping) return
  stopping = true
  setTimeout(() => process.exit(code), LONGEST_STOP_MS).unref()
  for (const timer of timers) clearInterval(timer)
  letGo().then(
    () => process.exit(code),
    (error: unknown) => {
      logger.error({ err: error }, 'stop')
      process.exit(code)
    },
  )
}

async function letGo(): Promise<void> {
  hub.close()
  thermometers.close()
  server.closeIdleConnections()
  const closed = new Promise((done) => server.close(done))
  // A connection that will not end does not hold up the stop.
  const impatient = setTimeout(() => server.closeAllConnections(), 2_000)
  await closed
  clearTimeout(impatient)
  await importer.close()
  await tables.close()
  await printer.close()
  await queue.stop()
  await database.close()
}
process.on('SIGTERM', () => stop(0))
process.on('SIGINT', () => stop(0))
// The start command is gone: nobody would stop us later.
process.on('disconnect', () => stop(0))
