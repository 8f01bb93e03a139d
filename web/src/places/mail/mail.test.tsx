// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type MailSettings } from '@pelrin/contract'
import { Answers, fill, inApp, sentenceOf } from '../../testing/inApp.tsx'
import { until } from '../../testing/until.ts'
import { MailPane } from './MailPane.tsx'

const unset: MailSettings = {
  version: 0,
  on: false,
  host: '',
  port: 587,
  security: 'starttls',
  userName: null,
  hasPassword: false,
  fromName: '',
  fromAddress: '',
  publicAddress: '',
  trouble: null,
}
const set: MailSettings = {
  ...unset,
  version: 3,
  on: true,
  host: 'mail.saltmarsh.test',
  userName: 'shop',
  hasPassword: true,
  fromName: 'Saltmarsh Row Cycles',
  fromAddress: 'shop@saltmarsh.test',
  publicAddress: 'https://shop.saltmarsh.test',
}

let server: Answers
beforeEach(() => {
  server = new Answers()
})
afterEach(() => vi.unstubAllGlobals())
const open = async (mail: MailSettings) => {
  server.to(endpoints.mail, mail)
  const app = inApp(<MailPane />, { at: '/house-rules?tab=mail' })
  await screen.findByRole('textbox', { name: 'Mail server (SMTP)' })
  return app
}
const body = () => server.of(endpoints.changeMail)[0]?.body as Record<string, unknown>

describe('the shop’s e-mail', () => {
  it('begins with what is likely, and is saved with all that is typed, its password once', async () => {
    const { user, told } = await open(unset)
    expect(screen.queryByRole('button', { name: 'Send' })).toBeNull()
    fill(screen.getByRole('textbox', { name: 'Mail server (SMTP)' }), 'mail.saltmarsh.test')
    fill(screen.getByRole('textbox', { name: 'Sender’s address' }), 'shop@saltmarsh.test')
    fill(screen.getByRole('textbox', { name: 'User name' }), 'shop')
    fill(screen.getByLabelText('Password'), 'tarred rope')
    server.to(endpoints.changeMail, set)
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await until(() => expect(told).toEqual(['Saved. Reminders go by e-mail to everybody with an address.']))
    expect(body()).toMatchObject({
      on: true,
      port: 587,
      security: 'starttls',
      userName: 'shop',
      password: 'tarred rope',
    })
    expect(body()['publicAddress']).toMatch(/^http/)
  })
  it('leaves a password that is kept as it is, and forgets it when told', async () => {
    const { user, told } = await open(set)
    expect(screen.getByLabelText<HTMLInputElement>('Password').value).toBe('')
    server.to(endpoints.changeMail, { ...set, version: 4 })
    fill(screen.getByRole('textbox', { name: 'Port' }), '465')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await until(() => expect(told).toHaveLength(1))
    expect(body()).not.toHaveProperty('password')
    expect(body()['port']).toBe(465)
    // What was saved has come into the fields before anything else is changed.
    await until(() => expect(screen.getByLabelText<HTMLInputElement>('Port').value).toBe('587'))
    await user.click(screen.getByRole('checkbox', { name: 'Forget the password' }))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await until(() => expect(server.of(endpoints.changeMail)).toHaveLength(2))
    expect(server.of(endpoints.changeMail)[1]!.body).toMatchObject({ password: null })
  })
  it('says at its field what the server refuses, and keeps what is typed', async () => {
    const { user } = await open(set)
    server.refuse(endpoints.changeMail, 422, 'request-invalid', { security: 'mail-password-open' })
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText(sentenceOf('mail-password-open'))).toBeTruthy()
  })
  it('is tried, and says what became of it in our words and the server’s', async () => {
    const { user } = await open({ ...set, trouble: { said: '421 closing', at: new Date().toISOString() } })
    expect(screen.getByRole('alert').textContent).toContain('“421 closing”')
    server.to(endpoints.tryMail, { fared: 'sign-in', said: '535 Wrong name or password' })
    await user.click(screen.getByRole('button', { name: 'Send' }))
    expect(await screen.findByText(/did not let us in/)).toBeTruthy()
    expect(screen.getByText(/“535 Wrong name or password”/)).toBeTruthy()
    expect(server.of(endpoints.tryMail)[0]!.body).toEqual({ to: 'shop@saltmarsh.test' })
  })
})
