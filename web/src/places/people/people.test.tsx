// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, RIGHTS, type Colleague } from '@pelrin/contract'
import { Answers, fill, inApp, sentenceOf, sessionOf } from '../../testing/inApp.tsx'
import { until } from '../../testing/until.ts'
import { PeoplePane } from './PeoplePane.tsx'
import { OwnSecretsDialog } from './OwnSecretsDialog.tsx'

const someone = (more: Partial<Colleague>): Colleague => ({
  ...{ id: 'p1', version: 3, name: 'Jory Pell', initials: 'JP', signInName: 'jory', role: 'mechanic' },
  ...{ leftOn: null, hasPassword: true, hasPin: true, invitedUntil: null, lastHereAt: null },
  ...more,
})
let server: Answers
beforeEach(() => {
  server = new Answers()
    .to(endpoints.people, [
      someone({ name: 'Wen Harrow', id: 'p0', role: 'owner', initials: 'WH' }),
      someone({ hasPin: false }),
      someone({ id: 'p2', name: 'Coral Fenn', leftOn: '2026-01-31', hasPassword: false }),
    ])
    .to(endpoints.invitePerson, { token: 'a'.repeat(43), expiresAt: '2026-12-02T09:30:00Z' })
})
afterEach(() => vi.unstubAllGlobals())

describe('people of the shop', () => {
  it('each stand with what they are called and how it stands with them', async () => {
    inApp(<PeoplePane />)
    const jory = (await screen.findByText('Jory Pell')).closest('li')!
    expect(jory.textContent).toContain('mechanic, signs in as jory')
    expect(jory.textContent).toContain('not here yet, no PIN')
    const coral = screen.getByText('Coral Fenn').closest('li')!
    expect(coral.textContent).toContain('left on 31 Jan')
    expect(within(coral).queryByRole('button', { name: /Has left/ })).toBeNull()
    expect(within(coral).getByRole('button', { name: /Invite again/ })).toBeTruthy()
    // The table the server holds to, whole.
    expect(screen.getAllByRole('row')).toHaveLength(Object.keys(RIGHTS).length + 1)
  })
  it('are added with initials made of their name, and a link comes with them', async () => {
    server.to(endpoints.addPerson, someone({ id: 'p9', name: 'Isa Moor', initials: 'IM' }))
    const { user } = inApp(<PeoplePane />)
    await user.click(await screen.findByRole('button', { name: 'Add somebody' }))
    fill(screen.getByLabelText('Name'), 'Isa Moor')
    await until(() => expect(screen.getByLabelText<HTMLInputElement>('Initials').value).toBe('IM'))
    // What was typed stays as it was typed.
    fill(screen.getByLabelText('Signs in as'), 'isa.m')
    fill(screen.getByLabelText('Name'), 'Isa Moor Quay')
    await user.click(screen.getByRole('button', { name: 'Add and make a link' }))
    await screen.findByRole('button', { name: 'Copy the link' })
    expect(server.of(endpoints.addPerson)[0]!.body).toMatchObject({
      name: 'Isa Moor Quay',
      initials: 'IMQ',
      signInName: 'isa.m',
      role: 'mechanic',
    })
    expect(screen.getByDisplayValue(/\/welcome#a{43}$/)).toBeTruthy()
    expect(server.of(endpoints.invitePerson)).toHaveLength(1)
  })
  it('are not anybody’s but the owner’s to see', () => {
    inApp(<PeoplePane />, { session: sessionOf('ruan') })
    expect(screen.getByText('The owner adds people and says what they may do.')).toBeTruthy()
    expect(server.of(endpoints.people)).toHaveLength(0)
  })
})

describe('a password of one’s own', () => {
  it('is refused at its field where everybody tries it first, and nothing typed is lost', async () => {
    server.refuse(endpoints.changeOwnPassword, 422, 'request-invalid', { next: 'password-common' })
    const { user } = inApp(<OwnSecretsDialog onClose={() => undefined} />)
    fill(screen.getByLabelText('Password so far'), 'causeway-1')
    fill(screen.getByLabelText('New password'), 'short')
    await user.click(screen.getByRole('button', { name: 'Change password' }))
    expect(await screen.findByText(sentenceOf('password-short'))).toBeTruthy()
    fill(screen.getByLabelText('New password'), 'password123')
    await user.click(screen.getByRole('button', { name: 'Change password' }))
    expect(await screen.findByText(sentenceOf('password-common'))).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>('New password').value).toBe('password123')
    server.to(endpoints.changeOwnPassword, sessionOf())
    const { told } = inApp(<OwnSecretsDialog onClose={() => undefined} />)
    fill(screen.getByLabelText('Password so far'), 'causeway-1')
    fill(screen.getByLabelText('New password'), 'kelp and lanterns')
    await user.click(screen.getByRole('button', { name: 'Change password' }))
    await until(() => expect(told).toHaveLength(1))
  })
})
