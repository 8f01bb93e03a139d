// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type LineUp } from '@pelrin/contract'
import { bikeOf, visitOf } from '../../testing/bikes.ts'
import { Answers, inApp } from '../../testing/inApp.tsx'
import { StandPlace } from './StandPlace.tsx'
import { until } from '../../testing/until.ts'

const first = visitOf(bikeOf('b1', 'Ivo Marsh'), { id: 'v1', here: true, onStandSince: '2026-11-29T08:00:00Z' })
const second = visitOf(bikeOf('b2', 'Nell Quayle'), { id: 'v2', position: 2, reason: 'wax' })
const lineUp: LineUp = { day: '2026-11-29', visits: [first, second] }

let server: Answers
beforeEach(() => {
  server = new Answers()
    .to(endpoints.lineUp, lineUp)
    .to(endpoints.putOnStand, lineUp)
    .to(endpoints.moveVisit, lineUp)
    .away(endpoints.bike)
})
afterEach(() => vi.unstubAllGlobals())
const open = async () => {
  const app = inApp(<StandPlace />, { at: '/', path: '/' })
  await screen.findByRole('heading', { name: /^In today/ })
  return app
}
const chosen = () => screen.getAllByRole('button').find((one) => one.getAttribute('aria-current') !== null)?.textContent

describe('the day at the stand', () => {
  it('begins with the bike that is on it', async () => {
    await open()
    expect(chosen()).toContain('Ivo Marsh')
  })
  it('is walked by arrows, and a bike is put on the stand by Enter', async () => {
    const { user, at } = await open()
    await user.keyboard('{ArrowDown}')
    expect(at()).toBe('/?bike=b2')
    expect(chosen()).toContain('Nell Quayle')
    await user.keyboard('{Enter}')
    await until(() => expect(server.of(endpoints.putOnStand)[0]?.body).toMatchObject({ bikeId: 'b2' }))
  })
  it('leads from the bike chosen to everything about it, each by its letter', async () => {
    for (const [letter, path] of [
      ['m', '/bikes/b1/measure'],
      ['b', '/bikes/b1'],
      ['p', '/bikes/b1/parts'],
      ['t', '/bikes/b1/care'],
      ['x', '/bikes/b1/mend'],
    ]) {
      const { user, at } = await open()
      await user.keyboard(letter!)
      expect(at()).toBe(path)
    }
  })
  it('is put in another order, and is done with a bike, by keys that name the version they saw', async () => {
    const { user } = await open()
    await user.keyboard('{ArrowDown}{Alt>}{ArrowUp}{/Alt}')
    await until(() => expect(server.of(endpoints.moveVisit)).toHaveLength(1))
    const [moved] = server.of(endpoints.moveVisit)
    expect(moved).toMatchObject({ params: { id: second.id }, headers: { 'If-Match': '"1"' } })
    expect(moved?.body).toEqual({ before: first.id })
  })
  it('says whose bikes are in today, in their order: which is on the stand, and why the others are', async () => {
    await open()
    const list = within(screen.getByRole('list'))
    expect(list.getAllByRole('listitem').map((one) => /Marsh|Quayle/.exec(one.textContent)?.[0])).toEqual([
      'Marsh',
      'Quayle',
    ])
    const [here, waits] = list.getAllByRole('listitem').map(({ textContent }) => textContent)
    expect(here).toMatch(/on the stand/)
    expect(waits).toContain('wax')
  })
})
