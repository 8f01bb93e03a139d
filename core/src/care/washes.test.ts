import { describe, expect, it } from 'vitest'
import { nextWashOn, usualRhythm } from '../index.ts'

const events = [
  { kind: 'treated', cleaning: 'wipe', on: '2026-10-20' },
  { kind: 'squeak', cleaning: null, on: '2026-10-18' },
  { kind: 'treated', cleaning: 'rinse', on: '2026-10-01' },
  { kind: 'wash', cleaning: null, on: '2026-09-01' },
] as const
const bike = { events, fittedOn: '2026-08-01', ownDays: null }

describe('the next wash', () => {
  it('washDays: comes so many days after the last, a rinse before a treatment counting and a wipe not', () => {
    expect(nextWashOn(bike, { washDays: 30 })).toBe('2026-10-31')
    expect(nextWashOn(bike, { washDays: 60 })).toBe('2026-11-30')
    expect(nextWashOn({ ...bike, events: events.slice(3) }, { washDays: 30 })).toBe('2026-10-01')
  })
  it('is counted from the day its chain came on where nobody washed it', () => {
    expect(nextWashOn({ ...bike, events: [] }, { washDays: 14 })).toBe('2026-08-15')
  })
  it('goes by the bike’s own rhythm before the house’s, and by none where that is none', () => {
    expect(nextWashOn({ ...bike, ownDays: 7 }, { washDays: 30 })).toBe('2026-10-08')
    expect(nextWashOn({ ...bike, ownDays: 0 }, { washDays: 30 })).toBeNull()
    expect(nextWashOn(bike, { washDays: 0 })).toBeNull()
  })
})

describe('how often a chain is treated as it is ridden', () => {
  it('is by distance for who rides much, by days for who rides little, and never less than a day', () => {
    expect(usualRhythm({ km: 180, days: 45 }, 20, 1.5)).toBe(6)
    expect(usualRhythm({ km: 180, days: 45 }, 1, 1)).toBe(45)
    expect(usualRhythm({ km: 180, days: 45 }, 0, 1)).toBe(45)
    expect(usualRhythm({ km: 20, days: 45 }, 200, 3)).toBe(1)
    expect(() => usualRhythm({ km: 0, days: 45 }, 1, 1)).toThrow(RangeError)
  })
})
