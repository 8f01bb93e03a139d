import { describe, expect, it } from 'vitest'
import { ago, clock, day, distance, number, percent } from './format.ts'

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
