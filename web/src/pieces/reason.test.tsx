// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { AwayError, ProblemError } from '../api/client.ts'
import { inApp } from '../testing/inApp.tsx'
import { ReasonDialog } from './ReasonDialog.tsx'
import { until } from '../testing/until.ts'

const close = vi.fn()
const write = vi.fn<(reason: string) => Promise<void>>()
beforeEach(() => {
  close.mockReset()
  write.mockReset().mockResolvedValue()
})
const open = (ready = true) =>
  inApp(<ReasonDialog access="decide" title="Take it back" go="Do it" ready={ready} onClose={close} onReason={write} />)
const reason = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Reason' })

describe('what wants a reason', () => {
  it('is done with it by Enter, blanks around it left out', async () => {
    const { user } = open()
    expect(document.activeElement).toBe(reason())
    await user.keyboard('  wrong bike {Enter}')
    expect(write).toHaveBeenCalledWith('wrong bike')
    expect(close).toHaveBeenCalledOnce()
  })
  it('is not done without one: it is said at the field, until something is typed', async () => {
    const { user } = open()
    await user.keyboard('   {Enter}')
    expect(write).not.toHaveBeenCalled()
    expect(reason().getAttribute('aria-invalid')).toBe('true')
    await user.keyboard('x')
    expect(reason().getAttribute('aria-invalid')).toBe('false')
  })
  it('stays open with what was typed where it is refused, or nobody answers', async () => {
    const { user } = open()
    write.mockRejectedValueOnce(
      new ProblemError({
        status: 409,
        code: 'said-by-a-newer-server',
        detail: 'It was closed meanwhile.',
        requestId: 'r',
      } as never),
    )
    await user.keyboard('wrong bike{Enter}')
    expect(await screen.findByText('It was closed meanwhile.')).toBeTruthy()
    write.mockRejectedValueOnce(new AwayError())
    await user.keyboard('{Enter}')
    expect(await screen.findByText(/^Pelrin did not answer, so this is not saved/)).toBeTruthy()
    expect(reason().value).toBe('wrong bike')
    expect(close).not.toHaveBeenCalled()
    await user.keyboard('{Enter}')
    expect(close).toHaveBeenCalledOnce()
  })
  it('is done once, though it is pressed again before it is through', async () => {
    let through = (): void => undefined
    write.mockReturnValue(new Promise((resolve) => (through = resolve)))
    const { user } = open()
    await user.keyboard('wrong bike{Enter}{Enter}')
    expect(write).toHaveBeenCalledOnce()
    through()
    await until(() => expect(close).toHaveBeenCalledOnce())
  })
  it('waits for what is still to be chosen above it', async () => {
    const { user } = open(false)
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Do it' }).disabled).toBe(true)
    await user.keyboard('{Escape}')
    expect(close).toHaveBeenCalledOnce()
  })
})
