import { describe, expect, it } from 'vitest'
import {
  chainVerdict,
  SHIPPED_RULES,
  type AvailableInstrument,
  type ChainVerdict,
  type ChainVerdictInput,
  type HouseRule,
  type VerdictSpot,
} from './index.ts'

const rules: HouseRule[] = SHIPPED_RULES.map((rule) => ({ ...rule, id: rule.school, version: 1 }))
const fine: AvailableInstrument = { id: 'fine', kind: 'digital', u: 0.03, inDate: true }

const judge = (
  spots: VerdictSpot[],
  more: Partial<ChainVerdictInput> = {},
  kind: 'digital' | 'steel-rule' | 'drop-in' | 'full-length' = 'digital',
): ChainVerdict =>
  chainVerdict({
    readings: [
      {
        id: 'r',
        occurredAt: 0,
        chainKm: 2000,
        source: 'shop',
        instrument: { id: 'used', kind, biasU: 0 },
        spots,
      },
    ],
    drive: { type: 'derailleur', speeds: 11 },
    rule: rules[0]!,
    chain: { kmSinceFittedNew: 2000 },
    instruments: [],
    assumptions: {},
    ...more,
  })
const three = (value: number, u = 0.03): VerdictSpot[] => [value, value, value].map((one) => ({ value: one, u }))
const taken = (verdict: ChainVerdict): string[] =>
  verdict.steps.map((step) => `${step.rule} ${String(step.result.value)}`)

describe('each step says whether it decided', () => {
  it('D3 when there is no doubt', () => {
    expect(taken(judge(three(0.7))).slice(2)).toEqual(['D3 applies'])
  })
  it('D4 when something would settle the doubt', () => {
    expect(taken(judge([{ value: 0.48, u: 0.03 }])).slice(2)).toEqual(['D3 passes-on', 'D4 applies'])
  })
  it('D5 when it is more likely over than not', () => {
    const verdict = judge(three(0.49))
    expect(taken(verdict).slice(2)).toEqual(['D3 passes-on', 'D4 passes-on', 'D5 applies'])
    expect(verdict.word).toBe('change')
  })
  it('D6 when it is near, and D7 when it is not', () => {
    expect(taken(judge(three(0.44))).slice(4)).toEqual(['D5 passes-on', 'D6 applies'])
    expect(taken(judge(three(0.2))).slice(4)).toEqual(['D5 passes-on', 'D6 passes-on', 'D7 applies'])
  })
  it('with the numbers it decided by', () => {
    const verdict = judge(three(0.44), { rule: rules.find(({ school }) => school === 'plan-and-change')! })
    const d6 = verdict.steps.find((step) => step.rule === 'D6')
    expect(d6?.formula).toBe('P > 0.10 ∨ q ≥ w ∨ Pₚ ≥ 0.50')
    const input = (meaning: string) => d6?.inputs.find((one) => one.meaning === meaning)?.value
    expect(input('worst-median')).toBe(verdict.median)
    expect(input('watch-mark')).toBe(0.5)
    expect(input('probability-over')).toBe(verdict.probabilityOver)
  })
})

describe('what would settle a doubt', () => {
  const doubtful = [{ value: 0.48, u: 0.08, pitches: 24 }]
  it('is more spots first, then the best instrument in date', () => {
    const instruments = [
      fine,
      { ...fine, id: 'finer-but-lapsed', u: 0.01, inDate: false },
      { ...fine, id: 'not-fine-enough', u: 0.06 },
      { ...fine, id: 'finest', u: 0.02 },
    ]
    expect(judge(doubtful, { instruments }, 'steel-rule').settle).toEqual([
      { kind: 'more-spots', spots: 2 },
      { kind: 'better-instrument', instrumentId: 'finest' },
    ])
  })
  it('is no instrument that cannot answer at this limit, nor the one just used', () => {
    const instruments: AvailableInstrument[] = [
      { id: 'gauge', kind: 'drop-in', u: 0.02, inDate: true, marks: [0.75, 1] },
      { ...fine, id: 'used', u: 0.01 },
      { ...fine, id: 'hand', kind: 'by-hand', u: 0.01 },
    ]
    expect(judge(three(0.45, 0.08), { instruments }, 'steel-rule').settle).toEqual([])
  })
  it('asks for no more spots after a long run, or a whole chain', () => {
    expect(judge([{ value: 0.48, u: 0.03, pitches: 60 }], {}, 'steel-rule').spotsWanted).toBe(0)
    expect(judge([{ value: 0.48, u: 0.03 }], {}, 'full-length').spotsWanted).toBe(0)
    expect(judge([{ value: 0.48, u: 0.03, pitches: 24 }], {}, 'steel-rule').spotsWanted).toBe(2)
  })
})

describe('a gauge that cannot answer', () => {
  const blind = [{ over: 0.75, u: 0.05 }]
  const single = { type: 'single-speed', speeds: 1 } as const
  it('sends to the finest one that can, or says that there is none', () => {
    const with_ = judge(blind, { drive: single, instruments: [fine] }, 'drop-in')
    expect(with_.settle).toEqual([{ kind: 'instrument-that-can', instrumentId: 'fine' }])
    const without = judge(blind, { drive: single }, 'drop-in')
    expect(without.settle).toEqual([{ kind: 'instrument-that-can', instrumentId: null }])
    expect(without.checkInDays).toBe(0)
  })
  it('can answer within 2u of a mark', () => {
    const gauge = [{ over: 0.75, u: 0.05 }]
    const at = (change: number): ChainVerdict =>
      judge(
        gauge,
        { rule: { ...rules[0]!, limits: { ...rules[0]!.limits, 'derailleur-11-up': { change } } } },
        'drop-in',
      )
    expect(at(0.84).decidedBy).not.toBe('D2')
    expect(at(0.86).decidedBy).toBe('D2')
  })
})

describe('the day of the next look', () => {
  it.each([
    [three(0.7), null],
    [[{ value: 0.48, u: 0.03 }], 0],
    [three(0.44), 45],
    [three(0.2), 45],
  ] as const)('follows the word', (spots, days) => {
    expect(judge([...spots]).checkInDays).toBe(days)
  })
})

describe('the worst spot beside the number judged by', () => {
  it('is named as it was read, with its place in the reading', () => {
    expect(
      judge([
        { value: 0.3, u: 0.03 },
        { value: 0.42, u: 0.03 },
        { value: 0.31, u: 0.03 },
      ]).worst,
    ).toEqual({
      readingId: 'r',
      spot: 1,
      value: 0.42,
      u: 0.03,
    })
    expect(
      judge(
        [
          { under: 0.5, u: 0.05 },
          { over: 0.5, under: 0.75, u: 0.05 },
        ],
        {},
        'drop-in',
      ).worst,
    ).toMatchObject({
      spot: 1,
      over: 0.5,
      under: 0.75,
    })
  })
  it('refuses marks in the wrong order', () => {
    expect(() => judge([{ over: 0.75, under: 0.5, u: 0.05 }], {}, 'drop-in')).toThrow('mark')
  })
})
