// @vitest-environment happy-dom
import { fireEvent, screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { Answers, fill, inApp } from '../../testing/inApp.tsx'
import { RuleChartPlace } from './RuleChartPlace.tsx'

beforeEach(() => {
  new Answers().to(endpoints.houseRules, {
    rules: [
      {
        id: 'r',
        isDefault: true,
        limits: {
          'derailleur-11-up': { change: 0.5 },
          'derailleur-to-10': { change: 0.75 },
          'single-or-hub': { change: 0.85 },
        },
      },
    ],
    assumptions: { version: 0, overrides: {}, versions: [] },
    rhythms: [],
    exceptions: [],
  })
})
afterEach(() => vi.unstubAllGlobals())

const open = async () => {
  const app = inApp(<RuleChartPlace />)
  await screen.findByRole('columnheader', { name: '0.85' })
  return app
}
const row = (pitches: number) =>
  within(screen.getAllByRole('row').find(({ textContent }) => textContent.startsWith(String(pitches)))!)
    .getAllByRole('cell')
    .map(({ textContent }) => textContent)

describe('the rule chart', () => {
  it('has a column for each limit the shop has in force', async () => {
    await open()
    const heads = screen.getAllByRole('columnheader').map(({ textContent }) => textContent)
    expect(heads).toEqual(expect.arrayContaining(['0.50', '0.75', '0.85', '1.00']))
  })
  it('says where the mark stands for each count and step, in mm and in inches', async () => {
    await open()
    fill(screen.getByLabelText('Counts, in pitches'), '24')
    fill(screen.getByLabelText(/^Steps/), '0 1')
    expect(row(24)).toEqual(['304.8', '307.8'])
    fireEvent.click(screen.getByRole('button', { name: /^inches$/i }))
    expect(row(24)).toEqual(['12.000', '12.120'])
  })
  it('takes counts in any order, each once', async () => {
    await open()
    fill(screen.getByLabelText('Counts, in pitches'), '40, 24 40;8')
    const heads = screen.getAllByRole('rowheader').map(({ textContent }) => parseInt(textContent, 10))
    expect(heads).toEqual([8, 24, 40])
  })
  it('says at the field what is no count, and what is no step', async () => {
    await open()
    const counts = screen.getByLabelText('Counts, in pitches')
    fill(counts, '24 x')
    expect(counts.getAttribute('aria-invalid')).toBe('true')
    expect(screen.queryAllByRole('rowheader')).toEqual([])
    const steps = screen.getByLabelText(/^Steps/)
    fill(steps, '9')
    expect(steps.getAttribute('aria-invalid')).toBe('true')
  })
})
