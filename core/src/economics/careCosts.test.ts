import { describe, expect, it } from 'vitest'
import { assumptionsWith, careCosts, yearOf, type CareCostsAsked } from '../index.ts'

const assumed = assumptionsWith({})
const ASKED: CareCostsAsked = {
  kmPerDay: 10,
  wearFactor: 1.5,
  careFactor: 1.2,
  limit: 0.5,
  prices: { chain: 40, cassette: 60, rings: 90 },
  minutes: { 'immersion-wax': 20, 'drip-wax': 10, 'dry-oil': 12, 'wet-oil': 12 },
}
const of = (asked: Partial<CareCostsAsked> = {}, values: Record<string, number> = {}) =>
  Object.fromEntries(careCosts({ ...ASKED, ...asked }, assumptionsWith(values)).map((one) => [one.care, one]))

describe('what each care comes to in a year', () => {
  it('is by hand: chains by its life, cassettes by how many a chain outlives, treatments by its interval', () => {
    const wet = of()['wet-oil']!
    // 10 km × 365 × 1.5 = 5475 weighted km; 3500 to 0.5 %.
    expect(wet.chains).toBeCloseTo(5.475 / 3.5, 9)
    expect(wet.cassettes).toBeCloseTo(5.475 / 3.5 / 4, 9)
    // 300 dry km at 12 a day are 25 days, before its 30 are over.
    expect(wet.treatments).toBeCloseTo(365 / 25, 9)
    expect(wet.minutes).toBeCloseTo((365 / 25) * 12, 9)
    expect(wet.wear).toBeCloseTo(wet.chains * 40 + wet.cassettes * 60, 9)
    expect(yearOf(wet, true)).toBeCloseTo(wet.wear + wet.product, 9)
    expect(yearOf(wet, false) - yearOf(wet, true)).toBeCloseTo((wet.minutes / 60) * assumed.jobs.hourPrice, 9)
  })
  it('wears fewest chains under hot wax, and grows with what is ridden', () => {
    const once = of()
    expect(once['immersion-wax']!.chains).toBeLessThan(once['wet-oil']!.chains / 2)
    const twice = of({ kmPerDay: 20 })
    for (const care of Object.keys(once)) expect(twice[care]!.chains).toBeCloseTo(2 * once[care]!.chains, 9)
  })
  it('lasts longer to a higher limit, by the wear law', () => {
    const { gamma } = assumed.forecast.priors['dry-oil']
    expect(of()['dry-oil']!.chains / of({ limit: 0.75 })['dry-oil']!.chains).toBeCloseTo(1.5 ** (1 / gamma), 9)
  })
  it('product: what goes on is the shop’s own figure', () => {
    for (const care of ['immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil'])
      expect(of({}, { [`care.${care}.product`]: 3 })[care]!.product).toBeCloseTo(of()[care]!.treatments * 3, 9)
  })
  it('is time alone for a bike nobody rides', () => {
    const idle = of({ kmPerDay: 0 })['dry-oil']!
    expect([idle.chains, idle.wear]).toEqual([0, 0])
    expect(idle.treatments).toBeCloseTo(365 / 45, 9)
  })
  it('is refused for what cannot be', () => {
    expect(() => careCosts({ ...ASKED, kmPerDay: -1 }, assumed)).toThrow(RangeError)
    expect(() => careCosts({ ...ASKED, limit: 0 }, assumed)).toThrow(RangeError)
  })
})
