import { afterEach, describe, expect, it } from 'vitest'
import {
  ago,
  clock,
  day,
  dayAndClock,
  distance,
  moneyText,
  number,
  percent,
  temperature,
  today,
  weekdayName,
} from './format.ts'
import { dayPattern, timePattern } from './pickerFormats.ts'
import { atInZone } from './shopClock.ts'
import { formats, formatsAreOf } from './shopFormats.ts'
import { timeOn } from './timeOn.ts'
import { celsiusTyped, typedCelsius } from './typedTemperature.ts'

const ours = formats()
afterEach(() => formatsAreOf(ours))

describe('numbers as they are told', () => {
  it('have the decimals asked for, and a proper minus', () => {
    expect(percent(0.6889)).toBe('0.69')
    expect(percent(-0.05)).toBe('−0.05')
    expect(number(1234.5, 0)).toBe('1,235')
  })
  it('have distances in the unit of the odometer', () => {
    expect(distance(1609.344, 'mi')).toBe('1,000 mi')
    expect(distance(3480.4, 'km')).toBe('3,480 km')
  })
})

describe('days as they are told', () => {
  const at = (days: number): string => new Date(Date.now() - days * 86_400_000).toISOString()
  it('are near in words, and far in months', () => {
    expect(ago(at(0))).toBe('today')
    expect(ago(at(1))).toBe('yesterday')
    expect(ago(at(9))).toBe('9 days ago')
    expect(ago(at(200))).toBe('7 months ago')
  })
  it('name the year only when it is not this one', () => {
    const year = new Date().getFullYear()
    expect(day(`${year}-03-05T10:00:00Z`)).toBe('5 Mar')
    expect(day(`${year - 1}-03-05T10:00:00Z`)).toBe(`5 Mar ${year - 1}`)
    expect(clock(`${year}-03-05T10:05:00`)).toBe('10:05')
  })
})

describe('a shop elsewhere', () => {
  it('has its own clock on every tablet, also for what is typed', () => {
    formatsAreOf({ ...ours, timeZone: 'Europe/London' })
    expect(clock('2026-11-28T09:30:00Z')).toBe('09:30')
    formatsAreOf({ ...ours, timeZone: 'America/New_York' })
    expect(clock('2026-11-28T09:30:00Z')).toBe('04:30')
    expect(dayAndClock(new Date('2026-11-28T02:30:00Z'))).toBe('Fri 27 Nov, 21:30')
    expect(timeOn('930', '2026-07-01')).toBe('2026-07-01T13:30:00.000Z')
    expect(atInZone('2026-11-28', '09:30').toISOString()).toBe('2026-11-28T14:30:00.000Z')
    formatsAreOf({ ...ours, timeZone: 'Pacific/Kiritimati' })
    const there = new Intl.DateTimeFormat('en-CA', { timeZone: 'Pacific/Kiritimati' }).format(new Date())
    expect(today()).toBe(there)
    expect(ago(today())).toBe('today')
    // A day is the same one wherever the tablet is.
    expect(day('2019-02-03')).toBe('3 Feb 2019')
    expect(weekdayName('2026-11-29')).toBe('Sunday')
  })
  it('writes days, numbers and money as its country does', () => {
    expect([dayPattern(), timePattern(), moneyText(123456)]).toEqual(['DD/MM/YYYY', 'HH:mm', '£1,234.56'])
    formatsAreOf({ ...ours, locale: 'en-US', currency: 'USD' })
    expect([dayPattern(), timePattern(), moneyText(-250)]).toEqual(['MM/DD/YYYY', 'hh:mm A', '−$2.50'])
    formatsAreOf({ ...ours, locale: 'en-DE', currency: 'EUR' })
    expect(number(1234.5, 1)).toBe('1.234,5')
    expect(moneyText(990)).toContain('9,90')
  })
  it('reads its thermometers in the unit it has', () => {
    expect(temperature(90)).toBe('90 °C')
    expect(typedCelsius('21,5')).toBe(21.5)
    formatsAreOf({ ...ours, temperatureUnit: 'F' })
    expect(temperature(90)).toBe('194 °F')
    expect(typedCelsius('68')).toBe(20)
    expect(celsiusTyped(20)).toBe('68.0')
    expect(typedCelsius('warm')).toBeUndefined()
  })
})
