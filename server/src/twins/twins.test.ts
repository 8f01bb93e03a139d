import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { endpoints, type BikeRecord } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { rebuildState } from '../state/bikeState.ts'
import { bikeNamed, readingOf, startShop, type RunningShop } from '../testing/shop.ts'
import { MOVES, STAYS } from './mergeBikes.ts'

let shop: RunningShop
let shopId: string
beforeAll(async () => {
  shop = await startShop()
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
})
afterAll(() => shop.close())

const query = <Row extends object>(sql: string, values: Record<string, unknown> = {}): Promise<Row[]> =>
  inShop(shop.database, shopId, null, (work) => work.select<Row>(sql, values))
const record = async (id: string): Promise<BikeRecord> =>
  (await shop.device.ask(endpoints.bike, { params: { id } })).body
const merge = (id: string, otherId: string) =>
  shop.device.ask(endpoints.mergeBike, { params: { id }, body: { otherId } })
const undo = (id: string, otherId: string) =>
  shop.device.ask(endpoints.unmergeBike, { params: { id }, body: { otherId } })

/** The same bike, entered again by somebody who did not find it, measured once. */
async function enteredAgain(of: { customer: { id: string } }, label: string): Promise<BikeRecord> {
  const id = v7()
  await shop.device.ask(endpoints.addBike, {
    body: {
      id,
      customer: { id: of.customer.id },
      label,
      kind: 'town',
      drive: { type: 'derailleur', speeds: 9, fronts: [44], sprockets: [11, 13, 15, 17, 20, 23, 26, 30, 34] },
      chain: { id: v7(), fittingId: v7(), name: 'some chain', pitches: 112, care: 'dry-oil' },
      odometer: null,
    },
  })
  await shop.device.ask(endpoints.takeReading, { body: await readingOf(shop.device, id) })
  return record(id)
}

describe('a bike entered twice', () => {
  it('is made one: all that was recorded of either is of it, of the chain that was on it, and it is judged by all', async () => {
    const causeway = await bikeNamed(shop.device, 'causeway')
    const before = await record(causeway.id)
    const other = await enteredAgain(causeway, 'Again')
    const { status, body } = await merge(causeway.id, other.summary.id)
    expect(status).toBe(200)
    expect(body.readings).toHaveLength(before.readings.length + 1)
    expect(body.chain?.id).toBe(before.chain?.id)
    expect(body.readings[0]!.id).toBe(other.readings[0]!.id)
    expect(body.verdict!.outcome.countedReadingIds).toContain(other.readings[0]!.id)
    expect(body.merged).toEqual([{ id: other.summary.id, label: 'Again', tag: other.summary.tag }])
    const [moved] = await query<{ chain: string; fitting: string }>(
      'SELECT chain_id AS chain, fitting_id AS fitting FROM readings WHERE id = :id',
      { id: other.readings[0]!.id },
    )
    expect(moved).toEqual({ chain: before.chain!.id, fitting: before.chain!.fittingId })
  })
  it('is looked for under the one, and by the tag of the other too; lists show it once', async () => {
    const causeway = await bikeNamed(shop.device, 'causeway')
    const [other] = (await record(causeway.id)).merged
    const found = async (q: string) =>
      (await shop.device.ask(endpoints.find, { query: { q } })).body.map(({ id }) => id)
    expect(await found(other!.tag)).toEqual([causeway.id])
    expect(await found('Again')).not.toContain(other!.id)
    expect((await record(other!.id)).mergedInto).toMatchObject({ id: causeway.id })
    const { body: customer } = await shop.device.ask(endpoints.customer, { params: { id: causeway.customer.id } })
    expect(customer.bikes.map(({ id }) => id)).not.toContain(other!.id)
    const csv = await (await shop.device.raw('GET', '/api/v1/export/bikes.csv')).text()
    expect(csv).not.toContain(other!.id)
    expect((await merge(causeway.id, other!.id)).problem.code).toBe('bike-merged')
  })
  it('is two again within the day, each with what was its own', async () => {
    const causeway = await bikeNamed(shop.device, 'causeway')
    const [other] = (await record(causeway.id)).merged
    const { status, body } = await undo(causeway.id, other!.id)
    expect(status).toBe(200)
    expect(body.merged).toEqual([])
    const again = await record(other!.id)
    expect(again).toMatchObject({ mergedInto: null, goneOn: null, chain: { name: 'some chain' } })
    expect(again.readings).toHaveLength(1)
    expect(again.readings[0]!.chainKm).not.toBeUndefined()
    expect(body.readings.map(({ id }) => id)).not.toContain(again.readings[0]!.id)
    expect((await undo(causeway.id, other!.id)).status).toBe(404)
  })
  it('stays one once something was done on it, or after a day', async () => {
    const causeway = await bikeNamed(shop.device, 'causeway')
    const other = await bikeNamed(shop.device, 'Again')
    await merge(causeway.id, other.id)
    await query(`UPDATE bikes SET merged_at = now() - interval '25 hours' WHERE id = :id RETURNING id`, other)
    expect((await undo(causeway.id, other.id)).problem.code).toBe('merge-past')
    await query(`UPDATE bikes SET merged_at = now() WHERE id = :id RETURNING id`, other)
    await shop.device.ask(endpoints.takeReading, { body: await readingOf(shop.device, causeway.id) })
    expect((await undo(causeway.id, other.id)).problem.code).toBe('merge-worked-since')
  })
  it('is refused of itself, of none, and while work goes on', async () => {
    const bakery = await bikeNamed(shop.device, 'bakery')
    expect((await merge(bakery.id, bakery.id)).problem.fields).toMatchObject([{ code: 'bike-same' }])
    expect((await merge(bakery.id, v7())).problem.code).toBe('bike-unknown')
    const other = await enteredAgain(bakery, 'Bun')
    await shop.device.ask(endpoints.putOnStand, { body: { visitId: v7(), bikeId: other.summary.id } })
    expect((await merge(bakery.id, other.summary.id)).problem.code).toBe('merge-at-work')
  })
  it('leaves every bike in the state its facts give, and comes whole out of an archive', async () => {
    expect((await inShop(shop.database, shopId, null, rebuildState)).differing).toEqual([])
    const archive = await (await shop.device.raw('GET', '/api/v1/archive.jsonl')).text()
    expect(archive).toContain('"merged_into_id":')
  })
  it('has each table that names a bike or a chain either go along or stay, on purpose', async () => {
    const tables = await query<{ name: string }>(
      `SELECT DISTINCT conrelid::regclass::text AS name FROM pg_constraint WHERE contype = 'f' AND confrelid = 'bikes'::regclass`,
    )
    expect(tables.map(({ name }) => name).filter((name) => !MOVES.includes(name) && !STAYS.includes(name))).toEqual([])
  })
})
