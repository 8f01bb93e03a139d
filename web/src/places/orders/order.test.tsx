// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type Order } from '@pelrin/contract'
import { Answers, fill, inApp } from '../../testing/inApp.tsx'
import { OrderCard } from './OrderCard.tsx'
import { OrderDialog } from './OrderDialog.tsx'
import { until } from '../../testing/until.ts'

let server: Answers
const offer = { maker: 'Varrow', name: 'Eleven', price: 2450, days: 2, askedAt: '2026-11-29T09:00:00Z' }
const offers = [
  { ...offer, partId: 'chain', stock: 12 },
  { ...offer, partId: 'link', price: 310, stock: 1 },
]
const wanted = [
  { partId: 'chain', name: 'Varrow Eleven', quantity: 2 },
  { partId: 'link', name: 'Varrow Link 11', quantity: 3 },
  { partId: 'pin', name: 'Mabry Pin', quantity: 1 },
]
const order = (more: Partial<Order> = {}): Order => ({
  ...{ id: 'o1', version: 1, state: 'placed', number: 'A 17', expectedOn: null, problem: null, cost: 5210 },
  ...{ sentAt: '2026-11-29T09:00:00Z', by: 'Tove Sandell' },
  lines: [
    { id: 'l1', partId: 'chain', maker: 'Varrow', name: 'Eleven', quantity: 2, received: 0, price: 2450 },
    { id: 'l2', partId: 'link', maker: 'Varrow', name: 'Link 11', quantity: 1, received: 0, price: 310 },
  ] as unknown as Order['lines'],
  ...more,
})
beforeEach(() => {
  server = new Answers()
    .to(endpoints.orders, [])
    .to(endpoints.offers, { offers, problem: null, askedAt: offer.askedAt })
    .to(endpoints.placeOrder, {})
    .to(endpoints.receiveOrder, {})
})
afterEach(() => vi.unstubAllGlobals())
const count = (part: string) => screen.getByRole<HTMLInputElement>('textbox', { name: `How many ${part}` })
const place = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Order' })

describe('an order that is made', () => {
  const open = async () => {
    const app = inApp(<OrderDialog wanted={wanted} onClose={() => undefined} />)
    await screen.findByRole('textbox', { name: 'How many Varrow Eleven' })
    return app
  }
  it('asks for no more than they have, and leaves out what they do not sell', async () => {
    await open()
    expect([count('Varrow Eleven').value, count('Varrow Link 11').value]).toEqual(['2', '1'])
    expect(screen.getByText('Not in the supplier’s range.')).toBeTruthy()
    expect(screen.getByText('£52.10')).toBeTruthy()
  })
  it('is sent with the prices of now, by Enter, what is set to none left out', async () => {
    const { user } = await open()
    fill(count('Varrow Link 11'), '0')
    await user.type(count('Varrow Eleven'), '{Enter}')
    await until(() => expect(server.of(endpoints.placeOrder)).toHaveLength(1))
    expect(server.of(endpoints.placeOrder)[0]?.body).toMatchObject({
      lines: [{ partId: 'chain', quantity: 2, price: 2450 }],
    })
  })
  it('of half a chain is told at its count, and not sent', async () => {
    const { user } = await open()
    fill(count('Varrow Eleven'), '1.5')
    await user.click(place())
    expect(count('Varrow Eleven').getAttribute('aria-invalid')).toBe('true')
    expect(server.of(endpoints.placeOrder)).toHaveLength(0)
  })
  it('that nobody answered goes under the same number when it is sent again: nothing is ordered twice', async () => {
    server.away(endpoints.placeOrder)
    const { user } = await open()
    await user.click(place())
    expect((await screen.findByRole('alert')).textContent).toMatch(/^Pelrin did not answer/)
    server.to(endpoints.placeOrder, {})
    await user.click(place())
    await until(() => expect(server.of(endpoints.placeOrder)).toHaveLength(2))
    const ids = server.of(endpoints.placeOrder).map(({ body }) => (body as { id: string }).id)
    expect(new Set(ids).size).toBe(1)
  })
  it('by prices of before says so where the supplier does not answer', async () => {
    server.to(endpoints.offers, { offers, problem: 'supplier-away', askedAt: offer.askedAt })
    await open()
    expect(screen.getByText(/The supplier does not answer\./)).toBeTruthy()
  })
})

describe('an order that came', () => {
  it('is taken in by what came, what did not come left out', async () => {
    const { user } = inApp(<OrderCard order={order()} />)
    const [chain, link] = screen.getAllByRole<HTMLInputElement>('textbox')
    expect([chain!.value, link!.value]).toEqual(['2', '1'])
    fill(link!, '0')
    await user.click(screen.getByRole('button', { name: /came/i }))
    await until(() => expect(server.of(endpoints.receiveOrder)).toHaveLength(1))
    expect(server.of(endpoints.receiveOrder)[0]?.body).toEqual({ lines: [{ id: 'l1', quantity: 2 }] })
  })
  it('that was refused says why', () => {
    inApp(<OrderCard order={order({ state: 'refused', problem: 'supplier-failed' })} />)
    expect(screen.getByRole('status').textContent).toMatch(/supplier’s system has a fault/)
  })
})
