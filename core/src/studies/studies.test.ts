import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { gaugeStudy, probitMark, type MarkTrial, type StudyValue } from '../index.ts'
import { normalCumulative } from '../numerics/normal.ts'
import { varianceInterval } from './varianceInterval.ts'

/** Values by spot, then person, then repeat. */
const study = (table: number[][][]): StudyValue[] =>
  table.flatMap((row, i) => row.flatMap((cell, j) => cell.map((value) => ({ spot: `s${i}`, person: `p${j}`, value }))))

/** Worked by hand: cell means 2, 6 / 4, 10; spots 4, 7; people 3, 8; all 5.5. */
const BY_HAND = study([
  [
    [1, 3],
    [5, 7],
  ],
  [
    [3, 5],
    [9, 11],
  ],
])

/** Two spots, three people, two repeats: how far the people are apart, how much they differ by spot, and their repeats. */
const made = (people: number, mixed: number, repeats: number): StudyValue[] =>
  study(
    [0, 1].map((spot) =>
      [-1, 0, 1].map((person) => {
        const centre = spot + people * person + mixed * (spot === 0 ? person : -person)
        return [centre - repeats, centre + repeats]
      }),
    ),
  )

/** A seeded normal deviate, by the sum of twelve uniforms. */
function normals(seed: number): () => number {
  const generator = xoroshiro128plus(seed)
  const unit = (): number => (generator.next() >>> 0) / 2 ** 32
  return () => Array.from({ length: 12 }, unit).reduce((sum, one) => sum + one, -6)
}

describe('the analysis of variance', () => {
  const { anova, parts } = gaugeStudy({ values: BY_HAND })
  it('is what is worked out by hand', () => {
    const row = (source: string) => anova?.find((one) => one.source === source)
    expect(row('spot')).toMatchObject({ df: 1, sumOfSquares: 18, meanSquare: 18, f: 9 })
    expect(row('person')).toMatchObject({ df: 1, sumOfSquares: 50, meanSquare: 50, f: 25 })
    expect(row('interaction')).toMatchObject({ df: 1, sumOfSquares: 2, meanSquare: 2, f: 1 })
    expect(row('repeat')).toMatchObject({ df: 4, sumOfSquares: 8, meanSquare: 2, f: null })
    // F(1, 1) over 25: 1 − (2/π)·atan √25.
    expect(row('person')?.p).toBeCloseTo(1 - (2 / Math.PI) * Math.atan(5), 9)
  })
  it('gives the parts of variance by hand', () => {
    expect(parts?.repeatability.sd).toBeCloseTo(Math.sqrt(2), 12)
    expect(parts?.interaction.sd).toBe(0)
    expect(parts?.person.sd).toBeCloseTo(Math.sqrt(12), 12)
    expect(parts?.spot.sd).toBeCloseTo(2, 12)
    expect(parts?.gauge.sd).toBeCloseTo(Math.sqrt(14), 12)
  })
  it('bounds repeatability by χ²: 8 / 11.1433 and 8 / 0.48442', () => {
    expect(parts?.repeatability.low ?? 0).toBeCloseTo(Math.sqrt(8 / 11.14329), 4)
    expect(parts?.repeatability.high ?? 0).toBeCloseTo(Math.sqrt(8 / 0.4844186), 4)
  })
  it('adds its sums of squares up to the whole, whatever the values', () => {
    const cell = fc.array(fc.double({ min: -1, max: 2, noNaN: true }), { minLength: 3, maxLength: 3 })
    const table = fc.array(fc.array(cell, { minLength: 3, maxLength: 3 }), { minLength: 4, maxLength: 4 })
    fc.assert(
      fc.property(table, (values) => {
        const all = values.flat(2)
        const centre = all.reduce((sum, one) => sum + one, 0) / all.length
        const whole = all.reduce((sum, one) => sum + (one - centre) ** 2, 0)
        const rows = gaugeStudy({ values: study(values) }).anova ?? []
        expect(rows.reduce((sum, row) => sum + row.sumOfSquares, 0)).toBeCloseTo(whole, 8)
        expect(rows.reduce((sum, row) => sum + row.df, 0)).toBe(all.length - 1)
      }),
      { numRuns: 100 },
    )
  })
  it('covers the truth about as often as it says', () => {
    const draw = normals(7)
    const truth = { spot: 0.15, person: 0.03, interaction: 0.02, repeat: 0.03 }
    const covered = { repeatability: 0, gauge: 0, reproducibility: 0 }
    const runs = 300
    for (let run = 0; run < runs; run++) {
      const people = [1, 2, 3].map(() => truth.person * draw())
      const table = Array.from({ length: 8 }, () => {
        const spot = 0.4 + truth.spot * draw()
        return people.map((person) => {
          const both = truth.interaction * draw()
          return [1, 2, 3].map(() => spot + person + both + truth.repeat * draw())
        })
      })
      const { parts: found } = gaugeStudy({ values: study(table) })
      const holds = (part: { low: number; high: number } | undefined, sd: number): number =>
        part && part.low <= sd && sd <= part.high ? 1 : 0
      covered.repeatability += holds(found?.repeatability, truth.repeat)
      covered.reproducibility += holds(found?.reproducibility, Math.hypot(truth.person, truth.interaction))
      covered.gauge += holds(found?.gauge, Math.hypot(truth.person, truth.interaction, truth.repeat))
    }
    for (const share of Object.values(covered)) {
      expect(share / runs).toBeGreaterThan(0.91)
      expect(share / runs).toBeLessThan(0.995)
    }
  })
  it('bounds a difference of variances at nothing from below', () => {
    expect(
      varianceInterval([
        { ms: 1, df: 2, share: 1 },
        { ms: 3, df: 4, share: -1 },
      ]).low,
    ).toBe(0)
  })
})

describe('repeatability and reproducibility together', () => {
  it.each([
    ['people apart, alike at each spot', made(0.3, 0, 0.1)],
    ['people alike, apart by spot', made(0, 0.3, 0.1)],
    ['people and spots both', made(0.5, 0.2, 0.1)],
    ['nothing but repeats', made(0, 0, 0.2)],
  ])('count each of them where it is there, and none that came out below nothing: %s', (_, values) => {
    const { parts } = gaugeStudy({ values })
    const { gauge, repeatability, person, interaction } = parts!
    expect(gauge.sd ** 2).toBeCloseTo(repeatability.sd ** 2 + person.sd ** 2 + interaction.sd ** 2, 10)
  })
})

describe('the result of a study', () => {
  it('has a bias against the references, with its u', () => {
    const draw = normals(3)
    const spots = [0.1, 0.3, 0.5, 0.7]
    const table = spots.map((spot) =>
      [0.01, -0.01].map((person) => [1, 2, 3].map(() => spot + 0.06 + person + 0.02 * draw())),
    )
    const { bias } = gaugeStudy({
      values: study(table),
      references: spots.map((value, i) => ({ spot: `s${i}`, value, u: 0.005 })),
    })
    expect(Math.abs((bias?.value ?? 0) - 0.06)).toBeLessThan(2.5 * (bias?.u ?? 0))
    expect(bias?.u).toBeGreaterThan(0.005)
    expect(bias?.spots).toBe(4)
  })
  it('says the smallest change two readings can show', () => {
    const { smallestChange, parts } = gaugeStudy({ values: BY_HAND })
    expect(smallestChange.anybody).toBeCloseTo(1.96 * Math.SQRT2 * (parts?.gauge.sd ?? 0), 12)
    expect(smallestChange.samePerson).toBeCloseTo(1.96 * 2, 12)
  })
})

describe('a study that is not whole', () => {
  const gapsOf = (values: StudyValue[]) => gaugeStudy({ values }).gaps
  it('says what is missing, and what can be said all the same', () => {
    const one = BY_HAND.filter(({ person }) => person === 'p0')
    const alone = gaugeStudy({ values: one })
    expect(alone).toMatchObject({ gaps: ['one-person'], anova: null, parts: null })
    expect(alone.repeatability?.sd).toBeCloseTo(Math.sqrt(2), 12)
    expect(alone.smallestChange.anybody).toBeNull()
    expect(gapsOf(BY_HAND.slice(0, 4))).toEqual(['one-spot'])
    expect(gapsOf(BY_HAND.slice(1))).toEqual(['repeats-differ'])
    expect(gapsOf(BY_HAND.slice(2))).toEqual(['cells-missing'])
    expect(gapsOf(BY_HAND.filter((_, i) => i % 2 === 0))).toEqual(['no-repeats'])
  })
  it('says clearly that nothing can be said', () => {
    expect(gaugeStudy({ values: [] })).toMatchObject({ repeatability: null, bias: null, anova: null, values: 0 })
  })
})

describe('where a mark goes in', () => {
  const tried = (wear: number, wentIn: boolean): MarkTrial => ({ person: 'p', wear, wentIn })
  it('is the maximum of the likelihood, as a plain search finds it too', () => {
    const trials = [
      tried(0.4, false),
      tried(0.45, false),
      tried(0.5, true),
      tried(0.5, false),
      tried(0.55, false),
      tried(0.55, true),
      tried(0.6, true),
      tried(0.48, true),
      tried(0.65, true),
      tried(0.42, false),
    ]
    const fit = probitMark(trials)
    if (fit.state !== 'fitted') throw new Error(fit.state)
    let best = { at: 0, sigma: 0, log: -Infinity }
    for (let at = 0.4; at < 0.65; at += 0.0005)
      for (let sigma = 0.01; sigma < 0.2; sigma += 0.0005) {
        let log = 0
        for (const { wear, wentIn } of trials) {
          const p = normalCumulative((wear - at) / sigma)
          log += Math.log(wentIn ? p : 1 - p)
        }
        if (log > best.log) best = { at, sigma, log }
      }
    expect(fit.at).toBeCloseTo(best.at, 3)
    expect(fit.sigma).toBeCloseTo(best.sigma, 3)
  })
  it('recovers the mark a gauge truly has, within its u', () => {
    const draw = normals(11)
    const trials = Array.from({ length: 400 }, (_, i) => {
      const wear = 0.35 + 0.4 * (i / 400)
      return tried(wear, wear + 0.05 * draw() > 0.56)
    })
    const fit = probitMark(trials)
    if (fit.state !== 'fitted') throw new Error(fit.state)
    expect(Math.abs(fit.at - 0.56)).toBeLessThan(3 * fit.u)
    expect(fit.sigma).toBeGreaterThan(0.035)
    expect(fit.sigma).toBeLessThan(0.07)
  })
  it('is only ever an estimate that settled: no mark near it makes the answers likelier', () => {
    const trial = fc.record({ wear: fc.integer({ min: 6, max: 14 }), wentIn: fc.boolean() })
    fc.assert(
      fc.property(fc.array(trial, { minLength: 3, maxLength: 10 }), (drawn) => {
        const trials = drawn.map(({ wear, wentIn }) => tried(wear / 20, wentIn))
        const fit = probitMark(trials)
        if (fit.state !== 'fitted') return
        const log = (at: number, slope: number): number =>
          trials.reduce((sum, { wear, wentIn }) => {
            const p = normalCumulative(slope * (wear - at))
            return sum + Math.log(wentIn ? p : 1 - p)
          }, 0)
        const best = log(fit.at, 1 / fit.sigma)
        for (const [off, factor] of [
          [0.01, 1],
          [-0.01, 1],
          [0, 1.1],
          [0, 0.9],
        ] as const)
          expect(log(fit.at + off, factor / fit.sigma)).toBeLessThanOrEqual(best + 1e-9)
      }),
      { numRuns: 2000 },
    )
  })
  it('lies between two wears where no trial contradicts another, and beyond all where it never turned', () => {
    expect(probitMark([tried(0.4, false), tried(0.6, true)])).toEqual({
      state: 'between',
      low: 0.4,
      high: 0.6,
      trials: 2,
    })
    expect(probitMark([tried(0.4, true), tried(0.6, true)])).toMatchObject({
      state: 'beyond',
      side: 'always-in',
      wear: 0.4,
    })
    expect(probitMark([tried(0.4, false)])).toMatchObject({ state: 'beyond', side: 'never-in', wear: 0.4 })
    expect(probitMark([])).toEqual({ state: 'nothing' })
  })
  it('is found without trouble in any trials', () => {
    const trial = fc.record({
      person: fc.constant('p'),
      wear: fc.double({ min: 0, max: 1.2, noNaN: true }),
      wentIn: fc.boolean(),
    })
    fc.assert(
      fc.property(fc.array(trial, { maxLength: 30 }), (trials) => {
        const fit = probitMark(trials)
        if (fit.state === 'fitted')
          for (const one of [fit.at, fit.u, fit.sigma]) expect(Number.isFinite(one)).toBe(true)
      }),
      { numRuns: 300 },
    )
  })
})
