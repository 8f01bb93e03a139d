// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { PersonMenu } from '../../app/PersonMenu.tsx'
import { keys } from '../../api/queries.ts'
import { Answers, inApp, sessionOf, sentenceOf } from '../../testing/inApp.tsx'
import { SignInPlace } from './SignInPlace.tsx'
import { drafts } from '../../drafts/drafts.ts'
import { begunWith, NEW_BIKE_DRAFT, TypedBike } from '../new-bike/newBike.ts'
import { until } from '../../testing/until.ts'

let server: Answers
beforeEach(() => {
  server = new Answers()
    .to(endpoints.door, {
      shops: [{ code: 'saltmarsh', name: 'Saltmarsh Row Cycles' }],
      demoAccounts: [{ name: 'Ruan Pike', role: 'mechanic', signInName: 'ruan', password: 'chalkdown-2' }],
    })
    .to(endpoints.signIn, sessionOf())
    .to(endpoints.switchPerson, sessionOf('ruan'))
    .to(endpoints.signOut, {})
})
afterEach(() => vi.unstubAllGlobals())

describe('the door', () => {
  it('lets in by name, password and Enter', async () => {
    const { user, client } = inApp(<SignInPlace />)
    await user.type(await screen.findByLabelText('Name'), 'tove')
    await user.type(screen.getByLabelText('Password'), 'causeway-1{Enter}')
    await until(() => expect(client.getQueryData(keys.session)).toEqual(sessionOf()))
    expect(server.of(endpoints.signIn)[0]?.body).toEqual({ shop: 'saltmarsh', name: 'tove', password: 'causeway-1' })
  })
  it('says at each field what is missing, before anything is sent', async () => {
    const { user } = inApp(<SignInPlace />)
    await user.click(await screen.findByRole('button', { name: 'Sign in' }))
    await until(() => expect(screen.getByLabelText('Name').getAttribute('aria-invalid')).toBe('true'))
    expect(screen.getByLabelText('Password').getAttribute('aria-invalid')).toBe('true')
    expect(server.of(endpoints.signIn)).toHaveLength(0)
  })
  it('keeps the name when the password was wrong', async () => {
    server.refuse(endpoints.signIn, 401, 'sign-in-wrong')
    const { user, client } = inApp(<SignInPlace />)
    await user.type(await screen.findByLabelText('Name'), 'tove')
    await user.type(screen.getByLabelText('Password'), 'wrong{Enter}')
    expect(await screen.findByText('Name and password do not go together. Check both.')).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('tove')
    expect(client.getQueryData(keys.session)).toBeUndefined()
  })
  it('lets somebody of the demo workshop in by one press', async () => {
    const { user } = inApp(<SignInPlace />)
    await user.click(await screen.findByRole('button', { name: /Ruan Pike.*mechanic/ }))
    await until(() => expect(server.of(endpoints.signIn)).toHaveLength(1))
    expect(server.of(endpoints.signIn)[0]?.body).toMatchObject({ name: 'ruan', password: 'chalkdown-2' })
  })
  it('says that nobody answers, and asks again when told to', async () => {
    server.away(endpoints.door)
    const { user } = inApp(<SignInPlace />)
    const again = await screen.findByRole('button', { name: 'Try again' })
    server.to(endpoints.door, { shops: [{ code: 'saltmarsh', name: 'Saltmarsh Row Cycles' }], demoAccounts: [] })
    await user.click(again)
    expect(await screen.findByLabelText('Name')).toBeTruthy()
  })
})

describe('who is at the bench', () => {
  const open = async () => {
    const app = inApp(<PersonMenu session={sessionOf()} />)
    await app.user.click(screen.getByRole('button', { name: 'At this bench: Tove Sandell' }))
    return app
  }
  it('changes by initials, as they are or small, and a PIN', async () => {
    const { user, client } = await open()
    await user.click(screen.getByRole('menuitem', { name: 'Somebody else' }))
    await user.type(screen.getByLabelText('Initials'), 'rp')
    await user.type(screen.getByLabelText('PIN'), '2280{Enter}')
    await until(() => expect(client.getQueryData(keys.session)).toEqual(sessionOf('ruan')))
    expect(server.of(endpoints.switchPerson)[0]?.body).toEqual({ initials: 'RP', pin: '2280' })
    await until(() => expect(screen.queryByLabelText('PIN')).toBeNull())
  })
  it('does not change by a wrong PIN; it says so and keeps the initials', async () => {
    server.refuse(endpoints.switchPerson, 401, 'pin-wrong')
    const { user, client } = await open()
    await user.click(screen.getByRole('menuitem', { name: 'Somebody else' }))
    await user.type(screen.getByLabelText('Initials'), 'rp')
    await user.type(screen.getByLabelText('PIN'), '1111{Enter}')
    expect(await screen.findByText(sentenceOf('pin-wrong'))).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>('Initials').value).toBe('rp')
    expect(client.getQueryData(keys.session)).toBeUndefined()
  })
  it('wants the password instead of the PIN the first time on a device, and keeps the initials', async () => {
    server.refuse(endpoints.switchPerson, 403, 'pin-first-password')
    const { user, client } = await open()
    await user.click(screen.getByRole('menuitem', { name: 'Somebody else' }))
    await user.type(screen.getByLabelText('Initials'), 'rp')
    await user.type(screen.getByLabelText('PIN'), '2280{Enter}')
    expect(await screen.findByText(sentenceOf('pin-first-password'))).toBeTruthy()
    server.to(endpoints.switchPerson, sessionOf('ruan'))
    await user.type(screen.getByLabelText('Password'), 'chalkdown-2{Enter}')
    await until(() => expect(client.getQueryData(keys.session)).toMatchObject({ person: { name: 'Ruan Pike' } }))
    expect(server.of(endpoints.switchPerson).at(-1)?.body).toEqual({ initials: 'RP', password: 'chalkdown-2' })
  })
  it('leaves nothing behind when the device is signed out, even where nobody answers', async () => {
    server.away(endpoints.signOut)
    const { user, client } = await open()
    client.setQueryData(keys.rack, ['somebody’s bikes'])
    drafts.put(NEW_BIKE_DRAFT, begunWith('Edda Quill', 'km'))
    await user.click(screen.getByRole('menuitem', { name: /Sign this device out/ }))
    await until(() => expect(client.getQueryData(keys.session)).toBeNull())
    expect(client.getQueryData(keys.rack)).toBeUndefined()
    expect(drafts.read(NEW_BIKE_DRAFT, TypedBike)).toBeNull()
  })
})
