import type { AddressInfo } from 'node:net'
import pg from 'pg'
import { pino } from 'pino'
import { v7 } from 'uuid'
import { inject } from 'vitest'
import type { ShopSettings } from '@pelrin/contract'
import { createApp } from '../app.ts'
import { openDatabase, openForServing, type Database } from '../db/index.ts'
import { DeviceAddresses } from '../devices/addresses.ts'
import learnFrom from '../forecast/learnFrom.ts'
import { continueRun } from '../forecast/runs.ts'
import type { Reached } from '../http/host.ts'
import { Importer } from '../imports/importer.ts'
import type { ShopJobs } from '../queue/queue.ts'
import { drainOutbox } from '../messages/drain.ts'
import { Gateway } from '../messages/gateway.ts'
import { beginShop, linkForOwner } from '../people/ownersLink.ts'
import { settleOrder } from '../orders/service.ts'
import { Thermometers } from '../pot/thermometers.ts'
import { Supplier } from '../orders/supplier.ts'
import { Secrets } from '../secrets.ts'
import { Printer } from '../sheets/printer.ts'
import { continueRebuild } from '../state/rebuild.ts'
import { EMPTY_DATABASE } from './cluster.ts'
import { Device } from './device.ts'

export { Device, type Answer } from './device.ts'
export { bikeNamed, fittingOn, readingOf } from './reading.ts'

/** A server on a database of its own, holding the demo shop. */
export interface RunningShop {
  readonly base: string
  readonly database: Database
  readonly url: string
  /** A device signed in as the owner. */
  readonly device: Device
  close(): Promise<void>
}

const inDatabaseOf = (url: string, as: string): string => {
  const address = new URL(as)
  address.pathname = new URL(url).pathname
  return address.toString()
}

/** A database's address as its superuser, whom no policy holds back. */
export const superuserOf = (url: string): string => inDatabaseOf(url, inject('adminUrl'))

/** A database's address as the owner of its tables. */
export const ownerOf = (url: string): string => inDatabaseOf(url, inject('ownerUrl'))

export async function asSuperuser(sql: string): Promise<void> {
  const address = new URL(inject('adminUrl'))
  address.pathname = '/postgres'
  const client = new pg.Client({ connectionString: address.toString() })
  await client.connect()
  await client.query(sql)
  await client.end()
}

/** A database of its own, copied from the one with the demo shop, or from the one with none. */
export async function copyOfDemo(from = 'pelrin'): Promise<{ url: string; drop: () => Promise<void> }> {
  const name = `copy_${v7().replaceAll('-', '')}`
  await asSuperuser(`CREATE DATABASE ${name} TEMPLATE ${from} OWNER pelrin_owner`)
  const url = new URL(inject('databaseUrl'))
  url.pathname = `/${name}`
  return { url: url.toString(), drop: () => asSuperuser(`DROP DATABASE ${name} WITH (FORCE)`) }
}

/** Services beside the shop, `host:port` each; those left out are not there. */
export interface Outside {
  readonly ridesService?: string
  readonly supplier?: string
  readonly thermometer?: string
  readonly gateway?: string
  /** Whether what waits in the outbox is sent by mail. */
  readonly mails?: boolean
  /** What is sealed is sealed by these; others each time where left out. */
  readonly secrets?: Secrets
  /** How the server is reached. */
  readonly reached?: Reached
}

/** Devices of the tests are on this machine. */
export const HERE = new DeviceAddresses('127.0.0.1:*')

/** Serves a database on a free port. */
export async function serveDatabase(
  url: string,
  {
    ridesService,
    supplier: address,
    thermometer,
    gateway: gatewayAddress,
    mails = false,
    secrets = Secrets.passing(),
    reached = {},
  }: Outside = {},
): Promise<Omit<RunningShop, 'device'>> {
  const database = await openForServing(url)
  const logger = pino({ level: 'silent' })
  const importer = new Importer(database, logger)
  const printer = new Printer(logger)
  const supplier = address === undefined ? undefined : new Supplier(address, 'quayside-5')
  const gateway = gatewayAddress === undefined ? undefined : new Gateway(gatewayAddress, 'lantern-9')
  // Done beside the request, in this process: the queue itself is tested on its own.
  const jobs: ShopJobs = {
    forecastShop: (shopId, runId) => {
      const go = (): void => void continueRun(database, shopId, runId, Infinity).catch(() => setTimeout(go, 50))
      setTimeout(go, 20)
      return Promise.resolve()
    },
    settleOrder: ({ shopId, transaction }, orderId) => {
      const go = async (): Promise<void> => {
        const { state } = await settleOrder({ database, supplier, jobs }, shopId, orderId)
        if (state === 'sending' || state === 'unsure') again()
      }
      const again = (): void => void setTimeout(() => void go().catch(() => undefined), 150)
      transaction.afterCommit(again)
      return Promise.resolve()
    },
    sendMessages: ({ shopId, transaction }) => {
      const go = async (): Promise<void> => {
        const again =
          gateway || mails ? await drainOutbox({ database, gateway, mail: { secrets, printer } }, shopId) : null
        if (again !== null) setTimeout(() => void go().catch(() => undefined), Math.min(again * 1000, 300))
      }
      transaction.afterCommit(() => void go().catch(() => undefined))
      return Promise.resolve()
    },
    rebuildShop: async (shopId) => void (await continueRebuild(database, shopId, Infinity)),
    learn: (asked) => Promise.resolve(learnFrom(asked)),
  }
  const thermometers = new Thermometers(database, HERE, thermometer, 100)
  thermometers.start().catch(() => undefined)
  const server = createApp({
    database,
    devices: HERE,
    reached,
    secrets,
    thermometers,
    printer,
    gateway: gateway !== undefined,
    logger,
    jobs,
    importer,
    ...(ridesService === undefined ? {} : { ridesService }),
    ...(supplier === undefined ? {} : { supplier }),
  }).listen(0, '127.0.0.1')
  await new Promise((done) => server.on('listening', done))
  return {
    base: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    database,
    url,
    close: async () => {
      server.closeAllConnections()
      await new Promise((done) => server.close(done))
      thermometers.close()
      await importer.close()
      await printer.close()
      await database.close()
    },
  }
}

export async function startShop(outside: Outside = {}): Promise<RunningShop> {
  const { url, drop } = await copyOfDemo()
  const served = await serveDatabase(url, outside)
  const device = new Device(served.base)
  await device.signIn()
  return {
    ...served,
    device,
    close: async () => {
      await served.close()
      await drop()
    },
  }
}

/** What somebody says of a shop of their own on its first day. */
export const OWN_SHOP: ShopSettings = {
  name: 'Slipway Cycles',
  code: 'slipway',
  timeZone: 'Europe/London',
  currency: 'GBP',
  locale: 'en-GB',
  distanceUnit: 'km',
  temperatureUnit: 'C',
  opening: [...Array.from({ length: 5 }, () => ({ from: '09:00', to: '17:30' })), { from: '09:00', to: '13:00' }, null],
  careWays: ['drip-wax', 'wet-oil'],
  stands: 2,
}
export const OWN_PASSWORD = 'kelp and lanterns'

/** The very shop `--no-demo` makes, with the token its first day begins by. */
export async function startBornShop(outside: Outside = {}): Promise<RunningShop & { readonly token: string }> {
  const { url, drop } = await copyOfDemo(EMPTY_DATABASE)
  const owner = openDatabase(ownerOf(url))
  await beginShop(owner, 'Europe/London')
  const link = await linkForOwner(owner, {})
  await owner.close()
  const served = await serveDatabase(url, outside)
  return {
    ...served,
    token: link!.token,
    device: new Device(served.base),
    close: async () => {
      await served.close()
      await drop()
    },
  }
}

/** The same, once its owner has come in. */
export async function startOwnShop(outside: Outside = {}): Promise<RunningShop> {
  const shop = await startBornShop(outside)
  await shop.device.enter({
    token: shop.token,
    password: OWN_PASSWORD,
    pin: '4711',
    firstDay: { shop: OWN_SHOP, name: 'Wen Harrow', initials: 'WH', signInName: 'wen', dayMinutes: 600 },
  })
  return shop
}
