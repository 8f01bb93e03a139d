import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  cassetteDamageRate,
  costOfWaiting,
  DEFAULTS,
  fitWear,
  pricesOf,
  ringsDamageRate,
  shippedPrior,
  sprocketLife,
  sprocketsUnder,
  wearCosts,
  type WearPrices,
  type ForecastReading,
} from '../index.ts'

const law = { limit: 0.5, lifeToLimit: 4 }
const worn = fitWear({
  care: 'dry-oil',
  observations: [1.5, 3, 4].map((s) => ({ s, value: 0.03 + 0.5 * Math.pow(s / 3, 1.4), u: 0.03 })),
})
const fresh = fitWear({ care: 'dry-oil', observations: [{ s: 1, value: 0.1, u: 0.03 }] })

const prices = pricesOf({ chain: null, cassette: null, rings: null }, DEFAULTS.economics)

describe('the damage law', () => {
  it('uses a cassette up over the chains it outlives, as long as each is changed in time', () => {
    expect(cassetteDamageRate(0.3, law, DEFAULTS.economics) * 4 * law.lifeToLimit).toBeCloseTo(1, 12)
    expect(ringsDamageRate(0.3, law, DEFAULTS.economics)).toBeCloseTo(
      cassetteDamageRate(0.3, law, DEFAULTS.economics) / 2.5,
      12,
    )
  })
  it('grows by e^1.6 for every quarter per cent over', () => {
    expect(
      cassetteDamageRate(0.75, law, DEFAULTS.economics) / cassetteDamageRate(0.5, law, DEFAULTS.economics),
    ).toBeCloseTo(Math.exp(1.6), 9)
  })
  it('never falls with wear', () => {
    const elongation = fc.double({ min: 0, max: 1.5, noNaN: true })
    fc.assert(
      fc.property(elongation, elongation, (a, b) => {
        expect(cassetteDamageRate(Math.max(a, b), law, DEFAULTS.economics)).toBeGreaterThanOrEqual(
          cassetteDamageRate(Math.min(a, b), law, DEFAULTS.economics),
        )
      }),
    )
  })
})

describe('the sprockets', () => {
  it('have had nothing over the limit under a fresh chain, and a stretch under a worn one, with its uncertainty', () => {
    expect(sprocketLife(fresh, { limit: 0.5, sFrom: 0, sNow: 1 }, DEFAULTS.economics).over).toEqual([0, 0, 0])
    const { over, used } = sprocketLife(worn, { limit: 0.5, sFrom: 0, sNow: 4 }, DEFAULTS.economics)
    expect(over[1]).toBeGreaterThan(0.8)
    expect(over[1]).toBeLessThan(1.4)
    expect([...over].sort((a, b) => a - b)).toEqual([...over])
    expect([...used].sort((a, b) => a - b)).toEqual([...used])
    // A chain changed in time uses a quarter; this one was ridden on.
    expect(used[1]).toBeGreaterThan(0.3)
  })
})

describe('one cassette under several chains', () => {
  const alone = sprocketLife(worn, { limit: 0.5, sFrom: 0, sNow: 4 }, DEFAULTS.economics)
  it('has had what each did, and what is not sure of one is not added to what is not sure of the other as it stands', () => {
    const both = sprocketsUnder([alone, alone])
    expect(both.over[1]).toBeCloseTo(2 * alone.over[1], 9)
    expect(both.used[1]).toBeCloseTo(2 * alone.used[1], 9)
    expect(both.over[2] - both.over[1]).toBeCloseTo(Math.SQRT2 * (alone.over[2] - alone.over[1]), 9)
    expect(sprocketsUnder([alone])).toEqual(alone)
  })
  it('is worked out from what earlier chains’ records say, and says of how many they do not', () => {
    const life = {
      care: 'dry-oil',
      start: 'fitted',
      sNow: 4,
      at: 0,
      usualFactor: 1,
      rate: { kmPerDay: 20, weekScatter: 0.3, meanScatter: 0.1, basis: 'recent' },
      prior: shippedPrior('dry-oil', DEFAULTS.forecast),
    } as const
    const reading = (s: number, value: number): ForecastReading => ({
      id: `at ${s}`,
      occurredAt: s,
      chainKm: 1000 * s,
      s,
      source: 'shop',
      instrument: { id: 'rule', kind: 'steel-rule', biasU: 0 },
      spots: [{ value, u: 0.03 }],
    })
    const input = { readings: [1.5, 3, 4].map((s) => reading(s, 0.03 + 0.5 * Math.pow(s / 3, 1.4))), life, limit: 0.75 }
    const one = wearCosts(input, { bySpeeds: 0.5, prices, sFrom: 0, earlier: [] }, DEFAULTS)!
    expect(one.together).toMatchObject({ ...one.sprockets, chains: 1, untold: 0 })
    const before = { ...input, sFrom: 0 }
    const nowhere = { ...life, sNow: null }
    const three = wearCosts(
      input,
      { bySpeeds: 0.5, prices, sFrom: 0, earlier: [before, { ...before, life: nowhere }] },
      DEFAULTS,
    )!
    expect(three.together).toMatchObject({ chains: 2, untold: 1 })
    expect(three.together.used[1]).toBeCloseTo(2 * one.sprockets.used[1], 9)
    // A cassette that came on later has had only what came after it.
    const fresh = wearCosts(input, { bySpeeds: 0.5, prices, sFrom: 3.5, earlier: [] }, DEFAULTS)!
    expect(fresh.sprockets.used[1]).toBeLessThan(one.sprockets.used[1])
    expect(fresh.sprockets.over[1]).toBeCloseTo(0.5, 9)
  })
})

describe('the cost of waiting', () => {
  it('falls while the chain is young, rises when it grinds, and has its cheapest point in between', () => {
    const { curve, cheapest } = costOfWaiting(
      worn,
      { limit: 0.5, sNow: 2, usualFactor: 1.2, prices },
      DEFAULTS.economics,
    )
    expect(curve[0]!.costPer1000).toBeGreaterThan(cheapest.costPer1000)
    expect(curve.at(-1)!.costPer1000).toBeGreaterThan(cheapest.costPer1000)
    expect(cheapest.elongation).toBeGreaterThan(0.4)
    expect(cheapest.elongation).toBeLessThan(1)
  })
  it('of the next 500 km is dearer on a worn chain', () => {
    const next = (sNow: number): number =>
      costOfWaiting(worn, { limit: 0.5, sNow, usualFactor: 1.2, prices }, DEFAULTS.economics).next500
    expect(next(5)).toBeGreaterThan(2 * next(1))
  })
  it('goes by what this bike’s own parts cost, and by the shop’s figures for what is not known of it', () => {
    const own = pricesOf({ chain: 61, cassette: null, rings: 12 }, DEFAULTS.economics)
    expect(own).toEqual({ chain: 61, cassette: DEFAULTS.economics.cassettePrice, rings: 12 })
    const asked = { limit: 0.5, sNow: 5, usualFactor: 1.2 }
    const next = (of: WearPrices): number => costOfWaiting(worn, { ...asked, prices: of }, DEFAULTS.economics).next500
    expect(next({ ...prices, cassette: 2 * prices.cassette, rings: 2 * prices.rings })).toBeCloseTo(2 * next(prices), 9)
    const cheapest = (of: WearPrices): number =>
      costOfWaiting(worn, { ...asked, prices: of }, DEFAULTS.economics).cheapest.elongation
    // A dear chain is ridden longer, dear sprockets have it changed sooner.
    expect(cheapest({ ...prices, chain: 3 * prices.chain })).toBeGreaterThan(cheapest(prices))
    expect(cheapest({ ...prices, cassette: 5 * prices.cassette })).toBeLessThan(cheapest(prices))
  })
  it('tells no power lost where the shop switched that off', () => {
    const off = { ...DEFAULTS.economics, efficiencyLoss: 0 }
    const asked = { limit: 0.5, sNow: 3, usualFactor: 1, prices }
    expect(costOfWaiting(worn, asked, off).efficiencyLost).toBeNull()
    expect(costOfWaiting(worn, asked, DEFAULTS.economics).efficiencyLost).toBeCloseTo(0.53, 1)
  })
})
