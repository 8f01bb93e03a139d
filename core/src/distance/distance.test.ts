import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import { explainedOdometerDistance, odometerDistance, parseOdometer } from './index.ts'

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
    const result = parseOdometer(text, unit, DEFAULTS.distance)
    expect(result.ok && result.km).toBeCloseTo(km, 6)
  })
  it.each([
    ['abc', 'odometer-letters'],
    ['1.2.3', 'odometer-two-decimals'],
    ['-5', 'odometer-negative'],
    ['1000000000', 'odometer-too-large'],
  ])('%s is refused: %s', (text, problem) =>
    expect(parseOdometer(text, 'km', DEFAULTS.distance)).toEqual({ ok: false, problem }),
  )
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

describe('why a distance is what it is', () => {
  const values = [
    { at: 0, km: 100, restarted: false },
    { at: 10, km: 200, restarted: false },
    { at: 20, km: 260, restarted: false },
  ]
  const inputs = (from: number, to: number, of = values) =>
    explainedOdometerDistance(of, from, to)?.explanation.inputs.map((input) => input.value)
  it('is told by what the odometer showed at both ends, or must have shown', () => {
    expect(inputs(0, 20)).toEqual([100, 260])
    expect(inputs(5, 20)).toEqual([150, 260])
    expect(inputs(5, 15)).toEqual([150, 230])
  })
  it('adds up to the distance it explains', () => {
    for (const [from, to] of [
      [0, 20],
      [3, 17],
      [10, 20],
    ] as const) {
      const explained = explainedOdometerDistance(values, from, to)
      const [start = 0, end = 0] = explained?.explanation.inputs.map((input) => input.value as number) ?? []
      expect(end - start).toBeCloseTo(explained?.km ?? NaN, 9)
      expect(explained?.explanation.result.value).toBe(odometerDistance(values, from, to))
    }
  })
  it('says how often the odometer began again', () => {
    const restarted = [...values, { at: 30, km: 40, restarted: true }, { at: 40, km: 90, restarted: false }]
    const explained = explainedOdometerDistance(restarted, 0, 40)
    expect(explained?.km).toBe(210)
    expect(explained?.explanation.formula).toBe('s = o₂ − o₁ + f')
    expect(explained?.explanation.inputs.at(-1)).toMatchObject({ meaning: 'odometer-restarts', value: 1 })
  })
  it('is nothing where the distance is not known', () => {
    expect(explainedOdometerDistance(values.slice(0, 1), 0, 20)).toBeNull()
  })
})
