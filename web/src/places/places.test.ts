import { beforeAll, describe, expect, it } from 'vitest'
import type { BikeRecord, Instrument, StudyResult } from '@pelrin/contract'
import { typedNumber } from '../messages/typedNumber.ts'
import { standingOf } from './gauges/standing.ts'
import { assumedFor, readRound } from './measure/evaluate.ts'
import type { Draft } from './measure/draft.ts'
import { shortLabel, spreadOf } from './measure/labels.ts'
import { fractionText, typedCounts, typedSteps } from './rule-chart/chartText.ts'
import { recordFrom } from './study/recordFrom.ts'

beforeAll(async () => {
  await import('../messages/index.ts')
})

const instrument = (change: Partial<Instrument>): Instrument =>
  ({
    kind: 'digital',
    uMm: null,
    u: 0.03,
    bias: 0,
    biasU: 0,
    marks: null,
    material: null,
    rollerMm: null,
    standing: 'in-use',
    reads: null,
    checkedOn: '2026-01-01',
    checkLapsed: false,
    ...change,
  }) as Instrument
const draftOf = (typed: readonly string[], change: Partial<Draft> = {}): Draft =>
  ({
    mode: 'pin-to-pin',
    linkIncluded: true,
    run: 'lower',
    load: 'tensioned',
    ruleCelsius: '',
    chainCelsius: '',
    preloadKg: '',
    spots: typed.map((text, i) => ({ id: `${i}`, typed: text, pitches: null, picture: null })),
    ...change,
  }) as unknown as Draft
const assumed = assumedFor({ assumptions: {} } as unknown as BikeRecord)

describe('a round as it is typed', () => {
  it('has a short label for each place, and the spread of its values', () => {
    const spots = readRound(draftOf(['0.31', '0,36', '', 'x']), instrument({}), assumed, 0.5)
    expect(spots.map(shortLabel)).toEqual(['0.31', '0.36', null, '?'])
    expect(spreadOf(spots)).toBeCloseTo(0.05, 9)
    expect(spreadOf(spots.slice(0, 1))).toBeNull()
  })
  it('labels what marks leave open', () => {
    const gauge = instrument({ kind: 'drop-in', marks: [0.5, 0.75] })
    expect(readRound(draftOf(['io', 'ii', 'oo']), gauge, assumed, 0.5).map(shortLabel)).toEqual([
      '0.50–.75',
      '> 0.75',
      '< 0.50',
    ])
  })
  it('takes a count left out from the place before, where it fits', () => {
    const rule = instrument({ kind: 'steel-rule', uMm: 0.25, u: null })
    const draft = draftOf(['2600', '2601'])
    expect(readRound(draft, rule, assumed, 0.5).map(({ state }) => state)).toEqual(['choose', 'choose'])
    const told = { ...draft, spots: draft.spots.map((spot, i) => (i === 0 ? { ...spot, pitches: 202 } : spot)) }
    expect(readRound(told, rule, assumed, 0.5)).toMatchObject([{ pitches: 202 }, { state: 'ready', pitches: 202 }])
  })
  it('always asks for the count of a whole chain', () => {
    const hook = instrument({ kind: 'full-length', uMm: 0.8, u: null })
    expect(readRound(draftOf(['1453.4']), hook, assumed, 0.5)[0]).toMatchObject({ state: 'choose', candidates: [] })
  })
})

describe('how an instrument stands', () => {
  it.each([
    [{}, false, 'due', null],
    [{ checkLapsed: true }, false, 'lapsed', 'brass'],
    [{ checkedOn: null, checkLapsed: true }, false, 'never-checked', 'brass'],
    [{ reads: 'early' as const }, false, 'early', 'brass'],
    [{ standing: 'out-of-use' as const, checkLapsed: true }, false, 'out-of-use', 'madder'],
    [{ kind: 'by-hand' as const, checkedOn: null }, false, 'by-hand', null],
    [{ standing: 'out-of-use' as const }, true, 'retired', null],
  ])('%j, retired %s: %s', (change, retired, text, tone) => {
    expect(standingOf(instrument(change), retired)).toEqual({ text, tone })
  })
})

describe('the rule chart’s fields', () => {
  it('take counts in any order, each once', () => {
    expect(typedCounts('24, 8 24;16')).toEqual({ ok: true, counts: [8, 16, 24] })
    expect(typedCounts('  ')).toEqual({ ok: false, problem: 'text-missing' })
    expect(typedCounts('8 9.5')).toEqual({ ok: false, problem: 'count-malformed' })
  })
  it('take steps with a comma or a point, and none', () => {
    expect(typedSteps('0,5 0.25')).toEqual({ ok: true, steps: [0.25, 0.5] })
    expect(typedSteps('')).toEqual({ ok: true, steps: [] })
    expect(typedSteps('0.5 much')).toEqual({ ok: false, problem: 'chart-steps' })
  })
  it('write fractions in their own steps', () => {
    expect(fractionText({ steps: 194, denominator: 16 })).toBe('12 2/16')
    expect(fractionText({ steps: 192, denominator: 16 })).toBe('12')
  })
})

describe('what a study writes to the record', () => {
  const deviation = (sd: number) => ({ sd, low: 0, high: 1 })
  const values = {
    kind: 'values',
    values: 8,
    gaps: [],
    anova: null,
    parts: null,
    repeatability: deviation(0.0213),
    bias: { value: 0.0182, u: 0.0141, spots: 3 },
    smallestChange: { anybody: null, samePerson: 0.06 },
  } satisfies StudyResult
  it('is the whole gauge’s scatter where it is known, else what one person repeats to', () => {
    expect(recordFrom(values)).toEqual({ u: 0.021, bias: 0.018, biasU: 0.014 })
    const part = deviation(0.0351)
    const parts = {
      repeatability: part,
      reproducibility: part,
      person: part,
      interaction: part,
      spot: part,
      gauge: part,
    }
    expect(recordFrom({ ...values, parts, bias: null })).toEqual({ u: 0.035, bias: null, biasU: 0 })
  })
  it('is nothing where nothing was measured twice, or no mark turned', () => {
    expect(recordFrom({ ...values, repeatability: null })).toBeNull()
    const nowhere = { state: 'beyond', side: 'never-in', wear: 0.6, trials: 4 } as const
    expect(recordFrom({ kind: 'marks', values: 4, marks: [{ mark: 0.75, fit: nowhere, byPerson: [] }] })).toBeNull()
  })
  it('is the bias of the marks that turned', () => {
    const fit = { state: 'fitted', at: 0.58, u: 0.012, sigma: 0.03, trials: 20 } as const
    const found = recordFrom({ kind: 'marks', values: 20, marks: [{ mark: 0.5, fit, byPerson: [] }] })
    expect(found).toEqual({ u: 0.03, bias: -0.08, biasU: 0.012 })
  })
})

describe('a number as typed', () => {
  it('has a point or a comma, and is none otherwise', () => {
    expect([typedNumber('0,5'), typedNumber(' −5 '), typedNumber('x'), typedNumber('')]).toEqual([
      0.5,
      -5,
      undefined,
      undefined,
    ])
  })
})
