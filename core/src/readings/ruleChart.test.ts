import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import { growthSinceNew, ruleChart } from '../index.ts'

describe('the rule chart', () => {
  const [row] = ruleChart({ counts: [24], steps: [0, 0.5, 0.75] })
  it('gives the length of each count at each step, in mm and inches', () => {
    expect(row?.cells.map((cell) => cell.lengthMm)).toEqual([
      expect.closeTo(304.8, 9),
      expect.closeTo(306.324, 9),
      expect.closeTo(307.086, 9),
    ])
    expect(row?.cells[0]?.inches).toBeCloseTo(12, 12)
  })
  it('says how far the nearest 16th and 32nd are off, in mm and in wear', () => {
    // 12 in at 0.5 % is 12.06 in: 12 1/16 is 12.0625, and 12 2/32 is the same.
    expect(row?.cells[1]?.sixteenths).toMatchObject({ steps: 193, denominator: 16 })
    expect(row?.cells[1]?.sixteenths.offMm).toBeCloseTo(0.0635, 9)
    expect(row?.cells[1]?.sixteenths.offPercent).toBeCloseTo(0.0635 / 3.048, 9)
    // 12.09 in is nearest to 12 3/32 = 12.09375.
    expect(row?.cells[2]?.thirtySeconds).toMatchObject({ steps: 387, denominator: 32 })
  })
  it('is never off by more than half a step, and a finer fraction is never worse', () => {
    const rows = ruleChart({ counts: [8, 16, 40, 113], steps: Array.from({ length: 13 }, (_, i) => i / 10) })
    for (const { cells } of rows)
      for (const { sixteenths, thirtySeconds } of cells) {
        expect(Math.abs(sixteenths.offMm)).toBeLessThanOrEqual(25.4 / 32 + 1e-9)
        expect(Math.abs(thirtySeconds.offMm)).toBeLessThanOrEqual(Math.abs(sixteenths.offMm) + 1e-9)
      }
  })
  it('takes whole counts only', () => {
    expect(() => ruleChart({ counts: [2.5], steps: [0] })).toThrow(RangeError)
  })
})

describe('a whole chain since it was new', () => {
  const whenNew = { lengthMm: 1448.4, pitches: 114, preloadKg: 2, chainCelsius: 20 }
  it('has grown by what its pitches have', () => {
    const { growth, unlike, explanation } = growthSinceNew({
      material: 'steel',
      uMm: DEFAULTS.measuring.fullLengthUMm,
      now: { ...whenNew, lengthMm: 1455.642 },
      whenNew,
    })
    expect(growth).toBeCloseTo(0.5, 9)
    expect(unlike).toEqual([])
    expect(explanation.result.value).toBe(growth)
  })
  it('compares with and without its connecting link, and at another temperature', () => {
    const without = { ...whenNew, lengthMm: 1448.4 * (113 / 114) * 1.005, pitches: 113 }
    const compared = growthSinceNew({ material: 'steel', uMm: DEFAULTS.measuring.fullLengthUMm, now: without, whenNew })
    expect(compared.unlike).toEqual([])
    expect(compared.growth).toBeCloseTo(0.5, 9)
    // A steel rule as warm as the chain has grown with it: the same number is the same chain.
    const warm = { ...whenNew, ruleCelsius: 35, chainCelsius: 35 }
    const on = (material: 'steel' | 'brass') =>
      growthSinceNew({ material, uMm: DEFAULTS.measuring.fullLengthUMm, now: warm, whenNew })
    expect(on('steel').growth).toBe(0)
    expect(on('brass').growth).toBeCloseTo(1e-4 * (19 - 11.5) * 15, 9)
  })
  it('is named as unlike at another count or another load', () => {
    const now = { ...whenNew, pitches: 112, preloadKg: 5 }
    expect(growthSinceNew({ material: 'steel', uMm: DEFAULTS.measuring.fullLengthUMm, now, whenNew }).unlike).toEqual([
      'count-differs',
      'preload-differs',
    ])
  })
})
