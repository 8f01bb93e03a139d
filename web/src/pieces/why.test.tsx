// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { chainVerdict, explainedOdometerDistance, SHIPPED_RULES, type ChainForecast } from '@pelrin/core'
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
