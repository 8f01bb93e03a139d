// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type CalendarFeed } from '@pelrin/contract'
import { Answers, inApp } from '../../testing/inApp.tsx'
import { FeedsDialog } from './FeedsDialog.tsx'
import { until } from '../../testing/until.ts'

const feed = (name: string): CalendarFeed => ({
  id: name,
  name,
  madeAt: '2026-11-20T09:00:00.000Z',
  person: 'Tove Sandell',
})
let server: Answers
beforeEach(() => {
  server = new Answers().to(endpoints.calendarFeeds, [feed('Front desk')])
})
afterEach(() => vi.unstubAllGlobals())
const open = async () => {
  const app = inApp(<FeedsDialog onClose={() => undefined} />)
  await screen.findByText(/Front desk, made/)
  return app
}
const name = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Who it is for' })

describe('a calendar’s private address', () => {
  it('is made by Enter, and told whole and once', async () => {
    server.to(endpoints.makeFeed, { path: '/feeds/s3cret.ics', feeds: [feed('Front desk'), feed('Ruan')] })
    const { user } = await open()
    await user.type(name(), ' Ruan {Enter}')
    const told = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Calendar address' })
    expect(told.value).toMatch(/^https?:\/\/.+\/feeds\/s3cret\.ics$/)
    expect(server.of(endpoints.makeFeed)[0]?.body).toMatchObject({ name: 'Ruan' })
    expect(name().value).toBe('')
    expect(screen.getByText(/^Ruan, made .* by Tove Sandell/)).toBeTruthy()
  })
  it('is one, though Enter is pressed twice', async () => {
    server.to(endpoints.makeFeed, () => new Promise(() => undefined))
    const { user } = await open()
    await user.type(name(), 'Ruan{Enter}{Enter}')
    expect(server.of(endpoints.makeFeed)).toHaveLength(1)
  })
  it('is for somebody: without a name it is refused at the field', async () => {
    const { user } = await open()
    await user.type(name(), '{Enter}')
    expect(await screen.findByText('This cannot be empty.')).toBeTruthy()
    expect(server.of(endpoints.makeFeed)).toHaveLength(0)
    expect(name().getAttribute('aria-invalid')).toBe('true')
  })
  it('that is revoked is gone from the list, and from what was just told', async () => {
    server.to(endpoints.makeFeed, { path: '/feeds/s3cret.ics', feeds: [feed('Front desk'), feed('Ruan')] })
    server.to(endpoints.revokeFeed, [feed('Front desk')])
    const { user } = await open()
    await user.type(name(), 'Ruan{Enter}')
    await screen.findByText(/^Ruan, made/)
    await user.click(screen.getAllByRole('button', { name: 'Revoke' })[1]!)
    await until(() => expect(screen.queryByText(/^Ruan, made/)).toBeNull())
    expect(screen.queryByRole('textbox', { name: 'Calendar address' })).toBeNull()
    expect(server.of(endpoints.revokeFeed)[0]?.params).toEqual({ id: 'Ruan' })
  })
})
