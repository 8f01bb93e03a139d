import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { piecesAfter } from './pieces.ts'

const even = fc.integer({ min: 10, max: 70 }).map((half) => 2 * half)

describe('a chain with pins driven out', () => {
  it('opens into one piece by one pin, inner at one end and outer at the other', () => {
    fc.assert(
      fc.property(even, fc.integer({ min: -20, max: 200 }), (pitches, pin) => {
        expect(piecesAfter(pitches, [pin])).toEqual([{ pitches, ends: 'one-outer' }])
      }),
    )
  })
  it('loses one outer link by the two pins of it, and is then inner at both ends', () => {
    fc.assert(
      fc.property(even, (pitches) => {
        expect(piecesAfter(pitches, [0, -1])).toEqual([
          { pitches: pitches - 1, ends: 'both-inner' },
          { pitches: 1, ends: 'both-outer' },
        ])
      }),
    )
  })
  it('is two pieces by pins far apart, and never loses a pitch', () => {
    fc.assert(
      fc.property(even, fc.uniqueArray(fc.nat(19), { minLength: 2, maxLength: 5 }), (pitches, pins) => {
        const pieces = piecesAfter(pitches, pins)
        expect(pieces).toHaveLength(pins.length)
        expect(pieces.reduce((sum, one) => sum + one.pitches, 0)).toBe(pitches)
      }),
    )
    expect(piecesAfter(112, [0, 8]).map(({ pitches }) => pitches)).toEqual([104, 8])
  })
  it('is none that closes at an odd count, or that nothing was driven out of', () => {
    expect(() => piecesAfter(111, [0])).toThrow(RangeError)
    expect(() => piecesAfter(112, [])).toThrow(RangeError)
  })
})
