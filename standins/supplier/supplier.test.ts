import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { SupplierStandIn, type SupplierItem, type SupplierOrder } from './SupplierStandIn.ts'

let supplier: SupplierStandIn
let base: string
beforeEach(async () => {
  supplier = new SupplierStandIn()
  base = `http://${await supplier.listen()}`
})
afterEach(() => supplier.close())

const ask = (path: string, body?: unknown, token = 'quayside-5'): Promise<Response> =>
  fetch(base + path, {
    method: body === undefined ? 'GET' : 'POST',
    headers: { authorization: `Bearer ${token}` },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
const items = async (): Promise<SupplierItem[]> =>
  ((await (await ask('/v1/items')).json()) as { items: SupplierItem[] }).items
const some = async (): Promise<SupplierItem> => (await items()).find(({ stock }) => stock > 5)!
const order = (reference: string, { sku, price }: SupplierItem, quantity = 2): Promise<Response> =>
  ask('/v1/orders', { reference, lines: [{ sku, quantity, price }] })

describe('the stand-in supplier', () => {
  it('lists about a hundred articles, each once, to who has its token', async () => {
    const listed = await items()
    expect(listed.length).toBeGreaterThan(100)
    expect(new Set(listed.map(({ sku }) => sku)).size).toBe(listed.length)
    expect((await ask('/v1/items', undefined, 'wrong')).status).toBe(401)
  })
  it('takes an order out of its stock once a reference, and tells it again', async () => {
    const item = await some()
    const before = item.stock
    const first = await order('r1', item)
    const second = await order('r1', item)
    expect([first.status, second.status]).toEqual([201, 200])
    expect(await second.json()).toEqual(await first.json())
    expect((await items()).find(({ sku }) => sku === item.sku)?.stock).toBe(before - 2)
    expect(((await (await ask('/v1/orders/r1')).json()) as SupplierOrder).number).toBe('Q00001')
    expect((await ask('/v1/orders/r2')).status).toBe(404)
  })
  it('refuses another price, more than it has, and what it does not list; and takes nothing', async () => {
    const item = await some()
    expect((await order('r1', { ...item, price: item.price - 1 })).status).toBe(409)
    const short = await order('r2', item, item.stock + 1)
    expect(await short.json()).toMatchObject({ lines: [{ sku: item.sku, stock: item.stock }] })
    expect((await order('r3', { ...item, sku: 'XX-1' })).status).toBe(422)
    expect(supplier.orders.size).toBe(0)
  })
  it('has faults that can be switched on and off', async () => {
    const item = await some()
    const fault = (faults: object): Promise<Response> => ask('/faults', faults)
    await fault({ lost: true })
    await expect(order('r1', item)).rejects.toThrow()
    expect(supplier.orders.size).toBe(1)
    await fault({ lost: false, stale: true })
    expect((await items()).find(({ sku }) => sku === item.sku)!.stock).toBeGreaterThan(item.stock)
    await fault({ stale: false, dearer: true })
    expect((await order('r2', item)).status).toBe(409)
    await fault({ failing: true })
    expect((await ask('/v1/items')).status).toBe(500)
    await fault({ failing: false, garbled: true })
    await expect((await ask('/v1/items')).json()).rejects.toThrow()
  })
})
