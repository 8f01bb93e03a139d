// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { endpoints, type Session } from '@pelrin/contract'
import { AddChainDialog } from '../places/chains/AddChainDialog.tsx'
import { NewBikePlace } from '../places/new-bike/NewBikePlace.tsx'
import { Answers, inApp, sessionOf } from '../testing/inApp.tsx'

const where = (shop: Partial<Session['shop']>): Session => {
  const session = sessionOf()
  return { ...session, shop: { ...session.shop, ...shop } }
}

describe('what is usual in a shop', () => {
  it('is offered first of a new chain', () => {
    inApp(<AddChainDialog bikeId="b1" like={null} onClose={() => undefined} />, {
      session: where({ careWays: ['drip-wax', 'dry-oil'] }),
    })
    expect(screen.getByRole('combobox', { name: 'Care' }).textContent).toBe('drip wax')
  })
  it('is how a new bike’s odometer counts', () => {
    new Answers().to(endpoints.customers, [])
    inApp(<NewBikePlace />, { session: where({ distanceUnit: 'mi' }) })
    expect(screen.getByRole('button', { name: 'mi' }).getAttribute('aria-pressed')).toBe('true')
  })
})
