import { mkdtempSync, rmSync, chmodSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pg from 'pg'
import type {} from 'vitest'
import type { TestProject } from 'vitest/node'
import { startCluster } from '../../../scripts/postgres/cluster.ts'
import { grantServing, migrateUp, openDatabase } from '../db/index.ts'
import { loadDemo } from '../demo/loadDemo.ts'
import { installQueue } from '../queue/queues.ts'

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string
    /** The same as the owner of its tables, and as the superuser. */
    ownerUrl: string
    adminUrl: string
    /** The moment the demo shop was loaded at, ms. */
    demoLoadedAt: number
  }
}

/** The database nobody has begun a shop in, to copy from. */
export const EMPTY_DATABASE = 'pelrin_empty'

async function within(adminUrl: string, sql: string): Promise<void> {
  const address = new URL(adminUrl)
  address.pathname = '/postgres'
  const client = new pg.Client({ connectionString: address.toString() })
  await client.connect()
  await client.query(sql)
  await client.end()
}

/** One throwaway cluster for all tests of the server, with the demo shop to copy from. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'pelrin-test-'))
  chmodSync(folder, 0o755)
  const cluster = await startCluster(folder, { throwaway: true })
  const database = openDatabase(cluster.ownerUrl)
  await migrateUp(database.sequelize)
  await installQueue(cluster.ownerUrl)
  await grantServing(database.sequelize, 'pelrin')
  await database.close()
  await within(cluster.adminUrl, `CREATE DATABASE ${EMPTY_DATABASE} TEMPLATE pelrin OWNER pelrin_owner`)
  const now = new Date()
  const demo = openDatabase(cluster.ownerUrl)
  await loadDemo(demo, now)
  await demo.close()
  project.provide('databaseUrl', cluster.url)
  project.provide('ownerUrl', cluster.ownerUrl)
  project.provide('adminUrl', cluster.adminUrl)
  project.provide('demoLoadedAt', now.getTime())
  return async () => {
    await cluster.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
