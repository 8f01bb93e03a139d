import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  chanceByDay,
  dayAfter,
  dayOfChance,
  DEFAULTS,
  earnedByReadings,
  lastPresentDay,
  measureFrom,
  OUTLOOK_CHANCES,
  standingOf,
  standingRank,
  type StandingFacts,
  type VerdictWord,
} from '../index.ts'

const MEASURED = '2026-03-02'
const facts = (more: Partial<StandingFacts> = {}): StandingFacts => ({
  word: 'keep-riding',
  earned: false,
  decided: false,
  presentUntil: dayAfter(MEASURED, 14),
  checkOn: dayAfter(MEASURED, 90),
  outlook: { from: MEASURED, reached: OUTLOOK_CHANCES.map((_, i) => 20 + 10 * i) },
  ...more,
})
const on = (days: number, more: Partial<StandingFacts> = {}) =>
  standingOf(facts(more), dayAfter(MEASURED, days), DEFAULTS)

describe('what a bike shows today', () => {
  it('is its verdict while the round is present, however likely the forecast', () => {
    const soon = { outlook: { from: MEASURED, reached: [0, 0, 0, 0, 0, 1] } }
    expect(on(10, soon)).toEqual({ word: 'keep-riding', because: 'verdict', chance: 0.1 })
    expect(on(15, soon)).toMatchObject({ word: 'measure-it', because: 'chance' })
  })
  it('is to be measured once the chance by now reaches the check’s risk, with that chance', () => {
    // 6 in 100 are reached on day 50.
    expect(on(49).word).toBe('keep-riding')
    expect(on(50)).toEqual({ word: 'measure-it', because: 'chance', chance: 0.06 })
    expect(on(75).chance).toBeCloseTo(0.125, 12)
  })
  it('is to be measured once the next look has passed, not on its day', () => {
    const none = { outlook: null }
    expect(on(90, none).word).toBe('keep-riding')
    expect(on(91, none)).toEqual({ word: 'measure-it', because: 'check-passed', chance: null })
  })
  it('is a change that was measured for as long as it is not decided otherwise', () => {
    const change = { word: 'change' as const, earned: true, checkOn: null }
    expect(on(900, change)).toMatchObject({ word: 'change', because: 'verdict' })
    const decided = { ...change, decided: true, checkOn: dayAfter(MEASURED, 14) }
    expect(on(14, decided)).toMatchObject({ word: 'change', because: 'decided' })
    expect(on(15, decided).word).toBe('measure-it')
  })
  it('is a change its forecast brought about only while its readings are fresh', () => {
    const early = { word: 'change' as const, earned: false, checkOn: null, presentUntil: dayAfter(MEASURED, 60) }
    expect(on(60, early)).toMatchObject({ word: 'change', because: 'verdict' })
    expect(on(61, early)).toMatchObject({ word: 'measure-it', because: 'chance' })
  })
  it('tells the one from the other by what the readings alone said', () => {
    const said = (value: number | string, word: VerdictWord = 'change') => ({
      word,
      steps: [{ rule: 'D1', inputs: [], result: { value, unit: 'probability' as const } }],
    })
    expect(earnedByReadings(said(0.5), DEFAULTS)).toBe(true)
    expect(earnedByReadings(said(0.44), DEFAULTS)).toBe(false)
    expect(earnedByReadings(said(0.97, 'closing-in'), DEFAULTS)).toBe(false)
    const strict = { ...DEFAULTS, verdict: { ...DEFAULTS.verdict, changeAt: 0.6 } }
    expect(earnedByReadings(said(0.5), strict)).toBe(false)
  })
  it('moves with the risk the shop looks again at', () => {
    const later = { ...DEFAULTS, forecast: { ...DEFAULTS.forecast, checkRisk: 0.3 } }
    expect(measureFrom(facts({ checkOn: null }), DEFAULTS)).toBe(dayAfter(MEASURED, 50))
    expect(measureFrom(facts({ checkOn: null }), later)).toBe(dayAfter(MEASURED, 110))
  })
  it('never turns into a change by itself, and never back from “measure it”', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<VerdictWord>('keep-riding', 'closing-in', 'measure-again', 'not-measured-yet', 'measure-it'),
        fc.option(fc.integer({ min: -30, max: 60 })),
        fc.option(fc.integer({ min: 0, max: 200 })),
        fc.option(fc.array(fc.integer({ min: 0, max: 900 }), { maxLength: OUTLOOK_CHANCES.length })),
        fc.boolean(),
        (word, present, check, reached, decided) => {
          const known: StandingFacts = {
            word,
            earned: false,
            decided,
            presentUntil: present === null ? null : dayAfter(MEASURED, present),
            checkOn: check === null ? null : dayAfter(MEASURED, check),
            outlook: reached && { from: MEASURED, reached: reached.sort((a, b) => a - b) },
          }
          const from = measureFrom(known, DEFAULTS)
          for (const days of [0, 3, 30, 90, 200, 1000]) {
            const today = dayAfter(MEASURED, days)
            const standing = standingOf(known, today, DEFAULTS)
            expect(standing.word).toBe(from !== null && today >= from ? 'measure-it' : word)
          }
        },
      ),
    )
  })
})

describe('the last day a round is present', () => {
  const round = { measuredOn: MEASURED, recordedOn: MEASURED, kmSince: 0, kmPerDay: 0 }
  it.each([
    [{}, 14],
    [{ kmPerDay: 20 }, 7],
    [{ recordedOn: dayAfter(MEASURED, 4), kmSince: 100, kmPerDay: 20 }, 6],
    [{ recordedOn: dayAfter(MEASURED, 4), kmSince: 151, kmPerDay: 20 }, 3],
  ])('%j: day %d', (more, days) => {
    expect(lastPresentDay({ ...round, ...more }, DEFAULTS)).toBe(dayAfter(MEASURED, days))
  })
  it('moves with what the shop calls present', () => {
    const verdict = { ...DEFAULTS.verdict, presentDays: 5, presentKm: 40 }
    expect(lastPresentDay(round, { ...DEFAULTS, verdict })).toBe(dayAfter(MEASURED, 5))
    expect(lastPresentDay({ ...round, kmPerDay: 20 }, { ...DEFAULTS, verdict })).toBe(dayAfter(MEASURED, 2))
  })
})

describe('a chance by day', () => {
  const days = fc.array(fc.integer({ min: 0, max: 2000 }), { maxLength: OUTLOOK_CHANCES.length })
  it('never falls, and the first day of a chance is the first', () => {
    fc.assert(
      fc.property(days, fc.double({ min: 0.001, max: 0.99, noNaN: true }), (some, chance) => {
        const reached = some.sort((a, b) => a - b)
        let before = 0
        for (let day = 0; day < 2100; day += 50) {
          const now = chanceByDay(reached, day)
          expect(now).toBeGreaterThanOrEqual(before)
          before = now
        }
        const first = dayOfChance(reached, chance)
        if (first === null) expect(chanceByDay(reached, 5000)).toBeLessThan(chance)
        else {
          expect(chanceByDay(reached, first)).toBeGreaterThanOrEqual(chance)
          if (first > 0) expect(chanceByDay(reached, first - 1)).toBeLessThan(chance)
        }
      }),
    )
  })
})

describe('the order of what stands', () => {
  it('has what comes off first, then what is in doubt, then what is to be measured', () => {
    const rank = (word: VerdictWord, because: 'verdict' | 'decided' = 'verdict') => standingRank({ word, because })
    expect([rank('change'), rank('measure-again'), rank('measure-it'), rank('keep-riding')]).toEqual([0, 1, 2, 3])
    expect(rank('change', 'decided')).toBe(rank('closing-in'))
  })
})
