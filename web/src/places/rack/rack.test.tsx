// @vitest-environment happy-dom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { bikeOf } from '../../testing/bikes.ts'
import { Answers, inApp, type Asked } from '../../testing/inApp.tsx'
import { formats, formatsAreOf } from '../../messages/shopFormats.ts'
import { RackPlace } from './RackPlace.tsx'
import { until } from '../../testing/until.ts'

const BIKES = ['Ivo Marsh', 'Nell Quayle', 'Oda Thrift'].map((name, i) => bikeOf(`b${i + 1}`, name))

let server: Answers
beforeEach(() => {
  // As on paper: a document without a height would draw no row of a list that draws what is in sight.
  vi.stubGlobal('matchMedia', (query: string) => ({
    matches: query === 'print',
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }))
  server = new Answers().to(endpoints.rack, ({ query }: Asked) => ({
    bikes: query['cursor'] === undefined ? BIKES.slice(0, 2) : BIKES.slice(2),
    next: query['cursor'] === undefined ? 'further' : null,
    total: 3,
    counts: { all: 3, change: 1, measure: 2, 'closing-in': 0, overdue: 0, 'keep-riding': 0 },
  }))
})
afterEach(() => vi.unstubAllGlobals())

const open = async (at = '/rack') => {
  const app = inApp(<RackPlace />, { at, path: '/rack' })
  await screen.findByText('Nell Quayle')
  return app
}
const rows = () => screen.getAllByRole('row').slice(1)
const lastAsked = () => server.of(endpoints.rack).at(-1)?.query

describe('the rack', () => {
  it('asks for the next page before its place is in sight, and on paper has every bike that came', async () => {
    await open()
    await screen.findByText('Oda Thrift')
    expect(rows().map((row) => /Marsh|Quayle|Thrift/.exec(row.textContent)?.[0])).toEqual(['Marsh', 'Quayle', 'Thrift'])
  })
  it('goes by a column that is pressed, the other way round when pressed again, then as usual', async () => {
    const { user, at } = await open()
    const head = (name: string) => screen.getByRole('columnheader', { name })
    const press = () => user.click(within(head('Wear')).getByRole('button'))
    await press()
    expect(at()).toBe('/rack?sort=wear&way=down')
    await until(() => expect(lastAsked()).toMatchObject({ sort: 'wear', way: 'down' }))
    expect(head('Wear').getAttribute('aria-sort')).toBe('descending')
    await press()
    expect(at()).toBe('/rack?sort=wear&way=up')
    expect(head('Wear').getAttribute('aria-sort')).toBe('ascending')
    await press()
    expect(at()).toBe('/rack')
    expect(head('Wear').getAttribute('aria-sort')).toBe('none')
  })
  it('says how far each chain ran as the shop counts', async () => {
    const before = formats()
    server.to(endpoints.rack, {
      bikes: [{ ...bikeOf('b1', 'Nell Quayle'), chainKm: 1609.344 }],
      next: null,
      total: 1,
      counts: { all: 1 },
    })
    await open()
    expect(rows()[0]!.textContent).toContain('1,609 km')
    cleanup()
    formatsAreOf({ ...before, distanceUnit: 'mi' })
    await open()
    expect(rows()[0]!.textContent).toContain('1,000 mi')
    formatsAreOf(before)
  })
  it('has those looked at soonest on top first', async () => {
    const { user, at } = await open()
    await user.click(within(screen.getByRole('columnheader', { name: 'Next look' })).getByRole('button'))
    expect(at()).toBe('/rack?sort=next&way=up')
  })
  it('is narrowed down by a word and by how bikes stand, both in its address', async () => {
    const { user, at } = await open()
    await user.click(screen.getByRole('button', { name: /^Change/ }))
    await user.type(screen.getByLabelText('Customer, tag, frame mark'), 'quay')
    expect(at()).toBe('/rack?state=change&q=quay')
    await until(() => expect(lastAsked()).toMatchObject({ state: 'change', q: 'quay' }))
  })
  it('is walked by arrows, and leads to the bike chosen', async () => {
    const { user, at } = await open()
    await user.keyboard('{ArrowDown}')
    expect(rows()[1]?.getAttribute('aria-selected')).toBe('true')
    await user.keyboard('m')
    expect(at()).toBe('/bikes/b2/measure')
  })
  it('leaves out of its address what it does not know', async () => {
    await open('/rack?sort=height&state=lost')
    expect(server.of(endpoints.rack)[0]?.query).toEqual({})
  })
})
