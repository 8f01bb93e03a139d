import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import {
  DEFAULTS,
  shippedPrior,
  wearCosts,
  type ChainForecastInput,
  type ForecastReading,
  type WearCosts,
} from '@pelrin/core'
import type { BikeRecord } from '@pelrin/contract'
import { WaitingCosts } from './WaitingCosts.tsx'
import { textOf } from '../../testing/textOf.ts'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const reading = (s: number, value: number): ForecastReading => ({
  id: `at ${s}`,
  occurredAt: s,
  chainKm: 1000 * s,
  s,
  source: 'shop',
  instrument: { id: 'rule', kind: 'steel-rule', biasU: 0 },
  spots: [{ value, u: 0.03 }],
})
/** A chain that reached 0.5 % at 3, read up to `sNow`. */
const chain = (sNow: number): ChainForecastInput => ({
  readings: [sNow / 2, sNow].map((s) => reading(s, 0.03 + 0.47 * Math.pow(s / 3, 1.4))),
  life: {
    care: 'dry-oil',
    start: 'fitted',
    sNow,
    at: 0,
    usualFactor: 1.25,
    rate: { kmPerDay: 20, weekScatter: 0.3, meanScatter: 0.1, basis: 'recent' },
    prior: shippedPrior('dry-oil', DEFAULTS.forecast),
  },
  limit: 0.5,
})

/** What the pane says of a chain and those before it, as plain text. */
function said(sNow: number, { before = [] as number[], marked = false, worn = null as number | null } = {}): string {
  const input = chain(sNow)
  const costs: WearCosts | null = wearCosts(
    input,
    {
      bySpeeds: 0.5,
      prices: { chain: 42, cassette: 64, rings: 95 },
      sFrom: 0,
      earlier: before.map((km) => ({ ...chain(km), sFrom: 0 })),
    },
    DEFAULTS,
  )
  const record = {
    lastOdometer: { unit: 'km' },
    assumptions: {},
    ownPrices: { chain: { name: 'Varrow Eleven', price: 4200 }, cassette: null, rings: null },
    summary: { advice: marked ? 'suspect' : null, median: worn },
  } as unknown as BikeRecord
  return textOf(
    renderToStaticMarkup(<WaitingCosts record={record} forecast={{ input, costs, picture: null, pending: false }} />),
  )
}

describe('what waiting costs, in words', () => {
  it('of a young chain: changed in time, nothing over the limit, sprockets kept', () => {
    const text = said(1)
    expect(text).toMatch(/Cheapest is to change at about 0\.\d+ %: £\d+\.\d\d for 1000 weighted km/)
    expect(text).toContain('this chain was not ridden over the limit')
    expect(text).toContain('keep these sprockets')
    expect(text).not.toContain('chains on record')
  })
  it('says whose prices it goes by', () => {
    expect(said(1)).toContain(
      'With a chain at £42.00 (Varrow Eleven), a cassette at £64.00 (the shop’s figure), rings at £95.00 (the shop’s figure).',
    )
  })
  it('of a chain ridden on: how far over the limit in the bike’s own kilometres, with its uncertainty', () => {
    const text = said(5)
    const [, middle = '', low = '', high = ''] =
      /ridden ([\d,]+) km over the limit \(([\d,]+) km to ([\d,]+) km\)/.exec(text)!
    const km = [low, middle, high].map((one) => Number(one.replace(',', '')))
    expect(km).toEqual([...km].sort((a, b) => a - b))
    // Over from 3 to 5 thousand weighted km, at 1.25 a km.
    expect(km[1]).toBeGreaterThan(1200)
    expect(km[1]).toBeLessThan(2000)
  })
  it('counts the chains before it, and advises by what all of them did', () => {
    expect(said(1, { before: [2] })).toContain('keep these sprockets')
    const text = said(1, { before: [6, 6] })
    expect(text).toContain('3 together')
    expect(text).toContain('It rests on the distance ridden over the limit')
  })
  it('names the sprocket mark first where it speaks', () => {
    const text = said(1, { marked: true, worn: 0.9 })
    expect(text).toContain('By the sprocket mark: suspect')
    expect(text).toContain('It rests on the sprocket mark')
  })
  it('is nothing where no forecast is shown', () => {
    const record = { summary: {}, lastOdometer: null } as unknown as BikeRecord
    expect(
      renderToStaticMarkup(
        <WaitingCosts record={record} forecast={{ input: null, costs: null, picture: null, pending: false }} />,
      ),
    ).toBe('')
  })
})
