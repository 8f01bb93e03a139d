// @vitest-environment happy-dom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { DueAtHome } from '@pelrin/contract'
import { inApp } from '../../testing/inApp.tsx'
import { remindableAtHome } from '../messages/remindable.ts'
import { AtHome } from './AtHome.tsx'

afterEach(cleanup)

const bike = (id: string, customer: string, on: string, remindedAt: string | null = null): DueAtHome => ({
  customer: { id: customer, name: `Customer ${customer}` },
  bike: { id, label: `Bike ${id}` },
  on,
  care: 'wet-oil',
  remindedAt,
})

describe('chains that are treated at home', () => {
  it('are listed with their day, and those nobody was reminded of yet are reminded at once', async () => {
    const remind = vi.fn()
    const { user } = inApp(
      <AtHome
        bikes={[bike('a', '1', '2026-12-04'), bike('b', '2', '2026-12-05', '2026-11-29T10:00:00Z')]}
        onRemind={remind}
      />,
    )
    const said = screen.getAllByRole('listitem').map(({ textContent }) => textContent)
    expect(said).toEqual([expect.not.stringContaining('reminded'), expect.stringMatching(/Bike b.*reminded 29 Nov/)])
    await user.click(screen.getByRole('button', { name: 'Remind the one' }))
    expect(remind).toHaveBeenCalledOnce()
  })
  it('are nowhere where there are none', () => {
    inApp(<AtHome bikes={[]} onRemind={vi.fn()} />)
    expect(screen.queryByRole('region')).toBeNull()
  })
  it('are one reminder a customer and day, whatever the number of bikes; none for who has one', () => {
    const asked = remindableAtHome([
      bike('a', '1', '2026-12-04'),
      bike('b', '1', '2026-12-04'),
      bike('c', '1', '2026-12-20'),
      bike('d', '2', '2026-12-04', '2026-11-29T10:00:00Z'),
    ])
    expect(asked.map(({ purpose, customerId, day, bikes }) => [purpose, customerId, day, bikes.length])).toEqual([
      ['home', '1', '2026-12-04', 2],
      ['home', '1', '2026-12-20', 1],
    ])
  })
})
