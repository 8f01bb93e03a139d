import { describe, expect, it } from 'vitest'
import { odometerDistance, parseOdometer } from './index.ts'

describe('an odometer as it is typed', () => {
  it.each([
    ['3480', 'km', 3480],
    ['3 480', 'km', 3480],
    ['3480,5', 'km', 3480.5],
    ['2000 mi', 'km', 3218.688],
    ['1000', 'mi', 1609.344],
    ['3480km', 'mi', 3480],
    ['0', 'km', 0],
  ] as const)('%s in %s is %d km', (text, unit, km) => {
    const result = parseOdometer(text, unit)
    expect(result.ok && result.km).toBeCloseTo(km, 6)
  })
  it.each([
    ['abc', 'odometer-letters'],
    ['1.2.3', 'odometer-two-decimals'],
    ['-5', 'odometer-negative'],
    ['1000000000', 'odometer-too-large'],
  ])('%s is refused: %s', (text, problem) => expect(parseOdometer(text, 'km')).toEqual({ ok: false, problem }))
})

describe('distance by odometer', () => {
  const values = [
    { at: 0, km: 100, restarted: false },
    { at: 10, km: 200, restarted: false },
    { at: 20, km: 50, restarted: true },
    { at: 30, km: 80, restarted: false },
  ]
  it('adds the differences and starts again after a new meter', () => {
    expect(odometerDistance(values, 0, 30)).toBe(130)
  })
  it('spreads a difference evenly over its days', () => {
    expect(odometerDistance(values, 5, 10)).toBe(50)
    expect(odometerDistance(values, 5, 25)).toBe(65)
  })
  it('parts add up to the whole, wherever it is cut', () => {
    for (const cut of [0, 3, 10, 15, 20, 27, 30])
      expect((odometerDistance(values, 0, cut) ?? 0) + (odometerDistance(values, cut, 30) ?? 0)).toBeCloseTo(130, 9)
  })
  it('knows nothing from a single value', () => {
    expect(odometerDistance(values.slice(0, 1), 0, 30)).toBeNull()
  })
})
