import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import { DEFAULTS, shippedPrior, type ChainForecast, type ChainLife } from '@pelrin/core'
import type { BikeRecord } from '@pelrin/contract'
import { ForecastWords } from './ForecastWords.tsx'
import { forecastInput } from './forecastInput.ts'
import { textOf } from '../testing/textOf.ts'

beforeAll(async () => {
  await import('../messages/index.ts')
})

const life: ChainLife = {
  care: 'dry-oil',
  start: 'fitted',
  sNow: 2,
  at: Date.UTC(2026, 4, 1, 12),
  usualFactor: 1.2,
  rate: { kmPerDay: 10, weekScatter: 0.4, meanScatter: 0.1, basis: 'recent' },
  prior: shippedPrior('dry-oil', DEFAULTS.forecast),
}
const forecast: ChainForecast = {
  withheld: null,
  limit: 0.5,
  sNow: 2,
  crossing: [2.6, 3.2, 4.1],
  kmLeft: [500, 1000, 1750],
  daysLeft: [48, 100, 182],
  overNow: 0.01,
  overAhead: 0.03,
  next: { s: 2.5, km: 420, days: 42 },
  reached: [10, 20, 40],
  doubt: 0.01,
}
const words = (
  more: Partial<ChainForecast> = {},
  unit: 'km' | 'mi' = 'km',
  of: ChainLife = life,
  now: number = life.at,
): string =>
  textOf(
    renderToStaticMarkup(
      <ForecastWords
        forecast={{ ...forecast, ...more }}
        life={of}
        unit={unit}
        now={now}
        byNow={0.18}
        picture={null}
        assumed={DEFAULTS}
        checkOn="2026-06-12"
      />,
    ),
  )

describe('a forecast in words', () => {
  it('says how far, until when, how sure, how much it is ridden and when to look next', () => {
    const text = words()
    expect(text).toMatch(/1,000 km\s+500 km to 1,750 km, 9 in 10/)
    expect(text).toMatch(/9 Aug.* to .*30 Oct/)
    expect(text).toContain('70 km a week, by what is recorded')
    expect(text).toMatch(/12 Jun/)
    expect(text).toContain('Reaches its limit')
    expect(text).toContain('Over it by now')
    expect(text).toContain('18 in 100')
    expect(text).toMatch(/about 41\d km from today/)
  })
  it('speaks in the unit of the bike', () => expect(words({}, 'mi')).toContain('621 mi'))
  it('of what was ridden since takes it off by the usual rate, and keeps its days', () => {
    const text = words({}, 'km', life, life.at + 20 * 86_400_000)
    expect(text).toMatch(/800 km\s+300 km to 1,550 km, 9 in 10/)
    expect(text).toMatch(/about .*9 Aug/)
    expect(words({}, 'km', life, life.at + 60 * 86_400_000)).toContain('that day has passed')
  })
  it('of a chain past its limit says since when, and that nothing is left', () => {
    const text = words({}, 'km', life, life.at + 120 * 86_400_000)
    expect(text).toContain('nothing')
    expect(text).toContain('Reached its limit')
    expect(text).toMatch(/about .*9 Aug/)
  })
  it('of a chain that was read over its limit says so, and makes up no day for it', () => {
    const text = words({ kmLeft: [0, 0, 120], daysLeft: [0, 0, 12], overNow: 0.93 })
    expect(text).toContain('Reached its limit')
    expect(text).toMatch(/already\s+by .*1 May.*, by what was read/)
    expect(text).not.toContain('about 1 May')
  })
  it('says when days cannot be said', () => {
    const unridden = { ...life, rate: { ...life.rate, kmPerDay: 0, basis: 'none' as const } }
    expect(words({ daysLeft: [null, null, null] }, 'km', unridden)).toContain('nothing recorded: days cannot be said')
  })
  it.each(['newest-reading', 'apart-from-verdict'] as const)('withheld for %s says what to check', (withheld) => {
    const text = words({ withheld })
    expect(text).toContain('No forecast shown')
    expect(text).toContain('an alarm is never explained away')
    expect(text).not.toContain('1,000 km')
  })
})

describe('what a forecast is asked with', () => {
  const limits = {
    'derailleur-11-up': { change: 0.5 },
    'derailleur-to-10': { change: 0.75 },
    'single-or-hub': { change: 1 },
  }
  const input = {
    readings: [],
    drive: { type: 'derailleur', speeds: 10 },
    rule: { limits },
    chain: { kmSinceFittedNew: null, countChangedAt: 5 },
    life,
  } as unknown as NonNullable<BikeRecord['verdictInput']>
  it('is the limit of the rule in force for this drive, and the chain as it is now', () => {
    expect(forecastInput(input)).toMatchObject({ limit: 0.75, countChangedAt: 5, life: { sNow: 2 } })
  })
  it('is nothing where no chain is fitted', () => {
    const { life: _, ...without } = input
    expect(forecastInput(without as typeof input)).toBeNull()
    expect(forecastInput(null)).toBeNull()
  })
})
