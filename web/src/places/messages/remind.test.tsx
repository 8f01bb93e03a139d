// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type DueVisit, type ReminderPreview } from '@pelrin/contract'
import { Answers, inApp } from '../../testing/inApp.tsx'
import { RemindDialog } from './RemindDialog.tsx'
import { remindable } from './remindable.ts'
import { until } from '../../testing/until.ts'

const visit = (name: string): DueVisit =>
  ({
    customer: { id: name, name, goodWeekday: null },
    day: '2026-11-30',
    because: 'due',
    minutes: 20,
    bikes: [
      {
        bike: { id: `bike of ${name}` },
        minutes: 20,
        items: [{ kind: 'chain', on: '2026-11-30', pulledForwardDays: 0 }],
      },
    ],
  }) as unknown as DueVisit
const preview = (name: string, more: Partial<ReminderPreview> = {}): ReminderPreview => ({
  customer: { id: name, name },
  day: '2026-11-30',
  language: 'en',
  channel: 'text',
  phone: '+44 0',
  email: null,
  text: `Hello ${name}.`,
  problem: null,
  sendAfter: new Date().toISOString(),
  ...more,
})

let server: Answers
const close = vi.fn()
beforeEach(() => {
  server = new Answers().to(endpoints.sendReminders, { written: 1 })
  close.mockClear()
})
afterEach(() => vi.unstubAllGlobals())
const open = async (...previews: ReminderPreview[]) => {
  server.to(endpoints.previewReminders, { previews })
  const app = inApp(
    <RemindDialog asked={previews.map(({ customer }) => remindable(visit(customer.name)))} onClose={close} />,
  )
  await screen.findByText(/One a visit/)
  return app
}
const sent = () =>
  (server.of(endpoints.sendReminders)[0]?.body as { visits: { customerId: string }[] } | undefined)?.visits.map(
    ({ customerId }) => customerId,
  )

describe('reminders that are about to go out', () => {
  it('are read as their customers will read them, and go out by Enter', async () => {
    const { user, told } = await open(preview('Mara Lisk'), preview('Ivo Marsh', { language: 'fr', text: 'Bonjour.' }))
    expect(screen.getByText('Bonjour.').getAttribute('lang')).toBe('fr')
    await user.keyboard('{Enter}')
    await until(() => expect(close).toHaveBeenCalledOnce())
    expect(sent()).toEqual(['Mara Lisk', 'Ivo Marsh'])
    expect(told).toEqual(['One is on its way.'])
  })
  it('leave out who was unticked, and who cannot be reminded, with the reason', async () => {
    const { user } = await open(
      preview('Mara Lisk'),
      preview('Nell Quayle', { problem: 'opted-out' }),
      preview('Ivo Marsh'),
      preview('Oda Thrift', { problem: 'no-phone', phone: null }),
    )
    expect(screen.getByText(/Nell Quayle.*does not want reminders/)).toBeTruthy()
    expect(screen.getByText(/Oda Thrift.*no number is known/)).toBeTruthy()
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /Oda Thrift/ }).disabled).toBe(true)
    await user.click(screen.getByRole('checkbox', { name: /Mara Lisk/ }))
    await user.click(screen.getByRole('button', { name: 'Send one' }))
    await until(() => expect(sent()).toEqual(['Ivo Marsh']))
  })
  it('are none where nobody is left: nothing can be sent', async () => {
    const { user } = await open(preview('Mara Lisk'))
    await user.click(screen.getByRole('checkbox', { name: /Mara Lisk/ }))
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Choose at least one.' }).disabled).toBe(true)
  })
  it('say when it is quiet now, and until when', async () => {
    await open(preview('Mara Lisk', { sendAfter: '2036-11-27T08:00:00.000Z' }))
    expect(screen.getByText(/Quiet now: they go out at 08:00\./)).toBeTruthy()
  })
  it('stay open with what is ticked where nobody answers; sent again they go out once', async () => {
    const { user } = await open(preview('Mara Lisk'))
    server.away(endpoints.sendReminders)
    await user.keyboard('{Enter}')
    expect((await screen.findByRole('alert')).textContent).toMatch(/^Pelrin did not answer, so this is not saved/)
    server.to(endpoints.sendReminders, { written: 1 })
    await user.click(screen.getByRole('button', { name: 'Send one' }))
    await until(() => expect(close).toHaveBeenCalledOnce())
    const keys = server.of(endpoints.sendReminders).map(({ headers }) => headers['Idempotency-Key'])
    expect(keys).toHaveLength(2)
    expect(keys[1]).toBe(keys[0])
  })
})
