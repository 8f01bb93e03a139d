// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type BikeSummary } from '@pelrin/contract'
import { bikeOf } from '../testing/bikes.ts'
import { Answers, inApp, type Asked, type InApp } from '../testing/inApp.tsx'
import { Finder } from './Finder.tsx'
import { until } from '../testing/until.ts'

const nell = bikeOf('nell', 'Nell Quayle', { label: 'Sand racer', tag: '0449' })
const mara = bikeOf('mara', 'Mara Lisk', {
  label: 'Courier',
  tag: '0412',
  verdict: 'change',
  standing: { word: 'change', because: 'verdict', chance: null },
})
const all = [nell, mara]
const found = ({ query }: Asked): BikeSummary[] =>
  all.filter((bike) =>
    `${bike.customer.name} ${bike.label} ${bike.tag}`.toLowerCase().includes(query['q']!.toLowerCase()),
  )

let server: Answers
let app: InApp
beforeEach(() => {
  server = new Answers().to(endpoints.find, found).to(endpoints.putOnStand, { day: '2026-11-26', visits: [] })
  app = inApp(<Finder />, { at: '/rack' })
})
afterEach(() => vi.unstubAllGlobals())
const slash = () => fireEvent.keyDown(document.body, { key: '/', code: 'Slash' })
const finder = () => screen.getByRole<HTMLInputElement>('combobox', { name: 'Find a bike' })

describe('the finder', () => {
  it('opens by a slash, and by a name that is begun anywhere', async () => {
    slash()
    expect(document.activeElement).toBe(finder())
    expect(finder().value).toBe('')
    await app.user.keyboard('{Escape}')
    expect(document.activeElement).not.toBe(finder())
    await app.user.keyboard('nell')
    expect(finder().value).toBe('nell')
  })
  it('shows who has a bike, which, its tag and how it is with its chain', async () => {
    await app.user.keyboard('mara')
    const option = await screen.findByRole('option', { name: /Mara Lisk/ })
    expect(option.textContent).toMatch(/Courier.*tag 0412/)
    expect(screen.getByRole('img', { name: 'Change the chain' })).toBeTruthy()
  })
  it('puts the first on the stand by Enter, and is empty again', async () => {
    await app.user.keyboard('0449')
    await screen.findByRole('option', { name: /Nell Quayle/ })
    await app.user.keyboard('{Enter}')
    expect(app.at()).toBe('/?bike=nell')
    expect(finder().value).toBe('')
    expect(server.of(endpoints.putOnStand)[0]?.body).toMatchObject({ bikeId: 'nell' })
  })
  it('waits for its answer where Enter was quicker', async () => {
    let answer = (): void => undefined
    server.to(endpoints.find, (asked: Asked) => new Promise((resolve) => (answer = () => resolve(found(asked)))))
    await app.user.keyboard('mara{Enter}')
    expect(app.at()).toBe('/rack')
    answer()
    await until(() => expect(app.at()).toBe('/?bike=mara'))
    expect(server.of(endpoints.putOnStand)).toHaveLength(1)
  })
  it('reads a tag’s code as its number, when a scanner types it', async () => {
    slash()
    await app.user.paste('https://pelrin.example/t/0449')
    await screen.findByRole('option', { name: /Nell Quayle/ })
    await app.user.keyboard('{Enter}')
    expect(app.at()).toBe('/?bike=nell')
  })
  it('takes in a bike that nobody has found, with what was typed', async () => {
    slash()
    await app.user.keyboard('zora quint')
    const option = await screen.findByRole('option')
    expect(option.textContent).toContain('zora quint')
    await app.user.keyboard('{Enter}')
    expect(app.at()).toBe('/new-bike?for=zora+quint')
    expect(server.of(endpoints.putOnStand)).toHaveLength(0)
  })
  it('goes through what it found by the arrows, the way to take one in last', async () => {
    slash()
    await app.user.keyboard('04')
    expect(await screen.findAllByRole('option')).toHaveLength(3)
    await app.user.keyboard('{ArrowDown}{Enter}')
    expect(app.at()).toBe('/?bike=mara')
  })
  it('shows the bike though the stand could not be told, and says nothing false', async () => {
    server.away(endpoints.putOnStand)
    await app.user.keyboard('mara')
    await screen.findByRole('option', { name: /Mara Lisk/ })
    await app.user.keyboard('{Enter}')
    await until(() => expect(server.of(endpoints.putOnStand)).toHaveLength(1))
    expect(app.at()).toBe('/?bike=mara')
  })
})
