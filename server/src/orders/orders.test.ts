import { v7 } from 'uuid'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type CatalogueItem, type Offer, type Order } from '@pelrin/contract'
import { SupplierStandIn } from '@pelrin/standins/supplier'
import { pino } from 'pino'
import { Queue } from '../queue/queue.ts'
import { inShop } from '../db/index.ts'
import { startShop, type RunningShop } from '../testing/shop.ts'
import { placeOrder, settleOrder } from './service.ts'
import { Supplier } from './supplier.ts'

let shop: RunningShop
const supplier = new SupplierStandIn()
let address: string
beforeAll(async () => {
  restock()
  address = await supplier.listen()
  shop = await startShop({ supplier: address })
})
afterAll(async () => {
  await shop.close()
  await supplier.close()
})
afterEach(() => {
  restock()
  Object.assign(supplier.faults, {
    slow: false,
    stale: false,
    dearer: false,
    lost: false,
    failing: false,
    garbled: false,
  })
})

const partId = async (q: string, kind = 'link'): Promise<string> =>
  (await shop.device.ask(endpoints.catalogue, { query: { q, kind } })).body.parts[0]!.id
const item = async (id: string): Promise<CatalogueItem> =>
  (await shop.device.ask(endpoints.cataloguePart, { params: { id } })).body
/** A supplier that has enough of everything. */
const restock = (): void => supplier.items.forEach((one) => (one.stock = 50))
const offerOf = async (id: string): Promise<Offer> =>
  (await shop.device.ask(endpoints.offers, { body: { parts: [id] } })).body.offers[0]!
const place = async (id: string, partIdOf: string, price: number, quantity = 3) =>
  shop.device.ask(endpoints.placeOrder, { body: { id, lines: [{ partId: partIdOf, quantity, price }] } })
const orderNow = async (id: string): Promise<Order> =>
  (await shop.device.ask(endpoints.orders)).body.find((one) => one.id === id)!
/** Waits until an order is known to be in a state. */
const until = (id: string, state: Order['state']): Promise<void> =>
  expect.poll(async () => (await orderNow(id)).state, { timeout: 20_000 }).toBe(state)
const taken = (reference: string): number =>
  [...supplier.orders.values()].filter((order) => order.reference.endsWith(`.${reference}`)).length

describe('offers', () => {
  it('are the supplier’s prices and stock, and what it said last while it does not answer', async () => {
    const id = await partId('varrow link 11')
    const first = (await shop.device.ask(endpoints.offers, { body: { parts: [id] } })).body
    expect(first.problem).toBeNull()
    expect(first.offers).toHaveLength(1)
    const sku = first.offers[0]!.sku
    expect(first.offers[0]).toMatchObject({
      price: supplier.items.get(sku)!.price,
      stock: supplier.items.get(sku)!.stock,
    })
    supplier.faults.failing = true
    const second = (await shop.device.ask(endpoints.offers, { body: { parts: [id] } })).body
    expect([second.problem, second.offers[0]?.askedAt]).toEqual(['supplier-failed', first.offers[0]!.askedAt])
    Object.assign(supplier.faults, { failing: false, garbled: true })
    expect((await shop.device.ask(endpoints.offers, { body: { parts: [id] } })).body.problem).toBe('supplier-garbled')
  })
})

describe('an order', () => {
  it('is placed once however often it is sent, and goes into stock as it comes', async () => {
    const id = await partId('varrow link 11')
    const { price } = await offerOf(id)
    const before = await item(id)
    const order = v7()
    const [first, second] = await Promise.all([place(order, id, price), place(order, id, price)])
    expect([first.status, second.status]).toEqual([200, 200])
    await until(order, 'placed')
    expect(taken(order)).toBe(1)
    expect((await item(id)).onOrder).toBe(before.onOrder + 3)
    const { lines, number } = await orderNow(order)
    expect(number).toMatch(/^Q\d+/)
    const receive = (quantity: number) =>
      shop.device.ask(endpoints.receiveOrder, {
        params: { id: order },
        body: { lines: [{ id: lines[0]!.id, quantity }] },
      })
    expect((await receive(2)).body.state).toBe('placed')
    expect(await item(id)).toMatchObject({ stock: before.stock + 2, onOrder: before.onOrder + 1 })
    const tooMany = await receive(2)
    expect(tooMany.problem.fields?.[0]).toMatchObject({ path: 'lines.0.quantity', code: 'received-many' })
    expect((await receive(1)).body.state).toBe('received')
    expect((await item(id)).movements[0]).toMatchObject({ kind: 'received', change: 1 })
  })
  it('that was taken without a word is found, and not sent as another', async () => {
    const id = await partId('korvane link 10')
    const { price } = await offerOf(id)
    supplier.faults.lost = true
    const order = v7()
    const { body } = await place(order, id, price)
    expect([body.state, body.problem]).toEqual(['unsure', 'supplier-away'])
    supplier.faults.lost = false
    await until(order, 'placed')
    expect(taken(order)).toBe(1)
    expect(
      [...supplier.orders.values()].find(({ reference }) => reference.endsWith(`.${order}`))?.lines[0]?.quantity,
    ).toBe(3)
  })
  it('to a slow supplier answers in time, and is settled afterwards', async () => {
    const id = await partId('korvane link 10')
    const { price } = await offerOf(id)
    supplier.faults.slow = true
    const order = v7()
    const began = Date.now()
    const { body } = await place(order, id, price)
    expect(Date.now() - began).toBeLessThan(10_000)
    expect([body.state, body.problem]).toEqual(['unsure', 'supplier-slow'])
    supplier.faults.slow = false
    await until(order, 'placed')
    expect(taken(order)).toBe(1)
  })
  it('at a price that went up is refused with the new one, and ordered once it was accepted', async () => {
    const id = await partId('ostling link 9')
    const { price } = await offerOf(id)
    supplier.faults.dearer = true
    const order = v7()
    const { body } = await place(order, id, price)
    expect(body).toMatchObject({ state: 'refused', problem: 'order-not-as-listed' })
    const dearer = body.lines[0]!.priceNow!
    expect(dearer).toBeGreaterThan(price)
    expect(taken(order)).toBe(0)
    expect((await offerOf(id)).price).toBe(dearer)
    const stale = await shop.device.ask(endpoints.acceptOrder, { params: { id: order }, body: { version: 1 } })
    expect(stale.status).toBe(412)
    const accepted = await shop.device.ask(endpoints.acceptOrder, {
      params: { id: order },
      body: { version: body.version },
    })
    expect(accepted.body).toMatchObject({ state: 'placed', cost: 3 * dearer })
    expect(taken(order)).toBe(1)
  })
  it('of more than there is in truth is refused, and can be given up or cut to what there is', async () => {
    const id = await partId('ostling link 9')
    supplier.faults.stale = true
    const { price, stock, sku } = await offerOf(id)
    const order = v7()
    const { body } = await place(order, id, price, stock)
    const really = supplier.items.get(sku)!.stock
    expect(body).toMatchObject({ state: 'refused', lines: [{ stockNow: really }] })
    const other = v7()
    const refused = (await place(other, id, price, stock)).body
    const given = await shop.device.ask(endpoints.cancelOrder, {
      params: { id: other },
      body: { version: refused.version },
    })
    expect(given.body.state).toBe('cancelled')
    const { body: cut } = await shop.device.ask(endpoints.acceptOrder, {
      params: { id: order },
      body: { version: body.version },
    })
    expect(cut).toMatchObject({ state: 'placed', lines: [{ quantity: really }] })
    expect([taken(order), taken(other)]).toEqual([1, 0])
  })
  it('of what was never offered, or of nothing, is refused at its field', async () => {
    const unoffered = await partId('mabry pin 9', 'pin')
    const { problem } = await place(v7(), unoffered, 100)
    expect(problem.fields?.[0]).toMatchObject({ path: 'lines.0.partId', code: 'offer-unknown' })
    const none = await shop.device.ask(endpoints.placeOrder, { body: { id: v7(), lines: [] } })
    expect(none.problem.fields?.[0]).toMatchObject({ path: 'lines', code: 'parts-none' })
  })
  it('is seen to by the queue after the server that wrote it was stopped', async () => {
    const id = await partId('korvane link 12')
    const { price } = await offerOf(id)
    const { shop: own, person } = (await shop.device.ask(endpoints.session)).body
    const order = v7()
    const { database } = shop
    // A supplier nobody reaches: the order is written, and hangs.
    const away = new Supplier('127.0.0.1:9', 'quayside-5')
    const reached = new Supplier(address, 'quayside-5')
    const silent = pino({ level: 'silent' })
    const drain = (): Promise<null> => Promise.resolve(null)
    const rebuild = (): Promise<boolean> => Promise.resolve(false)
    const first = new Queue(shop.url, silent, { settle: () => Promise.resolve(false), drain, rebuild })
    await first.start()
    const author = { author: { personId: person.id, deviceId: null, requestId: null }, role: 'owner' as const }
    const hanging = await placeOrder({ database, supplier: away, jobs: first }, own.id, author, {
      id: order,
      lines: [{ partId: id, quantity: 3, price }],
    })
    expect(hanging.state).toBe('unsure')
    await first.stop()
    const second: Queue = new Queue(shop.url, silent, {
      drain,
      rebuild,
      settle: async (shopId, orderId) => {
        const { state } = await settleOrder({ database, supplier: reached, jobs: second }, shopId, orderId)
        return state === 'placed'
      },
    })
    await second.start()
    await until(order, 'placed')
    await second.stop()
    expect(taken(order)).toBe(1)
    const left = await inShop(database, own.id, null, (work) =>
      work.select(
        "SELECT 1 AS one FROM pelrin_jobs.job WHERE name = 'settle-order' AND state IN ('created', 'active')",
      ),
    )
    expect(left).toEqual([])
  })
})
