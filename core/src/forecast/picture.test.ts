import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  DEFAULTS,
  ChanceOver,
  distanceAloneCrossing,
  fitWear,
  forecastPicture,
  probabilityOverAt,
  shippedPrior,
  straightLineAt,
  wearBandAt,
  wearCosts,
  WidenedChance,
  type ChainForecastInput,
  type ForecastReading,
} from '../index.ts'
import { likelihoodAt, likelihoodTable, strayAt, TABLE_FROM, TABLE_LAST, TABLE_STEP } from './likelihood.ts'
import { nextCheck } from './nextCheck.ts'

const DAY = 86_400_000
const chain = (values: readonly number[]): ChainForecastInput => ({
  readings: values.map((value, i): ForecastReading => ({
    id: String(i),
    occurredAt: i * 60 * DAY,
    chainKm: 700 * (i + 1),
    s: 0.8 * (i + 1),
    source: 'shop',
    instrument: { id: 'rule', kind: 'steel-rule', biasU: 0 },
    spots: [{ value, u: 0.04, pitches: 54 }],
  })),
  limit: 0.5,
  life: {
    care: 'dry-oil',
    start: 'fitted',
    sNow: 0.8 * values.length,
    at: values.length * 60 * DAY,
    usualFactor: 1.2,
    rate: { kmPerDay: 14, weekScatter: 0.4, meanScatter: 0.1, basis: 'recent' },
    prior: shippedPrior('dry-oil', DEFAULTS.forecast),
  },
})

describe('the likelihood of an observation', () => {
  const value = { s: 1, value: 0.3, u: 0.05 }
  it('is highest where the reading is, and never rules anything out that a stray could be', () => {
    expect(likelihoodAt(value, 0.3)).toBeGreaterThan(likelihoodAt(value, 0.35))
    expect(strayAt(value, 0.6) / likelihoodAt(value, 0.6)).toBeGreaterThan(0.9)
    expect(strayAt(value, 0.3) / likelihoodAt(value, 0.3)).toBeLessThan(0.02)
  })
  it('of marks is high between them, and has its floor outside', () => {
    const marks = { s: 1, over: 0.5, under: 0.75, u: 0.05 }
    expect(likelihoodAt(marks, 0.62)).toBeGreaterThan(0.9)
    expect(likelihoodAt(marks, 0.2)).toBeCloseTo(0.015, 6)
    expect(likelihoodAt({ s: 1, under: 0.5, u: 0.05 }, 0.1)).toBeCloseTo(0.985, 3)
  })
  it('is tabled so finely that between entries it is as good as exact', () => {
    const table = likelihoodTable(value)
    fc.assert(
      fc.property(fc.double({ min: -0.2, max: 1.2, noNaN: true }), (elongation) => {
        const at = (elongation - TABLE_FROM) / TABLE_STEP
        const whole = Math.floor(at)
        const between = table[whole]! + (table[whole + 1]! - table[whole]!) * (at - whole)
        expect(between).toBeCloseTo(Math.log(likelihoodAt(value, elongation)), 2)
      }),
    )
    expect(table).toHaveLength(TABLE_LAST + 2)
  })
})

describe('what the law does not know', () => {
  const posterior = fitWear({ care: 'dry-oil', observations: [{ s: 1.5, value: 0.2, u: 0.04 }] })
  const chance = new ChanceOver(posterior, 0.5)
  const ahead = new WidenedChance(chance, 1.5, 0.3)
  it('widens what lies ahead on both sides and leaves the middle', () => {
    expect(ahead.reaches(0.5)).toBe(chance.reaches(0.5))
    expect(ahead.reaches(0.05)).toBeLessThan(chance.reaches(0.05))
    expect(ahead.reaches(0.95)).toBeGreaterThan(chance.reaches(0.95))
    expect(ahead.reaches(0.05)).toBeGreaterThan(1.5)
  })
  it('gives the chance by distance that its distances by chance ask for', () => {
    for (const probability of [0.06, 0.25, 0.5, 0.8])
      expect(ahead.at(ahead.reaches(probability))).toBeCloseTo(probability, 3)
    expect(ahead.at(1.2)).toBe(chance.at(1.2))
    expect(new WidenedChance(chance, 1.5, 0.6).at(2)).toBeGreaterThan(ahead.at(2))
  })
  it('does not touch what lies behind', () =>
    expect(new WidenedChance(chance, 9, 0.3).reaches(0.5)).toBe(chance.reaches(0.5)))
  it('is nothing where the shop sets it to nothing', () =>
    expect(new WidenedChance(chance, 1.5, 0).reaches(0.95)).toBeCloseTo(chance.reaches(0.95), 9))
  it('and the chance is what is reached', () => {
    for (const probability of [0.05, 0.3, 0.5, 0.8, 0.95])
      expect(probabilityOverAt(posterior, { s: chance.reaches(probability), limit: 0.5 })).toBeCloseTo(probability, 2)
  })
  it('and the band is where the chance of being over an elongation is', () => {
    const { low, middle, high } = wearBandAt(posterior, 2.5)
    for (const [elongation, probability] of [
      [low, 0.95],
      [middle, 0.5],
      [high, 0.05],
    ] as const)
      expect(probabilityOverAt(posterior, { s: 2.5, limit: elongation })).toBeCloseTo(probability, 1)
  })
})

describe('where to look next', () => {
  const posterior = fitWear({ care: 'wet-oil', observations: [{ s: 1, value: 0.15, u: 0.04 }] })
  const asked = { sNow: 1, limit: 0.5, risk: 0.1, floor: 0.18, firstCheck: false }
  it('is the nearer of the risk and half-way to the middle', () => {
    const chance = new ChanceOver(posterior, 0.5)
    expect(nextCheck(posterior, asked)).toBeCloseTo(Math.min(chance.reaches(0.1), (1 + chance.reaches(0.5)) / 2), 6)
  })
  it('never lies beyond the horizon, nor nearer than the floor', () => {
    expect(nextCheck(posterior, { ...asked, horizon: 0.3 })).toBeCloseTo(1.3, 9)
    expect(nextCheck(posterior, { ...asked, sNow: 2.6 })).toBeCloseTo(2.78, 9)
  })
  it('comes sooner the smaller the risk that is run', () =>
    expect(nextCheck(posterior, { ...asked, risk: 0.02 })).toBeLessThanOrEqual(nextCheck(posterior, asked)))
})

describe('the picture of a chain', () => {
  const picture = forecastPicture(chain([0.08, 0.18, 0.3]), DEFAULTS)!
  it('reaches from where the chain began past where it crosses', () => {
    expect(picture.from).toBe(0)
    expect(picture.to).toBeGreaterThan(picture.forecast.crossing[1])
    expect(picture.band[0]!.s).toBe(0)
    expect(picture.band.at(-1)!.s).toBeCloseTo(picture.to, 9)
    expect(picture.observations).toHaveLength(3)
  })
  it('has a chance that only rises', () => {
    const over = picture.chance.map((point) => point.over)
    expect([...over].sort((a, b) => a - b)).toEqual(over)
  })
  it('sets the two usual ways beside it, and says how far each was off in this chain’s past', () => {
    expect(picture.distanceAlone).toBeCloseTo(distanceAloneCrossing(4, 1.4, 0.5), 9)
    expect(picture.straightLine).toBeGreaterThan(picture.forecast.sNow)
    const seen = picture.observations.map((one) => ('value' in one ? one.value : NaN))
    const missed = (i: number, s: number): number =>
      Math.abs(straightLineAt(picture.observations.slice(0, i), s, 0.03)! - seen[i]!)
    // Two of three readings could be foretold from those before them.
    expect(picture.past?.readings).toBe(2)
    expect(picture.past?.straightLine).toBeCloseTo((missed(1, 1.6) + missed(2, 2.4)) / 2, 6)
  })
  it('has no past with one reading, and is none without a distance', () => {
    expect(forecastPicture(chain([0.1]), DEFAULTS)?.past).toBeNull()
    const lost = chain([0.1])
    expect(forecastPicture({ ...lost, life: { ...lost.life, sNow: null } }, DEFAULTS)).toBeNull()
  })
  it('says nothing of costs where the forecast is withheld', () => {
    const on = { bySpeeds: 0.5, prices: { chain: 38, cassette: 64, rings: 95 }, sFrom: 0, earlier: [] }
    expect(wearCosts(chain([0.08, 0.18, 0.3]), on, DEFAULTS)).not.toBeNull()
    expect(wearCosts(chain([0.05, 0.1, 0.9]), on, DEFAULTS)).toBeNull()
  })
})
