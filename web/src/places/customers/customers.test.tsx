// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type ListedCustomer } from '@pelrin/contract'
import { Answers, fill, inApp } from '../../testing/inApp.tsx'
import { until } from '../../testing/until.ts'
import { CustomersPlace } from './CustomersPlace.tsx'

const customer = (id: string, name: string, more: Partial<ListedCustomer> = {}): ListedCustomer => ({
  ...{ id, name, phone: '0555 0101', email: null, optedOut: false, bikes: 1, lastOn: null, nextOn: null },
  ...more,
})
let server: Answers
beforeEach(() => {
  // As on paper: a document without a height would draw no row of a list that draws what is in sight.
  vi.stubGlobal('matchMedia', (query: string) => ({
    matches: query === 'print',
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }))
  server = new Answers()
})
afterEach(() => vi.unstubAllGlobals())
const open = async (...customers: ListedCustomer[]) => {
  server.to(endpoints.customerList, { customers, next: null, total: customers.length })
  const app = inApp(<CustomersPlace />, { at: '/customers' })
  await screen.findByRole('heading', { name: 'Every customer' })
  return app
}
const asked = () => server.of(endpoints.customerList).at(-1)?.query

describe('every customer', () => {
  it('stands in a list with how many bikes, when they were here and how they are reached', async () => {
    await open(
      customer('a', 'Nan Oake', { bikes: 3, email: 'nan@quay.test' }),
      customer('b', 'Ivo Marsh', { phone: null }),
      customer('c', 'Oda Thrift', { optedOut: true }),
    )
    expect(await screen.findByText('0555 0101, nan@quay.test')).toBeTruthy()
    expect(screen.getByText('no number, no address')).toBeTruthy()
    expect(screen.getByText('no messages')).toBeTruthy()
    expect(screen.getByText('3 customers')).toBeTruthy()
  })
  it('is put in order by a column, the other way round when pressed again', async () => {
    const { user } = await open(customer('a', 'Nan Oake'))
    await screen.findByText('Nan Oake')
    await user.click(screen.getByRole('button', { name: 'Bikes' }))
    await until(() => expect(asked()).toMatchObject({ sort: 'bikes', way: 'down' }))
    await user.click(screen.getByRole('button', { name: 'Bikes' }))
    await until(() => expect(asked()).toMatchObject({ sort: 'bikes', way: 'up' }))
  })
  it('is looked for as one types, and opened by keys', async () => {
    const { user, at } = await open(customer('a', 'Nan Oake'), customer('b', 'Nan Quill'))
    await screen.findByText('Nan Quill')
    fill(screen.getByRole('textbox', { name: 'Name, number, e-mail' }), 'nan')
    await until(() => expect(asked()).toMatchObject({ q: 'nan' }))
    await user.keyboard('{ArrowDown}{Enter}')
    expect(at()).toBe('/customers/b')
  })
  it('says so where there is nobody yet', async () => {
    await open()
    expect(await screen.findByText(/Nobody yet/)).toBeTruthy()
  })
})
