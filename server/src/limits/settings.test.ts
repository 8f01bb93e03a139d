import { assumptionsWith } from '@pelrin/core'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { inShop } from '../db/index.ts'
import { checkDueOn, checkLapsed } from '../instruments/store.ts'
import { billOf } from '../jobs/bill.ts'
import { bikeNamed, fittingOn, readingOf, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

/** Has the shop set these values, and no others. */
async function shopSets(overrides: Record<string, number>): Promise<void> {
  const { body } = await shop.device.ask(endpoints.houseRules)
  const { status } = await shop.device.ask(endpoints.changeRules, {
    body: {
      id: v7(),
      change: { kind: 'assumptions', fromVersion: body.assumptions.version, overrides },
      reason: 'a test',
    },
  })
  expect(status).toBe(200)
}
const record = async (id: string) => (await shop.device.ask(endpoints.bike, { params: { id } })).body
const daysFromToday = (day: string | null): number => (new Date(day ?? '').getTime() - Date.now()) / 86_400_000

describe('a value the shop has set', () => {
  it.each([6, 24])('measuring.instrumentCheckMonths %d: an instrument is due so long after its check', (months) => {
    const assumed = assumptionsWith({ 'measuring.instrumentCheckMonths': months })
    const rule = { kind: 'steel-rule' as const, checkedOn: '2026-01-10' }
    expect(checkDueOn(rule.checkedOn, assumed)).toBe(months === 6 ? '2026-07-10' : '2028-01-10')
    expect(checkLapsed(rule, new Date('2026-11-01T12:00:00Z'), assumed)).toBe(months === 6)
  })

  it('verdict.roadsideCheckDays: a chain mended for the way home is changed by then', async () => {
    const { id } = await bikeNamed(shop.device, 'school pool 6')
    const mended = async (): Promise<number> => {
      const { body } = await shop.device.ask(endpoints.mendChain, {
        params: { id },
        body: {
          ...{ id: v7(), fittingId: await fittingOn(shop.device, id), pitches: 112, broken: 'outer', damaged: [0] },
          ...{ cause: 'not-found', choice: 'mended', click: null },
          mend: { joint: 'pin', way: 'each', inserted: false, roadside: true },
        },
      })
      return daysFromToday(body.mends[0]!.followUpOn)
    }
    await shopSets({ 'verdict.roadsideCheckDays': 9 })
    expect(await mended()).toBeGreaterThan(7)
    await shopSets({ 'verdict.roadsideCheckDays': 2 })
    expect(await mended()).toBeLessThan(2.1)
  })

  it('verdict.decidedCheckDays and decidedCheckKm: a chain run on is looked at again by the sooner of the two', async () => {
    const { id } = await bikeNamed(shop.device, 'school pool 6')
    const worn = await shop.device.ask(endpoints.takeReading, {
      body: await readingOf(shop.device, id, {
        spots: [1, 2, 3].map(() => ({ id: v7(), typed: '206.6', pitches: 16 })),
      }),
    })
    await shop.device.ask(endpoints.decide, {
      params: { id },
      body: { id: v7(), verdictId: worn.body.verdict?.id ?? '', decision: 'ride-on', reason: 'race on Sunday' },
    })
    const waits = async (): Promise<number> => daysFromToday((await record(id)).summary.checkOn)
    const shipped = await waits()
    await shopSets({ 'verdict.decidedCheckDays': 5 })
    expect(await waits()).toBeLessThan(5.1)
    expect(shipped).toBeGreaterThan(12)
    await shopSets({ 'verdict.decidedCheckDays': 100, 'verdict.decidedCheckKm': 10 })
    const byDistance = await waits()
    await shopSets({ 'verdict.decidedCheckDays': 100, 'verdict.decidedCheckKm': 1000 })
    expect(await waits()).toBeGreaterThan(byDistance + 5)
  })

  it('verdict.eachVisit: every bike is looked at whenever it is in', async () => {
    const looked = async () => (await shop.device.ask(endpoints.lineUp)).body.visits.map(({ bike }) => bike.eachVisit)
    expect(new Set(await looked())).toEqual(new Set([false, true]))
    await shopSets({ 'verdict.eachVisit': 1 })
    expect(new Set(await looked())).toEqual(new Set([true]))
  })

  // Set together with those of the tests after: each change judges every bike anew.
  const others = { 'measuring.preloadKg': 3.5, 'otherWear.rotorUMm': 0.07, 'jobs.hourPrice': 91 }
  it('distance.statedStartShare and statedStartLeastKm: what a customer says a chain had run is so unsure', async () => {
    const { body: rack } = await shop.device.ask(endpoints.rack, { query: { limit: '200' } })
    let id = ''
    for (const bike of rack.bikes)
      if ((await record(bike.id)).chain?.start === 'unknown') {
        ;({ id } = bike)
        break
      }
    await shop.device.ask(endpoints.recordStatement, {
      params: { id },
      body: { id: v7(), occurredAt: new Date().toISOString(), of: 'chain-start', typed: '1000', unit: 'km' },
    })
    const unsureBy = async (overrides: Record<string, number>): Promise<number> => {
      await shopSets(overrides)
      const life = (await record(id)).verdictInput?.life
      const start = life?.start
      return typeof start === 'object' ? (start.u * 1000) / life!.usualFactor : NaN
    }
    expect(await unsureBy({ ...others, 'distance.statedStartShare': 0.5 })).toBeCloseTo(500, 6)
    expect(await unsureBy({ ...others, 'distance.statedStartLeastKm': 700 })).toBeCloseTo(700, 6)
  })

  it('measuring.preloadKg: a whole chain nobody weighed the load of was hung with it', async () => {
    const { body: rack } = await shop.device.ask(endpoints.rack, { query: { limit: '200' } })
    const fresh = rack.bikes.find(({ verdict }) => verdict === 'not-measured-yet')!
    const pitches = (await record(fresh.id)).chain?.pitches ?? 100
    const { body: instruments } = await shop.device.ask(endpoints.instruments)
    const { body } = await shop.device.ask(endpoints.takeReading, {
      body: await readingOf(shop.device, fresh.id, {
        instrumentId: instruments.find(({ kind }) => kind === 'full-length')?.id,
        spots: [{ id: v7(), typed: (pitches * 12.703).toFixed(1), pitches }],
        baseline: true,
        conditions: { run: 'lower' },
      }),
    })
    expect(body.chain?.whenNew?.preloadKg).toBe(3.5)
  })

  it('otherWear.rotorUMm: a caliper’s doubt is written with what it read', async () => {
    const { id } = await bikeNamed(shop.device, 'sand racer')
    const { body } = await shop.device.ask(endpoints.checkWear, {
      params: { id },
      body: {
        occurredAt: new Date().toISOString(),
        checks: [{ id: v7(), item: 'rotor-front', typed: '1.80', minimumTyped: '1.50' }],
      },
    })
    expect(body.items.find(({ item }) => item === 'rotor-front')?.checks[0]?.u).toBe(0.07)
  })

  it('jobs.hourPrice: an hour’s work is billed at it', async () => {
    const { body: session } = await shop.device.ask(endpoints.session)
    const hour = () => inShop(shop.database, session.shop.id, null, (work) => billOf(work, 60, []))
    expect((await hour()).labour).toBe(9100)
  })
})
