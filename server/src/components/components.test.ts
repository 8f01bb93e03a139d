import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type BikeComponents } from '@pelrin/contract'
import { inShop } from '../db/index.ts'
import { rebuildState } from '../state/bikeState.ts'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
const partsOf = async (text: string): Promise<BikeComponents['components']> =>
  (await shop.device.ask(endpoints.bikeComponents, { params: { id: await idOf(text) } })).body.components
const record = async (text: string) =>
  (await shop.device.ask(endpoints.bike, { params: { id: await idOf(text) } })).body
const fit = async (text: string, body: Record<string, unknown>, key = v7()) =>
  shop.device.ask(endpoints.fitComponent, {
    params: { id: await idOf(text) },
    key,
    body: { id: v7(), item: 'cassette', occurredAt: new Date().toISOString(), ...body },
  })
const undo = (id: string) =>
  shop.device.ask(endpoints.undoComponent, { params: { id }, body: { reason: 'other bike' } })
/** A cassette with some in stock. */
const cassette = async () => {
  const { body } = await shop.device.ask(endpoints.catalogue, { query: { kind: 'cassette' } })
  return body.parts.find(({ stock }) => stock > 1)!
}
const stockOf = async (id: string): Promise<number> =>
  (await shop.device.ask(endpoints.cataloguePart, { params: { id } })).body.stock
const look = async (text: string, more: Record<string, unknown>, daysAgo = 0) =>
  shop.device.ask(endpoints.checkWear, {
    params: { id: await idOf(text) },
    body: {
      occurredAt: new Date(Date.now() - daysAgo * 86_400_000).toISOString(),
      checks: [{ id: v7(), item: 'cassette', grade: 'done', ...more }],
    },
  })
const itemOf = async (text: string, item: string) =>
  (await shop.device.ask(endpoints.otherWear, { params: { id: await idOf(text) } })).body.items.find(
    (one) => one.item === item,
  )!

describe('a cassette', () => {
  it('is a thing with a life: it leaves the stock, ends the one before, and stands in the timeline', async () => {
    const part = await cassette()
    const before = await fit('downs', {
      name: 'The first',
      occurredAt: new Date(Date.now() - 90 * 86_400_000).toISOString(),
    })
    expect(before.body.components).toMatchObject([{ name: 'The first', to: null }])
    const key = v7()
    const once = { id: v7(), partId: part.id, occurredAt: new Date().toISOString() }
    const sent = await Promise.all([fit('downs', once, key), fit('downs', once, key)])
    expect(sent.map(({ status }) => status)).toEqual([200, 200])
    const [now, first] = await partsOf('downs')
    expect(now).toMatchObject({ name: `${part.maker} ${part.name}`, price: part.price, to: null, canUndo: true })
    expect(first).toMatchObject({ name: 'The first', endReason: 'worn' })
    expect(first!.to).toBe(now!.from)
    expect(first!.km).toBeGreaterThan(50)
    expect(await stockOf(part.id)).toBe(part.stock - 1)
    const kinds = (await record('downs')).events.filter(({ item }) => item === 'cassette').map(({ kind }) => kind)
    expect(kinds.sort()).toEqual(['part-off', 'part-on', 'part-on'])
  })
  it('taken back within the day lies in stock, and the one before is on again', async () => {
    const [now] = await partsOf('downs')
    const stock = await stockOf(now!.partId!)
    expect((await undo(now!.id)).body.components).toMatchObject([{ name: 'The first', to: null, endReason: null }])
    expect(await stockOf(now!.partId!)).toBe(stock + 1)
    const [first] = await partsOf('downs')
    expect((await undo(first!.id)).problem.code).toBe('undo-late')
  })
  it('that is on has none of the looks at the one before, and is as good as new until it is looked at', async () => {
    await look('downs', {}, 1)
    expect(await itemOf('downs', 'cassette')).toMatchObject({ result: 'change', dueKm: 0 })
    await fit('downs', { name: 'The second' })
    const fresh = await itemOf('downs', 'cassette')
    expect(fresh).toMatchObject({ result: 'good', on: { name: 'The second' } })
    expect(fresh.dueKm).toBeGreaterThan(1000)
    expect(fresh.checks[0]).toMatchObject({ grade: 'done' })
  })
  it('counts what chains did to it from the day it came on', async () => {
    const before = await record('courier')
    expect(before.earlierChains.length).toBeGreaterThan(0)
    expect(before.sprocketsFrom).toBe(0)
    await fit('courier', { name: 'Fresh' })
    const after = await record('courier')
    expect(after.earlierChains).toEqual([])
    expect(after.sprocketsFrom).toBeGreaterThan(0)
  })
  it('is ticked in a pass over the bike with the part it is, and goes when the look is taken back', async () => {
    const part = await cassette()
    const { body } = await look('sand racer', { grade: 'as-new', renewed: true, fitted: { partId: part.id } })
    expect(body.items.find(({ item }) => item === 'cassette')!.on).toMatchObject({ name: `${part.maker} ${part.name}` })
    const [written] = (await itemOf('sand racer', 'cassette')).checks
    await shop.device.ask(endpoints.withdrawWearCheck, {
      params: { id: written!.id },
      body: { id: v7(), reason: 'other bike' },
    })
    expect(await partsOf('sand racer')).toEqual([])
    expect(await stockOf(part.id)).toBe(part.stock)
  })
  it('of another kind, out of stock, or before the one that is on, is refused at its field', async () => {
    const { body } = await shop.device.ask(endpoints.catalogue, { query: { kind: 'chain' } })
    const wrong = await fit('island mail 4', { partId: body.parts[0]!.id })
    expect(wrong.problem.fields).toMatchObject([{ path: 'partId', code: 'part-unknown' }])
    const part = await cassette()
    await shop.device.ask(endpoints.moveStock, {
      params: { id: part.id },
      body: { id: v7(), kind: 'counted', quantity: 0 },
    })
    const none = await fit('island mail 4', { partId: part.id })
    expect(none.problem.fields).toMatchObject([{ path: 'partId', code: 'component-short' }])
    const early = await fit('downs', { name: 'Late', occurredAt: new Date(Date.now() - 86_400_000).toISOString() })
    expect(early.problem.code).toBe('component-newer')
  })
  it('leaves the state of every bike as it is worked out anew', async () => {
    const { body } = await shop.device.ask(endpoints.session)
    expect((await inShop(shop.database, body.shop.id, null, rebuildState)).differing).toEqual([])
  })
})

describe('a new chain that skips', () => {
  it('ends in a cassette that is written with the job, billed with it, and goes when that is taken back', async () => {
    const text = 'orla eddy training'
    const id = await idOf(text)
    const { body } = await shop.device.ask(endpoints.catalogue, { query: { kind: 'cassette' } })
    const part = body.parts.find(({ stock }) => stock > 1)!
    const { body: job } = await shop.device.ask(endpoints.openJob, {
      params: { id },
      body: { id: v7(), reason: 'worn' },
    })
    await shop.device.ask(endpoints.jobEvent, {
      params: { id: job.id },
      body: { id: v7(), occurredAt: new Date().toISOString(), kind: 'outcome', outcome: 'skips-cassette' },
    })
    const closed = await shop.device.ask(endpoints.closeJob, {
      params: { id: job.id },
      body: {
        oldReason: 'worn',
        oldFate: 'scrapped',
        click: 'firm',
        minutes: 40,
        pitches: 112,
        cassette: { partId: part.id },
      },
    })
    expect(closed.status).toBe(200)
    expect(closed.body.written!.used).toContainEqual({ partId: part.id, quantity: 1 })
    expect(await partsOf(text)).toMatchObject([{ item: 'cassette', name: `${part.maker} ${part.name}` }])
    expect(await stockOf(part.id)).toBe(part.stock - 1)
    await shop.device.ask(endpoints.undoJob, { params: { id: job.id }, body: { reason: 'wrong bike' } })
    expect(await partsOf(text)).toEqual([])
    expect(await stockOf(part.id)).toBe(part.stock)
  })
  it('ends with the old chain back on, closed by a link from stock that is counted', async () => {
    const text = 'nell winter'
    const id = await idOf(text)
    const { body: parts } = await shop.device.ask(endpoints.bikeParts, { params: { id }, query: {} })
    const [link] = parts.joints.flatMap(({ part: { model }, outcome }) =>
      model !== 're-press' && model.kind === 'link' && model.stock > 0 && outcome !== 'does-not-fit' ? [model] : [],
    )
    const { body: job } = await shop.device.ask(endpoints.openJob, {
      params: { id },
      body: { id: v7(), reason: 'worn', oldFate: 'spare' },
    })
    await shop.device.ask(endpoints.jobEvent, {
      params: { id: job.id },
      body: { id: v7(), occurredAt: new Date().toISOString(), kind: 'outcome', outcome: 'skips-old-back' },
    })
    const before = await stockOf(link!.id)
    const chain = (await record(text)).chain!.id
    const close = (more: Record<string, unknown>) =>
      shop.device.ask(endpoints.closeJob, {
        params: { id: job.id },
        body: { oldReason: 'worn', oldFate: 'spare', minutes: 40, pitches: 112, click: 'firm', ...more },
      })
    expect((await close({ click: 'weak', linkPartId: link!.id })).problem.fields?.[0]?.code).toBe('click-weak')
    const closed = await close({ linkPartId: link!.id })
    expect(closed.body.written).toMatchObject({ newChainId: null, used: [{ partId: link!.id, quantity: 1 }] })
    const page = (await shop.device.ask(endpoints.chain, { params: { id: chain } })).body
    expect(page.chain).toMatchObject({ state: 'on', joint: { closings: 1, firm: true } })
    expect(await stockOf(link!.id)).toBe(before - 1)
  })
})

describe('what a bike’s own parts cost', () => {
  it('is what was paid for the cassette that is on, not what one of its teeth costs by the catalogue', async () => {
    const before = (await record('sunday')).ownPrices.cassette
    await fit('sunday', { name: 'Left over from the sale', price: 1234 })
    expect((await record('sunday')).ownPrices.cassette).toEqual({ name: 'Left over from the sale', price: 1234 })
    const [now] = await partsOf('sunday')
    await undo(now!.id)
    expect((await record('sunday')).ownPrices.cassette).toEqual(before)
  })
})
