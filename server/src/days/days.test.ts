import { describe, expect, it } from 'vitest'
import { dayIn, daysLater, momentAt } from './days.ts'

describe('a day in a shop’s zone', () => {
  it('is the one its clocks show, not the server’s', () => {
    const late = new Date('2026-06-30T23:30:00Z')
    expect(dayIn('Europe/London', late)).toBe('2026-07-01')
    expect(dayIn('UTC', late)).toBe('2026-06-30')
    expect(dayIn('America/New_York', late)).toBe('2026-06-30')
  })
  it('counts on over a change of clocks, a leap day and a year’s end', () => {
    expect(daysLater('2026-03-28', 2)).toBe('2026-03-30')
    expect(daysLater('2028-02-28', 2)).toBe('2028-03-01')
    expect(daysLater('2026-12-31', 1)).toBe('2027-01-01')
    expect(daysLater('2026-01-01', -1)).toBe('2025-12-31')
  })
  it('has its clock times in summer and in winter', () => {
    expect(momentAt('Europe/London', '2026-01-15', '09:30').toISOString()).toBe('2026-01-15T09:30:00.000Z')
    expect(momentAt('Europe/London', '2026-07-15', '09:30').toISOString()).toBe('2026-07-15T08:30:00.000Z')
  })
})
