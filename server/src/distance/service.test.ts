import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type BikeRecord, type Ledger } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { rebuildState } from '../state/bikeState.ts'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const HOUR = 3_600_000
const DAY = 24 * HOUR
const bikeId = async (name: string): Promise<string> => (await bikeNamed(shop.device, name)).id
const record = async (id: string): Promise<BikeRecord> =>
  (await shop.device.ask(endpoints.bike, { params: { id } })).body
const ledger = async (id: string): Promise<Ledger> => (await shop.device.ask(endpoints.ledger, { params: { id } })).body
const ride = (hoursAgo: number, typed: string, more: Record<string, unknown> = {}) => ({
  id: v7(),
  startedAt: new Date(Date.now() - hoursAgo * HOUR).toISOString(),
  endedAt: new Date(Date.now() - hoursAgo * HOUR + HOUR).toISOString(),
  typed,
  unit: 'km',
  ...more,
})
/** Kilometres of all chains of a bike together. */
const onChains = ({ chains }: Ledger): number => chains.reduce((sum, { km }) => sum + km, 0)

describe('a ride', () => {
  it('counts on the chain that is fitted, moves the forecast, and is shown', async () => {
    const id = await bikeId('tourer')
    const before = await record(id)
    const { status, body } = await shop.device.ask(endpoints.recordRide, {
      params: { id },
      body: ride(3, '42,5', { surface: 'wet' }),
    })
    expect(status).toBe(200)
    expect(body.summary.chainKm! - before.summary.chainKm!).toBeCloseTo(42.5, 6)
    expect(body.forecast!.sNow).toBeGreaterThan(before.forecast!.sNow)
    const [newest] = (await ledger(id)).rides
    expect(newest).toMatchObject({ km: 42.5, surface: 'wet', source: 'typed' })
  })
  it('sent twice is one ride', async () => {
    const id = await bikeId('chalk')
    const body = ride(5, '20')
    const key = v7()
    for (let i = 0; i < 2; i++) await shop.device.ask(endpoints.recordRide, { params: { id }, body, key })
    expect((await ledger(id)).rides.filter((one) => one.id === body.id)).toHaveLength(1)
  })
  it.each([
    ['of no distance', { typed: 'far' }, 'typed', 'odometer-letters'],
    ['faster than anybody', { typed: '400' }, 'typed', 'ride-too-fast'],
    ['that ends before it begins', { endedAt: new Date(0).toISOString() }, 'endedAt', 'ride-ends-before'],
    ['to come', { endedAt: new Date(Date.now() + DAY).toISOString() }, 'endedAt', 'date-in-future'],
  ])('%s is refused at its field', async (_, wrong, path, code) => {
    const { status, problem } = await shop.device.ask(endpoints.recordRide, {
      params: { id: await bikeId('chalk') },
      body: { ...ride(6, '20'), ...wrong },
    })
    expect(status).toBe(422)
    expect(problem.fields?.map((field) => [field.path, field.code])).toContainEqual([path, code])
  })
  it('is corrected by one that supersedes it; a second corrector is told', async () => {
    const id = await bikeId('sunday')
    const first = ride(4, '30')
    await shop.device.ask(endpoints.recordRide, { params: { id }, body: first })
    const withIt = (await record(id)).summary.chainKm!
    const corrected = { ...first, id: v7(), typed: '34', reason: 'misread' }
    const { body } = await shop.device.ask(endpoints.correctRide, { params: { id: first.id }, body: corrected })
    expect(body.summary.chainKm! - withIt).toBeCloseTo(4, 6)
    const { status, problem } = await shop.device.ask(endpoints.correctRide, {
      params: { id: first.id },
      body: { ...corrected, id: v7() },
    })
    expect([status, problem.code]).toEqual([409, 'corrected-already'])
  })
  it('is moved to the bike it was ridden on: both chains follow and no kilometre is lost', async () => {
    const [from, to] = await Promise.all([bikeId('race bike'), bikeId('training bike')])
    const moved = ride(7, '55')
    await shop.device.ask(endpoints.recordRide, { params: { id: from }, body: moved })
    const before = [await ledger(from), await ledger(to)] as const
    const { status } = await shop.device.ask(endpoints.moveRide, {
      params: { id: moved.id },
      body: { id: v7(), toBikeId: to, reason: 'wrong bike' },
    })
    expect(status).toBe(200)
    const after = [await ledger(from), await ledger(to)] as const
    expect(onChains(before[0]) - onChains(after[0])).toBeCloseTo(55, 6)
    expect(onChains(after[1]) - onChains(before[1])).toBeCloseTo(55, 6)
  })
  it('is taken out and stays on record as taken out', async () => {
    const id = await bikeId('quay bike')
    const before = onChains(await ledger(id))
    const wrong = ride(8, '12')
    await shop.device.ask(endpoints.recordRide, { params: { id }, body: wrong })
    await shop.device.ask(endpoints.removeRide, { params: { id: wrong.id }, body: { id: v7(), reason: 'not ours' } })
    expect(onChains(await ledger(id))).toBeCloseTo(before, 6)
    const gone = await shop.device.ask(endpoints.removeRide, {
      params: { id: wrong.id },
      body: { id: v7(), reason: 'again' },
    })
    expect(gone.status).toBe(409)
  })
})

describe('the ledger', () => {
  it('is scaled to the odometer where rides add up to more, and says so', async () => {
    const id = await bikeId('old faithful')
    const last = (await record(id)).lastOdometer!
    const start = Date.now() - 2 * HOUR
    for (const typed of ['60', '60'])
      await shop.device.ask(endpoints.recordRide, {
        params: { id },
        body: {
          ...ride(2, typed),
          startedAt: new Date(start - 4 * HOUR).toISOString(),
          endedAt: new Date(start).toISOString(),
        },
      })
    const { status, body } = await shop.device.ask(endpoints.recordOdometer, {
      params: { id },
      body: { id: v7(), occurredAt: new Date().toISOString(), typed: String(last.km + 80), unit: 'km' },
    })
    expect(status).toBe(200)
    expect(body.lastOdometer?.km).toBeCloseTo(last.km + 80, 6)
    const [exceeded] = (await ledger(id)).exceeded
    expect(exceeded?.odometerKm).toBeCloseTo(80, 6)
    expect(exceeded?.ridesKm).toBeGreaterThanOrEqual(120)
  })
  it('asks about an odometer that fell, and corrects the past with everything that follows', async () => {
    const id = await bikeId('night ferry')
    const last = (await record(id)).lastOdometer!
    const value = { id: v7(), occurredAt: new Date().toISOString(), typed: '10 km', unit: 'km' as const }
    const asked = await shop.device.ask(endpoints.recordOdometer, { params: { id }, body: value })
    expect(asked.problem.fields?.[0]).toMatchObject({ path: 'typed', code: 'odometer-lower' })
    await shop.device.ask(endpoints.recordOdometer, {
      params: { id },
      body: { ...value, typed: `${Math.round(last.km) + 100} km` },
    })
    const run = (await record(id)).summary.chainKm!
    const { body } = await shop.device.ask(endpoints.correctEntry, {
      params: { id: value.id },
      body: { id: v7(), typed: `${Math.round(last.km) + 160} km`, unit: 'km', reason: 'a digit' },
    })
    expect(body.summary.chainKm! - run).toBeCloseTo(60, 6)
  })
  it('rides by what the customer says where nothing else is known', async () => {
    const id = await bikeId('school pool 3')
    const { body } = await shop.device.ask(endpoints.recordStatement, {
      params: { id },
      body: { id: v7(), occurredAt: new Date().toISOString(), typed: '1200', unit: 'km' },
    })
    expect(body.verdictInput?.life?.rate.kmPerDay).toBeGreaterThan(0)
    expect((await ledger(id)).entries[0]).toMatchObject({ kind: 'statement', km: 1200 })
  })
  it('takes what the customer says a chain had run before for its start, until it is taken back', async () => {
    const id = await bikeId('crew bike 2')
    const before = await record(id)
    const said = {
      id: v7(),
      of: 'chain-start' as const,
      occurredAt: new Date().toISOString(),
      typed: '900',
      unit: 'km' as const,
    }
    const { body } = await shop.device.ask(endpoints.recordStatement, { params: { id }, body: said })
    if (before.chain?.start === 'fitted') {
      expect(body.verdictInput?.life?.start).toBe('fitted')
      return
    }
    const factor = body.verdictInput!.life!.usualFactor
    expect(body.verdictInput?.life?.start).toMatchObject({ value: 0.9 * factor })
    const back = await shop.device.ask(endpoints.removeEntry, {
      params: { id: said.id },
      body: { id: v7(), reason: 'of another bike' },
    })
    expect(back.body.verdictInput?.life?.start).toBe('unknown')
  })
  it('gives each chain of a rotation only what it ran while it was fitted', async () => {
    const { chains, rides } = await ledger(await bikeId('courier'))
    expect(chains.length).toBeGreaterThanOrEqual(3)
    expect(rides.length).toBeGreaterThan(0)
    expect(chains.filter(({ fitted }) => fitted)).toHaveLength(1)
  })
  it('leaves every bike’s stored state as its facts give it', async () => {
    const { body: session } = await shop.device.ask(endpoints.session)
    const { differing } = await inShop(shop.database, session.shop.id, null, rebuildState)
    expect(differing).toEqual([])
  })
  it('of a bike that is not there is not found', async () => {
    const { status } = await shop.device.ask(endpoints.ledger, { params: { id: v7() } })
    expect(status).toBe(404)
  })
})
