// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { Answers, fillDay, inApp, sentenceOf } from '../../testing/inApp.tsx'
import { WantedDialog } from './WantedDialog.tsx'
import { until } from '../../testing/until.ts'

let server: Answers
const added = vi.fn()
beforeEach(() => {
  server = new Answers().to(endpoints.addEventDate, {})
  added.mockClear()
})
afterEach(() => vi.unstubAllGlobals())
const open = () => inApp(<WantedDialog bikeId="b1" onClose={() => undefined} onAdded={added} />)
const what = () => screen.getByLabelText<HTMLInputElement>('What for')

describe('a day a bike is wanted for', () => {
  it('is written down with what it is for, by Enter', async () => {
    const { user } = open()
    fillDay('Day', '2026-12-24')
    await user.type(what(), ' Salt loop {Enter}')
    await until(() => expect(added).toHaveBeenCalledOnce())
    expect(server.of(endpoints.addEventDate)[0]).toMatchObject({
      params: { id: 'b1' },
      body: { name: 'Salt loop', day: '2026-12-24' },
    })
  })
  it('is refused at the field it concerns, and keeps what was typed', async () => {
    server.refuse(endpoints.addEventDate, 422, 'invalid', { day: 'day-past', name: 'text-too-long' })
    const { user } = open()
    fillDay('Day', '2020-01-01')
    await user.type(what(), 'Salt loop')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText(sentenceOf('day-past'))).toBeTruthy()
    expect(screen.getByText(sentenceOf('text-too-long'))).toBeTruthy()
    expect(screen.queryByRole('alert')).toBeNull()
    expect(what().value).toBe('Salt loop')
    expect(added).not.toHaveBeenCalled()
  })
  it('that could not be sent says so beside the form, and goes under the same number when sent again', async () => {
    server.away(endpoints.addEventDate)
    const { user } = open()
    fillDay('Day', '2026-12-24')
    await user.type(what(), 'Salt loop{Enter}')
    expect((await screen.findByRole('alert')).textContent).toMatch(/^Pelrin did not answer, so this is not saved/)
    server.to(endpoints.addEventDate, {})
    await user.type(what(), '{Enter}')
    await until(() => expect(added).toHaveBeenCalledOnce())
    const ids = server.of(endpoints.addEventDate).map(({ body }) => (body as { id: string }).id)
    expect(new Set(ids).size).toBe(1)
  })
})
