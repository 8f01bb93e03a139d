import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { normalCumulative, normalDensity } from '../numerics/normal.ts'
import { worstSpot, type SpotObservation } from './worstSpot.ts'

interface Read {
  readonly value: number
  readonly u: number
  readonly instrument: string
  readonly biasU: number
  readonly place?: number
}

/** The same model, every bias and the mean summed over on a plain grid: nothing on another's scale, nothing pruned. */
function directly(spots: readonly Read[], limit: number, places: number, step = 0.01): number {
  const biases = [...new Map(spots.map(({ instrument, biasU }) => [instrument, biasU]))].filter(([, u]) => u > 0)
  const axes = biases.map(([, u]) =>
    Array.from({ length: 2 * Math.ceil((4 * u) / step) + 1 }, (_, i) => (i - Math.ceil((4 * u) / step)) * step),
  )
  const combinations = axes.reduce<number[][]>(
    (rows, axis) => rows.flatMap((row) => axis.map((b) => [...row, b])),
    [[]],
  )
  const seen = [...new Set(spots.map(({ place }, i) => place ?? `own ${i}`))].map((place) =>
    spots.filter((spot, i) => (spot.place ?? `own ${i}`) === place),
  )
  const beyond = limit + 0.001
  let whole = 0
  let under = 0
  for (const [tau, weight] of [
    [0.02, 0.3],
    [0.04, 0.4],
    [0.08, 0.2],
    [0.16, 0.1],
  ] as const)
    for (const combination of combinations) {
      const prior = combination.reduce((product, b, i) => product * normalDensity(b / biases[i]![1]), weight)
      const biasOf = (instrument: string): number => combination[biases.findIndex(([id]) => id === instrument)] ?? 0
      const pooled = seen.map((observations) => {
        const precision = observations.reduce((sum, { u }) => sum + 1 / u ** 2, 0)
        const pull = observations.reduce((sum, one) => sum + (one.value - biasOf(one.instrument)) / one.u ** 2, 0)
        const apart = observations.reduce(
          (sum, one) => sum + ((one.value - biasOf(one.instrument) - pull / precision) / one.u) ** 2,
          0,
        )
        return { precision, mean: pull / precision, apart }
      })
      for (let mu = -0.1; mu < 1.5; mu += 0.02) {
        let evidence = prior
        let below = normalCumulative((limit - mu) / tau) ** (places - seen.length)
        for (const { precision, mean, apart } of pooled) {
          const spread = tau ** 2 + 1 / precision
          evidence *= Math.exp(-0.5 * ((mean - mu) ** 2 / spread + apart)) / Math.sqrt(spread)
          const sharp = precision + 1 / tau ** 2
          below *= normalCumulative((beyond - (precision * mean + mu / tau ** 2) / sharp) * Math.sqrt(sharp))
        }
        whole += evidence
        under += evidence * below
      }
    }
  return 1 - under / whole
}

const over = (spots: readonly SpotObservation[], limit: number, places: number): number =>
  worstSpot({ spots, limit, places }).probabilityOver

describe('a bias all spots of an instrument share', () => {
  it('moves all of them together, which no spot of its own would', () => {
    const spots = [0.481, 0.456, 0.442].map((value) => ({ value, u: 0.03, instrument: 'a', biasU: 0.072 }))
    expect(over(spots, 0.5, 3)).toBeCloseTo(directly(spots, 0.5, 3), 2)
    expect(over(spots, 0.5, 3)).toBeCloseTo(0.385, 2)
  })
  it('is told by another instrument on the same places', () => {
    const spots = [0.44, 0.47, 0.45].flatMap((value, place) => [
      { value, u: 0.03, instrument: 'a', biasU: 0.072, place },
      { value: value + 0.09, u: 0.02, instrument: 'b', biasU: 0.05, place },
    ])
    expect(over(spots, 0.5, 8)).toBeCloseTo(directly(spots, 0.5, 8), 2)
  })
  /** Of one place two instruments say nearly the same: beyond their biases' fourfold the plain grid ends, and agrees with nothing. */
  const canAgree = (a: readonly Read[], b: readonly Read[]): boolean =>
    a.every((one) =>
      b.every(
        (other) =>
          one.place === undefined ||
          one.place !== other.place ||
          Math.abs(one.value - other.value) <= 3 * (one.biasU + other.biasU) + one.u + other.u,
      ),
    )
  const reads = (instrument: string) =>
    fc
      .record({
        biasU: fc.double({ min: 0.01, max: 0.12, noNaN: true }),
        u: fc.double({ min: 0.02, max: 0.1, noNaN: true }),
        values: fc.array(fc.double({ min: 0.3, max: 0.7, noNaN: true }), { minLength: 1, maxLength: 3 }),
        named: fc.boolean(),
      })
      .map(({ biasU, u, values, named }) =>
        values.map((value, place): Read => ({ value, u, instrument, biasU, ...(named ? { place } : {}) })),
      )
  it('agrees with a direct integration, for one instrument and for two, to a hundredth', () => {
    fc.assert(
      fc.property(
        reads('a'),
        fc.option(reads('b')),
        fc.constantFrom(0.5, 0.75),
        fc.constantFrom(6, 8),
        (a, b, limit, places) => {
          const spots = [...a, ...(b ?? [])]
          fc.pre(canAgree(a, b ?? []))
          expect(Math.abs(over(spots, limit, places) - directly(spots, limit, places))).toBeLessThan(0.01)
        },
      ),
      { numRuns: 12 },
    )
  })
  it('agrees beside an instrument without one', () => {
    fc.assert(
      fc.property(reads('a'), reads('b'), (a, b) => {
        const spots = [...a, ...b.map((one) => ({ ...one, biasU: 0 }))]
        fc.pre(canAgree(a, spots.slice(a.length)))
        expect(Math.abs(over(spots, 0.5, 8) - directly(spots, 0.5, 8))).toBeLessThan(0.01)
      }),
      { numRuns: 8 },
    )
  })
  it('is integrated over for a third instrument too', () => {
    const of = (instrument: string, biasU: number, ...values: number[]): Read[] =>
      values.map((value, place) => ({ value, u: 0.04, instrument, biasU, place }))
    const spots = [...of('a', 0.04, 0.46, 0.44), ...of('b', 0.05, 0.5, 0.49), ...of('c', 0.06, 0.4, 0.43)]
    expect(Math.abs(over(spots, 0.5, 8) - directly(spots, 0.5, 8, 0.02))).toBeLessThan(0.01)
  })
})
