import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { normalCumulative } from '../numerics/normal.ts'
import { worstSpot, type SpotObservation } from './worstSpot.ts'

/**
 * The same model worked out another way: every place's elongation summed over a plain lattice, nothing in closed
 * form, nothing pruned.
 */
function bySummation(spots: readonly SpotObservation[], limit: number): { over: number; median: number } {
  const step = 0.002
  const xs = Array.from({ length: 1400 }, (_, i) => -0.9 + i * step)
  const likelihoods = spots.map((spot) =>
    xs.map((x) => {
      if ('value' in spot) return Math.exp(-0.5 * ((x - spot.value) / spot.u) ** 2)
      const above = spot.over === undefined ? 1 : normalCumulative((x - spot.over) / spot.u)
      const below = spot.under === undefined ? 1 : normalCumulative((spot.under - x) / spot.u)
      return above * below
    }),
  )
  // Past every mark of a gauge nothing was seen: farther on is the less likely.
  const passed =
    spots.every((spot) => !('value' in spot)) && spots.some((spot) => !('value' in spot) && spot.under === undefined)
      ? Math.max(...spots.flatMap((spot) => ('value' in spot ? [] : [spot.over ?? -1, spot.under ?? -1])))
      : Infinity
  const cumulated = new Float64Array(xs.length)
  for (const [tau, weight] of [
    [0.02, 0.3],
    [0.04, 0.4],
    [0.08, 0.2],
    [0.16, 0.1],
  ] as const)
    for (let i = 0; i <= 160; i++) {
      const mu = -0.1 + i * 0.01
      const bell = xs.map((x) => Math.exp(-0.5 * ((x - mu) / tau) ** 2) / tau)
      const product = new Float64Array(xs.length).fill(weight * Math.exp(Math.min(0, passed - mu) / 0.2))
      for (const likelihood of likelihoods) {
        let sum = 0
        for (let j = 0; j < xs.length; j++) {
          sum += bell[j]! * likelihood[j]!
          product[j]! *= sum * step
        }
      }
      for (let j = 0; j < xs.length; j++) cumulated[j]! += product[j]!
    }
  const whole = cumulated.at(-1)!
  const share = (x: number): number => cumulated[Math.round((x + 0.9) / step)]! / whole
  const at = cumulated.findIndex((sum) => sum / whole >= 0.5)
  return { over: 1 - share(limit), median: xs[at]! }
}

const value = fc.double({ min: 0.05, max: 1.1, noNaN: true })
const point = fc.record({ value, u: fc.double({ min: 0.02, max: 0.12, noNaN: true }) })
const interval = fc.constantFrom<SpotObservation>(
  { under: 0.5, u: 0.05 },
  { over: 0.5, under: 0.75, u: 0.05 },
  { over: 0.75, u: 0.05 },
  { over: 0.75, under: 1, u: 0.03 },
)

describe('the worst spot, against a plain summation', () => {
  it('agrees for points', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 5 }), fc.constantFrom(0.5, 0.75, 1), (spots, limit) => {
        const expected = bySummation(spots, limit)
        const found = worstSpot({ spots, limit })
        expect(Math.abs(found.probabilityOver - expected.over)).toBeLessThan(0.006)
        expect(Math.abs(found.median - expected.median)).toBeLessThan(0.006)
      }),
      { numRuns: 8 },
    )
  })
  it('agrees for marks, and for marks with points', () => {
    fc.assert(
      fc.property(interval, fc.option(point), fc.constantFrom(0.5, 0.75, 1), (marks, beside, limit) => {
        const spots = beside === null ? [marks] : [marks, beside]
        const expected = bySummation(spots, limit)
        const found = worstSpot({ spots, limit })
        expect(Math.abs(found.probabilityOver - expected.over)).toBeLessThan(0.006)
        expect(Math.abs(found.median - expected.median)).toBeLessThan(0.006)
      }),
      { numRuns: 8 },
    )
  })
  it('stays a probability, and its parts in order, for anything a gauge can show', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(point, interval), { minLength: 1, maxLength: 8 }), (spots) => {
        const { probabilityOver, median, halfWidth } = worstSpot({ spots, limit: 0.5 })
        expect(probabilityOver).toBeGreaterThanOrEqual(0)
        expect(probabilityOver).toBeLessThanOrEqual(1)
        expect(Number.isFinite(median)).toBe(true)
        expect(halfWidth).toBeGreaterThan(0)
      }),
      { numRuns: 60 },
    )
  })
  it('is the more likely over, the worse any one spot reads', () => {
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 2, maxLength: 4 }),
        fc.double({ min: 0.02, max: 0.4, noNaN: true }),
        (spots, more) => {
          const highest = spots.reduce((a, b) => (b.value > a.value ? b : a))
          const worse = spots.map((spot) => (spot === highest ? { ...spot, value: spot.value + more } : spot))
          expect(worstSpot({ spots: worse, limit: 0.5 }).probabilityOver).toBeGreaterThanOrEqual(
            worstSpot({ spots, limit: 0.5 }).probabilityOver - 5e-5,
          )
        },
      ),
      { numRuns: 40 },
    )
  })
})

describe('the normal distribution', () => {
  it.each([
    [0, 0.5],
    [1, 0.8413447460685429],
    [-1.959963984540054, 0.025],
    [3, 0.9986501019683699],
    [-6, 9.865876450376946e-10],
    [9, 1],
    [-40, 0],
  ])('Φ(%d) = %d', (z, expected) => {
    expect(Math.abs(normalCumulative(z) - expected)).toBeLessThan(1e-14)
  })
})
