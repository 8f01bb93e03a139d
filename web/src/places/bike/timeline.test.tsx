import { renderToStaticMarkup } from 'react-dom/server'
import { MemoryRouter } from 'react-router'
import { beforeAll, describe, expect, it } from 'vitest'
import type { BandPoint } from '@pelrin/core'
import type { BikeRecord } from '@pelrin/contract'
import { textOf } from '../../testing/textOf.ts'
import { Timeline } from './Timeline.tsx'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const spot = (value: number | null, typed: string, more: object = {}): object => ({
  value,
  over: null,
  under: null,
  u: 0.08,
  typed,
  pitches: 24,
  explanations: [],
  ...more,
})
const reading = (id: string, occurredAt: string, more: object = {}): object => ({
  id,
  occurredAt,
  recordedAt: occurredAt,
  person: 'Tove Sandell',
  reader: null,
  instrument: { id: 'i', name: 'Steel rule' },
  source: 'shop',
  baseline: false,
  conditions: { run: 'lower' },
  odometer: null,
  chainKm: null,
  spots: [spot(0.3, '305.7')],
  signs: [],
  corrected: [],
  reason: null,
  note: null,
  ...more,
})
/** Lines of a bike's timeline as they are read, and their markup. */
function lines(
  readings: readonly object[],
  events: readonly object[] = [],
  fittedAt = '2024-01-01T00:00:00Z',
  band: readonly BandPoint[] | null = null,
): { markup: string; said: string[] } {
  const record = {
    summary: { id: 'b', limit: 0.75 },
    chain: { fittedAt },
    lastOdometer: { unit: 'km', km: 9000 },
    readings,
    events,
    verdictInput: { readings: readings.map((one, i) => ({ ...one, s: i })) },
  } as unknown as BikeRecord
  const markup = renderToStaticMarkup(
    <MemoryRouter>
      <Timeline record={record} band={band} />
    </MemoryRouter>,
  )
  return { markup, said: markup.split('<li').slice(1).map(textOf) }
}

describe('what happened to a bike', () => {
  it('sets what the customer’s own reading says beside what the shop’s own have the chain at there', () => {
    const band = [0, 2].map((s) => ({ s, low: 0.1 + 0.1 * s, middle: 0.2 + 0.1 * s, high: 0.3 + 0.1 * s }))
    const own = { source: 'customer', spots: [spot(0.6, '0.6')] }
    const { said } = lines(
      [reading('a', '2026-03-01T10:00:00Z'), reading('b', '2026-02-01T10:00:00Z', own)],
      [],
      undefined,
      band,
    )
    expect(said[1]).toContain('Theirs says 0.60 %; ours expects 0.20 to 0.40 % there.')
    expect(said[0]).not.toContain('ours expects')
  })
  it('says of a reading on which run it was taken, and under what tension', () => {
    const { said } = lines([
      reading('a', '2026-03-01T10:00:00Z', { conditions: { run: 'upper', load: 'slack' } }),
      reading('b', '2026-02-01T10:00:00Z', { note: 'the tip catches two millimetres' }),
    ])
    expect(said[1]).toContain('the tip catches two millimetres')
    expect(said[0]).toContain('Steel rule, upper run, slack')
    expect(said[1]).toMatch(/Steel rule, lower run(?!, under|, slack)/)
  })
  it('stands newest first, readings among all else, each with who it was', () => {
    const { said } = lines(
      [reading('r2', '2024-05-02T10:00:00Z'), reading('r1', '2024-03-02T10:00:00Z')],
      [
        {
          id: 'e1',
          kind: 'fitted',
          at: '2024-02-01T10:00:00Z',
          text: 'Varrow Eleven',
          value: null,
          person: 'Ruan Pell',
        },
        { id: 'e2', kind: 'odometer', at: '2024-04-01T10:00:00Z', text: null, value: 1200, person: 'Ruan Pell' },
      ],
    )
    expect(said.map((one) => /\d+ (\w{3})/.exec(one)?.[1])).toEqual(['May', 'Apr', 'Mar', 'Feb'])
    expect(said[0]).toContain('Tove Sandell')
    expect(said[1]).toMatch(/1,200 km.*Ruan Pell/)
    expect(said[3]).toContain('Varrow Eleven')
  })

  it('gives a reading by its worst spot, with all that was typed beneath', () => {
    const { said, markup } = lines([
      reading('r1', '2024-05-02T10:00:00Z', { spots: [spot(0.3, '305.7'), spot(0.82, '307.3'), spot(0.5, '306.3')] }),
    ])
    expect(said[0]).toMatch(/0\.82 % ± 0\.08/)
    expect(said[0]).toContain('305.7 / 24 · 307.3 / 24 · 306.3 / 24')
    // Over the limit of 0.75.
    expect(markup).toContain('madder')
    expect(lines([reading('r1', '2024-05-02T10:00:00Z')]).markup).not.toContain('madder')
  })

  it('says between what a gauge’s marks leave it, and what a hand noticed', () => {
    const marks = spot(null, '0.5 in', { over: 0.5, under: 0.75, pitches: null })
    expect(lines([reading('r1', '2024-05-02T10:00:00Z', { spots: [marks] })]).said[0]).toMatch(/0\.50.*0\.75/)
    const byHand = lines([reading('r1', '2024-05-02T10:00:00Z', { spots: [], signs: [] })]).said[0]
    expect(byHand).not.toMatch(/%/)
  })

  it('keeps a corrected value beneath the new one, struck out, with both who and why', () => {
    const old = {
      ...reading('r0', '2024-05-02T10:00:00Z', { person: 'Ruan Pell', spots: [spot(0.9, '307.5')] }),
    }
    const { said, markup } = lines([
      reading('r1', '2024-05-02T10:00:00Z', { reason: 'misread by two', corrected: [old] }),
    ])
    expect(said[0]).toMatch(/0\.30 %.*misread by two.*Tove Sandell.*307\.5 \(0\.90 %\).*Ruan Pell/)
    expect(/<s[ >].*307\.5/s.test(markup)).toBe(true)
  })

  it('offers to correct what was read of the chain that is on, the newest by a key', () => {
    const { said, markup } = lines(
      [
        reading('r2', '2024-05-02T10:00:00Z'),
        reading('r1', '2024-04-02T10:00:00Z'),
        reading('r0', '2023-04-02T10:00:00Z'),
      ],
      [],
      '2024-01-01T00:00:00Z',
    )
    expect(said.map((one) => one.includes('Correct'))).toEqual([true, true, false])
    expect(said.map((one) => one.includes('Correct C '))).toEqual([true, false, false])
    expect(markup.match(/<button/g)!.length).toBeGreaterThanOrEqual(2)
  })

  it('says so where nothing happened yet', () => {
    expect(textOf(lines([]).markup)).toContain('Nothing has happened yet.')
  })
})
