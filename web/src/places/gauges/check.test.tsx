// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type InstrumentHistory } from '@pelrin/contract'
import { digitalGauge } from '../../testing/digitalGauge.ts'
import { Answers, fill, inApp, sentenceOf } from '../../testing/inApp.tsx'
import { CheckSheet } from './CheckSheet.tsx'
import { until } from '../../testing/until.ts'

const gauge = { instrument: digitalGauge, versions: [], assumptions: {} } as unknown as InstrumentHistory

let server: Answers
const close = vi.fn()
beforeEach(() => {
  server = new Answers().to(endpoints.reviseInstrument, {})
  close.mockClear()
})
afterEach(() => vi.unstubAllGlobals())
const field = (name: RegExp | string) => screen.getByRole<HTMLInputElement>('textbox', { name })
const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Write the check' })
const result = () => screen.getByTestId('check-result').textContent

/** What was there, and what the gauge showed, place by place. */
const type = (...places: [reference: string, shown: string][]) => {
  for (const [i, [reference, shown]] of places.entries()) {
    fill(field(`Place ${i + 1}: truly`), reference)
    fill(field(`Place ${i + 1}: it shows`), shown)
  }
}

describe('a check of a gauge', () => {
  it('says while it is typed how far it reads off, and corrects it by that', async () => {
    const { user, told } = inApp(<CheckSheet history={gauge} onClose={close} />)
    expect(save().disabled).toBe(true)
    type(['0.25', '0.33'], ['0.50', '0.58'], ['0.75', '0.83'])
    expect(result()).toMatch(/0\.080/)
    await user.click(save())
    await until(() => expect(close).toHaveBeenCalledOnce())
    expect(server.of(endpoints.reviseInstrument)[0]?.body).toMatchObject({
      fromVersion: 4,
      bias: 0.08,
      standing: 'in-use',
      reads: 'true',
      check: { how: 'strip', referenceU: 0.01, pairs: [{ reference: 0.25, typed: '0.33' }, {}, {}] },
    })
    expect(told).toHaveLength(1)
  })
  it('only notes what it found where nothing is to be corrected, and takes out of use what is not trusted', async () => {
    const { user } = inApp(<CheckSheet history={gauge} onClose={close} />)
    type(['0.25', '0.40'], ['0.50', '0.65'], ['0.75', '0.90'])
    await user.click(screen.getByRole('radio', { name: /out of use/i }))
    await user.click(save())
    await until(() => expect(close).toHaveBeenCalled())
    expect(server.of(endpoints.reviseInstrument)[0]?.body).toMatchObject({ bias: 0, standing: 'out-of-use' })
  })
  it('has a line more as soon as the last is begun', () => {
    inApp(<CheckSheet history={gauge} onClose={close} />)
    const before = screen.getAllByRole('textbox').length
    type(['0.25', '0.25'], ['0.50', '0.50'], ['0.75', '0.75'])
    expect(screen.getAllByRole('textbox')).toHaveLength(before + 2)
  })
  it('names what the gauge cannot have shown at its field, and is not written down until it is mended', () => {
    inApp(<CheckSheet history={gauge} onClose={close} />)
    type(['0.25', 'half'])
    const shown = field('Place 1: it shows')
    expect(shown.getAttribute('aria-invalid')).toBe('true')
    expect(save().disabled).toBe(true)
    fill(shown, '0,25')
    expect(shown.getAttribute('aria-invalid')).toBe('false')
  })
  it('does not take an uncertainty that is none for none at all', () => {
    inApp(<CheckSheet history={gauge} onClose={close} />)
    type(['0.25', '0.33'], ['0.50', '0.58'], ['0.75', '0.83'])
    const u = field('That is known to')
    fill(u, 'small')
    expect(u.getAttribute('aria-invalid')).toBe('true')
    expect(save().disabled).toBe(true)
  })
  it('keeps everything typed when somebody else changed the record meanwhile', async () => {
    server.refuse(endpoints.reviseInstrument, 412, 'version-stale')
    const { user } = inApp(<CheckSheet history={gauge} onClose={close} />)
    type(['0.25', '0.33'], ['0.50', '0.58'], ['0.75', '0.83'])
    await user.click(save())
    expect((await screen.findByRole('alert')).textContent).toBe(sentenceOf('version-stale'))
    expect(field('Place 1: it shows').value).toBe('0.33')
    expect(close).not.toHaveBeenCalled()
  })
})
