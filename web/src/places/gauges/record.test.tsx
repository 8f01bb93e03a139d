// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { INSTRUMENT_KINDS } from '@pelrin/core'
import { endpoints, fieldProblems, type InstrumentHistory } from '@pelrin/contract'
import { digitalGauge } from '../../testing/digitalGauge.ts'
import { Answers, fill, inApp } from '../../testing/inApp.tsx'
import { RecordForm } from './RecordForm.tsx'
import { recordIn, typedRecord } from './typedRecord.ts'
import { until } from '../../testing/until.ts'

let server: Answers
const closed = vi.fn()
beforeEach(() => {
  server = new Answers().to(endpoints.addInstrument, {}).to(endpoints.reviseInstrument, {})
  closed.mockClear()
})
afterEach(() => vi.unstubAllGlobals())
const field = (name: RegExp | string) => screen.getByRole<HTMLInputElement>('textbox', { name })
const history = { instrument: digitalGauge, connection: null, versions: [], checks: [] } as unknown as InstrumentHistory

describe('the record of an instrument', () => {
  it('as it begins is taken by the server for every kind there is, once it has a name', () => {
    for (const kind of INSTRUMENT_KINDS) {
      const typed = { ...typedRecord(null), kind, name: 'One', u: '0.2', marks: '0.5 0.75' }
      const body = { id: '0192c7f2-5340-7b38-85ad-000000000001', kind, name: 'One', ...recordIn(typed) }
      expect(fieldProblems(endpoints.addInstrument.body, body), kind).toEqual([])
    }
  })
  it('asks for what its kind has: lengths their material, gauges their marks', async () => {
    const { user } = inApp(<RecordForm history={null} onClose={closed} />)
    expect(screen.queryByRole('textbox', { name: 'Marks' })).toBeNull()
    await user.click(screen.getByRole('combobox', { name: 'Kind' }))
    await user.click(within(screen.getByRole('listbox')).getByRole('option', { name: 'Drop-in gauge' }))
    expect(field(/^Marks/)).toBeTruthy()
    expect(screen.queryByRole('combobox', { name: /^Material/ })).toBeNull()
  })
  it('of a new one leads to it, once it is written', async () => {
    const { user, at } = inApp(<RecordForm history={null} onClose={closed} />, { at: '/gauges' })
    await user.type(field('Name'), 'Bench rule{Enter}')
    await until(() => expect(closed).toHaveBeenCalledOnce())
    const { id } = server.of(endpoints.addInstrument)[0]!.body as { id: string }
    expect(server.of(endpoints.addInstrument)[0]?.body).toMatchObject({ kind: 'steel-rule', name: 'Bench rule' })
    expect(at()).toBe(`/gauges/${id}`)
  })
  it('is refused at its field where a number is none, and keeps it', async () => {
    const { user } = inApp(<RecordForm history={history} onClose={closed} />)
    fill(field('Reads too much by'), 'a bit')
    await user.type(field('Reason'), 'checked{Enter}')
    await until(() => expect(field('Reads too much by').getAttribute('aria-invalid')).toBe('true'))
    expect(field('Reads too much by').value).toBe('a bit')
    expect(server.of(endpoints.reviseInstrument)).toHaveLength(0)
  })
  it('is a version more when it is changed, from the one it was, with its reason', async () => {
    const { user } = inApp(<RecordForm history={history} onClose={closed} />)
    await user.click(screen.getByRole('checkbox', { name: /out of use/i }))
    await user.type(field('Reason'), 'dropped{Enter}')
    await until(() => expect(closed).toHaveBeenCalledOnce())
    expect(server.of(endpoints.reviseInstrument)[0]).toMatchObject({
      params: { id: digitalGauge.id },
      body: { fromVersion: digitalGauge.recordVersion, standing: 'out-of-use', reason: 'dropped' },
    })
  })
})
