import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type KeptParts } from '@pelrin/contract'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
let partId: string
beforeAll(async () => {
  shop = await startShop()
  partId = (await shop.device.ask(endpoints.catalogue, { query: { q: 'korvane ten', kind: 'chain' } })).body.parts[0]!
    .id
})
afterAll(() => shop.close())

const keep = async (bike: string, quantity: number, more: Record<string, unknown> = {}): Promise<KeptParts> =>
  (
    await shop.device.ask(endpoints.keepParts, {
      params: { id: (await bikeNamed(shop.device, bike)).id },
      body: { id: v7(), pitches: 112, lines: [{ id: v7(), partId, quantity, included: false }], ...more },
    })
  ).body
const keptOf = async (bike: string): Promise<KeptParts | null> =>
  (await shop.device.ask(endpoints.bikeParts, { params: { id: (await bikeNamed(shop.device, bike)).id } })).body.kept
const count = (kind: string, quantity: number) =>
  shop.device.ask(endpoints.moveStock, { params: { id: partId }, body: { id: v7(), kind, quantity } })
const stockSeenBy = async (bike: string): Promise<number | undefined> =>
  (
    await shop.device.ask(endpoints.bikeParts, {
      params: { id: (await bikeNamed(shop.device, bike)).id },
      query: { ask: 'korvane ten' },
    })
  ).body.chains.find(({ part }) => part.id === partId)?.part.stock

describe('kept parts', () => {
  it('lie here for who kept them first; what comes goes to who waits longest', async () => {
    await count('counted', 3)
    expect((await keep('nell winter', 2)).lines[0]).toMatchObject({ quantity: 2, here: 2 })
    expect((await keep('ivo marsh', 2)).lines[0]).toMatchObject({ quantity: 2, here: 1 })
    expect((await keep('island mail 4', 1)).lines[0]).toMatchObject({ here: 0 })
    await count('received', 1)
    expect((await keptOf('ivo marsh'))?.lines[0]?.here).toBe(2)
    expect((await keptOf('island mail 4'))?.lines[0]?.here).toBe(0)
  })
  it('are free for nobody else, and free again once they are let go', async () => {
    await count('counted', 3)
    expect(await stockSeenBy('sand racer')).toBe(0)
    expect(await stockSeenBy('nell winter')).toBe(2)
    const kept = (await keptOf('nell winter'))!
    await shop.device.ask(endpoints.dropParts, { params: { id: kept.id }, version: kept.version })
    expect(await keptOf('nell winter')).toBeNull()
    expect((await keptOf('island mail 4'))?.lines[0]?.here).toBe(1)
    const again = await shop.device.ask(endpoints.dropParts, { params: { id: kept.id }, version: kept.version })
    expect(again.status).toBe(204)
  })
  it('are one list a bike: a new one takes the place of the old, also when two are sent at once', async () => {
    await Promise.all([keep('nell winter', 1), keep('nell winter', 2)])
    const kept = await keptOf('nell winter')
    expect(kept?.lines).toHaveLength(1)
    const part = (await shop.device.ask(endpoints.cataloguePart, { params: { id: partId } })).body
    expect(part.keptFor.filter(({ bike }) => bike.startsWith('Nell'))).toHaveLength(1)
  })
  it('cost what is paid for, and nothing for what comes in a box', async () => {
    const id = v7()
    const { lines, cost } = await keep('nell winter', 2, {
      id,
      lines: [
        { id: v7(), partId, quantity: 2, included: false },
        { id: v7(), partId, quantity: 2, included: true },
      ],
    })
    expect(cost).toBe(2 * lines[0]!.price!)
  })
  it('of what is not in the catalogue, or of nothing, are refused at their field', async () => {
    const params = { id: (await bikeNamed(shop.device, 'ivo marsh')).id }
    const line = { id: v7(), partId: '0192c7f2-5340-7b38-85ad-000000000000', quantity: 1, included: false }
    const unknown = await shop.device.ask(endpoints.keepParts, {
      params,
      body: { id: v7(), pitches: 1, lines: [line] },
    })
    expect(unknown.problem.fields?.[0]).toMatchObject({ path: 'lines.0.partId', code: 'part-unknown' })
    const none = await shop.device.ask(endpoints.keepParts, { params, body: { id: v7(), pitches: 1, lines: [] } })
    expect(none.problem.fields?.[0]).toMatchObject({ path: 'lines', code: 'parts-none' })
    expect((await keptOf('ivo marsh'))?.lines).toHaveLength(1)
  })
})
