import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { endpoints, type CustomerPage } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { rebuildState } from '../state/bikeState.ts'
import { bikeNamed, Device, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
let shopId: string
beforeAll(async () => {
  shop = await startShop()
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
})
afterAll(() => shop.close())

const customerOf = async (bike: string): Promise<CustomerPage> => page((await bikeNamed(shop.device, bike)).customer.id)
const page = async (id: string): Promise<CustomerPage> =>
  (await shop.device.ask(endpoints.customer, { params: { id } })).body
const change = (one: CustomerPage, body: object, device = shop.device) =>
  device.ask(endpoints.changeCustomer, { params: { id: one.id }, version: one.version, body: { ...body } })
const query = <Row extends object>(sql: string, values: Record<string, unknown> = {}): Promise<Row[]> =>
  inShop(shop.database, shopId, null, (work) => work.select<Row>(sql, values))

describe('a customer', () => {
  it('has all there is of them on one page, and what they spent', async () => {
    const ivo = await customerOf('causeway')
    expect(ivo).toMatchObject({ name: 'Ivo Marsh', erasedAt: null, mergedInto: null, merged: [] })
    expect(ivo.bikes.every(({ now, wentAt }) => now && wentAt === null)).toBe(true)
    expect(ivo.visits.length).toBeGreaterThan(0)
    expect(ivo.spent.total).toBe(ivo.spent.jobs.reduce((sum, { amount }) => sum + amount, 0))
    expect((await shop.device.ask(endpoints.customer, { params: { id: v7() } })).problem.code).toBe('customer-unknown')
  })
  it('is corrected at the version that was seen, refused at the field, and found by the finder by the new name', async () => {
    const ivo = await customerOf('causeway')
    expect((await change(ivo, { email: 'ivo at quay' })).problem.fields).toMatchObject([
      { path: 'email', code: 'email-malformed' },
    ])
    const { body } = await change(ivo, {
      name: 'Ivo Marshall',
      phone: '0555 0199',
      email: 'ivo@example.org',
      notes: 'rings first',
    })
    expect(body).toMatchObject({
      name: 'Ivo Marshall',
      phone: '0555 0199',
      email: 'ivo@example.org',
      notes: 'rings first',
    })
    expect((await bikeNamed(shop.device, 'marshall causeway')).customer.name).toBe('Ivo Marshall')
    expect((await change(ivo, { phone: null })).problem).toMatchObject({
      status: 412,
      current: { phone: '0555 0199' },
    })
    const apprentice = new Device(shop.base)
    await apprentice.signIn('ismay', 'eelgrass-3')
    expect((await change(body, { phone: null }, apprentice)).status).toBe(403)
    expect((await change(body, { optedOut: true })).body.optedOut).toBe(true)
  })
  it('gets a bike from another, who still had it once; it is here again where it had gone', async () => {
    const bike = await bikeNamed(shop.device, 'school pool 3')
    const before = await page(bike.customer.id)
    const id = v7()
    const passed = await shop.device.ask(endpoints.passBike, {
      params: { id: bike.id },
      body: { id: v7(), customerId: id, new: { name: 'Merrin Hale', phone: '0555 0301' } },
    })
    expect(passed.body).toMatchObject({ name: 'Merrin Hale', bikes: [{ id: bike.id, now: true }] })
    expect(passed.body.bikes[0]!.cameAt).not.toBeNull()
    const after = (await page(before.id)).bikes.find((one) => one.id === bike.id)!
    expect([after.now, after.wentAt !== null]).toEqual([false, true])
    const again = await shop.device.ask(endpoints.passBike, {
      params: { id: bike.id },
      body: { id: v7(), customerId: id },
    })
    expect(again.problem.fields).toMatchObject([{ code: 'customer-same' }])
    const { body: record } = await shop.device.ask(endpoints.bike, { params: { id: bike.id } })
    expect(record.readings.length).toBeGreaterThan(0)
  })
  it('entered twice is made one, with what was known of either, and two again within the day', async () => {
    const [keeps, other] = [
      await customerOf('estuary 1').catch(() => customerOf('bakery')),
      await customerOf('courier'),
    ]
    await change(other, { email: 'twin@example.org', optedOut: true })
    const merge = (id: string, otherId: string) =>
      shop.device.ask(endpoints.mergeCustomer, { params: { id }, body: { otherId } })
    expect((await merge(keeps.id, keeps.id)).problem.fields).toMatchObject([{ code: 'customer-same' }])
    const { body: one } = await merge(keeps.id, other.id)
    expect(one.bikes.filter(({ now }) => now)).toHaveLength(keeps.bikes.length + other.bikes.length)
    expect(one).toMatchObject({ email: keeps.email ?? 'twin@example.org', optedOut: true, merged: [{ id: other.id }] })
    expect((await page(other.id)).mergedInto).toMatchObject({ id: keeps.id })
    // Whoever looks for a customer finds one.
    const { body: found } = await shop.device.ask(endpoints.customers, { query: { q: other.name } })
    expect(found.some(({ id }) => id === other.id)).toBe(false)
    expect((await merge(other.id, keeps.id)).problem.code).toBe('customer-merged')
    const undo = () =>
      shop.device.ask(endpoints.unmergeCustomer, { params: { id: keeps.id }, body: { otherId: other.id } })
    expect((await undo()).body.bikes.filter(({ now }) => now)).toHaveLength(keeps.bikes.length)
    expect((await page(other.id)).bikes.filter(({ now }) => now)).toHaveLength(other.bikes.length)
    await merge(keeps.id, other.id)
    await query(`UPDATE customers SET merged_at = now() - interval '25 hours' WHERE id = :id RETURNING id`, {
      id: other.id,
    })
    expect((await undo()).problem.code).toBe('merge-past')
  })
})

describe('the list of customers', () => {
  const list = async (query: Record<string, string>) => (await shop.device.ask(endpoints.customerList, { query })).body
  it('has each once, a page at a time, in any order and either way round', async () => {
    const whole = await list({ limit: '200' })
    expect(whole.customers).toHaveLength(whole.total)
    for (const sort of ['name', 'bikes', 'last', 'next'])
      for (const way of ['up', 'down']) {
        const seen: string[] = []
        for (let cursor: string | null = ''; cursor !== null;) {
          const page = await list({ sort, way, limit: '17', ...(cursor === '' ? {} : { cursor }) })
          seen.push(...page.customers.map(({ id }) => id))
          cursor = page.next
        }
        expect(seen.length, `${sort} ${way}`).toBe(whole.total)
        expect(new Set(seen).size).toBe(whole.total)
      }
    const most = await list({ sort: 'bikes', way: 'down' })
    const counts = most.customers.map(({ bikes }) => bikes)
    expect(counts).toEqual([...counts].sort((a, b) => b - a))
  })
  it('is searched by name, number or address, and says when they were here and when next', async () => {
    const ivo = await customerOf('causeway')
    const { customers } = await list({ q: ivo.email ?? ivo.name })
    expect(customers).toHaveLength(1)
    expect(customers[0]).toMatchObject({ id: ivo.id, bikes: ivo.bikes.filter(({ now }) => now).length })
    expect(customers[0]!.lastOn).toMatch(/^\d{4}-/)
  })
})

describe('a customer’s rights', () => {
  it('give them all that is known of them as one file', async () => {
    const ivo = await customerOf('causeway')
    const response = await shop.device.raw('GET', `/api/v1/customers/${ivo.id}/all.json`)
    const all = (await response.json()) as Record<string, unknown[]> & { customer: CustomerPage }
    expect(all.customer.name).toBe('Ivo Marshall')
    const [{ n } = { n: 0 }] = await query<{ n: number }>(
      'SELECT count(*)::int AS n FROM readings r JOIN bikes b ON b.id = r.bike_id WHERE b.customer_id = :id',
      { id: ivo.id },
    )
    expect(all['readings']).toHaveLength(n)
    expect(JSON.stringify(all)).not.toContain('shop_id')
  })
  it('have them erased: nobody finds who they were anywhere, and the shop’s sums and verdicts are what they were', async () => {
    const ivo = await customerOf('causeway')
    const { body: looked } = await shop.device.ask(endpoints.erasure, { params: { id: ivo.id } })
    expect(looked).toMatchObject({ bikes: ivo.bikes.length, spent: ivo.spent.total })
    const causeway = ivo.bikes.find(({ label }) => label === 'Causeway')!
    const before = (await shop.device.ask(endpoints.bike, { params: { id: causeway.id } })).body
    const mechanic = new Device(shop.base)
    await mechanic.signIn('ruan', 'chalkdown-2')
    expect((await mechanic.ask(endpoints.eraseCustomer, { params: { id: ivo.id } })).status).toBe(403)
    const { body: erased } = await shop.device.ask(endpoints.eraseCustomer, { params: { id: ivo.id } })
    expect(erased).toMatchObject({ name: 'Erased customer', phone: null, email: null, notes: '', optedOut: true })
    expect(erased.spent).toEqual({
      ...ivo.spent,
      jobs: ivo.spent.jobs.map((job) => ({ ...job, bike: expect.anything() as string })),
    })
    const after = (await shop.device.ask(endpoints.bike, { params: { id: causeway.id } })).body
    expect(after.readings.map(({ id }) => id)).toEqual(before.readings.map(({ id }) => id))
    expect(after.verdict?.outcome.word).toBe(before.verdict?.outcome.word)
    const tables = await query<{ name: string }>(
      `SELECT c.relname AS name FROM pg_class c WHERE c.relkind = 'r' AND c.relnamespace = 'public'::regnamespace AND c.relrowsecurity`,
    )
    const told: string[] = []
    for (const { name } of tables) {
      const rows = await query(`SELECT 1 FROM ${name} t WHERE t::text ~* 'ivo|marshall|0555 0199'`)
      if (rows.length > 0) told.push(name)
    }
    expect(told).toEqual([])
    expect((await shop.device.ask(endpoints.find, { query: { q: 'marshall' } })).body).toEqual([])
    expect((await shop.device.ask(endpoints.eraseCustomer, { params: { id: ivo.id } })).problem.code).toBe(
      'customer-erased',
    )
    expect((await change(erased, { name: 'Back' })).problem.code).toBe('customer-erased')
  })
  it('leave every bike in the state its facts give', async () => {
    expect((await inShop(shop.database, shopId, null, rebuildState)).differing).toEqual([])
  })
})
