// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import {
  careExplained,
  chainVerdict,
  DEFAULTS,
  derailleurLengthExplained,
  explainedOdometerDistance,
  fixedLengthExplained,
  SHIPPED_RULES,
  type ChainForecast,
  type Explanation,
} from '@pelrin/core'
import { inApp } from '../testing/inApp.tsx'
import { WhyDialog } from './Why.tsx'

const verdictOf = (values: readonly number[], forecast: ChainForecast | null = null) =>
  chainVerdict({
    readings: [
      {
        id: 'r',
        occurredAt: 0,
        chainKm: 900,
        source: 'shop',
        instrument: { id: 'i', kind: 'digital', biasU: 0 },
        spots: values.map((value) => ({ value, u: 0.05 })),
      },
    ],
    drive: { type: 'derailleur', speeds: 11 },
    rule: { ...SHIPPED_RULES[0], id: 'rule', version: 1 },
    chain: { kmSinceFittedNew: null },
    instruments: [],
    assumptions: {},
    forecast,
  })

describe('why a verdict is what it is', () => {
  const open = (values: readonly number[] = [], forecast: ChainForecast | null = null) => {
    const verdict = verdictOf(values, forecast)
    return inApp(<WhyDialog open onClose={() => undefined} explanations={verdict.steps} verdict={verdict} />)
  }
  it('is one sentence first, which says of when its chance is', () => {
    open([0.6, 0.64, 0.62])
    expect(screen.getByTestId('answer').textContent).toMatch(
      /^Because 3 spots put its worst place at 0\.\d\d %, give or take 0\.\d\d, and this bike is done at 0\.50: when measured, (over )?\d+ in 100 that it is over\.$/,
    )
  })
  it('is the next kilometres, where they and not the readings alone have it changed', () => {
    const forecast = { overNow: 0.3, overAhead: 0.62 } as ChainForecast
    open([0.44, 0.45, 0.43], forecast)
    expect(screen.getByTestId('answer').textContent).toMatch(
      /^Because its worst place was about 0\.4\d % when measured, this bike is done at 0\.50, and by its forecast it is over within the next 150 km: 62 in 100\.$/,
    )
  })
  it('then the step that decided, open; the others a line each, opened by a press', async () => {
    const { user } = open([0.6, 0.64, 0.62])
    expect(screen.getByText('chance of being over')).toBeTruthy()
    expect(screen.queryByText('readings known')).toBeNull()
    await user.click(screen.getByRole('button', { name: /^D0/ }))
    expect(screen.getByText('readings known')).toBeTruthy()
  })
  it('and formulas one key further', async () => {
    const { user } = open([0.6, 0.64, 0.62])
    expect(screen.queryByText('P ≥ 0.90')).toBeNull()
    await user.keyboard('f')
    expect(screen.getByText('P ≥ 0.90')).toBeTruthy()
  })
  it('is that nobody measured it, where nobody did', () => {
    open()
    expect(screen.getByTestId('answer').textContent).toBe('Because nobody has measured this chain as it is now.')
  })
})

describe('why a number is what it is', () => {
  const answer = (explanations: readonly Explanation[], lead?: string): string => {
    inApp(<WhyDialog open onClose={() => undefined} explanations={explanations} lead={lead} />)
    return screen.getByTestId('answer').textContent.replaceAll('\u202f', ' ')
  }
  it('is a loop and what the derailleur wants, of a length', () => {
    const drive = {
      type: 'derailleur',
      fronts: [48, 34],
      sprockets: [11, 36],
      chainstayMm: 440,
      suspension: 'rigid',
      growthMm: null,
      statedAdd: null,
      pulleys: null,
      pulleysCounted: false,
      capacityTeeth: null,
      largestSprocketTeeth: null,
    } as const
    expect(answer(derailleurLengthExplained(drive, DEFAULTS))).toMatch(
      /^114 pitches: because the loop over 48 teeth and 36 teeth with axles 440 mm apart takes 111\.\d\d pitches,/,
    )
  })
  it('is where the axle stands, of a length with no derailleur', () => {
    const loop = { frontTeeth: 38, rearTeeth: 19, fromMm: 430, toMm: 450, halfLink: false }
    expect(answer(fixedLengthExplained(loop, 98, DEFAULTS))).toMatch(
      /^98 pitches: because with so many the axle stands at 4\d\d\.\d\d mm, where it can: between 430 mm and 450 mm\.$/,
    )
  })
  it('begins with what the place says, where that says more than the number', () => {
    const told = { because: 'distance' as const, interval: { km: 180, days: 45 }, usedKm: 296, usedDays: 12 }
    expect(answer([careExplained(told, DEFAULTS.care)], 'Overdue since 20 Nov')).toMatch(
      /^Overdue since 20 Nov: because its treatment lasts 180 km on dry roads, and 296 km of them are used up/,
    )
  })
  it.each([
    ['distance', /^118 km: because its treatment lasts 180 km on dry roads, and 62 km of them are used up/],
    ['days', /^33 days: because no treatment is trusted longer than 45 days, and 12 days of them are over\.$/],
    ['first-care', /^-12 km: because the coat it came with carries it 50 km on dry roads/],
    ['wash', /^at once: because it was washed since it was treated/],
    ['squeak', /^at once: because it squeaked/],
    ['never-treated', /^at once: because nobody has written down/],
  ] as const)('is what was used up, or what happened, of a treatment due by %s', (because, words) => {
    const told = { because, interval: { km: 180, days: 45 }, usedKm: 62, usedDays: 12 }
    expect(answer([careExplained(told, DEFAULTS.care)]).replace('−', '-')).toMatch(words)
  })
  it('is what it was made from, in the words of what went in', () => {
    const explained = explainedOdometerDistance(
      [
        { at: 0, km: 1000, restarted: false },
        { at: 100, km: 1450, restarted: false },
      ],
      0,
      100,
    )!
    inApp(<WhyDialog open onClose={() => undefined} explanations={[explained.explanation]} />)
    expect(screen.getByTestId('answer').textContent.replaceAll('\u202f', ' ')).toBe(
      '450 km: because the odometer stood at 1,000 km when it was fitted and at 1,450 km last.',
    )
  })
})
