// @vitest-environment happy-dom
import { Button } from '@mui/material'
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { ask } from '../api/client.ts'
import { Answers, fill, inApp, sessionOf } from '../testing/inApp.tsx'
import { until } from '../testing/until.ts'
import { SignInAgain } from './SignInAgain.tsx'

let server: Answers
const answered = vi.fn()
beforeEach(() => {
  server = new Answers().refuse(endpoints.addChain, 401, 'not-signed-in').to(endpoints.signIn, sessionOf('ruan'))
  answered.mockClear()
})
afterEach(() => vi.unstubAllGlobals())

function Bench() {
  const write = async (): Promise<void> => {
    const body = { id: 'c1', name: 'A chain', pitches: null, care: 'unknown' as const }
    answered(await ask(endpoints.addChain, { params: { id: 'b1' }, key: 'c1', body }).catch(() => 'refused'))
  }
  return (
    <>
      <input aria-label="Half typed" defaultValue="" />
      <Button onClick={() => void write()}>Write</Button>
      <SignInAgain session={sessionOf()} />
    </>
  )
}

describe('a session that ends in mid-work', () => {
  it('is gone on with by whoever signs in, and what was sent goes again', async () => {
    const { user, client } = inApp(<Bench />)
    fill(screen.getByLabelText('Half typed'), '204.6')
    await user.click(screen.getByRole('button', { name: 'Write' }))
    fill(await screen.findByLabelText('Name'), 'ruan')
    fill(screen.getByLabelText('Password'), 'chalkdown-2')
    server.to(endpoints.addChain, { done: true })
    await user.click(screen.getByRole('button', { name: 'Sign in' }))
    await until(() => expect(answered).toHaveBeenCalledWith({ done: true }))
    // Both under one key: the server does it once.
    const keys = server.of(endpoints.addChain).map(({ headers }) => headers['Idempotency-Key'])
    expect(keys).toEqual(['c1', 'c1'])
    expect(server.of(endpoints.signIn)[0]!.body).toMatchObject({ shop: 'saltmarsh', name: 'ruan' })
    expect(screen.getByLabelText<HTMLInputElement>('Half typed').value).toBe('204.6')
    expect(client.getQueryData(['session'])).toMatchObject({ person: { name: 'Ruan Pike' } })
  })
  it('closed, it refuses what was sent, and asks again when something is written, not when something is looked at', async () => {
    server.refuse(endpoints.lineUp, 401, 'not-signed-in')
    const { user } = inApp(<Bench />)
    await user.click(screen.getByRole('button', { name: 'Write' }))
    await screen.findByLabelText('Name')
    await user.keyboard('{Escape}')
    await until(() => expect(answered).toHaveBeenCalledWith('refused'))
    await ask(endpoints.lineUp).catch(() => undefined)
    expect(screen.queryByLabelText('Name')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Write' }))
    await screen.findByLabelText('Name')
  })
})
