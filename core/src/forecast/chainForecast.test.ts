import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  chainForecast,
  chainVerdict,
  chanceByDay,
  chanceWithin,
  daysUntil,
  DEFAULTS,
  estimatedS,
  learnLife,
  learnUnsaidWear,
  shippedPrior,
  SHIPPED_RULES,
  straightLineCrossing,
  wearAt,
  bandAt,
  wearBand,
  wearEvidence,
  type ChainLife,
  type ForecastReading,
  type RideRate,
} from '../index.ts'

const DAY = 86_400_000
const rate: RideRate = { kmPerDay: 20, weekScatter: 0.4, meanScatter: 0.12, basis: 'recent' }
const life: ChainLife = {
  care: 'dry-oil',
  start: 'fitted',
  sNow: 2,
  at: 100 * DAY,
  usualFactor: 1.2,
  rate,
  prior: shippedPrior('dry-oil', DEFAULTS.forecast),
}
let count = 0
const reading = (s: number | null, ...values: number[]): ForecastReading => ({
  id: String(count++),
  occurredAt: (s ?? 0) * 50 * DAY,
  chainKm: s === null ? null : (s * 1000) / 1.2,
  s,
  source: 'shop',
  instrument: { id: 'rule', kind: 'steel-rule', biasU: 0 },
  spots: values.map((value) => ({ value, u: 0.04, pitches: 54 })),
})
const marks = (s: number, over: number | null, under: number | null): ForecastReading => ({
  ...reading(s, 0),
  instrument: { id: 'gauge', kind: 'drop-in', biasU: 0 },
  spots: [{ u: 0.05, ...(over === null ? {} : { over }), ...(under === null ? {} : { under }) }],
})
const forecastOf = (readings: ForecastReading[], more: Partial<ChainLife> = {}, limit = 0.5) =>
  chainForecast({ readings, life: { ...life, ...more }, limit }, DEFAULTS)!.forecast

describe('what readings say of wear', () => {
  it('is one observation a visit, the worst spot of it', () => {
    const { visits } = wearEvidence([reading(1, 0.1, 0.16, 0.12), reading(1.8, 0.2)], undefined, DEFAULTS)
    expect(visits).toHaveLength(2)
    expect((visits[0]!.observation as { value: number }).value).toBeGreaterThan(0.12)
  })
  it('takes the baseline for what the chain began with, once', () => {
    const evidence = wearEvidence([{ ...reading(0, 0.02), baseline: true }, reading(1, 0.1)], undefined, DEFAULTS)
    expect(evidence.baseline).toMatchObject({ value: 0.02 })
    expect(evidence.visits).toHaveLength(1)
  })
  it('keeps marks as an interval', () => {
    expect(wearEvidence([marks(1, 0.25, 0.5)], undefined, DEFAULTS).visits[0]?.observation).toMatchObject({
      s: 1,
      over: 0.25,
      under: 0.5,
    })
  })
  it('is nothing from a reading whose distance is not known, or from the customer', () => {
    expect(
      wearEvidence([reading(null, 0.3), { ...reading(1, 0.3), source: 'customer' }], undefined, DEFAULTS).visits,
    ).toEqual([])
  })
})

describe('a chain’s forecast', () => {
  const two = [reading(1.2, 0.12, 0.13, 0.11), reading(2, 0.22, 0.24, 0.23)]
  it('tells distances and days that agree with each other', () => {
    const { kmLeft, daysLeft, withheld, crossing } = forecastOf(two)
    expect(withheld).toBeNull()
    expect(kmLeft[1]).toBeCloseTo(((crossing[1] - 2) * 1000) / 1.2, 6)
    expect(daysLeft[1]! / (kmLeft[1] / rate.kmPerDay)).toBeGreaterThan(0.85)
    expect(daysLeft[1]! / (kmLeft[1] / rate.kmPerDay)).toBeLessThan(1.15)
    expect(daysLeft[0]).toBeLessThan(daysLeft[1]!)
    // The rate's own scatter makes the days wider than the distance alone.
    expect(daysLeft[2]! / daysLeft[1]!).toBeGreaterThan((kmLeft[2] / kmLeft[1]) * 0.99)
  })
  it('is withheld when the newest reading does not fit, and alarms all the same', () => {
    const jumped = forecastOf([...two, reading(2.05, 0.6, 0.62, 0.61)], { sNow: 2.05 })
    expect(jumped.withheld).not.toBeNull()
    expect(jumped.kmLeft.slice(0, 2)).toEqual([0, 0])
  })
  it('of a chain with no reading looks at it by a third of the middle', () => {
    const fresh = forecastOf([], { sNow: 0 })
    expect(fresh.next.s).toBeLessThanOrEqual(fresh.crossing[1] / 3 + 1e-9)
  })
  it('looks again no sooner than 150 km and no later than 120 days, waxed 180', () => {
    expect(forecastOf([reading(2, 0.44)]).next.km).toBeCloseTo(DEFAULTS.forecast.checkFloorKm, 3)
    const slow = forecastOf([], { rate: { ...rate, kmPerDay: 1 } })
    expect(slow.next.days).toBeLessThanOrEqual(DEFAULTS.forecast.checkHorizonDays)
    const waxed = forecastOf([], {
      care: 'immersion-wax',
      prior: shippedPrior('immersion-wax', DEFAULTS.forecast),
      rate: { ...rate, kmPerDay: 1 },
    })
    expect(waxed.next.days).toBe(DEFAULTS.forecast.checkHorizonWaxDays)
    expect(forecastOf([], { rate: { ...rate, kmPerDay: 0 } }).next.days).toBe(DEFAULTS.verdict.checkDays)
  })
  it('is none without a distance', () =>
    expect(chainForecast({ readings: two, life: { ...life, sNow: null }, limit: 0.5 }, DEFAULTS)).toBeNull())
  it('a reading over the limit pulls the crossing earlier', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.55, max: 0.9, noNaN: true }), (value) => {
        const without = forecastOf([two[0]!])
        expect(forecastOf([two[0]!, reading(2, value)]).crossing[1]).toBeLessThan(without.crossing[1])
      }),
      { numRuns: 20 },
    )
  })
  it('moves the verdict of a chain that will be over within 150 km', () => {
    const even = (s: number, value: number) => reading(s, ...Array<number>(8).fill(value))
    const readings = [even(1, 0.2), even(1.7, 0.36), even(2, 0.42)]
    const forecast = forecastOf(readings, { care: 'wet-oil', prior: shippedPrior('wet-oil', DEFAULTS.forecast) })
    expect(forecast.withheld).toBeNull()
    const judged = (with_: typeof forecast | null) =>
      chainVerdict({
        readings,
        drive: { type: 'derailleur', speeds: 11 },
        rule: { id: 'r', version: 1, ...SHIPPED_RULES[0] },
        chain: { kmSinceFittedNew: 1700 },
        instruments: [],
        assumptions: {},
        forecast: with_,
      })
    expect(judged(null).word).toBe('closing-in')
    expect(judged({ ...forecast, overAhead: 0.6 })).toMatchObject({ word: 'change', decidedBy: 'D5' })
  })
  it('grows by the ride rate after the last recorded day', () =>
    expect(estimatedS(life, 110 * DAY)).toBeCloseTo(2 + (10 * 20 * 1.2) / 1000, 9))
  it('says how likely it is over on any later day, and never less on a later one', () => {
    const fitted = chainForecast({ readings: two, life, limit: 0.5 }, DEFAULTS)!
    const chances = [0, 30, 60, 120, 240, 480].map((days) => chanceByDay(fitted.forecast.reached, days))
    expect([...chances].sort((a, b) => a - b)).toEqual(chances)
    expect(chances.at(-1)).toBeGreaterThan(0.9)
  })
})

describe('dates', () => {
  it('reach a probability where the chance is it', () => {
    const km = [100, 300, 500, 900]
    const days = daysUntil(km, 0.5, rate)!
    expect(chanceWithin(km, days, rate)).toBeCloseTo(0.5, 1)
  })
  it('are none without a ride rate, and today for what is over', () => {
    expect(daysUntil([100], 0.5, { ...rate, kmPerDay: 0 })).toBeNull()
    expect(daysUntil([-5, 0, 100], 0.5, rate)).toBe(0)
  })
})

describe('what a chart draws', () => {
  it('is read off straight between its points, and not beyond them', () => {
    const points = [0, 1, 3].map((s) => ({ s, low: s, middle: 2 * s, high: 3 * s }))
    expect(bandAt(points, 2)).toEqual({ s: 2, low: 2, middle: 4, high: 6 })
    expect(bandAt(points, 0)).toEqual(points[0])
    expect(bandAt(points, 3)).toEqual(points[2])
    expect([bandAt(points, -0.1), bandAt(points, 3.1), bandAt([], 0)]).toEqual([null, null, null])
  })
  it('is a band in order that rises with distance and holds the readings', () => {
    const { posterior } = chainForecast({ readings: [reading(2, 0.2, 0.21, 0.2)], life, limit: 0.5 }, DEFAULTS)!
    const band = wearBand(posterior, { from: 0, to: 5, points: 21 })
    for (const [i, { low, middle, high }] of band.entries()) {
      expect(low).toBeLessThanOrEqual(middle)
      expect(middle).toBeLessThanOrEqual(high)
      if (i > 0) expect(middle).toBeGreaterThanOrEqual(band[i - 1]!.middle - 1e-9)
    }
    const there = band.find(({ s }) => s === 2)!
    expect(there.low).toBeLessThan(0.2)
    expect(there.high).toBeGreaterThan(0.2)
  })
  it('and the straight line meets the limit where two readings point', () => {
    const line = [0.1, 0.2].map((value, i) => ({ s: i + 1, value, u: 0.05 }))
    expect(straightLineCrossing(line, 0.5, 0.03)).toBeCloseTo(5, 9)
    expect(straightLineCrossing([line[0]!, { ...line[0]!, s: 2 }], 0.5, 0.03)).toBeNull()
  })
})

describe('learning', () => {
  /** Chains spread evenly over a lognormal life, read without error at fixed distances. */
  const shop = (planted: number, chains: number) =>
    Array.from({ length: chains }, (_, i) => {
      const share = (i + 0.5) / chains
      const z = Math.sqrt(2) * inverseErf(2 * share - 1)
      const truth = { epsilon0: 0.03, life: 4 * planted * Math.exp(0.45 * z), gamma: 1.4 }
      return { observations: [0.8, 1.6].map((s) => ({ s, value: wearAt(s, truth), u: 0.05 })) }
    })
  it('recovers a planted life of 0.7 within 10 % from 40 chains, and it helps on held-out ones', () => {
    const learned = learnLife('dry-oil', shop(0.7, 40), DEFAULTS.forecast)!
    expect(Math.abs(learned.life / 2.8 - 1)).toBeLessThan(0.1)
    expect(learned.adopted).toBe(true)
    expect(learned.lifeRange[0]).toBeLessThan(2.8)
    expect(learned.lifeRange[1]).toBeGreaterThan(2.8)
    expect(learned.prior.life).toBe(learned.life)
  })
  it('keeps the shipped prior where nothing was to be learned', () => {
    const same = learnLife('dry-oil', shop(1, 40), DEFAULTS.forecast)!
    expect(Math.abs(same.life / 4 - 1)).toBeLessThan(0.1)
    if (!same.adopted) expect(same.prior).toEqual(shippedPrior('dry-oil', DEFAULTS.forecast))
  })
  it('finds how much more kilometres wear that nobody said the surface of, and leaves them where they do not', () => {
    const prior = shippedPrior('dry-oil', DEFAULTS.forecast)
    const unsaid = (wear: number) =>
      learnUnsaidWear(
        shop(1 / wear, 40).map((chain) => ({ care: 'dry-oil' as const, prior, chain })),
        DEFAULTS.forecast,
      )!
    const more = unsaid(1.14)
    expect(Math.abs(more.factor / 1.14 - 1)).toBeLessThan(0.06)
    expect(more).toMatchObject({ chains: 40, adopted: true })
    expect(more.range[0]).toBeLessThan(1.14)
    expect(more.range[1]).toBeGreaterThan(1.14)
    const same = unsaid(1)
    expect(Math.abs(same.factor - 1)).toBeLessThan(0.05)
    expect(same.heldOutGain).toBeLessThan(0.02)
    expect(learnUnsaidWear([], DEFAULTS.forecast)).toBeNull()
  })
  it('does not begin with a handful', () => expect(learnLife('dry-oil', shop(0.7, 7), DEFAULTS.forecast)).toBeNull())
})

/** Inverse error function after Winitzki, close enough to plant a distribution. */
function inverseErf(x: number): number {
  const log = Math.log(1 - x * x)
  const a = 2 / (Math.PI * 0.147) + log / 2
  return Math.sign(x) * Math.sqrt(Math.sqrt(a * a - log / 0.147) - a)
}
