import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import vectors from '../../fixtures/forecast.json' with { type: 'json' }
import {
  DEFAULTS,
  crossing,
  fitWear,
  newestReadingDoubt,
  nextCheck,
  probabilityOverAt,
  shippedPrior,
  wearAt,
  type CareKind,
  type WearObservation,
} from '../index.ts'

/** Within 2 % of a distance, or 0.02 thousand km where it is short. */
const near = (found: number, reference: number): void => {
  expect(Math.abs(found - reference)).toBeLessThan(Math.max(0.02 * Math.abs(reference), 0.02))
}

describe('the reference results for forecasts', () => {
  it.each(vectors.map((vector, i) => ({ ...vector, i })))('$i: $input.care', (vector) => {
    const { input } = vector
    const posterior = fitWear({
      care: input.care as CareKind,
      observations: input.observations,
      baseline: input.baseline,
      start: input.unknownStart ? 'unknown' : 'fitted',
    })
    const { limit, sNow, risk, floor, horizon, firstCheck } = input
    const [early = 0, median = 0, late = 0] = crossing(posterior, { limit, probabilities: [0.05, 0.5, 0.95] })
    near(early, vector.crossing['0.05'])
    near(median, vector.crossing['0.5'])
    near(late, vector.crossing['0.95'])
    expect(probabilityOverAt(posterior, { s: sNow, limit })).toBeCloseTo(vector.probabilityOverNow, 2)
    expect(Math.abs(probabilityOverAt(posterior, { s: sNow + 1, limit }) - vector.probabilityOverPlus1)).toBeLessThan(
      0.01,
    )
    expect(Math.abs(newestReadingDoubt(posterior) - vector.newestReadingDoubt)).toBeLessThan(0.01)
    near(nextCheck(posterior, { sNow, limit, risk, floor, horizon, firstCheck }), vector.nextCheck)
  })
})

const care = fc.constantFrom<CareKind>('immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil', 'unknown')
const chain = fc.record({
  care,
  observations: fc.array(
    fc.record({
      s: fc.double({ min: 0, max: 6, noNaN: true }),
      value: fc.double({ min: 0, max: 0.9, noNaN: true }),
      u: fc.double({ min: 0.03, max: 0.12, noNaN: true }),
    }),
    { maxLength: 4 },
  ),
  start: fc.constantFrom('fitted' as const, 'unknown' as const),
})

describe('whatever was read', () => {
  it('more distance never lowers the chance of being over', () => {
    fc.assert(
      fc.property(
        chain,
        fc.double({ min: 0, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 4, noNaN: true }),
        (query, s, more) => {
          const posterior = fitWear(query)
          const there = probabilityOverAt(posterior, { s, limit: 0.5 })
          expect(probabilityOverAt(posterior, { s: s + more, limit: 0.5 })).toBeGreaterThanOrEqual(there - 1e-12)
        },
      ),
      { numRuns: 40 },
    )
  })
  it('quantiles of the crossing are in order, and the weights a distribution', () => {
    fc.assert(
      fc.property(chain, (query) => {
        const posterior = fitWear(query)
        const found = crossing(posterior, { limit: 0.75, probabilities: [0.05, 0.25, 0.5, 0.75, 0.95] })
        expect([...found].sort((a, b) => a - b)).toEqual(found)
        expect(probabilityOverAt(posterior, { s: 1e9, limit: 0.75 })).toBeCloseTo(1, 9)
        expect(newestReadingDoubt(posterior)).toBeGreaterThanOrEqual(0)
        expect(newestReadingDoubt(posterior)).toBeLessThanOrEqual(1)
      }),
      { numRuns: 40 },
    )
  })
  it('is fitted to the same answer every time', () => {
    const query = { care: 'dry-oil' as const, observations: [{ s: 1.2, value: 0.2, u: 0.05 }] }
    expect(crossing(fitWear(query), { limit: 0.5, probabilities: [0.5] })).toEqual(
      crossing(fitWear(query), { limit: 0.5, probabilities: [0.5] }),
    )
  })
})

describe('a forecast', () => {
  const fresh = fitWear({ care: 'dry-oil', observations: [] })
  const median = (posterior: typeof fresh): number => crossing(posterior, { limit: 0.5, probabilities: [0.5] })[0] ?? 0
  it('comes nearer with a reading over the limit, and goes off with one far under it', () => {
    const early = { s: 2, value: 0.45, u: 0.05 }
    expect(median(fitWear({ care: 'dry-oil', observations: [early] }))).toBeLessThan(median(fresh))
    const slow = { s: 3, value: 0.1, u: 0.05 }
    expect(median(fitWear({ care: 'dry-oil', observations: [slow] }))).toBeGreaterThan(median(fresh))
  })
  it('follows a chain that wears by the law', () => {
    const truth = { epsilon0: 0.02, life: 3, gamma: 1.4 }
    const observations = [0.8, 1.5, 2.2, 2.6].map((s) => ({ s, value: wearAt(s, truth), u: 0.03 }))
    const posterior = fitWear({ care: 'dry-oil', observations, baseline: { value: 0.02, u: 0.02 } })
    expect(Math.abs(median(posterior) - 3 * Math.pow(0.48 / 0.5, 1 / 1.4))).toBeLessThan(0.15)
    expect(newestReadingDoubt(posterior)).toBeLessThan(0.05)
  })
  it('doubts a reading no chain could show', () => {
    const observations = [
      { s: 1, value: 0.1, u: 0.03 },
      { s: 1.1, value: 0.9, u: 0.03 },
    ]
    expect(newestReadingDoubt(fitWear({ care: 'dry-oil', observations }))).toBeGreaterThan(0.5)
  })
  it('of a chain whose start is stated lies between fitted and unknown', () => {
    const observations = [{ s: 0, value: 0.25, u: 0.05 }]
    const stated = fitWear({ care: 'dry-oil', observations, start: { value: 2, u: 0.3 } })
    const unknown = fitWear({ care: 'dry-oil', observations, start: 'unknown' })
    const width = (posterior: typeof fresh): number => {
      const [low = 0, high = 0] = crossing(posterior, { limit: 0.5, probabilities: [0.05, 0.95] })
      return high - low
    }
    expect(width(stated)).toBeLessThan(width(unknown))
  })
  it('takes the prior it is given, and the shipped one otherwise', () => {
    const prior = { ...shippedPrior('dry-oil', DEFAULTS.forecast), life: 2.8 }
    expect(median(fitWear({ care: 'dry-oil', observations: [], prior }))).toBeCloseTo(0.7 * median(fresh), 1)
  })
  it('refuses what is no observation', () => {
    const bad = (observation: WearObservation) => () => fitWear({ care: 'dry-oil', observations: [observation] })
    expect(bad({ s: -1, value: 0.2, u: 0.05 })).toThrow(RangeError)
    expect(bad({ s: 1, value: 0.2, u: 0 })).toThrow(RangeError)
    expect(bad({ s: 1, over: 0.75, under: 0.5, u: 0.05 })).toThrow(RangeError)
  })
})
