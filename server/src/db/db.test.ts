import { chainVerdict } from '@pelrin/core'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { startCluster } from '../../../scripts/postgres/cluster.ts'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { endpoints } from '@pelrin/contract'
import { rebuildState } from '../state/bikeState.ts'
import { bikeFacts, forecastOf, shownOf } from '../state/verdictInput.ts'
import { copyOfDemo, Device, ownerOf, serveDatabase, superuserOf } from '../testing/shop.ts'
import { grantServing, inShop, migrateDown, migrateUp, NewerSchemaError, openDatabase, type Database } from './index.ts'
import { loadDemo } from '../demo/loadDemo.ts'
import { SHOP_TABLES } from './migrations/0001-foundation.ts'
import { migrations } from './migrations/index.ts'
import { SHOPS } from '../auth/models.ts'
import { BIKES } from '../bikes/models.ts'
import { VERDICTS } from '../readings/models.ts'

let database: Database
let url: string
let drop: () => Promise<void>
let shopId: string
beforeAll(async () => {
  ;({ url, drop } = await copyOfDemo())
  database = openDatabase(url)
  shopId = (await database.of(SHOPS).findOne())?.id ?? ''
})
afterAll(async () => {
  await database.close()
  await drop()
})

describe('row-level scoping', () => {
  it('is forced on every table but those that lead into a shop', async () => {
    const [rows] = await database.sequelize.query(`
      SELECT c.relname AS name, c.relrowsecurity AND c.relforcerowsecurity AS forced,
        (SELECT count(*)::int FROM pg_policy p WHERE p.polrelid = c.oid) AS policies
      FROM pg_class c WHERE c.relkind = 'r' AND c.relnamespace = 'public'::regnamespace`)
    const tables = rows as { name: string; forced: boolean; policies: number }[]
    const open = tables.filter((table) => !table.forced).map((table) => table.name)
    expect(open.sort()).toEqual(['api_tokens', 'invitations', 'schema_migrations', 'sessions', 'shops'])
    expect(
      tables
        .filter((table) => table.forced && table.policies === 1)
        .map((table) => table.name)
        .sort(),
    ).toEqual(
      [
        // Who is at a device is known by the device now, no longer by its session.
        ...SHOP_TABLES.filter((name) => name !== 'session_people'),
        ...['assumption_versions', 'decisions', 'studies', 'study_values'],
        ...['rides', 'ride_tracks', 'ride_imports', 'staged_rides', 'csv_mappings', 'ride_accounts'],
        ...['prior_versions', 'forecast_runs', 'drive_systems', 'parts', 'catalogue_versions', 'stock_movements'],
        ...['kept_parts', 'kept_part_lines', 'supplier_offers', 'orders', 'order_lines', 'joints', 'joint_events'],
        ...['jobs', 'job_events', 'offcuts', 'job_schools', 'wear_checks', 'mends', 'care_events'],
        ...['pots', 'pot_chains', 'pot_events', 'bath_changes', 'closed_days', 'calendar_feeds'],
        ...['event_dates', 'device_people', 'sign_in_tries', 'looks', 'state_rebuilds'],
        ...[
          'message_templates',
          'messages',
          'message_replies',
          'message_cursors',
          'bike_passings',
          'mail_settings',
          'bike_pictures',
          'components',
        ],
      ].sort(),
    )
  })
  it('gives a query without a shop nothing, and lets it write nothing', async () => {
    expect(await database.of(BIKES).count()).toBe(0)
    await expect(
      database.sequelize.query(`INSERT INTO devices (id, name) VALUES (gen_random_uuid(), 'x')`),
    ).rejects.toThrow(/row-level security|null value/)
  })
  it('keeps a shop from another’s rows, in raw SQL too', async () => {
    const other = '0192c7f2-5340-7b38-85ad-000000000000'
    await database.of(SHOPS).create({
      id: other,
      code: 'other',
      name: 'Other',
      timeZone: 'UTC',
      distanceUnit: 'km',
      demo: false,
    })
    const seen = await inShop(database, other, null, (work) =>
      work.select<{ n: number }>('SELECT count(*)::int AS n FROM bikes'),
    )
    expect(seen).toEqual([{ n: 0 }])
    await expect(
      inShop(database, other, null, (work) =>
        work.select(`INSERT INTO devices (shop_id, id, name) VALUES ('${shopId}', gen_random_uuid(), 'x')`),
      ),
    ).rejects.toThrow(/row-level security/)
  })
  it('cannot be switched off by the one who serves, who owns no table and only adds to the audit', async () => {
    const refused = (sql: string): Promise<string> =>
      database.sequelize.query(sql).then(
        () => 'done',
        (error: unknown) => (error as Error).message,
      )
    for (const sql of [
      'ALTER TABLE bikes NO FORCE ROW LEVEL SECURITY',
      'ALTER TABLE bikes DISABLE ROW LEVEL SECURITY',
      'DROP POLICY own_shop ON bikes',
      'ALTER TABLE audit OWNER TO pelrin',
    ])
      expect(await refused(sql), sql).toMatch(/must be owner/)
    for (const sql of [
      "UPDATE audit SET action = 'x'",
      'DELETE FROM audit',
      'TRUNCATE audit',
      'CREATE TABLE mine ()',
      "INSERT INTO schema_migrations VALUES ('x')",
      'SET ROLE pelrin_owner',
      "COPY bikes TO PROGRAM 'true'",
    ])
      expect(await refused(sql), sql).toMatch(/permission denied|must be superuser|member of the pg_/)
  })
  it('holds for a statement whose plan was made in another shop, on the same connection', async () => {
    const bikes = (shop: string) =>
      inShop(database, shop, null, async (work) => {
        const ask = () => work.prepared<{ n: number; on: number }>(COUNTED, { tag: '0449' })
        // From the sixth time on the database has one plan for all values.
        for (let i = 0; i < 8; i++) await ask()
        const [backend] = await work.select<{ pid: number }>('SELECT pg_backend_pid() AS pid')
        return { ...(await ask())[0], ...backend }
      })
    const COUNTED = 'SELECT count(*)::int AS n, count(*) FILTER (WHERE tag = :tag::text)::int AS on FROM bikes'
    const here = await bikes(shopId)
    const there = await bikes('0192c7f2-5340-7b38-85ad-000000000000')
    expect(here).toMatchObject({ n: 119, on: 1 })
    expect(there).toEqual({ n: 0, on: 0, pid: here.pid })
  })
  it('holds even where the login is a superuser', async () => {
    const served = await serveDatabase(superuserOf(url))
    expect(await served.database.of(BIKES).count()).toBe(0)
    const device = new Device(served.base)
    await device.signIn()
    expect((await device.ask(endpoints.rack)).body.total).toBe(119)
    await served.close()
  })
})

describe('a prepared statement', () => {
  const asked = <Row extends object>(sql: string, values: Record<string, unknown>) =>
    inShop(database, shopId, null, (work) => work.prepared<Row>(sql, values))
  it('takes each value by its name, as often as it stands there, and leaves casts alone', async () => {
    expect(
      await asked(`SELECT :b::text || :a::text || :b::text AS word, '7'::int AS n`, { a: 'a', b: 'b', unused: 1 }),
    ).toEqual([{ word: 'bab', n: 7 }])
    expect(await asked('SELECT :nothing::uuid IS NULL AS none', { nothing: null })).toEqual([{ none: true }])
  })
  it('answers with what models answer with: moments, numbers and what is stored as JSON', async () => {
    const sql = `SELECT :at::timestamptz AS at, 0.5::float8 AS km, '{"a":[1]}'::jsonb AS mix`
    const at = new Date('2026-03-29T01:30:00Z')
    expect(await asked(sql, { at })).toEqual([{ at, km: 0.5, mix: { a: [1] } }])
  })
  it('takes text as text, whatever is written in it', async () => {
    const text = `'; DROP TABLE bikes; -- :a $1`
    expect(await asked('SELECT :text::text AS text', { text })).toEqual([{ text }])
  })
  it('that fails takes its transaction back, and may be asked again', async () => {
    const broken = inShop(database, shopId, null, async (work) => {
      await work.select(`UPDATE shops SET name = 'Torn' RETURNING id`)
      await work.prepared('SELECT 1 / :n::int AS x', { n: 0 })
    })
    await expect(broken).rejects.toThrow(/division by zero/)
    expect((await database.of(SHOPS).findByPk(shopId))?.name).not.toBe('Torn')
    expect(await asked('SELECT 1 / :n::int AS x', { n: 1 })).toEqual([{ x: 1 }])
  })
})

describe('facts of a fitting', () => {
  it('cannot overlap on one bike', async () => {
    await expect(
      inShop(database, shopId, null, (work) =>
        work.select(`INSERT INTO fittings (id, bike_id, chain_id, during, start, person_id)
          SELECT gen_random_uuid(), f.bike_id, f.chain_id, f.during, 'fitted', f.person_id FROM fittings f LIMIT 1`),
      ),
    ).rejects.toMatchObject({ name: 'SequelizeExclusionConstraintError' })
  })
})

describe('the demo shop', () => {
  it('has state that equals what its facts rebuild to', async () => {
    expect(await inShop(database, shopId, null, rebuildState)).toEqual({ bikes: 119, differing: [] })
  })
  it('rebuilds a state that was lost', async () => {
    await inShop(database, shopId, null, (work) =>
      work.select(
        `UPDATE bike_state SET word = 'change', marks = '[]' WHERE bike_id = (SELECT bike_id FROM bike_state WHERE word = 'keep-riding' LIMIT 1)`,
      ),
    )
    expect((await inShop(database, shopId, null, rebuildState)).differing).toHaveLength(1)
    expect((await inShop(database, shopId, null, rebuildState)).differing).toEqual([])
  })
  it('gives every stored verdict again from what was stored with it', async () => {
    const verdicts = await inShop(database, shopId, null, (work) =>
      work.of(VERDICTS).findAll({ transaction: work.transaction }),
    )
    expect(verdicts.length).toBeGreaterThan(600)
    for (const { input, outcome } of verdicts)
      expect(chainVerdict({ ...input, assumptions: input.assumptions ?? {} })).toEqual(outcome)
  })
  it('has present verdicts that the facts give', async () => {
    await inShop(database, shopId, null, async (work) => {
      const bikes = await work.select<{ id: string; word: string; at: Date }>(
        'SELECT s.bike_id AS id, s.word, v.occurred_at AS at FROM bike_state s JOIN verdicts v ON v.id = s.verdict_id',
      )
      for (const { id, word, at } of bikes) {
        const { input } = await bikeFacts(work, id, at)
        expect(chainVerdict({ ...input, assumptions: {}, forecast: shownOf(forecastOf(input)) }).word).toBe(word)
      }
    })
  })
  it('tells its stories', async () => {
    await inShop(database, shopId, null, async (work) => {
      const states = await work.select<{ word: string; n: number }>(
        'SELECT word, count(*)::int AS n FROM bike_state GROUP BY word',
      )
      const many = Object.fromEntries(states.map(({ word, n }) => [word, n]))
      for (const word of ['change', 'closing-in', 'keep-riding', 'measure-again', 'not-measured-yet'])
        expect(many[word]).toBeGreaterThan(2)
      const story = async (sql: string): Promise<number> => (await work.select<{ n: number }>(sql))[0]?.n ?? 0
      expect(
        await story(`SELECT count(*)::int AS n FROM bike_state WHERE 'instruments-at-odds' = ANY (flags)`),
      ).toBeGreaterThan(0)
      expect(await story(`SELECT count(*)::int AS n FROM chain_events WHERE kind = 'shortened'`)).toBe(1)
      expect(
        await story(
          `SELECT count(DISTINCT f.chain_id)::int AS n FROM fittings f JOIN bikes b ON b.id = f.bike_id WHERE b.label = 'Courier' AND f.end_reason IS DISTINCT FROM 'worn'`,
        ),
      ).toBeGreaterThanOrEqual(3)
      expect(await story(`SELECT count(*)::int AS n FROM readings`)).toBeGreaterThan(650)
      expect(await story(`SELECT count(*)::int AS n FROM customers`)).toBe(60)
    })
  })
  it('is the same every time it is loaded on one day', async () => {
    const rowsOf = (from: Database, shop: string): Promise<unknown> =>
      inShop(from, shop, null, (work) =>
        work.select(`SELECT md5(string_agg(r::text, ',' ORDER BY r.id)) AS readings,
          (SELECT md5(string_agg(s::text, ',' ORDER BY s.id)) FROM spots s) AS spots,
          (SELECT md5(string_agg(concat(s.bike_id, s.word, s.marks), ',' ORDER BY s.bike_id)) FROM bike_state s) AS states
          FROM readings r`),
      )
    const once = await copyOfDemo()
    const twice = await copyOfDemo()
    const loaded = openDatabase(once.url)
    const empty = openDatabase(ownerOf(twice.url))
    await migrateDown(empty.sequelize)
    await migrateUp(empty.sequelize)
    // Later that day, as far as the shop's day goes on.
    const again = await loadDemo(empty, new Date(inject('demoLoadedAt') + 1000))
    expect(await rowsOf(empty, again.shopId)).toEqual(await rowsOf(loaded, shopId))
    await Promise.all([loaded.close(), empty.close()])
    await Promise.all([once.drop(), twice.drop()])
  }, 90_000)
})

describe('migrations', () => {
  it('go down and up again', async () => {
    const copy = await copyOfDemo()
    const other = openDatabase(ownerOf(copy.url))
    await migrateDown(other.sequelize)
    const [left] = await other.sequelize.query(
      `SELECT relname FROM pg_class WHERE relkind = 'r' AND relnamespace = 'public'::regnamespace`,
    )
    expect(left).toEqual([{ relname: 'schema_migrations' }])
    expect((await migrateUp(other.sequelize)).applied).toEqual(migrations.map(({ name }) => name))
    expect((await migrateUp(other.sequelize)).applied).toEqual([])
    await other.close()
    await copy.drop()
  })
  it('refuse a database of a newer Pelrin', async () => {
    const copy = await copyOfDemo()
    const other = openDatabase(ownerOf(copy.url))
    await other.sequelize.query(`INSERT INTO schema_migrations (name) VALUES ('9999-later')`)
    await expect(migrateUp(other.sequelize)).rejects.toThrow(NewerSchemaError)
    await other.close()
    await copy.drop()
  })
})

describe('a database that goes away and comes back', () => {
  it('is said as such, and is served from again', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'pelrin-away-'))
    chmodSync(folder, 0o755)
    let cluster = await startCluster(folder, { throwaway: true })
    const opened = openDatabase(cluster.ownerUrl)
    await migrateUp(opened.sequelize)
    await grantServing(opened.sequelize, 'pelrin')
    await opened.close()
    const served = await serveDatabase(cluster.url)
    const device = new Device(served.base)
    expect((await device.ask(endpoints.door)).body.shops).toEqual([])
    const { port } = new URL(cluster.url)
    await cluster.stop()
    const away = await device.ask(endpoints.door)
    expect([away.status, away.problem.code]).toEqual([503, 'database-away'])
    expect(away.headers.get('retry-after')).toBe('2')
    expect(away.problem.requestId).toMatch(/^[0-9a-f-]{36}$/)
    expect((await fetch(`${served.base}/health/ready`)).status).toBe(503)
    expect((await fetch(`${served.base}/health/live`)).status).toBe(200)
    cluster = await startCluster(folder, { throwaway: true, port: Number(port) })
    expect((await device.ask(endpoints.door)).status).toBe(200)
    expect((await fetch(`${served.base}/health/ready`)).status).toBe(200)
    await served.close()
    await cluster.stop()
    rmSync(folder, { recursive: true, force: true })
  })
})
