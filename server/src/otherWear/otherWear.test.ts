import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type ItemNow } from '@pelrin/contract'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const DAY = 86_400_000
const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
const check = async (text: string, checks: Record<string, unknown>[], daysAgo = 0) =>
  shop.device.ask(endpoints.checkWear, {
    params: { id: await idOf(text) },
    body: {
      occurredAt: new Date(Date.now() - daysAgo * DAY).toISOString(),
      checks: checks.map((one) => ({ id: v7(), ...one })),
    },
  })
const itemsOf = async (text: string): Promise<readonly ItemNow[]> =>
  (await shop.device.ask(endpoints.otherWear, { params: { id: await idOf(text) } })).body.items
const item = async (text: string, name: string): Promise<ItemNow> =>
  (await itemsOf(text)).find((one) => one.item === name)!

describe('other wear', () => {
  it('is asked of what a bike has, and nothing is known before anybody looked', async () => {
    const items = await itemsOf('courier')
    expect(items.map((one) => one.item)).toContain('pulleys')
    const tyres = items.find((one) => one.item === 'tyres')!
    expect([tyres.result, tyres.dueKm, tyres.dueOn]).toEqual([null, null, null])
    expect((await itemsOf('bakery van 2')).map((one) => one.item)).not.toContain('pulleys')
  })
  it('of one pass is written together, once, and due again by distance and day', async () => {
    const checks = [
      { item: 'cassette', grade: 'used' },
      { item: 'pads-front', result: 'watch' },
      { item: 'tyres', result: 'change', note: 'cut to the cords' },
    ].map((one) => ({ id: v7(), ...one }))
    const body = { occurredAt: new Date().toISOString(), checks }
    const params = { id: await idOf('courier') }
    const key = v7()
    const sent = await Promise.all([1, 2].map(() => shop.device.ask(endpoints.checkWear, { params, body, key })))
    expect(sent.map(({ status }) => status)).toEqual([200, 200])
    const cassette = await item('courier', 'cassette')
    expect(cassette).toMatchObject({ result: 'good', checks: [{ grade: 'used', person: 'Tove Sandell' }] })
    expect(cassette.dueKm).toBeCloseTo(3000, -1)
    expect(cassette.dueOn! > new Date().toISOString().slice(0, 10)).toBe(true)
    expect((await item('courier', 'pads-front')).dueKm).toBeCloseTo(450, -1)
    expect(await item('courier', 'tyres')).toMatchObject({ result: 'change', dueKm: 0 })
  })
  it('of a rotor by a slot gauge is yes or no: over it goes is done, whatever was measured before', async () => {
    await check('chalk', [{ item: 'rotor-rear', result: 'good' }], 30)
    expect(await item('chalk', 'rotor-rear')).toMatchObject({ result: 'good', rotor: null })
    await check('chalk', [{ item: 'rotor-rear', typed: '1.70', minimumTyped: '1.5' }], 20)
    await check('chalk', [{ item: 'rotor-rear', result: 'change' }])
    expect(await item('chalk', 'rotor-rear')).toMatchObject({ result: 'change', dueKm: 0 })
    const { status } = await check('chalk', [{ item: 'rotor-rear', result: 'watch' }])
    expect(status).toBe(422)
  })
  it('of pulleys is crisp, rounded or pointed, and nothing between', async () => {
    await check('chalk', [{ item: 'pulleys', grade: 'worn' }])
    expect(await item('chalk', 'pulleys')).toMatchObject({ result: 'watch' })
    const { status, problem } = await check('chalk', [{ item: 'pulleys', grade: 'used' }])
    expect([status, problem.fields?.[0]?.code]).toEqual([422, 'grade-missing'])
  })
  it('of a rotor that was fitted begins with the minimum stamped on that one, not on the one before', async () => {
    await check('merryn garrow race', [{ item: 'rotor-front', typed: '1.60', minimumTyped: '1.55' }], 10)
    const { body } = await shop.device.ask(endpoints.catalogue, { query: { kind: 'rotor' } })
    await shop.device.ask(endpoints.fitComponent, {
      params: { id: (await bikeNamed(shop.device, 'merryn garrow race')).id },
      body: {
        id: v7(),
        item: 'rotor-front',
        partId: body.parts[0]!.id,
        occurredAt: new Date(Date.now() - 60_000).toISOString(),
      },
    })
    await check('merryn garrow race', [{ item: 'rotor-front', typed: '1.80' }])
    expect(await item('merryn garrow race', 'rotor-front')).toMatchObject({ minimumMm: 1.5, result: 'good' })
  })
  it('of a rotor is foretold from its thickness, and a new rotor begins anew', async () => {
    await check('sand racer', [{ item: 'rotor-front', typed: '1,80', minimumTyped: '1.50' }], 200)
    await check('sand racer', [{ item: 'rotor-front', typed: '1.70' }], 100)
    await check('sand racer', [{ item: 'rotor-front', typed: '1.58 mm' }])
    const worn = await item('sand racer', 'rotor-front')
    expect(worn).toMatchObject({ minimumMm: 1.5, checks: [{ typed: '1.58 mm', mm: 1.58, u: 0.02 }, {}, {}] })
    expect(worn.rotor!.now.mm).toBeGreaterThan(1.55)
    expect(worn.rotor!.left[0]).toBeLessThan(worn.rotor!.left[2])
    await check('sand racer', [{ item: 'rotor-front', typed: '1.80', renewed: true }])
    const fresh = await item('sand racer', 'rotor-front')
    expect(fresh.rotor!.now.mm).toBeCloseTo(1.8, 6)
    expect(fresh.result).toBe('good')
  })
  it('under its minimum is to be changed now', async () => {
    await check('sand racer', [{ item: 'rotor-rear', typed: '1.44', minimumTyped: '1.5' }])
    expect(await item('sand racer', 'rotor-rear')).toMatchObject({ result: 'change', dueKm: 0 })
  })
  it('taken back stands no more, and cannot be taken back twice', async () => {
    const wrong = (await item('courier', 'tyres')).checks[0]!
    const back = () =>
      shop.device.ask(endpoints.withdrawWearCheck, {
        params: { id: wrong.id },
        body: { id: v7(), reason: 'other bike' },
      })
    expect((await back()).body.items.find((one) => one.item === 'tyres')!.checks).toEqual([])
    expect((await back()).problem.code).toBe('check-gone')
  })
  it.each([
    [{ item: 'cassette' }, 'checks.0.grade', 'grade-missing'],
    [{ item: 'headset' }, 'checks.0.result', 'result-missing'],
    [{ item: 'rotor-front' }, 'checks.0.typed', 'thickness-missing'],
    [{ item: 'rotor-front', typed: 'thin', minimumTyped: '1.5' }, 'checks.0.typed', 'thickness-letters'],
    [{ item: 'rotor-front', typed: '17.2', minimumTyped: '1.5' }, 'checks.0.typed', 'thickness-range'],
    [{ item: 'rotor-front', typed: '1.7' }, 'checks.0.minimumTyped', 'minimum-missing'],
    [{ item: 'handlebar', result: 'good' }, 'checks.0.item', 'wear-item-unknown'],
  ])('refuses %o at its field, and writes nothing of the pass', async (wrong, path, code) => {
    const { status, problem } = await check('island mail 4', [wrong, { item: 'tyres', result: 'good' }])
    expect([status, problem.fields?.[0]]).toMatchObject([422, { path, code }])
    expect((await item('island mail 4', 'tyres')).checks).toEqual([])
  })
})
