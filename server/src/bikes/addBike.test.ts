import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { endpoints, type Input } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { rebuildState } from '../state/bikeState.ts'
import { readingOf, startShop, type Answer, type RunningShop } from '../testing/shop.ts'

type Adding = Input<typeof endpoints.addBike.body>

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const bike = (more: Partial<Adding> = {}): Adding => ({
  id: v7(),
  customer: { id: v7(), new: { name: 'Edda Quill', phone: '0555 0199' } },
  label: 'Estuary',
  kind: 'gravel',
  drive: { type: 'derailleur', speeds: 11, fronts: [40], sprockets: [11, 13, 15, 17, 19, 21, 24, 28, 32, 37, 42] },
  chain: { id: v7(), fittingId: v7(), name: 'Tindrel 11', pitches: 114, care: 'dry-oil' },
  odometer: { id: v7(), typed: '1 204' },
  ...more,
})
const add = (body: Adding, key = v7()): Promise<Answer<unknown>> => shop.device.ask(endpoints.addBike, { body, key })
const fieldsOf = (answer: Answer<unknown>): string[] =>
  answer.problem.fields!.map(({ path, code }) => `${path} ${code}`)

describe('a bike that was never here', () => {
  it('comes in with its customer, drive, chain and odometer, and stands where every other stands', async () => {
    const body = bike()
    const added = await shop.device.ask(endpoints.addBike, { body })
    expect(added.status).toBe(200)
    expect(added.body).toMatchObject({ label: 'Estuary', customer: { name: 'Edda Quill' }, verdict: 'measure-it' })
    expect(added.body.tag).toMatch(/^\d{4}$/)
    const { body: found } = await shop.device.ask(endpoints.find, { query: { q: 'edda' } })
    expect(found.map(({ id }) => id)).toContain(body.id)
    const { body: record } = await shop.device.ask(endpoints.bike, { params: { id: body.id } })
    expect(record).toMatchObject({
      customer: { phone: '0555 0199' },
      chain: { name: 'Tindrel 11', pitches: 114, start: 'unknown', care: 'dry-oil' },
      lastOdometer: { km: 1204 },
    })
  })
  it('is measured, judged, matched and put on the stand like any other', async () => {
    const body = bike({ label: 'Ferry' })
    await add(body)
    const reading = await readingOf(shop.device, body.id)
    const { body: record } = await shop.device.ask(endpoints.takeReading, { body: reading })
    expect(record.verdict?.outcome.word).toBe('change')
    const { body: parts } = await shop.device.ask(endpoints.bikeParts, { params: { id: body.id } })
    expect(parts.drive.fronts).toEqual([40])
    const { body: lineUp } = await shop.device.ask(endpoints.putOnStand, {
      body: { visitId: v7(), bikeId: body.id },
    })
    expect(lineUp.visits.some((visit) => visit.here && visit.bike.id === body.id)).toBe(true)
  })
  it('may come without a chain, or with one that goes on new', async () => {
    const bare = bike({ chain: null, odometer: null })
    expect((await add(bare)).status).toBe(200)
    const { body: record } = await shop.device.ask(endpoints.bike, { params: { id: bare.id } })
    expect([record.chain, record.lastOdometer]).toEqual([null, null])
    const fresh = bike({ chain: { id: v7(), fittingId: v7(), name: 'Tindrel 11', fittedNew: true } })
    await add(fresh)
    const { body: begun } = await shop.device.ask(endpoints.bike, { params: { id: fresh.id } })
    expect(begun.chain).toMatchObject({ start: 'fitted', baselineWanted: true })
  })
  it('sent twice is one bike; two at once get two tags', async () => {
    const body = bike({ customer: { id: v7(), new: { name: 'Hale Brandt', phone: null } } })
    const key = v7()
    const [one, two] = [await add(body, key), await add(body, key)]
    expect(two.body).toEqual(one.body)
    const customer = { id: body.customer.id }
    const both = await Promise.all([add(bike({ customer })), add(bike({ customer }))])
    const tags = both.map(({ body: summary }) => (summary as { tag: string }).tag)
    expect(new Set(tags).size).toBe(2)
  })
  it('is refused at each field that cannot be, and nothing of it is written', async () => {
    const nobody = bike({ customer: { id: v7() } })
    expect(fieldsOf(await add(nobody))).toEqual(['customer.id customer-unknown'])
    const taken = bike({ tag: '0400', customer: { id: v7(), new: { name: 'Never Written' } } })
    expect(fieldsOf(await add(taken))).toEqual(['tag tag-taken'])
    const drive = { type: 'derailleur' as const, speeds: 11, fronts: [4], sprockets: [11, 42, 13] }
    expect(fieldsOf(await add(bike({ drive, odometer: { id: v7(), typed: 'many' } })))).toEqual([
      'drive.fronts teeth-few',
      'drive.sprockets sprockets-order',
      'odometer.typed odometer-letters',
    ])
    const { body: found } = await shop.device.ask(endpoints.customers, { query: { q: 'never written' } })
    expect(found).toEqual([])
  })
  it('is not for a shop that only reads, and its customer is found by name or number', async () => {
    const { body: byNumber } = await shop.device.ask(endpoints.customers, { query: { q: '0555 01' } })
    expect(byNumber.map(({ name }) => name)).toContain('Edda Quill')
    expect(byNumber.find(({ name }) => name === 'Edda Quill')!.bikes).toContain('Estuary')
    await shop.device.signIn('coral', 'slipway-4')
    expect((await add(bike())).status).toBe(403)
    await shop.device.signIn()
  })
  it('has the state its facts give', async () => {
    const [[{ id } = { id: '' }]] = (await shop.database.sequelize.query('SELECT id FROM shops')) as [
      { id: string }[],
      unknown,
    ]
    expect((await inShop(shop.database, id, null, rebuildState)).differing).toEqual([])
  })
})
