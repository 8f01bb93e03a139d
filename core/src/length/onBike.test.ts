import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { oldWasRight, onBikePitches } from './onBike.ts'

describe('a length found on the bike', () => {
  it('wrapped without the derailleur has the pitches to add on top; threaded or lifted it is the count', () => {
    expect(onBikePitches({ way: 'wrapped', counted: 109 }, 2)).toBe(112)
    expect(onBikePitches({ way: 'wrapped', counted: 110 }, 4)).toBe(114)
    expect(onBikePitches({ way: 'threaded', counted: 111 }, 2)).toBe(112)
    expect(onBikePitches({ way: 'smallest', counted: 115 }, 2)).toBe(114)
  })
  it('is always one a chain closes at', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('wrapped' as const, 'threaded' as const, 'smallest' as const),
        fc.integer({ min: 60, max: 140 }),
        fc.integer({ min: 0, max: 8 }),
        (way, counted, add) => {
          expect(Math.abs(onBikePitches({ way, counted }, add) % 2)).toBe(0)
        },
      ),
    )
  })
})

describe('the old chain', () => {
  it('was right where it looked so both ways; hanging or strained it was not; unseen nobody knows', () => {
    expect(oldWasRight({ small: 'right', large: 'right' })).toBe(true)
    expect(oldWasRight({ small: 'right', large: null })).toBe(true)
    expect(oldWasRight({ small: 'hangs', large: 'right' })).toBe(false)
    expect(oldWasRight({ small: null, large: 'strained' })).toBe(false)
    expect(oldWasRight({ small: null, large: null })).toBeNull()
  })
})
