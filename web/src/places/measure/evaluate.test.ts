import { describe, expect, it } from 'vitest'
import { DEFAULTS, type Assumptions } from '@pelrin/core'
import type { BikeRecord, Instrument } from '@pelrin/contract'
import type { Draft } from './draft.ts'
import { liveVerdict, readOdometer, readSpot } from './evaluate.ts'

const rule = { id: 'rule', kind: 'steel-rule', uMm: 0.25, bias: 0, biasU: 0 } as unknown as Instrument
const spot = (typed: string, pitches: number | null = null, assumed: Assumptions = DEFAULTS) =>
  readSpot({ id: 's', typed, pitches, picture: null }, rule, undefined, assumed, 0.75)

describe('a spot while it is typed', () => {
  it('is empty, unfinished, and then a reading with its count', () => {
    expect(spot('  ').state).toBe('empty')
    expect(spot('12 3/')).toEqual({ state: 'problem', problem: 'length-unfinished' })
    expect(spot('204.6')).toMatchObject({ state: 'ready', pitches: 16 })
  })
  it('asks for the count where several fit, and only then', () => {
    const long = spot('2600')
    expect(long.state === 'choose' && long.candidates.map((one) => one.pitches)).toEqual([200, 202, 204])
    expect(spot('2600', 202)).toMatchObject({ state: 'ready', pitches: 202 })
  })
  it('asks about a run one pitch out before it condemns a chain, the unsuspicious count first', () => {
    // 47 pitches and 0.01 %, or 46 and 2.19 %?
    const out = spot('597.0')
    expect(out.state === 'choose' && out.candidates.map((one) => one.pitches)).toEqual([47, 46])
    expect(spot('597.0', 46)).toMatchObject({ state: 'ready', pitches: 46 })
    // Under the limit nothing is asked.
    expect(spot('204.2')).toMatchObject({ state: 'ready', pitches: 16 })
    const closer = { ...DEFAULTS, measuring: { ...DEFAULTS.measuring, oddLowest: 0, oddHighest: 0.005 } }
    expect(spot('597.0', null, closer)).toMatchObject({ state: 'ready', pitches: 46 })
  })
  it('forgets a picked count that the length no longer fits', () => {
    expect(spot('204.6', 202)).toMatchObject({ state: 'ready', pitches: 16 })
  })
  it('offers an odd count where no even one fits, and says so where none does', () => {
    const odd = spot('90')
    expect(odd.state === 'choose' && odd.candidates.map((one) => one.pitches)).toEqual([7])
    expect(spot('96')).toMatchObject({ state: 'no-count', below: { pitches: 6 }, above: { pitches: 8 } })
  })
})

describe('the odometer while it is typed', () => {
  it('knows when it is lower than last time, or far more', () => {
    const last = { km: 100, at: '2026-05-01T10:00:00.000Z' }
    const read = (typed: string, unit: 'km' | 'mi' = 'km', before: typeof last | null = last) =>
      readOdometer(typed, unit, before, Date.parse('2026-05-03T10:00:00.000Z'), DEFAULTS)
    expect(read('')).toEqual({ state: 'empty' })
    expect(read('99')).toMatchObject({ state: 'ready', doubt: 'odometer-lower' })
    expect(read('99 mi')).toMatchObject({ state: 'ready', doubt: null })
    expect(read('99', 'km', null)).toMatchObject({ doubt: null })
    expect(read('901')).toMatchObject({ doubt: 'odometer-much' })
    expect(read('x').state).toBe('problem')
  })
})

describe('the verdict while it is typed', () => {
  const limits = {
    'derailleur-11-up': { change: 0.5 },
    'derailleur-to-10': { change: 0.75 },
    'single-or-hub': { change: 1 },
  }
  const record = {
    assumptions: {},
    summary: { chainKm: 1000 },
    lastOdometer: { km: 5000, at: '', unit: 'km' },
    distanceTail: null,
    verdictInput: {
      readings: [
        {
          id: 'old',
          occurredAt: 1_000_000,
          chainKm: 1000,
          source: 'shop',
          instrument: { id: 'rule', kind: 'steel-rule', biasU: 0 },
          spots: [{ value: 0.9, u: 0.13, pitches: 16 }],
        },
      ],
      drive: { type: 'derailleur', speeds: 9 },
      rule: { id: 'r', version: 1, school: 'by-speeds', limits, watchShare: 0.8 },
      chain: { kmSinceFittedNew: 1000 },
      instruments: [],
      otherRules: [],
    },
  } as unknown as BikeRecord
  const draft = {
    readingId: 'new',
    named: false,
    source: 'shop',
    signs: null,
    spots: [],
    odometer: { id: 'o', typed: '', lower: null },
  } as unknown as Draft
  const live = (typed: string[], corrects: string | null = null) =>
    liveVerdict(
      record,
      draft,
      typed.map((text) => spot(text)),
      rule,
      { state: 'empty' },
      2_000_000,
      corrects,
    )?.verdict

  it('is what stands until something is typed, and follows what is', () => {
    expect(live([])?.worst?.value).toBe(0.9)
    expect(live(['203.6'])?.countedReadingIds).toEqual(['new'])
    expect(live(['206.5'])?.word).toBe('change')
  })
  it('leaves out the reading that is being corrected', () => {
    expect(live([], 'old')?.word).toBe('measure-it')
    expect(live(['203.6'], 'old')?.worst?.value).toBeCloseTo(0.197, 3)
  })
})
