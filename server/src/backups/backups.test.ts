import { appendFile, mkdtemp, readdir, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { postgresPrograms } from '../../../scripts/postgres/programs.ts'
import { openDatabase } from '../db/index.ts'
import { inShop } from '../db/work.ts'
import { rebuildState } from '../state/bikeState.ts'
import { asSuperuser, Device, serveDatabase, startShop, superuserOf, type RunningShop } from '../testing/shop.ts'
import { backupsIn, makeBackup, noteRestored, restoreBackup, type BackupTools } from './backup.ts'

let shop: RunningShop
let tools: BackupTools
const names: string[] = []
beforeAll(async () => {
  shop = await startShop()
  tools = {
    programs: postgresPrograms(),
    url: superuserOf(shop.url),
    folder: join(await mkdtemp(join(tmpdir(), 'pelrin-backups-')), 'kept'),
  }
})
afterAll(async () => {
  await shop.close()
  for (const name of names) await asSuperuser(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`)
  await rm(tools.folder, { recursive: true, force: true })
})

/** An empty database, as its owner's and as the superuser's address. */
async function emptyDatabase(): Promise<{ url: string; admin: string }> {
  const name = `restored_${v7().replaceAll('-', '')}`
  names.push(name)
  await asSuperuser(`CREATE DATABASE ${name} OWNER pelrin`)
  const [url, admin] = [new URL(shop.url), new URL(tools.url)]
  url.pathname = admin.pathname = `/${name}`
  return { url: url.toString(), admin: admin.toString() }
}

describe('a backup', () => {
  it('brings everything back into an empty database: every row, and a shop that goes on with it', async () => {
    const made = await makeBackup(tools, new Date())
    const { url, admin } = await emptyDatabase()
    await restoreBackup(tools.programs, join(tools.folder, made.file), admin)
    const [before, after] = [openDatabase(superuserOf(shop.url)), openDatabase(admin)]
    for (const table of [
      'bikes',
      'readings',
      'spots',
      'rides',
      'verdicts',
      'care_events',
      'bike_state',
      'audit',
      'pot_chains',
    ]) {
      const sql = `SELECT count(*)::int AS n, md5(string_agg(t::text, '|' ORDER BY t::text)) AS all FROM ${table} t`
      expect((await after.sequelize.query(sql))[0], table).toEqual((await before.sequelize.query(sql))[0])
    }
    await before.close()
    await after.close()
    await noteRestored(admin, made.file)
    const served = await serveDatabase(url)
    const device = new Device(served.base)
    expect((await device.signIn()).status).toBe(200)
    const { body } = await device.ask(endpoints.session)
    expect((await inShop(served.database, body.shop.id, null, rebuildState)).differing).toEqual([])
    // What was done after it was made is not in it: the owner sees since when.
    const { entries } = (await device.ask(endpoints.accessLog)).body
    expect(entries.some(({ action }) => action === 'restored')).toBe(true)
    expect((await stat(join(tools.folder, made.file))).mode & 0o077).toBe(0)
    await served.close()
  })
  it('that was changed, or copied in part, is not restored; nor into a database that holds something', async () => {
    const made = await makeBackup(tools, new Date(Date.now() + 1000))
    const file = join(tools.folder, made.file)
    await expect(restoreBackup(tools.programs, file, tools.url)).rejects.toThrow('holds tables already')
    await appendFile(file, 'x')
    const { admin } = await emptyDatabase()
    await expect(restoreBackup(tools.programs, file, admin)).rejects.toThrow('not as it was made')
  })
  it('is readable by its owner only, and the older ones make room', async () => {
    const later = (n: number): Date => new Date(Date.now() + n * 60_000)
    for (let n = 1; n <= 15; n++) await makeBackup(tools, later(n))
    const kept = await backupsIn(tools.folder)
    expect(kept).toHaveLength(14)
    expect(kept[0]!.at).toBe([...kept].sort((a, b) => (a.at > b.at ? -1 : 1))[0]!.at)
    expect((await readdir(tools.folder)).some((name) => name.endsWith('.part'))).toBe(false)
    expect((await stat(tools.folder)).mode & 0o077).toBe(0)
  }, 240_000)
  it('that fails leaves nothing behind', async () => {
    const before = await readdir(tools.folder)
    const wrong = { ...tools, url: tools.url.replace(/\/[^/]+$/, '/nowhere') }
    await expect(makeBackup(wrong, new Date())).rejects.toThrow(/nowhere/)
    expect(await readdir(tools.folder)).toEqual(before)
  })
  it('is the owner’s to ask for; where the server makes none, that is said', async () => {
    expect((await shop.device.ask(endpoints.backups)).body).toEqual({ backups: null })
    expect((await shop.device.ask(endpoints.makeBackup)).problem.code).toBe('backup-none')
  })
})
