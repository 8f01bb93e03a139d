import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  capacityOf,
  dayAfter,
  daysBetween,
  DUE_KINDS,
  planVisits,
  visitMinutes,
  weekdayOf,
  type DueBike,
  type ShopDays,
} from './index.ts'
import { DEFAULTS } from '../defaults.ts'

/** A Monday. */
const TODAY = '2026-03-02'
const days = (more: Partial<ShopDays> = {}): ShopDays => ({
  minutes: [300, 300, 300, 300, 300, 120, 0],
  closed: new Set(),
  booked: new Map(),
  ...more,
})
const bike = (
  bikeId: string,
  items: [DueBike['items'][number]['kind'], number][],
  more: Partial<DueBike> = {},
): DueBike => ({
  bikeId,
  customerId: `of ${bikeId}`,
  items: items.map(([kind, inDays]) => ({ kind, on: dayAfter(TODAY, inDays) })),
  goodWeekday: null,
  ...more,
})

describe('visits', () => {
  it('settle all that is due soon on one bike, and say what was pulled forward', () => {
    const [visit, ...rest] = planVisits(
      [
        bike('a', [
          ['care', 10],
          ['check', 14],
          ['care', 60],
        ]),
      ],
      days(),
      TODAY,
      DEFAULTS.diary,
    )
    expect(rest).toEqual([])
    expect(visit).toMatchObject({ day: dayAfter(TODAY, 10), because: 'due' })
    expect(visit!.bikes[0]!.items.map(({ kind, pulledForwardDays }) => [kind, pulledForwardDays])).toEqual([
      ['care', 0],
      ['check', 4],
    ])
  })
  it('bring a customer’s bikes in together', () => {
    const bikes = [
      bike('a', [['check', 8]], { customerId: 'ferry' }),
      bike('b', [['care', 15]], { customerId: 'ferry' }),
      bike('c', [['care', 15]]),
    ]
    const visits = planVisits(bikes, days(), TODAY, DEFAULTS.diary)
    expect(visits.map((visit) => visit.bikes.map(({ bikeId }) => bikeId))).toEqual([['a', 'b'], ['c']])
  })
  it('are on the customer’s weekday before they are due, where one is in reach', () => {
    const wednesday = planVisits([bike('a', [['check', 11]], { goodWeekday: 3 })], days(), TODAY, DEFAULTS.diary)
    expect([weekdayOf(wednesday[0]!.day), wednesday[0]!.because]).toEqual([3, 'good-weekday'])
    expect(wednesday[0]!.day <= dayAfter(TODAY, 11)).toBe(true)
    const sunday = planVisits([bike('a', [['check', 11]], { goodWeekday: 7 })], days(), TODAY, DEFAULTS.diary)
    expect(sunday[0]!.because).toBe('due')
  })
  it('are before a day that is closed or full, and after a fortnight that is closed if there is no other', () => {
    expect(planVisits([bike('a', [['check', 6]])], days(), TODAY, DEFAULTS.diary)[0]).toMatchObject({
      day: dayAfter(TODAY, 5),
      because: 'closed',
    })
    const full = days({ booked: new Map([[dayAfter(TODAY, 3), 295]]) })
    expect(planVisits([bike('a', [['check', 3]])], full, TODAY, DEFAULTS.diary)[0]).toMatchObject({
      day: dayAfter(TODAY, 2),
      because: 'full',
    })
    const fortnight = new Set(Array.from({ length: 14 }, (_, i) => dayAfter(TODAY, i)))
    expect(
      planVisits([bike('a', [['check', 3]])], days({ closed: fortnight }), TODAY, DEFAULTS.diary)[0],
    ).toMatchObject({
      day: dayAfter(TODAY, 14),
      because: 'closed',
    })
  })
  it('come on the next open day once they are overdue, today if there is room', () => {
    expect(planVisits([bike('a', [['change', -20]])], days(), TODAY, DEFAULTS.diary)[0]).toMatchObject({
      day: TODAY,
      because: 'overdue',
    })
    const full = days({ booked: new Map([[TODAY, 300]]) })
    expect(planVisits([bike('a', [['change', -20]])], full, TODAY, DEFAULTS.diary)[0]!.day).toBe(dayAfter(TODAY, 1))
  })
  it('count a look once where the chain is changed anyway', () => {
    expect(visitMinutes(['change', 'check', 'care'], DEFAULTS.diary)).toBe(visitMinutes(['change'], DEFAULTS.diary))
    expect(visitMinutes(['check', 'care'], DEFAULTS.diary)).toBeGreaterThan(visitMinutes(['check'], DEFAULTS.diary))
    const own = { ...DEFAULTS.diary, careMinutes: 50 }
    const [visit] = planVisits([bike('a', [['care', 3]])], days(), TODAY, own)
    expect(visit!.bikes[0]!.minutes).toBe(own.arriveMinutes + 50)
    expect(visit!.minutes).toBe(visit!.bikes[0]!.minutes)
  })
  it('know a leap day', () => {
    expect([dayAfter('2028-02-28', 1), daysBetween('2028-02-28', '2028-03-01')]).toEqual(['2028-02-29', 2])
    expect(weekdayOf('2028-02-29')).toBe(2)
  })

  const anyBikes = fc
    .array(
      fc.record({
        customer: fc.integer({ min: 0, max: 6 }),
        goodWeekday: fc.option(fc.integer({ min: 1, max: 7 })),
        items: fc.array(fc.tuple(fc.constantFrom(...DUE_KINDS), fc.integer({ min: -60, max: 90 })), { maxLength: 4 }),
      }),
      { maxLength: 40 },
    )
    .map((all) =>
      all.map(({ customer, items, goodWeekday }, i) =>
        bike(`bike ${i}`, items, { customerId: `customer ${customer}`, goodWeekday }),
      ),
    )
  it('are never on a closed day, never before today, never more than a day takes unless one alone does; each bike once', () => {
    fc.assert(
      fc.property(anyBikes, fc.uniqueArray(fc.integer({ min: 0, max: 40 })), (bikes, closed) => {
        const shop = days({ closed: new Set(closed.map((n) => dayAfter(TODAY, n))) })
        const visits = planVisits(bikes, shop, TODAY, DEFAULTS.diary)
        const seen = visits.flatMap((visit) => visit.bikes.map(({ bikeId }) => bikeId))
        expect([...seen].sort()).toEqual(
          bikes
            .filter(({ items }) => items.length > 0)
            .map(({ bikeId }) => bikeId)
            .sort(),
        )
        const load = new Map<string, number[]>()
        for (const { day, minutes } of visits) load.set(day, [...(load.get(day) ?? []), minutes])
        for (const [day, each] of load) {
          expect(day >= TODAY).toBe(true)
          expect(capacityOf(shop, day)).toBeGreaterThan(0)
          if (each.length > 1) expect(each.reduce((a, b) => a + b)).toBeLessThanOrEqual(capacityOf(shop, day))
        }
      }),
    )
  })
  it('never come after the first thing they are for is due, while there is room before it', () => {
    fc.assert(
      fc.property(anyBikes, (bikes) => {
        const roomy = days({ minutes: Array.from({ length: 7 }, () => 100_000) })
        for (const visit of planVisits(bikes, roomy, TODAY, DEFAULTS.diary)) {
          const first = visit.bikes.flatMap(({ items }) => items.map(({ on }) => on)).sort()[0]!
          expect(visit.day <= (first < TODAY ? TODAY : first)).toBe(true)
        }
      }),
    )
  })
})
