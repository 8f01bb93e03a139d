import { execFile } from 'node:child_process'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { v7 } from 'uuid'
import { beforeAll, describe, expect, inject, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { postgresPrograms } from '../../../scripts/postgres/programs.ts'
import { prepareDatabase } from '../../../scripts/prepareDatabase.ts'
import { continueRebuild, askForRebuild } from '../state/rebuild.ts'
import { rebuildState } from '../state/bikeState.ts'
import {
  asSuperuser,
  bikeNamed,
  copyOfDemo,
  Device,
  ownerOf,
  readingOf,
  serveDatabase,
  superuserOf,
} from '../testing/shop.ts'
import { grantServing, inShop, migrateDown, migrateUp, openDatabase, type Database } from './index.ts'
import { loadDemo } from '../demo/loadDemo.ts'
import { migrations } from './migrations/index.ts'
import { SHOPS } from '../auth/models.ts'

/** What every version has had, and no upgrade may lose. */
const LASTING = [
  'customers',
  'bikes',
  'drives',
  'chains',
  'fittings',
  'distance_entries',
  'readings',
  'spots',
  'verdicts',
]

const counts = async (database: Database, shopId: string): Promise<Record<string, number>> =>
  inShop(database, shopId, null, async (work) => {
    const all: Record<string, number> = {}
    for (const table of LASTING)
      all[table] = (await work.select<{ n: number }>(`SELECT count(*)::int AS n FROM ${table}`))[0]!.n
    return all
  })

describe('data of an earlier version', () => {
  let before: Record<string, number>
  let shopId: string
  beforeAll(async () => {
    const copy = await copyOfDemo()
    const database = openDatabase(copy.url)
    shopId = (await database.of(SHOPS).findOne())!.id
    before = await counts(database, shopId)
    await database.close()
    await copy.drop()
  })

  it('of each that landed comes through to this one, with every fact', async () => {
    const copy = await copyOfDemo()
    const database = openDatabase(ownerOf(copy.url))
    // Back one by one, and up again from each.
    for (const { name } of migrations.slice(1).reverse()) {
      await migrateDown(database.sequelize, name)
      const { applied, outdated } = await migrateUp(database.sequelize)
      const again = migrations.slice(migrations.findIndex((one) => one.name === name))
      expect(applied, name).toEqual(again.map((one) => one.name))
      expect(outdated, name).toBe(again.some(({ outdatesState }) => outdatesState === true))
      expect(await counts(database, shopId), name).toEqual(before)
    }
    await database.close()
    await copy.drop()
  }, 120_000)

  it('of the first has its state made anew, whole, and is served meanwhile', async () => {
    const copy = await copyOfDemo()
    const owner = openDatabase(ownerOf(copy.url))
    await migrateDown(owner.sequelize, migrations[1]!.name)
    await migrateUp(owner.sequelize)
    await grantServing(owner.sequelize, 'pelrin')
    const missing = (): Promise<number> =>
      inShop(owner, shopId, null, async (work) => {
        const [row] = await work.select<{ n: number }>(
          'SELECT count(*)::int AS n FROM bike_state WHERE fitting_id IS NOT NULL AND care IS NULL',
        )
        return row!.n
      })
    expect(await missing()).toBeGreaterThan(100)
    await inShop(owner, shopId, null, askForRebuild)
    const served = await serveDatabase(copy.url)
    expect((await fetch(`${served.base}/health/ready`)).status).toBe(200)
    expect(await continueRebuild(served.database, shopId, Infinity)).toBe(false)
    expect(await missing()).toBe(0)
    expect((await inShop(served.database, shopId, null, rebuildState, { long: true })).differing).toEqual([])
    await served.close()
    await owner.close()
    await copy.drop()
  }, 120_000)
})

describe('the shop as the first version made it', () => {
  it('comes to this one: its facts are there, its state is made anew, and it is worked with', async () => {
    const name = `first_${v7().replaceAll('-', '')}`
    await asSuperuser(`CREATE DATABASE ${name} OWNER pelrin_owner`)
    const url = new URL(inject('databaseUrl'))
    url.pathname = `/${name}`
    const admin = new URL(superuserOf(url.toString()))
    const { password } = admin
    admin.password = ''
    await promisify(execFile)(
      join(postgresPrograms(), 'pg_restore'),
      [
        '--exit-on-error',
        '--single-transaction',
        '--no-owner',
        '--role=pelrin_owner',
        `--dbname=${admin.toString()}`,
        join(import.meta.dirname, 'landed/first.dump'),
      ],
      { env: { ...process.env, PGPASSWORD: password } },
    )
    // As the start command does it.
    await prepareDatabase({ url: url.toString(), ownerUrl: ownerOf(url.toString()) }, true)
    const served = await serveDatabase(url.toString())
    const device = new Device(served.base)
    expect((await device.signIn()).body.rebuilding).toEqual({ done: 0, of: 119 })
    const id = (await device.ask(endpoints.session)).body.shop.id
    expect(await continueRebuild(served.database, id, Infinity)).toBe(false)
    const left = await inShop(served.database, id, null, async (work) => {
      const [row] = await work.select<{ readings: number; states: number; careless: number }>(
        `SELECT (SELECT count(*)::int FROM readings) AS readings, (SELECT count(*)::int FROM bike_state) AS states,
           (SELECT count(*)::int FROM bike_state WHERE fitting_id IS NOT NULL AND care IS NULL) AS careless`,
      )
      return row
    })
    expect(left).toEqual({ readings: 719, states: 119, careless: 0 })
    const bike = await bikeNamed(device, 'causeway')
    expect((await device.ask(endpoints.bike, { params: { id: bike.id } })).body.readings.length).toBeGreaterThan(2)
    const { status } = await device.ask(endpoints.takeReading, { body: await readingOf(device, bike.id) })
    expect(status).toBe(200)
    expect((await inShop(served.database, id, null, rebuildState, { long: true })).differing).toEqual([])
    await served.close()
    await asSuperuser(`DROP DATABASE ${name} WITH (FORCE)`)
  }, 120_000)
})

describe('loading the demo shop', () => {
  it('that is interrupted leaves no shop behind, and can be begun again', async () => {
    const copy = await copyOfDemo()
    const database = openDatabase(ownerOf(copy.url))
    await migrateDown(database.sequelize)
    await migrateUp(database.sequelize)
    const interrupted = loadDemo(database, new Date(inject('demoLoadedAt')), () => {
      throw new Error('Ctrl-C')
    })
    await expect(interrupted).rejects.toThrow('Ctrl-C')
    expect(await database.of(SHOPS).count()).toBe(0)
    await database.close()
    await copy.drop()
  }, 90_000)
})
