import { SHIPPED_RULES } from '@pelrin/core'
import { WALL } from '../demo/scenario.ts'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { inShop } from '../db/index.ts'
import { bikeNamed, readingOf, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const recordOf = async (text: string) => {
  const { id } = await bikeNamed(shop.device, text)
  return (await shop.device.ask(endpoints.bike, { params: { id } })).body
}

describe('a bike’s record', () => {
  it('tells what it is and what is on it', async () => {
    const record = await recordOf('ivo marsh')
    expect(record.customer.name).toBe('Ivo Marsh')
    expect(record.summary.drive).toMatchObject({ type: 'derailleur', speeds: 11, fronts: [50, 34] })
    expect(record.chain).toMatchObject({ name: 'Varrow Eleven', pitches: 116, care: 'dry-oil' })
    expect(record.lastOdometer?.unit).toBe('km')
  })
  it('has its readings newest first, each with who took it and with what', async () => {
    const { readings } = await recordOf('school pool 7')
    const moments = readings.map((reading) => reading.occurredAt)
    expect(moments).toEqual([...moments].sort().reverse())
    for (const reading of readings) {
      expect(reading.person).not.toBe('')
      expect(reading.instrument.recordVersion).toBe(1)
      expect(reading.spots.length).toBeGreaterThan(0)
    }
  })
  it('holds the chains before the present one, as they were when they came off', async () => {
    const { earlierChains, chain, events } = await recordOf('courier')
    expect(earlierChains.length).toBeGreaterThanOrEqual(2)
    const fitted = events.filter(({ kind }) => kind === 'fitted' || kind === 'came-with').length
    expect(earlierChains.length).toBeLessThan(Math.max(fitted, 4))
    for (const { life, readings } of earlierChains) {
      expect(readings.length).toBeGreaterThan(0)
      // Read before it came off, and ridden no less by then.
      const last = Math.max(...readings.map(({ occurredAt }) => occurredAt))
      expect(life.at).toBeGreaterThanOrEqual(last)
      expect(life.sNow!).toBeGreaterThanOrEqual(Math.max(...readings.map(({ s }) => s ?? 0)) - 1e-9)
      expect(life.at).toBeLessThanOrEqual(Date.now())
    }
    expect(chain?.care).toBe('immersion-wax')
    expect((await recordOf('school pool 7')).earlierChains).toEqual([])
  })
  it('says of a chain that came with the bike that it did', async () => {
    const { events, chain } = await recordOf('school pool 7')
    expect(chain?.start).toBe('unknown')
    expect(events.map((event) => event.kind)).toContain('came-with')
    expect(events.map((event) => event.kind)).not.toContain('taken-off')
  })
  it('tells of a chain that was shortened, and of twins that take turns', async () => {
    const bram = await recordOf('bram fenn')
    expect(bram.events.find((event) => event.kind === 'shortened')?.value).toBe(116)
    const courier = await recordOf('courier')
    const swaps = courier.events.filter((event) => event.kind === 'taken-off' && event.text === 'swapped')
    expect(swaps.length).toBeGreaterThanOrEqual(5)
  })
  it('has a distance for the chain that its explanation adds up to', async () => {
    const record = await recordOf('ivo marsh')
    const explanation = record.distanceExplanation
    expect(explanation?.result.value).toBe(record.summary.chainKm)
    const parts = explanation!.inputs.reduce((sum, { value }) => sum + (value as number), 0)
    expect(parts).toBeCloseTo(record.summary.chainKm!, 6)
  })
  it('knows what its own chain, cassette and rings cost by the catalogue, and what nobody knows', async () => {
    const pricesOfBike = async (text: string) => (await recordOf(text)).ownPrices
    expect(await pricesOfBike('ivo marsh')).toMatchObject({
      chain: { name: expect.stringContaining('Varrow Eleven') as string },
      cassette: { name: 'Varrow Gannet 11 11-32', price: 6400 },
      rings: { name: 'Varrow Gannet 50-34', price: 7100 },
    })
    expect((await pricesOfBike('bakery van 1')).cassette).toBeNull()
  })
  it('holds everything a screen needs to judge while somebody types', async () => {
    const { verdictInput, verdict, summary } = await recordOf('ivo marsh')
    expect(verdictInput?.readings.map((reading) => reading.id)).toEqual(
      expect.arrayContaining(verdict?.outcome.countedReadingIds ?? []),
    )
    expect(verdictInput?.instruments).toHaveLength(WALL.length)
    expect(verdictInput?.otherRules).toHaveLength(SHIPPED_RULES.length - 1)
    expect(verdictInput?.rule.limits['derailleur-11-up'].change).toBe(summary.limit)
  })
  it('counts a lapsed check against an instrument', async () => {
    const { body } = await shop.device.ask(endpoints.instruments)
    expect(body.filter((instrument) => instrument.checkLapsed).map((instrument) => instrument.name)).toEqual([
      'Drop-in gauge, red handle',
    ])
  })
})

describe('readings that arrive late', () => {
  it('take their place by when they happened, and are judged with what was known', async () => {
    const bike = await bikeNamed(shop.device, 'bakery van 5')
    const before = (await shop.device.ask(endpoints.bike, { params: { id: bike.id } })).body
    const fitted = Date.parse(before.chain?.fittedAt ?? '')
    const newest = Date.parse(before.readings[0]?.occurredAt ?? '')
    const between = new Date(fitted + (newest - fitted) / 2).toISOString()
    const { status, body: after } = await shop.device.ask(endpoints.takeReading, {
      body: await readingOf(shop.device, bike.id, { occurredAt: between }),
    })
    expect(status).toBe(200)
    const ids = after.readings.map((reading) => reading.id)
    expect(ids).toHaveLength(before.readings.length + 1)
    expect(ids[0]).toBe(before.readings[0]?.id)
    // What was measured last still governs.
    expect(after.verdict?.outcome.countedReadingIds).toEqual(before.verdict?.outcome.countedReadingIds)
    expect(after.summary.measuredAt).toBe(before.summary.measuredAt)
  })
})

describe('house rules of a bike and of a customer', () => {
  it('go before the shop’s: the bike’s own first, then its customer’s', async () => {
    const bike = await bikeNamed(shop.device, 'island mail 8')
    const { body: session } = await shop.device.ask(endpoints.session)
    const judgedBy = async (): Promise<string | undefined> => {
      const { body } = await shop.device.ask(endpoints.takeReading, { body: await readingOf(shop.device, bike.id) })
      return body.verdictInput?.rule.school
    }
    const use = (table: string, id: string, school: string) =>
      inShop(shop.database, session.shop.id, null, (work) =>
        work.select(
          `UPDATE ${table} SET house_rule_id = (SELECT id FROM house_rules WHERE school = :school) WHERE id = :id`,
          {
            school,
            id,
          },
        ),
      )
    expect(await judgedBy()).toBe('by-speeds')
    await use('customers', bike.customer.id, 'early-change')
    expect(await judgedBy()).toBe('early-change')
    await use('bikes', bike.id, 'plan-and-change')
    expect(await judgedBy()).toBe('plan-and-change')
  })
})

describe('what is written down of every write', () => {
  it('is who, on which device, in which request, and what', async () => {
    const bike = await bikeNamed(shop.device, 'island mail 9')
    await shop.device.ask(endpoints.putOnStand, { body: { visitId: v7(), bikeId: bike.id } })
    const { body: record } = await shop.device.ask(endpoints.bike, { params: { id: bike.id } })
    await shop.device.ask(endpoints.changeBike, {
      params: { id: bike.id },
      version: record.version,
      body: { notes: 'salt on the stays' },
    })
    const { body: session } = await shop.device.ask(endpoints.session)
    const rows = await inShop(shop.database, session.shop.id, null, (work) =>
      work.select<{ action: string; person_id: string; device_id: string; request_id: string; detail: object }>(
        'SELECT action, person_id, device_id, request_id, detail FROM audit WHERE subject_id = :id ORDER BY at',
        { id: bike.id },
      ),
    )
    expect(rows.map((row) => row.action)).toEqual(['put-on-stand', 'changed'])
    for (const row of rows) {
      expect(row.person_id).toBe(session.person.id)
      expect(row.device_id).toBe(session.device.id)
      expect(row.request_id).toMatch(/^[0-9a-f-]{36}$/)
    }
    expect(rows[1]?.detail).toMatchObject({ before: { notes: '' }, change: { notes: 'salt on the stays' } })
  })
})
