import { describe, expect, it } from 'vitest'
import {
  bandAt,
  DEFAULTS,
  forecastPicture,
  leftExplained,
  nextExplained,
  shippedPrior,
  type Assumptions,
  type ChainLife,
  type Explanation,
  type ForecastReading,
  type ForecastToExplain,
} from '../index.ts'

const DAY = 86_400_000
const life = (more: Partial<ChainLife> = {}): ChainLife => ({
  care: 'dry-oil',
  start: 'fitted',
  sNow: 2,
  at: 100 * DAY,
  usualFactor: 1.25,
  rate: { kmPerDay: 10, weekScatter: 0.3, meanScatter: 0.1, basis: 'recent' },
  prior: shippedPrior('dry-oil', DEFAULTS.forecast),
  ...more,
})
const reading = (s: number, value: number): ForecastReading => ({
  id: `at ${s}`,
  occurredAt: s * 40 * DAY,
  chainKm: 800 * s,
  s,
  source: 'shop',
  instrument: { id: 'rule', kind: 'steel-rule', biasU: 0 },
  spots: [0, 0.01, -0.01].map((off) => ({ value: value + off, u: 0.04 })),
})
function told(
  values: readonly number[],
  more: Partial<ChainLife> = {},
  assumed: Assumptions = DEFAULTS,
): ForecastToExplain {
  const of = life({ sNow: values.length, ...more })
  const readings = values.map((value, i) => reading(i + 1, value))
  const { forecast, band, observations } = forecastPicture({ readings, life: of, limit: 0.5 }, assumed)!
  return { forecast, life: of, readings: observations.length, wearNow: bandAt(band, forecast.sNow)!.middle }
}
const input = ({ inputs }: Explanation, symbol: string): number =>
  Number(inputs.find((one) => one.symbol === symbol)!.value)

describe('why so much is left', () => {
  it('is where it comes to its limit, less what it ran when last recorded, less what was ridden since', () => {
    const of = told([0.08, 0.2])
    const then = leftExplained(of, of.life.at)
    expect(then.rule).toBe('forecast-left')
    expect(then.result.value).toBeCloseTo(of.forecast.kmLeft[1], 6)
    expect([input(then, 'N'), input(then, 'L')]).toEqual([2, 0.5])
    const later = leftExplained(of, of.life.at + 20 * DAY)
    expect(later.result.value).toBeCloseTo(Number(then.result.value) - 200, 6)
    for (const one of [then, later])
      expect(one.result.value).toBeCloseTo(Math.max(0, input(one, 'x') - input(one, 's') - input(one, 'r')), 9)
  })
  it('is nothing where it was read over its limit, whatever the distance would say', () => {
    const of = told([0.2, 0.58])
    expect(leftExplained(of, of.life.at)).toMatchObject({ rule: 'forecast-over', result: { value: 0 } })
  })
})

describe('why the next look is then', () => {
  const of = (kmPerDay: number): Partial<ChainLife> => ({ rate: { ...life().rate, kmPerDay } })
  it.each([
    ['next-horizon', [0.05, 0.08], of(2)],
    ['next-floor', [0.25, 0.47], of(20)],
    ['next-risk', [0.1, 0.3], of(30)],
    ['next-first', [], { ...of(60), sNow: 0 }],
    ['next-unridden', [0.1], of(0)],
  ] as const)('%s is told where that decided, with its days', (rule, values, more) => {
    const known = told(values, more)
    const explained = nextExplained(known, DEFAULTS)
    expect(explained.rule).toBe(rule)
    expect(explained.result).toEqual({ value: known.forecast.next.days, unit: 'days' })
    if (explained.formula === 't = d') expect(input(explained, 'd')).toBeCloseTo(known.forecast.next.days, 6)
    if (explained.formula === 't = k / v')
      expect(input(explained, 'k') / input(explained, 'v')).toBeCloseTo(known.forecast.next.days, 6)
  })
  it('goes by the values in force', () => {
    const strict = { ...DEFAULTS, forecast: { ...DEFAULTS.forecast, checkHorizonDays: 33 } }
    const explained = nextExplained(told([0.05, 0.08], of(2), strict), strict)
    expect([explained.rule, input(explained, 'd')]).toEqual(['next-horizon', 33])
  })
})
