// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { inApp } from '../testing/inApp.tsx'
import { DayOrder } from './DayOrder.tsx'
import { TableWritten } from './TableWritten.tsx'

describe('days of a table that can be read two ways', () => {
  it('are asked about by the file’s own cells, with nothing chosen yet', async () => {
    const say = vi.fn()
    const days = { order: null, examples: ['05-06-2021'] }
    const { user } = inApp(<DayOrder days={days} dayFirst={undefined} onSay={say} />)
    expect(screen.getByText(/05-06-2021\. Which day is it/)).toBeTruthy()
    const choices = screen.getAllByRole<HTMLInputElement>('radio')
    expect(choices.map(({ checked }) => checked)).toEqual([false, false])
    await user.click(screen.getByRole('radio', { name: '05-06-2021 is 5 Jun 2021' }))
    expect(say).toHaveBeenLastCalledWith(true)
    await user.click(screen.getByRole('radio', { name: '05-06-2021 is 6 May 2021' }))
    expect(say).toHaveBeenLastCalledWith(false)
  })
  it('are no question where the file tells', () => {
    inApp(<DayOrder days={{ order: 'month-first', examples: [] }} dayFirst={undefined} onSay={vi.fn()} />)
    expect(screen.getByText('Days are written month first.')).toBeTruthy()
    expect(screen.queryByRole('radio')).toBeNull()
  })
})

describe('how a table is written', () => {
  it('is named before anything of it is believed', () => {
    inApp(<TableWritten written={{ encoding: 'windows-1252', delimiter: ';' }} />)
    expect(screen.getByText(/Read as WINDOWS-1252, columns parted by semicolons/)).toBeTruthy()
  })
})
