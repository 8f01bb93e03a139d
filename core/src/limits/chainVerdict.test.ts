import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import {
  chainVerdict,
  driveClassOf,
  limitsFor,
  SHIPPED_RULES,
  sprocketMarks,
  type AvailableInstrument,
  type ChainVerdictInput,
  type HouseRule,
  type VerdictReading,
  type VerdictSpot,
} from './index.ts'
import type { InstrumentKind } from '../readings/index.ts'

const DAY = 86_400_000
const rules: HouseRule[] = SHIPPED_RULES.map((rule) => ({ ...rule, id: rule.school, version: 1 }))
const bySpeeds = rules[0]!
let serial = 0

const reading = (
  spots: VerdictSpot[],
  more: Partial<VerdictReading> & { kind?: InstrumentKind } = {},
): VerdictReading => {
  const { kind = 'digital', ...rest } = more
  return {
    id: `r${serial++}`,
    occurredAt: 100 * DAY,
    chainKm: 2000,
    source: 'shop',
    instrument: { id: kind, kind, biasU: 0 },
    spots,
    ...rest,
  }
}
const points = (u: number, ...values: number[]): VerdictSpot[] => values.map((value) => ({ value, u }))
const judge = (readings: VerdictReading[], more: Partial<ChainVerdictInput> = {}) =>
  chainVerdict({
    readings,
    drive: { type: 'derailleur', speeds: 11 },
    rule: bySpeeds,
    chain: { kmSinceFittedNew: 2000 },
    instruments: [],
    assumptions: {},
    ...more,
  })
const digital: AvailableInstrument = { id: 'digital-2', kind: 'digital', u: 0.03, inDate: true }
const single = { type: 'single-speed', speeds: 1 } as const

describe('the cases the procedure was made for', () => {
  it('0.46 ± 0.03 on three spots at 0.5: closing in', () => {
    expect(judge([reading(points(0.03, 0.46, 0.46, 0.46))]).word).toBe('closing-in')
  })
  it('0.46 ± 0.08 with a better gauge in the shop: measure again, once', () => {
    const first = reading(points(0.08, 0.46, 0.45, 0.44), { kind: 'steel-rule' })
    const verdict = judge([first], { instruments: [digital] })
    expect(verdict).toMatchObject({ word: 'measure-again', decidedBy: 'D4' })
    expect(verdict.settle).toEqual([{ kind: 'better-instrument', instrumentId: 'digital-2' }])
    const again = reading(points(0.08, 0.46, 0.45, 0.45), { kind: 'steel-rule', occurredAt: 100 * DAY + 600_000 })
    expect(judge([first, again], { instruments: [digital] }).decidedBy).toBe('D5')
  })
  it.each([
    [0.46, 0.03, 'measure-again', 0.59],
    [0.3, 0.08, 'measure-again', 0.13],
    [0.1, 0.08, 'keep-riding', 0.02],
    [0.52, 0.03, 'change', 0.94],
  ] as const)('one spot %d ± %d at 0.5: %s, for seven places nobody looked at', (value, u, word, P) => {
    const verdict = judge([reading(points(u, value))])
    expect(verdict.word).toBe(word)
    expect(verdict.probabilityOver).toBeCloseTo(P, 1)
    expect(verdict.settle).toEqual(word === 'measure-again' ? [{ kind: 'more-spots', spots: 2 }] : [])
  })
  const gauge = (count: number, spot: VerdictSpot) => reading(Array<VerdictSpot>(count).fill(spot), { kind: 'drop-in' })
  it('drop-in 0.5 to 0.75 in three places: change at 0.5, closing in at 0.75', () => {
    const between = gauge(3, { over: 0.5, under: 0.75, u: 0.05 })
    expect(judge([between]).word).toBe('change')
    expect(judge([between], { drive: { type: 'derailleur', speeds: 9 } }).word).toBe('closing-in')
  })
  it('in at 0.75 against 1.0: the gauge cannot answer', () => {
    const past = gauge(1, { over: 0.75, u: 0.05 })
    const verdict = judge([past], { drive: single, instruments: [digital] })
    expect(verdict).toMatchObject({ word: 'measure-again', decidedBy: 'D2' })
    expect(verdict.settle).toEqual([{ kind: 'instrument-that-can', instrumentId: 'digital-2' }])
    const byForecast = judge([past], { drive: single, forecast: { overNow: 0.7, overAhead: 0.8 } })
    expect(byForecast).toMatchObject({ word: 'change', probabilityOver: 0.7 })
  })
  it('in at 0.75 on 11 speeds: change and try the sprockets; of "everything" the gauge cannot tell', () => {
    const verdict = judge([gauge(3, { over: 0.75, u: 0.05 })])
    expect(verdict).toMatchObject({ word: 'change', advice: 'try-the-sprockets' })
    expect(verdict.flags).toContain('teeth-unseen')
  })
  it('with a push at 0.5 in one place: two more spots; in three: change', () => {
    const push: VerdictSpot = { value: 0.5, u: Math.hypot(0.05, 0.05), borderline: true }
    expect(judge([gauge(1, push)]).settle).toEqual([{ kind: 'more-spots', spots: 2 }])
    expect(judge([gauge(3, push)]).word).toBe('change')
  })
  it('single speed 0.80 at 1.0: closing in, no sprocket flag', () => {
    for (const values of [[0.8, 0.79, 0.78], [0.8]])
      expect(judge([reading(points(0.03, ...values))], { drive: single })).toMatchObject({
        word: 'closing-in',
        advice: null,
      })
  })
})

describe('the verdict', () => {
  it('is "measure it" with nothing that counts, and "not measured yet" while new', () => {
    expect(judge([])).toMatchObject({ word: 'measure-it', checkInDays: 0, probabilityOver: null })
    expect(judge([], { chain: { kmSinceFittedNew: 149 } }).word).toBe('not-measured-yet')
    expect(judge([], { chain: { kmSinceFittedNew: null } }).word).toBe('measure-it')
  })
  it('is never given by a hand or by the customer', () => {
    const byHand = reading([], { kind: 'by-hand', hint: 'worn' })
    expect(judge([byHand], { chain: { kmSinceFittedNew: 20 } })).toMatchObject({
      word: 'measure-it',
      flags: ['by-hand-suspicion'],
    })
    const theirs = reading(points(0.03, 0.9, 0.9, 0.9), { source: 'customer' })
    expect(judge([theirs])).toMatchObject({ word: 'measure-it', flags: ['customer-reading-apart'] })
  })
  it('forgets readings from before the chain was shortened', () => {
    expect(
      judge([reading(points(0.03, 0.9))], { chain: { kmSinceFittedNew: 2000, countChangedAt: 101 * DAY } }).word,
    ).toBe('measure-it')
  })
  it('counts readings of the last 14 days and 100 km only', () => {
    const old = reading(points(0.03, 0.3, 0.3, 0.3), { occurredAt: 80 * DAY })
    const far = reading(points(0.03, 0.3, 0.3, 0.3), { occurredAt: 99 * DAY, chainKm: 1850 })
    const now = reading(points(0.05, 0.2, 0.2))
    expect(judge([old, far, now]).countedReadingIds).toEqual([now.id])
  })
  it('lets a better look clear a doubt', () => {
    const rough = reading(points(0.08, 0.5, 0.48, 0.52), { kind: 'steel-rule' })
    const fine = reading(points(0.03, 0.3, 0.31, 0.3), { occurredAt: 100 * DAY + 3_600_000 })
    expect(judge([rough, fine]).word).toBe('keep-riding')
  })
  it('lets the smaller u govern on one named spot', () => {
    const fine = reading([
      { value: 0.3, u: 0.03, place: 1 },
      { value: 0.3, u: 0.03, place: 2 },
    ])
    const rough = reading([{ value: 0.6, u: 0.08, place: 1 }], { kind: 'steel-rule', occurredAt: 100 * DAY + 60_000 })
    expect(judge([fine, rough]).worst?.value).toBe(0.3)
  })
  it('says which two instruments are at odds', () => {
    const high = reading(points(0.03, 0.6, 0.6, 0.61), {
      instrument: { id: 'a', kind: 'digital', biasU: 0 },
      occurredAt: 99 * DAY,
    })
    const low = reading(points(0.04, 0.3, 0.3, 0.31), { instrument: { id: 'b', kind: 'digital', biasU: 0 } })
    expect(judge([high, low]).flags).toContain('instruments-at-odds')
  })
  it('plans ahead under plan and change', () => {
    const plan = rules.find(({ school }) => school === 'plan-and-change')!
    expect(judge([reading(points(0.03, 0.52, 0.52, 0.52))], { rule: plan }).word).toBe('closing-in')
    expect(limitsFor(plan, 'derailleur-11-up').watch).toBe(0.5)
  })
  it('asks the forecast what the next 150 km bring, while the round is present', () => {
    const near = [reading(points(0.03, 0.42, 0.42, 0.42, 0.42, 0.42))]
    expect(judge(near, { forecast: { overNow: 0.05, overAhead: 0.55 } })).toMatchObject({
      word: 'change',
      decidedBy: 'D5',
    })
    expect(judge(near, { forecast: { overNow: 0.05, overAhead: 0.2 } }).word).toBe('closing-in')
    const forecast = { overNow: 0.6, overAhead: 0.9 }
    const after = (days: number, km: number) =>
      judge(near, { forecast, asOf: { at: (100 + days) * DAY, chainKm: 2000 + km } }).word
    expect([after(14, 150), after(15, 0), after(3, 151)]).toEqual(['change', 'closing-in', 'closing-in'])
  })
  it('flags sprockets by the physics of the drive', () => {
    expect(judge([reading(points(0.03, 0.8, 0.8, 0.8))]).advice).toBe('try-the-sprockets')
    expect(judge([reading(points(0.03, 1.05, 1.05, 1.05))]).advice).toBe('check-everything')
    expect(sprocketMarks('single-or-hub', DEFAULTS)).toEqual({ sprockets: 1.25, everything: 1.5 })
    expect(driveClassOf({ type: 'hub-gear', speeds: 8 })).toBe('single-or-hub')
  })
  it('flags a reading lower than physics allows, a wide spread, an odd count and a blind gauge', () => {
    const before = reading(points(0.03, 0.6), { occurredAt: 50 * DAY })
    const now = reading([
      { value: 0.1, u: 0.03, pitches: 15 },
      { value: 0.4, u: 0.03, pitches: 16 },
    ])
    expect(judge([before, now]).flags).toEqual(['lower-than-before', 'wide-spread', 'odd-count'])
    expect(judge([reading([{ under: 0.5, u: 0.05 }], { kind: 'drop-in' })]).flags).toContain('watch-mark-unseen')
  })
  it('says what the other schools would say', () => {
    const verdict = judge([reading(points(0.03, 0.6, 0.6, 0.6))], { otherRules: rules })
    expect(verdict.schools.map(({ school, word }) => [school, word])).toEqual([
      ['by-speeds', 'change'],
      ['half-for-all', 'change'],
      ['early-change', 'change'],
      ['plan-and-change', 'closing-in'],
      ['one-pair', 'keep-riding'],
    ])
  })
  it('explains itself by its own numbers: one input changed, the explanation changes', () => {
    const one = judge([reading(points(0.03, 0.46, 0.45, 0.44))])
    const two = judge([reading(points(0.03, 0.47, 0.45, 0.44))])
    expect(one.steps.map((step) => step.rule)).toEqual(['D0', 'D1', 'D3', 'D4', 'D5', 'D6'])
    expect(one.steps[1]!.result.value).toBe(one.probabilityOver)
    expect(JSON.stringify(two.steps[1])).not.toBe(JSON.stringify(one.steps[1]))
  })
})

describe('for any readings', () => {
  const spot = fc.record({
    value: fc.double({ min: -0.05, max: 1.3, noNaN: true }),
    u: fc.double({ min: 0.02, max: 0.12, noNaN: true }),
  })
  const severity = ['measure-it', 'not-measured-yet', 'keep-riding', 'closing-in', 'change']

  it('a worse single spot never brings a milder verdict', () => {
    fc.assert(
      fc.property(spot, fc.double({ min: 0, max: 0.5, noNaN: true }), ({ value, u }, more) => {
        const word = (at: number): string => {
          const verdict = judge([reading(points(u, at))])
          return verdict.otherwise ?? verdict.word
        }
        expect(severity.indexOf(word(value + more))).toBeGreaterThanOrEqual(severity.indexOf(word(value)))
      }),
    )
  })
  it('the order of readings and spots changes nothing', () => {
    fc.assert(
      fc.property(fc.array(spot, { minLength: 1, maxLength: 4 }), (spots) => {
        const a = reading(spots, { id: 'a' })
        const b = reading([...spots].reverse(), { id: 'b', occurredAt: 99 * DAY })
        const c = reading([...spots].reverse(), { id: 'a' })
        const one = judge([a, b])
        const other = judge([b, c])
        expect(other.word).toBe(one.word)
        expect(other.probabilityOver).toBeCloseTo(one.probabilityOver!, 8)
      }),
      { numRuns: 40 },
    )
  })
})

describe('what would settle a doubt', () => {
  const doubtful = (u = 0.08) => reading(points(u, 0.46, 0.45, 0.44), { kind: 'steel-rule' })
  const other = (id: string, more: Partial<AvailableInstrument> = {}): AvailableInstrument => ({
    ...digital,
    id,
    ...more,
  })
  const settledBy = (...instruments: AvailableInstrument[]) =>
    judge([doubtful()], { instruments }).settle.flatMap((one) =>
      one.kind === 'better-instrument' ? [one.instrumentId] : [],
    )
  it('is the finest instrument there is, the first by name among equals', () => {
    expect(settledBy(other('b', { u: 0.03 }), other('c', { u: 0.02 }), other('a', { u: 0.03 }))).toEqual(['c'])
    expect(settledBy(other('b'), other('a'))).toEqual(['a'])
  })
  it.each<[string, Partial<AvailableInstrument>]>([
    ['its check has lapsed', { inDate: false }],
    ['it is no finer', { u: 0.08 }],
    ['it hangs the whole chain', { kind: 'full-length' }],
    ['it is a hand', { kind: 'by-hand' }],
    ['it has no mark near the limit', { kind: 'drop-in', marks: [0.75, 1], u: 0.01 }],
  ])('is none where %s', (_, more) => {
    expect(settledBy(other('x', more))).toEqual([])
  })
  it('may be a gauge by marks with one near the limit', () => {
    expect(settledBy(other('x', { kind: 'drop-in', marks: [0.5, 0.75], u: 0.01 }))).toEqual(['x'])
  })
  it('is not the one it was read with', () => {
    expect(settledBy(other('steel-rule'))).toEqual([])
  })
  it('is nothing where there is no doubt left', () => {
    expect(judge([reading(points(0.03, 0.1, 0.1, 0.1))], { instruments: [digital] }).settle).toEqual([])
    expect(judge([reading(points(0.03, 0.9, 0.9, 0.9))], { instruments: [digital] }).settle).toEqual([])
  })
})

describe('a gauge that is blind at the limit', () => {
  const past = () => reading([{ over: 0.75, u: 0.05 }], { kind: 'drop-in' })
  it('asks for the finest that can tell, of those in date', () => {
    const coarse: AvailableInstrument = { ...digital, id: 'coarse', u: 0.1 }
    const lapsed: AvailableInstrument = { ...digital, id: 'lapsed', u: 0.001, inDate: false }
    expect(judge([past()], { drive: single, instruments: [coarse, lapsed, digital] }).settle).toEqual([
      { kind: 'instrument-that-can', instrumentId: 'digital-2' },
    ])
  })
  it('leaves it to nobody where no instrument can, and nothing is foretold', () => {
    expect(judge([past()], { drive: single }).settle).toEqual([{ kind: 'instrument-that-can', instrumentId: null }])
  })
  it('is not blind with a mark as near as it is unsure', () => {
    const near = reading([{ over: 0.95, under: 1.05, u: 0.05 }], { kind: 'drop-in' })
    expect(judge([near], { drive: single }).decidedBy).not.toBe('D2')
  })
})

describe('the bounds a verdict is decided by', () => {
  const by = (probability: number, ahead?: number) =>
    judge([past()], {
      drive: single,
      ...(ahead === undefined ? {} : { forecast: { overNow: probability, overAhead: ahead } }),
    })
  const past = () => reading([{ over: 0.75, u: 0.05 }], { kind: 'drop-in' })
  const { changeAt, surelyUnder } = DEFAULTS.verdict
  it('change at the very chance, not below it', () => {
    expect(by(changeAt, changeAt).word).toBe('change')
    expect(by(changeAt - 1e-6, changeAt - 1e-6).word).not.toBe('change')
  })
  it('change for what is ahead as for what is now', () => {
    expect(by(surelyUnder, changeAt).word).toBe('change')
    expect(by(surelyUnder, changeAt - 1e-6).word).not.toBe('change')
  })
})
