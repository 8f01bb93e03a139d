import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  DEFAULTS,
  dueAgainKm,
  itemsOf,
  parseThickness,
  resultOfGrade,
  rotorWear,
  TOOTH_GRADES,
  WEAR_ITEM_IDS,
} from '../index.ts'

const assumed = DEFAULTS.otherWear
const line = (mm: number, perThousand: number, kms: readonly number[], u = 0.02) =>
  kms.map((km) => ({ km, mm: mm - (perThousand * km) / 1000, u }))

describe('what else wears', () => {
  it('leaves out what a bike has not', () => {
    expect(itemsOf({ type: 'derailleur', discBrake: true })).toEqual(WEAR_ITEM_IDS)
    const hub = itemsOf({ type: 'hub-gear', discBrake: false })
    expect(hub).not.toContain('pulleys')
    expect(hub.some((id) => id.startsWith('rotor'))).toBe(false)
    // Nobody said: it may have rotors.
    expect(itemsOf({ type: 'single-speed', discBrake: null })).toContain('rotor-front')
  })
  it('is due again after its interval, sooner when it is to be watched, at once when it is to be changed', () => {
    for (const id of WEAR_ITEM_IDS) {
      const good = dueAgainKm(id, 'good', DEFAULTS.otherWear)
      expect(dueAgainKm(id, 'watch', DEFAULTS.otherWear)).toBeCloseTo(good * assumed.watchShare, 9)
      expect([good > 0, dueAgainKm(id, 'change', DEFAULTS.otherWear)]).toEqual([true, 0])
    }
  })
  it('grades teeth from new to done', () => {
    expect(TOOTH_GRADES.map(resultOfGrade)).toEqual(['good', 'good', 'watch', 'change'])
  })
})

describe('a thickness', () => {
  it('is read with a point or a comma, and refused with what to do', () => {
    expect(['1.72', '1,72 mm', ' .9'].map(parseThickness)).toEqual([
      { ok: true, mm: 1.72 },
      { ok: true, mm: 1.72 },
      { ok: true, mm: 0.9 },
    ])
    const problems = ['', '-1.7', 'thin', '17.2', '0.1', '1.7.2'].map((text) => parseThickness(text))
    expect(problems.map((read) => !read.ok && read.problem)).toEqual([
      'thickness-missing',
      'thickness-letters',
      'thickness-letters',
      'thickness-range',
      'thickness-range',
      'thickness-letters',
    ])
  })
})

describe('a rotor', () => {
  it('measured once is as thick as it was measured, its rate not known', () => {
    const { now, rate, left, result, dueKm } = rotorWear(
      {
        minimumMm: 1.5,
        readings: [{ km: 4000, mm: 1.72, u: 0.02 }],
        kmNow: 4000,
      },
      DEFAULTS.otherWear,
    )
    expect([now.mm, now.u]).toEqual([expect.closeTo(1.72, 9), expect.closeTo(0.02, 9)])
    expect(rate[1]).toBeCloseTo(assumed.rotorRate, 2)
    expect(left[2] / left[0]).toBeGreaterThan(5)
    expect([result, dueKm > 0]).toEqual(['good', true])
  })
  it('measured often is foretold by its own rate', () => {
    const readings = line(1.8, 0.1, [0, 500, 1000, 1500, 2000])
    const { rate, left } = rotorWear({ minimumMm: 1.5, readings, kmNow: 2000 }, DEFAULTS.otherWear)
    expect(rate[1]).toBeGreaterThan(0.08)
    expect(rate[1]).toBeLessThan(0.12)
    // 0.1 mm are left at 0.1 mm a thousand km.
    expect(left[0]).toBeLessThan(1000)
    expect(left[1]).toBeGreaterThan(800)
    expect(left[1]).toBeLessThan(1200)
    expect(left[2]).toBeGreaterThan(1000)
  })
  it('under its minimum is changed, near it watched and measured again before it gets there', () => {
    const at = (mm: number) =>
      rotorWear({ minimumMm: 1.5, readings: [{ km: 0, mm, u: 0.02 }], kmNow: 0 }, DEFAULTS.otherWear)
    expect(at(1.47)).toMatchObject({ result: 'change', dueKm: 0 })
    expect(at(1.52).result).toBe('watch')
    expect(at(1.6).result).toBe('good')
    expect(at(1.6).dueKm).toBeLessThan(at(1.75).dueKm)
    expect(at(1.6).left[0]).toBeLessThan(at(1.6).left[1])
  })
  it('goes on wearing since it was measured', () => {
    const readings = line(1.8, 0.1, [0, 1000, 2000])
    const then = rotorWear({ minimumMm: 1.5, readings, kmNow: 2000 }, DEFAULTS.otherWear)
    const later = rotorWear({ minimumMm: 1.5, readings, kmNow: 3000 }, DEFAULTS.otherWear)
    expect(later.now.mm).toBeLessThan(then.now.mm - 0.08)
    expect(later.now.u).toBeGreaterThan(then.now.u)
    expect(later.probabilityUnder).toBeGreaterThan(then.probabilityUnder)
    expect(later.left[1]).toBeCloseTo(then.left[1] - 1000, -1)
  })
  it('is never further from its minimum for having been measured thinner, and its quantiles keep their order', () => {
    const thickness = fc.double({ min: 1.2, max: 2, noNaN: true })
    fc.assert(
      fc.property(thickness, thickness, fc.double({ min: 0.005, max: 0.06, noNaN: true }), (a, b, u) => {
        const at = (mm: number) =>
          rotorWear({ minimumMm: 1.5, readings: [{ km: 0, mm, u }], kmNow: 0 }, DEFAULTS.otherWear)
        const [thin, thick] = [at(Math.min(a, b)), at(Math.max(a, b))]
        expect(thin.probabilityUnder).toBeGreaterThanOrEqual(thick.probabilityUnder - 1e-9)
        expect(thin.left[1]).toBeLessThanOrEqual(thick.left[1] + 1)
        for (const [early, median, late] of [thin.left, thick.left]) {
          expect(early).toBeLessThanOrEqual(median)
          expect(median).toBeLessThanOrEqual(late)
        }
      }),
      { numRuns: 60 },
    )
  })
  it('nobody measured, or of no thickness a rotor has, is refused', () => {
    expect(() => rotorWear({ minimumMm: 1.5, readings: [], kmNow: 0 }, DEFAULTS.otherWear)).toThrow(RangeError)
    expect(() => rotorWear({ minimumMm: 15, readings: line(1.8, 0, [0]), kmNow: 0 }, DEFAULTS.otherWear)).toThrow(
      RangeError,
    )
    expect(() => rotorWear({ minimumMm: 1.5, readings: line(0.1, 0, [0]), kmNow: 0 }, DEFAULTS.otherWear)).toThrow(
      RangeError,
    )
  })
})
