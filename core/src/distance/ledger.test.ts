import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import {
  careDistance,
  chainDistance,
  distanceBetween,
  isSameRide,
  NO_KM,
  readLedger,
  rideRate,
  SURFACES,
  totalKm,
  trackDistance,
  usualWearFactor,
  wearWeighted,
  type FittedOver,
  type LedgerRide,
  type OdometerValue,
} from '../index.ts'

const DAY = 86_400_000
const ride = (id: string, day: number, km: number, surface: LedgerRide['surface'] = null): LedgerRide => ({
  id,
  from: day * DAY,
  to: day * DAY + 3_600_000,
  km,
  surface,
})
const odometer = (day: number, km: number, restarted = false): OdometerValue => ({ at: day * DAY, km, restarted })
const kmOf = (ledger: Parameters<typeof readLedger>[0], from = -Infinity, to = Infinity): number =>
  totalKm(distanceBetween(readLedger(ledger, DEFAULTS.distance).segments, from, to))

describe('a ledger', () => {
  it('counts rides between two odometer values once: they say when and on what', () => {
    const ledger = { odometer: [odometer(0, 100), odometer(10, 400)], rides: [ride('a', 2, 80, 'wet')] }
    const view = readLedger(ledger, DEFAULTS.distance)
    expect(kmOf(ledger)).toBeCloseTo(300, 9)
    expect(distanceBetween(view.segments, 0, 10 * DAY).wet).toBeCloseTo(80, 9)
    expect(view.stretches[0]?.ridesExceed).toBe(false)
  })
  it('lets the odometer win over rides that add up to more, and says so beyond 5 %', () => {
    const rides = [ride('a', 1, 150), ride('b', 2, 160)]
    const much = readLedger({ odometer: [odometer(0, 0), odometer(10, 200)], rides }, DEFAULTS.distance)
    expect(totalKm(distanceBetween(much.segments, 0, 10 * DAY))).toBeCloseTo(200, 9)
    expect(much.stretches[0]?.ridesExceed).toBe(true)
    const little = readLedger({ odometer: [odometer(0, 0), odometer(10, 300)], rides }, DEFAULTS.distance)
    expect(little.stretches[0]?.ridesExceed).toBe(false)
  })
  it('takes rides for the total where no odometer tells, also across a reset', () => {
    expect(kmOf({ odometer: [], rides: [ride('a', 1, 30), ride('b', 5, 20)] })).toBeCloseTo(50, 9)
    const reset = { odometer: [odometer(0, 900), odometer(10, 50, true)], rides: [ride('a', 3, 70)] }
    expect(kmOf(reset)).toBeCloseTo(70, 9)
  })
  it('splits a ride by its profile where a chain was changed in the middle of it', () => {
    const halves = { ...ride('a', 1, 40), profile: [{ at: DAY + 1_800_000, share: 0.75 }] }
    expect(kmOf({ odometer: [], rides: [halves] }, 0, DAY + 1_800_000)).toBeCloseTo(30, 9)
  })
  it('conserves kilometres under any fittings, rides and odometer values', () => {
    const rides = fc.array(fc.tuple(fc.integer({ min: 0, max: 98 }), fc.integer({ min: 1, max: 90 })), {
      maxLength: 12,
    })
    const swaps = fc.uniqueArray(fc.integer({ min: 1, max: 99 }), { maxLength: 6 })
    fc.assert(
      fc.property(rides, swaps, fc.array(fc.integer({ min: 0, max: 400 }), { maxLength: 4 }), (list, at, steps) => {
        let shown = 0
        const ledger = {
          rides: list.map(([day, km], i) => ride(String(i), day, km)),
          odometer: steps.map((step, i) => odometer(i * 25, (shown += step))),
        }
        const { segments } = readLedger(ledger, DEFAULTS.distance)
        const ends = [0, ...at.sort((a, b) => a - b), 200]
        // Two chains by turns, each fitted where the other came off.
        const fittings = (odd: number): FittedOver[] =>
          ends.slice(1).flatMap((to, i) => (i % 2 === odd ? [{ bikeId: 'b', from: ends[i]! * DAY, to: to * DAY }] : []))
        const both = [0, 1].map((odd) => totalKm(chainDistance(fittings(odd), () => segments, Infinity)))
        expect(both[0]! + both[1]!).toBeCloseTo(totalKm(distanceBetween(segments, 0, 200 * DAY)), 6)
      }),
    )
  })
  it('moves a ride with its kilometres from one bike to another', () => {
    const moved = ride('m', 4, 25)
    const before = [kmOf({ odometer: [], rides: [ride('a', 1, 10), moved] }), kmOf({ odometer: [], rides: [] })]
    const after = [kmOf({ odometer: [], rides: [ride('a', 1, 10)] }), kmOf({ odometer: [], rides: [moved] })]
    expect(before[0]! + before[1]!).toBeCloseTo(after[0]! + after[1]!, 9)
    expect(after[1]).toBeCloseTo(25, 9)
  })
})

describe('weighted distance', () => {
  const km = { ...NO_KM, dry: 100, wet: 50, unknown: 10 }
  it('sums kilometres by their factors, unknown ones by the usual mix', () => {
    expect(wearWeighted(km, 1.2, DEFAULTS.distance)).toBeCloseTo(100 + 100 + 12, 9)
    expect(careDistance(km, 1.2, DEFAULTS.distance)).toBeCloseTo(100 + 150 + 12, 9)
  })
  it('takes the first mix with a known kilometre, else 1.2', () => {
    const wet = { ...NO_KM, wet: 5 }
    // What is ridden on a trainer says nothing of roads nobody told the surface of.
    expect(usualWearFactor([{ ...wet, indoor: 900 }], DEFAULTS.distance)).toBe(2)
    expect(usualWearFactor([{ ...NO_KM, indoor: 900 }], DEFAULTS.distance)).toBe(DEFAULTS.distance.wearFactorUnknown)
    expect(usualWearFactor([NO_KM, wet, { ...NO_KM, dry: 9 }], DEFAULTS.distance)).toBe(2)
    expect(usualWearFactor([null, NO_KM], DEFAULTS.distance)).toBe(1.2)
  })
  it('is never less than the dry distance, but for what was ridden indoors', () => {
    expect(wearWeighted({ ...NO_KM, indoor: 100 }, 1, DEFAULTS.distance)).toBeCloseTo(70)
    const outdoors = SURFACES.filter((surface) => surface !== 'indoor')
    fc.assert(
      fc.property(fc.constantFrom(...outdoors), fc.double({ min: 0, max: 1e4, noNaN: true }), (surface, distance) => {
        expect(wearWeighted({ ...NO_KM, [surface]: distance }, 1, DEFAULTS.distance)).toBeGreaterThanOrEqual(distance)
      }),
    )
  })
})

describe('the ride rate', () => {
  const daily = Array.from({ length: 84 }, (_, day) => ride(String(day), day, day % 7 === 6 ? 0.1 : 10))
  it('is what was ridden before the last recorded day; days after it are unknown, not zero', () => {
    const { segments, lastAt } = readLedger({ odometer: [], rides: daily }, DEFAULTS.distance)
    const rate = rideRate({ segments, lastAt }, DEFAULTS.distance)
    expect(rate.basis).toBe('recent')
    expect(rate.kmPerDay).toBeCloseTo(8.6, 0)
    expect(rate.weekScatter).toBeLessThan(0.2)
  })
  it('counts what is recent more', () => {
    const more = daily.map((one) => ({ ...one, km: one.from > 42 * DAY ? 20 : 5 }))
    const { segments, lastAt } = readLedger({ odometer: [], rides: more }, DEFAULTS.distance)
    expect(rideRate({ segments, lastAt }, DEFAULTS.distance).kmPerDay).toBeGreaterThan(12.5)
  })
  it('falls back to what is older, what the customer said, the shop’s mean, and nothing', () => {
    const old = readLedger(
      { odometer: [odometer(0, 0), odometer(100, 500), odometer(300, 500)], rides: [] },
      DEFAULTS.distance,
    )
    expect(rideRate(old, DEFAULTS.distance).basis).toBe('older')
    expect(rideRate({ segments: [], lastAt: null, statedKmPerYear: 3652.5 }, DEFAULTS.distance).kmPerDay).toBeCloseTo(
      10,
      9,
    )
    expect(rideRate({ segments: [], lastAt: null, shopKmPerDay: 6 }, DEFAULTS.distance)).toMatchObject({
      kmPerDay: 6,
      basis: 'shop',
    })
    expect(rideRate({ segments: [], lastAt: null }, DEFAULTS.distance).basis).toBe('none')
  })
})

describe('one ride in two records', () => {
  const a = { from: 0, to: 3_600_000, km: 20 }
  it('is known by its time and distance', () => {
    expect(isSameRide(a, { from: 60_000, to: 3_660_000, km: 20.6 }, DEFAULTS.distance)).toBe(true)
    expect(isSameRide(a, { from: 60_000, to: 3_660_000, km: 22 }, DEFAULTS.distance)).toBe(false)
    expect(isSameRide(a, { from: 1_800_000, to: 5_400_000, km: 20 }, DEFAULTS.distance)).toBe(false)
    expect(isSameRide(a, { from: 0, to: 600_000, km: 20 }, DEFAULTS.distance)).toBe(false)
  })
})

describe('a track', () => {
  const point = (seconds: number, longitude: number, latitude = 0) => ({ at: seconds * 1000, latitude, longitude })
  const DEGREE_KM = 111.195
  it('adds up great circles', () => {
    const points = Array.from({ length: 101 }, (_, i) => point(i * 60, i * 0.001))
    expect(trackDistance(points, DEFAULTS.distance)?.km).toBeCloseTo(0.1 * DEGREE_KM, 2)
  })
  it('leaves out pauses over two minutes and jumps over 120 km/h', () => {
    const paused = trackDistance(
      [point(0, 0), point(60, 0.005), point(1000, 0.2), point(1060, 0.205)],
      DEFAULTS.distance,
    )
    expect(paused?.km).toBeCloseTo(0.01 * DEGREE_KM, 2)
    expect(paused?.gaps).toBe(1)
    const jumped = trackDistance([point(0, 0), point(60, 0.005), point(62, 1), point(120, 0.01)], DEFAULTS.distance)
    expect(jumped?.km).toBeCloseTo(0.01 * DEGREE_KM, 2)
    expect(jumped?.jumps).toBe(1)
  })
  it('holds at the pole and across 180°', () => {
    expect(trackDistance([point(0, 179.999), point(60, -179.999)], DEFAULTS.distance)?.km).toBeCloseTo(
      0.002 * DEGREE_KM,
      3,
    )
    expect(trackDistance([point(0, 0, 89.999), point(60, 180, 89.999)], DEFAULTS.distance)?.km).toBeCloseTo(
      0.002 * DEGREE_KM,
      3,
    )
  })
  it('leaves out points whose time goes backwards, and is nothing without two moments', () => {
    expect(
      trackDistance([point(0, 0), point(60, 0.005), point(30, 0.006), point(120, 0.01)], DEFAULTS.distance)?.backwards,
    ).toBe(1)
    expect(trackDistance([point(0, 0)], DEFAULTS.distance)).toBeNull()
    expect(trackDistance([point(5, 0), point(5, 0.1)], DEFAULTS.distance)).toBeNull()
  })
  it('keeps a profile of bounded size that ends near the whole', () => {
    const points = Array.from({ length: 5000 }, (_, i) => point(i, i * 0.00005))
    const { profile = [] } = trackDistance(points, DEFAULTS.distance) ?? {}
    expect(profile.length).toBeLessThanOrEqual(97)
    expect(profile.every(({ share }, i) => i === 0 || share >= profile[i - 1]!.share)).toBe(true)
    expect(profile.at(-1)!.share).toBeGreaterThan(0.95)
  })
})
