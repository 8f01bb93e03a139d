import { assumptionsWith } from '@pelrin/core'
import { describe, expect, it } from 'vitest'
import { dayIn, momentAt } from '../days/days.ts'
import { firstMoment } from './compose.ts'

const shipped = assumptionsWith({})
const quiet = (quietFrom: number, quietUntil: number) => ({
  ...shipped,
  diary: { ...shipped.diary, quietFrom, quietUntil },
})
const clockIn = (timeZone: string, moment: Date): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(moment)

/** Evenings before the clock is set back, and before it is set on, in zones that do so by different rules. */
const NIGHTS = [
  ['Europe/London', '2026-10-24', '2026-03-28'],
  ['America/New_York', '2026-10-31', '2026-03-07'],
  ['Australia/Lord_Howe', '2026-04-04', '2026-10-03'],
] as const

describe('a reminder in quiet hours', () => {
  it.each(NIGHTS)('goes at eight by the clock of %s, in both nights the clock is changed', (zone, back, on) => {
    for (const evening of [back, on])
      for (const clock of ['20:00', '23:30']) {
        const goes = firstMoment(momentAt(zone, evening, clock), zone, quiet(20, 8))
        expect(clockIn(zone, goes)).toBe('08:00')
        expect(dayIn(zone, goes) > evening).toBe(true)
        // From after midnight it is the same morning.
        const night = new Date(goes.getTime() - 5 * 3_600_000)
        expect(firstMoment(night, zone, quiet(20, 8))).toEqual(goes)
      }
  })
  it('waits for no other clock than the shop’s, and not at all by day or where it is never quiet', () => {
    const noon = new Date('2026-06-01T12:00:00Z')
    expect(firstMoment(noon, 'Europe/London', quiet(20, 8))).toEqual(noon)
    expect(firstMoment(noon, 'UTC', quiet(8, 8))).toEqual(noon)
    const evening = new Date('2026-06-01T21:15:30Z')
    expect(firstMoment(evening, 'UTC', quiet(20, 24)).toISOString()).toBe('2026-06-02T00:00:00.000Z')
    expect(firstMoment(evening, 'UTC', quiet(21.5, 6)).getTime()).toBe(evening.getTime())
  })
})

describe('a clock time of a day', () => {
  it.each(NIGHTS)('is the one %s shows, on both sides of a changed clock', (zone, back, on) => {
    for (const day of [back, on])
      for (const clock of ['00:30', '04:30', '12:00', '23:30']) {
        expect(clockIn(zone, momentAt(zone, day, clock))).toBe(clock)
        expect(dayIn(zone, momentAt(zone, day, clock))).toBe(day)
      }
  })
})
