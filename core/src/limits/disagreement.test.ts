import { describe, expect, it } from 'vitest'
import { disagreements, type AttributedReading, type VerdictSpot } from '../index.ts'

const reading = (
  id: string,
  instrument: string,
  spots: VerdictSpot[],
  more: { person?: string; biasU?: number; lapsed?: boolean } = {},
): AttributedReading => ({
  id,
  occurredAt: 0,
  chainKm: null,
  source: 'shop',
  person: more.person ?? 'Tove',
  instrument: { id: instrument, kind: 'digital', biasU: more.biasU ?? 0, ...(more.lapsed ? { lapsed: true } : {}) },
  spots,
})

describe('two instruments on one chain', () => {
  it('agree where the gap is no more than both can be wrong', () => {
    const [one] = disagreements([
      reading('a', 'fine', [{ value: 0.5, u: 0.03, place: 1 }]),
      reading('b', 'coarse', [{ value: 0.55, u: 0.06, place: 1 }]),
    ])
    expect(one).toMatchObject({ apart: 'instruments', places: [1], beyond: false, evidence: null, trust: 'a' })
    expect(one?.gap).toBeCloseTo(-0.05, 12)
  })
  it('disagree beyond that, and the less trusted gets it as evidence of its bias', () => {
    const [one] = disagreements([
      reading(
        'a',
        'fine',
        [1, 2].map((place) => ({ value: 0.6, u: 0.03, place })),
      ),
      reading(
        'b',
        'coarse',
        [1, 2].map((place) => ({ value: 0.4, u: 0.06, place })),
      ),
    ])
    expect(one).toMatchObject({ beyond: true, trust: 'a', because: 'smaller-u', settle: ['check-on-strip'] })
    expect(one?.evidence?.instrumentId).toBe('coarse')
    expect(one?.evidence?.bias).toBeCloseTo(-0.2, 9)
    expect(one?.u).toBeCloseTo(Math.hypot(0.03, 0.06, 0.03, 0.06) / 2, 12)
  })
  it('are told by the one in date, whatever its u', () => {
    const [one] = disagreements([
      reading('a', 'fine', [{ value: 0.9, u: 0.03, place: 1 }], { lapsed: true }),
      reading('b', 'coarse', [{ value: 0.4, u: 0.06, place: 1 }]),
    ])
    expect(one).toMatchObject({ trust: 'b', because: 'in-date' })
    expect(one?.evidence?.bias).toBeCloseTo(0.5, 12)
  })
  it('on different spots may differ by how unevenly chains wear, and are asked for one spot with both', () => {
    const apart = (place: number) =>
      disagreements([
        reading('a', 'fine', [{ value: 0.5, u: 0.03, place: 1 }]),
        reading('b', 'other', [{ value: 0.38, u: 0.03, place }]),
      ])[0]
    expect(apart(1)?.beyond).toBe(true)
    expect(apart(2)).toMatchObject({ beyond: false, places: [], settle: ['same-spot-with-both', 'check-on-strip'] })
  })
  it('with marks only disagree where a value lies outside them', () => {
    const marked = (value: number) =>
      disagreements([
        reading('a', 'fine', [{ value, u: 0.03, place: 1 }]),
        reading('b', 'drop', [{ over: 0.5, under: 0.75, u: 0.05, place: 1 }]),
      ])[0]?.gap
    expect(marked(0.6)).toBe(0)
    expect(marked(0.9)).toBeCloseTo(0.15, 12)
    expect(marked(0.4)).toBeCloseTo(-0.1, 12)
  })
})

describe('two people with one instrument', () => {
  it('are compared without its bias, which both share, and settled by a study', () => {
    const [one] = disagreements([
      reading('a', 'fine', [{ value: 0.5, u: 0.03, place: 1 }], { biasU: 0.2 }),
      reading('b', 'fine', [{ value: 0.65, u: 0.03, place: 1 }], { biasU: 0.2, person: 'Ruan' }),
    ])
    expect(one).toMatchObject({ apart: 'people', beyond: true, trust: null, evidence: null, settle: ['study'] })
    expect(one?.u).toBeCloseTo(Math.hypot(0.03, 0.03), 12)
  })
  it('are no disagreement when it is one person with one instrument', () => {
    expect(
      disagreements([reading('a', 'fine', [{ value: 0.5, u: 0.03 }]), reading('b', 'fine', [{ value: 0.9, u: 0.03 }])]),
    ).toEqual([])
  })
})

describe('readings set side by side', () => {
  const at = (value: number, u = 0.03, place?: number): VerdictSpot => ({
    value,
    u,
    ...(place === undefined ? {} : { place }),
  })
  it('are those that differ, each pair once, the widest in its own u first', () => {
    const found = disagreements([
      reading('a', 'fine', [at(0.5, 0.03, 1)]),
      reading('b', 'coarse', [at(0.55, 0.03, 1)]),
      reading('c', 'third', [at(0.9, 0.03, 1)]),
      reading('d', 'fine', []),
    ])
    expect(found.map(({ a, b }) => `${a}${b}`)).toEqual(['ac', 'bc', 'ab'])
  })
  it('are none of one instrument in one hand', () => {
    expect(disagreements([reading('a', 'fine', [at(0.2)]), reading('b', 'fine', [at(0.9)])])).toEqual([])
  })
  it('of one instrument in two hands have no bias between them, and are settled by a study', () => {
    const [one] = disagreements([
      reading('a', 'fine', [at(0.5, 0.03, 1)], { biasU: 0.2 }),
      reading('b', 'fine', [at(0.9, 0.04, 1)], { biasU: 0.2, person: 'Ruan' }),
    ])
    expect(one).toMatchObject({ apart: 'people', beyond: true, evidence: null, settle: ['study'] })
    expect(one!.u).toBeCloseTo(0.05, 12)
  })
  it('of two instruments have both biases between them', () => {
    const [one] = disagreements([
      reading('a', 'fine', [at(0.5, 0, 1)], { biasU: 0.03 }),
      reading('b', 'coarse', [at(0.9, 0, 1)], { biasU: 0.04 }),
    ])
    expect(one!.u).toBeCloseTo(0.05, 12)
  })
  it('of other places are compared by their middles, with what spots differ by, and want the same spot looked at', () => {
    const [one] = disagreements([
      reading('a', 'fine', [at(0.4, 0.04), at(0.6, 0.03)]),
      reading('b', 'coarse', [at(0.2, 0)]),
    ])
    expect(one).toMatchObject({ places: [], settle: ['same-spot-with-both', 'check-on-strip'] })
    expect(one!.gap).toBeCloseTo(0.3, 12)
    expect(one!.u).toBeCloseTo(Math.hypot(0.05 / 2, 0.068 * Math.hypot(1 / Math.sqrt(2), 1)), 12)
  })
  it('of marks are apart by what lies between them, and not where both can be right', () => {
    const marks = (over?: number, under?: number): VerdictSpot => ({
      ...(over === undefined ? {} : { over }),
      ...(under === undefined ? {} : { under }),
      u: 0.05,
    })
    const gapOf = (a: VerdictSpot, b: VerdictSpot) =>
      disagreements([reading('a', 'fine', [a]), reading('b', 'coarse', [b])])[0]!.gap
    expect(gapOf(marks(0.75), marks(undefined, 0.5))).toBeCloseTo(0.25, 12)
    expect(gapOf(marks(undefined, 0.5), marks(0.75))).toBeCloseTo(-0.25, 12)
    expect(gapOf(marks(0.5, 0.75), at(0.6))).toBe(0)
    expect(gapOf(marks(0.5), marks(0.75))).toBe(0)
    expect(gapOf(at(0.9), marks(0.5, 0.75))).toBeCloseTo(0.15, 12)
  })
})
