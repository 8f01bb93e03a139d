// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { BikeRecord, Instrument } from '@pelrin/contract'
import { endpoints } from '@pelrin/contract'
import { Answers, fill, inApp } from '../../testing/inApp.tsx'
import { recordOf } from '../../testing/record.ts'
import { MeasureBench } from './MeasureBench.tsx'
import { until } from '../../testing/until.ts'

const instrument = (id: string, kind: Instrument['kind'], more: object = {}): Instrument =>
  ({
    ...{ id, kind, name: id, connected: false, standing: 'in-use', retired: false },
    ...{ uMm: null, u: null, bias: 0, biasU: 0, marks: null, material: 'steel', rollerMm: null },
    ...{ seesRollerWear: true, changeMark: null, reads: 'true', recordVersion: 1, checkDue: null },
    ...more,
  }) as unknown as Instrument
const rule = instrument('Rule', 'steel-rule', { uMm: 0.25 })
const dropIn = instrument('Drop-in', 'drop-in', { marks: [0.5, 0.75], u: 0.03, seesRollerWear: false })

const record = (more: object = {}): BikeRecord =>
  recordOf('b1', 'Ivo Marsh', {
    chain: { id: 'c1', fittingId: 'f1', name: 'Mabry Nine', pitches: 114, care: 'wet-oil', baselineWanted: false },
    verdictInput: {
      readings: [],
      drive: { type: 'derailleur', speeds: 9 },
      rule: {
        ...{ id: 'r', version: 1, school: 'by-speeds', watchShare: 0.8 },
        limits: {
          'derailleur-11-up': { change: 0.5 },
          'derailleur-to-10': { change: 0.75 },
          'single-or-hub': { change: 1 },
        },
      },
      chain: { kmSinceFittedNew: 1200 },
      instruments: [],
      otherRules: [],
    },
    forecast: null,
    ...more,
  })

let server: Answers
beforeEach(() => {
  localStorage.clear()
  server = new Answers().to(endpoints.takeReading, {})
})
afterEach(() => vi.unstubAllGlobals())
const open = (instruments = [rule, dropIn], of = record()) =>
  inApp(<MeasureBench record={of} instruments={instruments} corrects={null} />, { at: '/bikes/b1/measure' })
const spotField = () => screen.getByLabelText<HTMLInputElement>(/^Spot \d/)

const says = () => document.getElementById('spot-says')?.textContent ?? ''

describe('the bench', () => {
  it('begins with the rule, at the first spot, ready to be typed into', () => {
    open()
    expect(document.activeElement).toBe(spotField())
  })
  it('says what is typed: how worn, over how many pitches', async () => {
    open()
    fill(spotField(), '306.3')
    await until(() => expect(says()).toMatch(/^0\.49 %/))
    expect(says()).toContain('24 pitches')
  })
  it('goes from spot to spot by Enter, and keeps each', async () => {
    const { user } = open()
    fill(spotField(), '305.1')
    await user.keyboard('{Enter}')
    expect(spotField().value).toBe('')
    fill(spotField(), '305.4')
    await user.keyboard('{Alt>}1{/Alt}')
    expect(spotField().value).toBe('305.1')
  })
  it('does not save what is no reading, and leads to it', async () => {
    const { user } = open()
    fill(spotField(), '12 3/')
    await user.keyboard('{Enter}')
    fireEvent.click(screen.getByRole('button', { name: /^Save/ }))
    expect(server.of(endpoints.takeReading)).toHaveLength(0)
    expect(document.activeElement).toBe(spotField())
  })
  it('takes a gauge by its marks, for a thumb and by letters alike', async () => {
    open([dropIn])
    const marks = screen.getAllByRole('group').filter((one) => /0\.(50|75)/.test(one.getAttribute('aria-label') ?? ''))
    expect(marks).toHaveLength(2)
    fill(spotField(), 'io')
    await until(() => expect(says()).toMatch(/0\.50.*0\.75/))
  })
  it('keeps a round half typed over a reload, and says so', async () => {
    open()
    fill(spotField(), '305.1')
    open()
    expect(await screen.findByText(/^Restored/)).toBeTruthy()
    expect(spotField().value).toBe('305.1')
  })
})
