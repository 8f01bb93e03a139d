// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { inApp } from '../../testing/inApp.tsx'
import { NamedInstruments } from './NamedInstruments.tsx'

describe('instruments a table only names', () => {
  it('are asked for in one list, and told together', async () => {
    const say = vi.fn()
    const { user } = inApp(<NamedInstruments names={['Old brass rule', 'Red tool']} busy={false} onSay={say} />)
    const go = screen.getByRole<HTMLButtonElement>('button', { name: 'Read it so' })
    expect(go.disabled).toBe(true)
    for (const name of ['Old brass rule', 'Red tool']) {
      await user.click(screen.getByRole('combobox', { name }))
      await user.keyboard('{ArrowDown}{Enter}')
    }
    await user.click(go)
    expect(Object.keys(say.mock.calls[0]![0] as object)).toEqual(['Old brass rule', 'Red tool'])
  })
})
