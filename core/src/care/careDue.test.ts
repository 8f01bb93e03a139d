import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { careDue, DEFAULTS, fittedDays, intervalOf, NO_KM, SURFACES, type CareState } from '../index.ts'

const state = (more: Partial<CareState> = {}): CareState => ({
  care: 'immersion-wax',
  km: { ...NO_KM, dry: 100 },
  usualFactor: 1,
  days: 20,
  since: [],
  factoryCoat: false,
  rate: { kmPerDay: 10, weekScatter: 0.4, meanScatter: 0.1, basis: 'recent' },
  verdict: 'keep-riding',
  nextLookKm: 1000,
  nextLookDays: null,
  ...more,
})

describe('care', () => {
  it('is due after its distance in dry km, sooner by what was ridden wet', () => {
    const dry = careDue(state(), DEFAULTS)!
    expect([dry.because, dry.kmLeft, dry.overdue, dry.checkFirst]).toEqual(['distance', 200, false, false])
    expect(dry.daysLeft[1]).toBeGreaterThan(15)
    expect(dry.daysLeft[1]).toBeLessThan(22)
    const wet = careDue(state({ km: { ...NO_KM, wet: 100 } }), DEFAULTS)!
    expect([wet.kmLeft, wet.overdue]).toEqual([0, false])
    expect(careDue(state({ km: { ...NO_KM, wet: 110 } }), DEFAULTS)).toMatchObject({ overdue: true, kmLeft: -30 })
  })
  it('is due by its days where those come first, and those count only while it is fitted', () => {
    const idle = careDue(state({ days: 85, rate: { ...state().rate, kmPerDay: 1 } }), DEFAULTS)!
    expect([idle.because, idle.daysLeft[1]]).toEqual(['days', 5])
    const day = 86_400_000
    const turns = [
      { from: 0, to: 10 * day },
      { from: 30 * day, to: null },
    ]
    expect(fittedDays(turns, 5 * day, 40 * day)).toBe(15)
    expect(fittedDays(turns, 12 * day, 20 * day)).toBe(0)
  })
  it('is due at once after a wash or a squeak, and where it was never treated', () => {
    expect(careDue(state({ since: ['wash', 'squeak'] }), DEFAULTS)).toMatchObject({ because: 'wash', overdue: true })
    expect(careDue(state({ since: ['squeak'] }), DEFAULTS)).toMatchObject({ because: 'squeak' })
    expect(careDue(state({ days: null }), DEFAULTS)).toMatchObject({ because: 'never-treated', overdue: true })
  })
  it('of a new chain that keeps its factory coat is due after 50 km', () => {
    const fresh = careDue(
      state({ care: 'dry-oil', days: null, factoryCoat: true, km: { ...NO_KM, dry: 20 } }),
      DEFAULTS,
    )!
    expect([fresh.because, fresh.kmLeft]).toEqual(['first-care', 30])
  })
  it('comes after the measuring where a check falls due within the interval, or the verdict wants one', () => {
    expect(careDue(state({ nextLookKm: 250 }), DEFAULTS)!.checkFirst).toBe(true)
    expect(careDue(state({ nextLookDays: 90 }), DEFAULTS)!.checkFirst).toBe(true)
    expect(careDue(state({ nextLookDays: 91 }), DEFAULTS)!.checkFirst).toBe(false)
    expect(careDue(state({ nextLookKm: 250, usualFactor: 2 }), DEFAULTS)!.checkFirst).toBe(false)
    for (const verdict of ['closing-in', 'change', 'measure-again'] as const)
      expect(careDue(state({ verdict, nextLookKm: null }), DEFAULTS)!.checkFirst).toBe(true)
  })
  it('follows the bike’s own interval, else the shop’s; none for a care nobody knows', () => {
    expect(careDue(state({ own: { km: 120, days: 30 } }), DEFAULTS)!.kmLeft).toBe(20)
    const assumed = { ...DEFAULTS, care: { ...DEFAULTS.care, 'immersion-wax': { km: 500, days: 90, product: 0.6 } } }
    expect(careDue(state(), assumed)!.kmLeft).toBe(400)
    expect(careDue(state({ care: 'unknown' }), DEFAULTS)).toBeNull()
    expect(intervalOf({ care: 'wet-oil' }, DEFAULTS.care)).toEqual({ km: 300, days: 30 })
  })
  it('is never due later for having ridden more, in whatever weather, or for more days', () => {
    const km = fc.double({ min: 0, max: 500, noNaN: true })
    fc.assert(
      fc.property(
        km,
        km,
        fc.constantFrom(...SURFACES),
        fc.nat(120),
        fc.nat(60),
        (ridden, more, surface, days, later) => {
          const before = careDue(state({ km: { ...NO_KM, dry: ridden }, days }), DEFAULTS)!
          const far = { ...NO_KM, dry: ridden }
          const after = careDue(
            state({ km: { ...far, [surface]: far[surface] + more }, days: days + later }),
            DEFAULTS,
          )!
          expect(after.kmLeft).toBeLessThanOrEqual(before.kmLeft + 1e-9)
          for (const [i, left] of after.daysLeft.entries())
            expect(left!).toBeLessThanOrEqual(before.daysLeft[i]! + 0.06)
          expect(Number(after.overdue)).toBeGreaterThanOrEqual(Number(before.overdue))
        },
      ),
      { numRuns: 200 },
    )
  })
  it('is refused for an interval of nothing, and for a treatment after now', () => {
    expect(() => careDue(state({ own: { km: 0, days: 30 } }), DEFAULTS)).toThrow(RangeError)
    expect(() => careDue(state({ days: -1 }), DEFAULTS)).toThrow(RangeError)
  })
})
