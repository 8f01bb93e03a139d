import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  elongationFromSpan,
  neighbouringCounts,
  pinSpanFromCaliper,
  pitchCandidates,
  probabilityOver,
  spanAtElongation,
  spanObservation,
  worstSpot,
  type SpotObservation,
} from './index.ts'

const wear = fc.double({ min: 0, max: 2, noNaN: true })

describe('counts a length can be', () => {
  it('always hold the true count for wear of 0 to 2 %', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 150 }), wear, (wholeLinks, elongation) => {
        const pitches = 2 * wholeLinks
        const lengthMm = spanAtElongation({ pitches, elongation })
        const counts = pitchCandidates({ lengthMm, wholeLinks: true }).map((candidate) => candidate.pitches)
        expect(counts).toContain(pitches)
        expect(counts).toEqual([...counts].sort((a, b) => a - b))
      }),
    )
  })
  it('are certain below 45 whole links', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 34 }), wear, (wholeLinks, elongation) => {
        const lengthMm = spanAtElongation({ pitches: 2 * wholeLinks, elongation })
        expect(pitchCandidates({ lengthMm, wholeLinks: true })).toHaveLength(1)
      }),
    )
  })
  it('name their neighbours when none fits', () => {
    const { below, above } = neighbouringCounts(90)
    expect([below?.pitches, above.pitches]).toEqual([6, 8])
    expect(neighbouringCounts(20).below).toBeNull()
  })
  it('are none for a length that is none', () => {
    for (const lengthMm of [0, -5, NaN, Infinity]) expect(pitchCandidates({ lengthMm, wholeLinks: true })).toEqual([])
  })
})

describe('elongation', () => {
  it('inverts the length at an elongation', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 300 }), wear, (pitches, elongation) => {
        expect(elongationFromSpan({ lengthMm: spanAtElongation({ pitches, elongation }), pitches })).toBeCloseTo(
          elongation,
          9,
        )
      }),
    )
  })
  it('refuses what is no length or count', () => {
    expect(() => elongationFromSpan({ lengthMm: 0, pitches: 16 })).toThrow('lengthMm')
    expect(() => elongationFromSpan({ lengthMm: 200, pitches: 1.5 })).toThrow('pitches')
    expect(() => pinSpanFromCaliper({ readingMm: 5, mode: 'outside-rollers' })).toThrow('roller')
    expect(() => probabilityOver({ elongation: 0.5, u: -1, limit: 0.5 })).toThrow('u')
  })
})

describe('a length as an observation', () => {
  it('is less certain over a shorter run', () => {
    const short = spanObservation({ lengthMm: 204.6, pitches: 16, uMm: 0.25 })
    const long = spanObservation({ lengthMm: 613.8, pitches: 48, uMm: 0.25 })
    expect(short.u).toBeCloseTo(0.123, 3)
    expect(long.u).toBeCloseTo(short.u / 3, 9)
  })
  it('is less certain and flagged over an odd count', () => {
    const odd = spanObservation({ lengthMm: 191.8, pitches: 15, uMm: 0.25 })
    expect(odd.oddCount).toBe(true)
    expect(odd.u).toBeCloseTo(Math.hypot(0.1312, odd.value / 15), 4)
  })
  it('is explained by the very inputs it was made from', () => {
    const first = spanObservation({ lengthMm: 204.6, pitches: 16, uMm: 0.25 })
    const second = spanObservation({ lengthMm: 204.8, pitches: 16, uMm: 0.25, bias: 0.02 })
    expect(first.explanation.result.value).toBe(first.value)
    expect(first.explanation.inputs.map((input) => input.value)).toEqual([204.6, 16, 12.7])
    expect(second.explanation.inputs.map((input) => input.value)).toEqual([204.8, 16, 12.7, 0.02])
    expect(second.explanation.formula).toContain('− b')
    expect(second.value).toBeCloseTo(elongationFromSpan({ lengthMm: 204.8, pitches: 16 }) - 0.02, 9)
  })
})

describe('the worst spot', () => {
  const u = fc.double({ min: 0.01, max: 0.2, noNaN: true })
  const point = fc.record({ value: fc.double({ min: -0.05, max: 1.3, noNaN: true }), u })
  const limit = fc.constantFrom(0.5, 0.75, 1)

  it('is over with a chance that grows with the reading and falls with the limit', () => {
    fc.assert(
      fc.property(point, fc.double({ min: 0, max: 0.4, noNaN: true }), limit, (spot, more, edge) => {
        const chance = (value: number, at: number): number =>
          probabilityOver({ elongation: value, u: spot.u, limit: at })
        expect(chance(spot.value + more, edge)).toBeGreaterThanOrEqual(chance(spot.value, edge))
        expect(chance(spot.value, edge + more)).toBeLessThanOrEqual(chance(spot.value, edge))
      }),
    )
  })
  it('does not depend on the order of the spots', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 5 }), limit, (spots, edge) => {
        const forward = worstSpot({ spots, limit: edge })
        const backward = worstSpot({ spots: [...spots].reverse(), limit: edge })
        expect(backward.probabilityOver).toBeCloseTo(forward.probabilityOver, 9)
        expect(backward.median).toBeCloseTo(forward.median, 4)
      }),
      { numRuns: 40 },
    )
  })
  it('is no worse than the largest number of many sound spots', () => {
    const spots = [0.3, 0.32, 0.34, 0.36, 0.38, 0.4, 0.42, 0.44].map((value) => ({ value, u: 0.082 }))
    expect(worstSpot({ spots, limit: 0.5 }).probabilityOver).toBeLessThan(
      probabilityOver({ elongation: 0.44, u: 0.082, limit: 0.5 }),
    )
  })
  it('carries a bias shared by all spots into its uncertainty once', () => {
    const spots = [0.42, 0.43, 0.44].map((value) => ({ value, u: 0.03, instrument: 'a' }))
    const without = worstSpot({ spots, limit: 0.5 })
    const shared = worstSpot({ spots: spots.map((spot) => ({ ...spot, biasU: 0.05 })), limit: 0.5 })
    const apart = worstSpot({ spots: spots.map((spot) => ({ ...spot, u: Math.hypot(0.03, 0.05) })), limit: 0.5 })
    expect(shared.halfWidth).toBeGreaterThan(without.halfWidth)
    expect(shared.halfWidth).toBeGreaterThan(apart.halfWidth)
  })
  it('takes two readings of one place as one spot', () => {
    const twice: SpotObservation[] = [
      { value: 0.48, u: 0.04, place: 1 },
      { value: 0.5, u: 0.04, place: 1 },
    ]
    expect(worstSpot({ spots: twice, limit: 0.5 }).median).toBeCloseTo(0.489, 2)
  })
  it('learns the mean from a whole chain, not a spot', () => {
    const spots: SpotObservation[] = [{ value: 0.4, u: 0.01, wholeChain: true }]
    const alone = worstSpot({ spots, limit: 0.5 })
    expect(alone.median).toBeCloseTo(0.399, 2)
    expect(alone.halfWidth).toBeGreaterThan(0.02)
  })
  it('refuses marks in the wrong order, and nothing at all', () => {
    expect(() => worstSpot({ spots: [{ over: 0.75, under: 0.5, u: 0.05 }], limit: 0.5 })).toThrow('mark')
    expect(() => worstSpot({ spots: [], limit: 0.5 })).toThrow('at least one')
    expect(() => worstSpot({ spots: [{ value: 0.5, u: 0 }], limit: 0.5 })).toThrow('u must')
  })
})
