import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { fittingOn, readingOf, startShop, type Device, type RunningShop } from '../testing/shop.ts'
import { rebuildState } from './bikeState.ts'
import { askForRebuild, continueRebuild, rebuildProgress, shopsToRebuild } from './rebuild.ts'

let shop: RunningShop
let shopId: string
let bikes: string[]
beforeAll(async () => {
  shop = await startShop()
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
  bikes = (
    await inShop(shop.database, shopId, null, (work) =>
      work.select<{ id: string }>(
        'SELECT b.id FROM bikes b JOIN fittings f ON f.bike_id = b.id AND upper_inf(f.during) ORDER BY b.tag',
      ),
    )
  ).map(({ id }) => id)
})
afterAll(() => shop.close())

const rebuilt = (): Promise<{ bikes: number; differing: string[] }> =>
  inShop(shop.database, shopId, null, rebuildState, { long: true })

/** Something of each kind that a bike's history is made of, done as screens do it. */
const KINDS: Record<string, (device: Device, bikeId: string) => Promise<{ status: number }>> = {
  reading: async (device, id) => device.ask(endpoints.takeReading, { body: await readingOf(device, id) }),
  odometer: async (device, id) => {
    const { body } = await device.ask(endpoints.bike, { params: { id } })
    const { km = 0, unit = 'km' } = body.lastOdometer ?? {}
    const typed = String(Math.round(unit === 'mi' ? km / 1.609344 + 30 : km + 50))
    return device.ask(endpoints.recordOdometer, {
      params: { id },
      body: { id: v7(), occurredAt: new Date().toISOString(), typed, unit },
    })
  },
  ride: (device, id) =>
    device.ask(endpoints.recordRide, {
      params: { id },
      body: {
        id: v7(),
        startedAt: new Date(Date.now() - 7_200_000).toISOString(),
        occurredAt: new Date(Date.now() - 7_200_000).toISOString(),
        endedAt: new Date(Date.now() - 3_600_000).toISOString(),
        typed: '24',
        km: 24,
        unit: 'km',
        surface: 'wet',
        title: null,
      },
    }),
  treated: async (device, id) =>
    device.ask(endpoints.recordCare, {
      params: { id },
      body: {
        id: v7(),
        kind: 'treated',
        care: 'wet-oil',
        cleaning: 'wipe',
        occurredAt: new Date().toISOString(),
        fittingId: await fittingOn(device, id),
      },
    }),
  wash: async (device, id) =>
    device.ask(endpoints.recordCare, {
      params: { id },
      body: {
        id: v7(),
        kind: 'wash',
        occurredAt: new Date().toISOString(),
        fittingId: await fittingOn(device, id),
      },
    }),
  event: (device, id) =>
    device.ask(endpoints.addEventDate, {
      params: { id },
      body: { id: v7(), day: new Date(Date.now() + 20 * 86_400_000).toISOString().slice(0, 10), name: 'Race' },
    }),
  interval: async (device, id) => {
    const { body } = await device.ask(endpoints.bikeCare, { params: { id } })
    return device.ask(endpoints.setCareInterval, {
      params: { id },
      version: body.bikeVersion,
      body: { own: { km: 150, days: 20 } },
    })
  },
}

describe('the state that is kept of a bike', () => {
  it('is what its facts give, after something of every kind happened to bikes of every kind', async () => {
    const done: Record<string, number> = {}
    // A third of the shop: forecasts that are withheld, waxed and oiled chains, chains in rotation among them.
    for (const [i, bikeId] of bikes.entries()) {
      if (i % 3 !== 0) continue
      const kinds = Object.entries(KINDS)
      for (const [kind, act] of [kinds[i % kinds.length]!, kinds[(i + 3) % kinds.length]!]) {
        const { status } = await act(shop.device, bikeId)
        if (status === 200) done[kind] = (done[kind] ?? 0) + 1
      }
    }
    for (const kind of Object.keys(KINDS)) expect(done[kind] ?? 0, kind).toBeGreaterThan(3)
    expect((await rebuilt()).differing).toEqual([])
  }, 240_000)

  it('is brought up to date piece by piece after an upgrade, told meanwhile, and taken up where a server was stopped', async () => {
    const inside = <T>(job: Parameters<typeof inShop<T>>[3]): Promise<T> => inShop(shop.database, shopId, null, job)
    await inside((work) => work.select(`UPDATE bike_state SET care = NULL, care_on = NULL RETURNING bike_id`))
    expect(await shopsToRebuild(shop.database)).toEqual([])
    await inside(askForRebuild)
    expect(await shopsToRebuild(shop.database)).toEqual([shopId])
    // Time for one piece only.
    expect(await continueRebuild(shop.database, shopId, 0)).toBe(true)
    const part = await inside(rebuildProgress)
    expect(part!.done).toBeGreaterThan(0)
    expect(part!.done).toBeLessThan(part!.of)
    expect((await shop.device.ask(endpoints.session)).body.rebuilding).toEqual(part)
    expect(await continueRebuild(shop.database, shopId, Infinity)).toBe(false)
    expect((await shop.device.ask(endpoints.session)).body.rebuilding).toBeNull()
    expect((await rebuilt()).differing).toEqual([])
  }, 120_000)
})
