// @vitest-environment happy-dom
import { act, fireEvent, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { inApp } from '../testing/inApp.tsx'
import { useTold } from './Told.tsx'

function Bench() {
  const { tell, told } = useTold()
  return (
    <>
      <button onClick={() => tell('Written down.')}>first</button>
      <button onClick={() => tell('It is on.')}>second</button>
      {told}
    </>
  )
}
afterEach(() => void vi.useRealTimers())

describe('what is said in passing', () => {
  it('stands for five seconds of its own, though something else stood there before', () => {
    vi.useFakeTimers()
    inApp(<Bench />)
    const pass = (ms: number): void => act(() => void vi.advanceTimersByTime(ms))
    fireEvent.click(screen.getByText('first'))
    pass(4_500)
    fireEvent.click(screen.getByText('second'))
    pass(4_500)
    // Had the first one's time gone on, it would have been through by now.
    pass(400)
    expect(screen.getByRole('alert').textContent).toBe('It is on.')
    // Time to go, then going.
    pass(1_000)
    pass(1_000)
    expect(screen.queryByText('It is on.')).toBeNull()
  })
})
