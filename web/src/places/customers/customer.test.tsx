// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type CustomerPage } from '@pelrin/contract'
import { Answers, fill, inApp, sessionOf } from '../../testing/inApp.tsx'
import { until } from '../../testing/until.ts'
import { CustomerPlace } from './CustomerPlace.tsx'

const PAGE: CustomerPage = {
  ...{ id: 'c1', version: 4, name: 'Nan Oake', phone: '0555 0101', email: null, language: 'en', notes: 'rings first' },
  ...{
    goodWeekday: null,
    rhythmDays: 30,
    optedOut: false,
    reachedBy: null,
    emailRefused: false,
    erasedAt: null,
    mergedInto: null,
  },
  bikes: [
    { id: 'b1', label: 'Estuary', kind: 'gravel', tag: '7001', now: true, cameAt: null, wentAt: null, goneOn: null },
    {
      id: 'b2',
      label: 'Shopper',
      kind: 'town',
      tag: '7002',
      now: false,
      cameAt: null,
      wentAt: '2026-05-01T10:00:00Z',
      goneOn: null,
    },
  ],
  visits: [{ day: '2026-06-01', bike: 'Estuary', bikeId: 'b1', reason: 'chain noisy', state: 'done' }],
  messages: [{ at: '2026-06-02T10:00:00Z', text: 'Thank you', state: 'heard', theirs: true }],
  spent: { total: 4250, jobs: [{ at: '2026-06-01T12:00:00Z', bike: 'Estuary', amount: 4250 }] },
  merged: [{ id: 'c2', name: 'N. Oake', at: '2026-06-03T10:00:00Z' }],
}
let server: Answers
beforeEach(() => {
  server = new Answers().to(endpoints.customer, PAGE)
})
afterEach(() => vi.unstubAllGlobals())
const open = (session = sessionOf()) =>
  inApp(<CustomerPlace />, { at: '/customers/c1', path: '/customers/:id', session })

describe('the page of a customer', () => {
  it('says how to reach them, which bikes are and were theirs, and what they spent', async () => {
    open()
    expect((await screen.findByRole('link', { name: '0555 0101' })).getAttribute('href')).toBe('tel:0555 0101')
    expect(screen.getByText('a look every 30 days')).toBeTruthy()
    expect(screen.getByText(/somebody else’s since 1 May/)).toBeTruthy()
    expect(screen.getByRole('heading', { name: 'Spent: £42.50' })).toBeTruthy()
    expect(screen.getByText('Thank you')).toBeTruthy()
  })
  it('is corrected by its key; what somebody else wrote meanwhile stands beside what is typed', async () => {
    const { user } = open()
    await screen.findByText('Nan Oake')
    await user.keyboard('e')
    fill(await screen.findByLabelText('Phone'), '0555 0202')
    server.to(endpoints.changeCustomer, PAGE)
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await until(() => expect(server.of(endpoints.changeCustomer)).toHaveLength(1))
    const [asked] = server.of(endpoints.changeCustomer)
    expect(asked!.headers['If-Match']).toBe('"4"')
    expect(asked!.body).toMatchObject({ phone: '0555 0202', email: null, rhythmDays: 30, notes: 'rings first' })
  })
  it('takes a merge back', async () => {
    server.to(endpoints.unmergeCustomer, PAGE)
    const { user } = open()
    await user.click(await screen.findByRole('button', { name: 'They are two after all' }))
    await until(() => expect(server.of(endpoints.unmergeCustomer)[0]?.body).toEqual({ otherId: 'c2' }))
  })
  it('erases nobody before their name is typed, and says what stays', async () => {
    server.to(endpoints.erasure, { bikes: 1, messages: 2, rides: 30, notes: 1, spent: 4250, readings: 12 })
    server.to(endpoints.eraseCustomer, PAGE)
    const { user } = open()
    await user.click(await screen.findByRole('button', { name: 'Erase this customer' }))
    expect((await screen.findByText(/12 readings with their verdicts/)).textContent).toContain('£42.50')
    const erase = screen.getByRole('button', { name: 'Erase for good' })
    expect(erase).toHaveProperty('disabled', true)
    fill(screen.getByLabelText('Type “Nan Oake” to go on'), 'nan oake')
    await until(() => expect(erase).toHaveProperty('disabled', false))
    await user.click(erase)
    await until(() => expect(server.of(endpoints.eraseCustomer)).toHaveLength(1))
  })
  it('offers a mechanic nothing that is the owner’s', async () => {
    open(sessionOf('ruan'))
    await screen.findByText('Nan Oake')
    expect(screen.queryByRole('button', { name: 'Erase this customer' })).toBeNull()
    expect(screen.queryByRole('link', { name: 'All that is known of them, as a file' })).toBeNull()
  })
})
