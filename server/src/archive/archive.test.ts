import { parse } from 'csv-parse/sync'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { bikeNamed, Device, startShop, type RunningShop } from '../testing/shop.ts'
import { EXPORT_TABLES, type ExportName } from './tables.ts'

let shop: RunningShop
let shopId: string
beforeAll(async () => {
  shop = await startShop()
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
})
afterAll(() => shop.close())

const get = (name: string, device = shop.device): Promise<Response> => device.raw('GET', `/api/v1/export/${name}.csv`)
const rowsOf = async (name: ExportName): Promise<Record<string, string>[]> =>
  parse(await (await get(name)).text(), { columns: true, bom: true })
const count = (sql: string): Promise<number> =>
  inShop(shop.database, shopId, null, async (work) => (await work.select<{ n: number }>(sql))[0]!.n)

describe('a table that is taken out', () => {
  it.each(Object.keys(EXPORT_TABLES) as ExportName[])(
    '%s has every row that stands, once, under its heads',
    async (name) => {
      const rows = await rowsOf(name)
      expect(Object.keys(rows[0]!)).toEqual([...EXPORT_TABLES[name].columns])
      const key = EXPORT_TABLES[name].columns[0]
      expect(new Set(rows.map((row) => row[key])).size).toBe(rows.length)
      const there = {
        customers: 'SELECT count(*)::int AS n FROM customers',
        bikes: 'SELECT count(*)::int AS n FROM bikes',
        readings: 'SELECT count(*)::int AS n FROM spots',
        rides: 'SELECT count(*)::int AS n FROM rides',
        care: 'SELECT count(*)::int AS n FROM care_events',
      }[name]
      // The demo shop has corrected nothing.
      expect(rows.length).toBe(await count(there))
    },
  )
  it('leads from one to another by ids, and says of a bike what lists say', async () => {
    const bike = await bikeNamed(shop.device, 'causeway')
    const row = (await rowsOf('bikes')).find(({ id }) => id === bike.id)!
    expect(row).toMatchObject({ customer: 'Ivo Marsh', label: 'Causeway', verdict: 'change', fronts: '50-34' })
    const customers = await rowsOf('customers')
    expect(customers.find(({ id }) => id === row['customer_id'])!['name']).toBe('Ivo Marsh')
    expect((await rowsOf('readings')).some(({ bike_id: id }) => id === bike.id)).toBe(true)
  })
  it('holds nothing a spreadsheet would compute', async () => {
    await inShop(shop.database, shopId, null, (work) =>
      work.select(
        `UPDATE customers SET name = '=HYPERLINK("x")' WHERE id = (SELECT id FROM customers ORDER BY id LIMIT 1) RETURNING id`,
      ),
    )
    const names = (await rowsOf('customers')).map(({ name }) => name!)
    expect(names.filter((name) => name.startsWith('='))).toEqual([])
    expect(names).toContain(`'=HYPERLINK("x")`)
  })
  it('is the owner’s; who is not signed in, or asks for none there is, gets none', async () => {
    const mechanic = new Device(shop.base)
    await mechanic.signIn('ruan', 'chalkdown-2')
    expect((await get('customers', new Device(shop.base))).status).toBe(401)
    expect((await get('customers', mechanic)).status).toBe(403)
    expect((await get('people')).status).toBe(404)
    expect((await get('constructor')).status).toBe(404)
  })
})
