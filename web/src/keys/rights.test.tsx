// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { Allowed } from '../pieces/Allowed.tsx'
import { KeyButton } from '../pieces/KeyButton.tsx'
import { inApp, sessionOf } from '../testing/inApp.tsx'
import { useCommands } from './useCommands.ts'

const wash = vi.fn()
function Bench() {
  const none = { treatBy: null, treat: null, squeak: null, undo: null, toPot: null, wanted: null, plan: null }
  useCommands('care', { ...none, wash, measure: null, record: null, back: null })
  return (
    <>
      <KeyButton of="care.wash" onClick={wash}>
        Washed
      </KeyButton>
      <Allowed right="owner">
        <button type="button">Erase</button>
      </Allowed>
    </>
  )
}
const as = (role: 'owner' | 'mechanic' | 'read-only') => {
  wash.mockClear()
  const session = sessionOf()
  return inApp(<Bench />, { session: { ...session, person: { ...session.person, role } } })
}

describe('what somebody may not do', () => {
  it('is offered neither as a button nor by its key', async () => {
    const { user } = as('read-only')
    expect(screen.queryByRole('button', { name: /Washed/ })).toBeNull()
    await user.keyboard('w')
    expect(wash).not.toHaveBeenCalled()
  })
  it('is what others may, who find it with its key', async () => {
    const { user } = as('mechanic')
    expect(screen.getByRole('button', { name: /Washed/ })).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'Erase' })).toBeNull()
    await user.keyboard('w')
    expect(wash).toHaveBeenCalledOnce()
    as('owner')
    expect(screen.getByRole('button', { name: 'Erase' })).toBeTruthy()
  })
})
