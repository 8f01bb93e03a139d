// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { bikeQuestion, DEFAULTS, matchForBike, type BikeForParts, type ChainModel, type JointModel } from '@pelrin/core'
import { endpoints, type BikeParts } from '@pelrin/contract'
import { Answers, inApp } from '../../testing/inApp.tsx'
import { recordOf } from '../../testing/record.ts'
import { PartsPlace } from './PartsPlace.tsx'
import { until } from '../../testing/until.ts'

const chain = (id: string, name: string, more: Partial<ChainModel> = {}): ChainModel => ({
  ...{ id, maker: 'Mabry', name, speeds: [9], innerMm: 2.2, outerMm: 6.6, profile: 'plain', roller: 'standard' },
  ...{ approvedFor: [], excludedFrom: [], joints: ['link', 'pin'], markedOut: false, coating: 'plain' },
  ...{ flaredPins: false, motorRated: false, level: null, inBox: 116, jointInBox: 'link', price: 1700, stock: 2 },
  ...more,
})
const link = (id: string, maker: string, more: Partial<JointModel> = {}): JointModel => ({
  ...{ id, kind: 'link', maker, name: 'Link 9', speeds: [9], profile: 'plain', roller: 'standard', outerMm: 6.6 },
  ...{ reuse: { kind: 'times', most: 3 }, belongsTo: [], systems: [], arrow: false, letteredOut: false },
  ...{ openedBy: 'pliers', greased: false, guide: null, sheet: null, price: 500, stock: 4 },
  ...more,
})
const catalogue = {
  chains: [
    chain('nine', 'Nine'),
    chain('nine-s', 'Nine S', { price: 2500, stock: 0 }),
    chain('ten', 'Ten', { speeds: [10] }),
  ],
  joints: [link('own', 'Mabry'), link('other', 'Varrow')],
}
const bike: BikeForParts = {
  drive: {
    ...{ type: 'derailleur', speeds: 9, fronts: [48, 34], sprockets: [11, 13, 15, 17, 20, 23, 26, 30, 34] },
    ...{ system: null, level: null, ringWidth: null, motor: false, takenOff: false, chainstayMm: 430 },
    ...{ suspension: 'rigid', growthMm: null, statedAdd: null, pulleys: [11, 11], pulleysCounted: false },
    ...{ capacityTeeth: 39, largestSprocketTeeth: 34, axleMm: null, ownPitches: null, timing: null },
  },
  ...{ care: 'wet-oil', sprocketsSuspect: false, oldPitches: 112, presentChainId: null, present: null, kept: null },
}

/** What the server answers of the bike: its facts, and what fits, matched as it matches. */
const parts = (kept: BikeParts['kept'] = null): BikeParts => {
  const { question, pitches } = bikeQuestion(bike, { of: 'drive', joints: 'new', school: 'strict' }, DEFAULTS)
  return {
    ...bike,
    ...matchForBike(question, catalogue),
    pitches,
    kept,
    version: 1,
    systems: [],
  } as unknown as BikeParts
}

let server: Answers
beforeEach(() => {
  server = new Answers()
    .to(endpoints.bike, recordOf('b1', 'Ivo Marsh'))
    .to(endpoints.bikeParts, parts())
    .to(endpoints.keepParts, {})
    .to(endpoints.dropParts, {})
    .away(endpoints.matchingCatalogue)
})
afterEach(() => vi.unstubAllGlobals())
const open = async () => {
  const app = inApp(<PartsPlace />, { at: '/bikes/b1/parts', path: '/bikes/:id/parts' })
  await screen.findByRole('heading', { name: 'Ivo Marsh' })
  return app
}
const options = (list: string) =>
  within(screen.getByRole('listbox', { name: list }))
    .getAllByRole('option')
    .map(({ textContent }) => textContent)
const count = () => Number(/(\d+) pitches/.exec(screen.getByRole('heading', { name: /pitches$/ }).textContent)?.[1])

describe('parts for a bike', () => {
  it('are ranked, what fits first, each with what speaks against it, its price, and what is here', async () => {
    await open()
    const [first, second, last] = options('Chains')
    expect(first).toMatch(/^Mabry Nine.*17\.00.*2 here/)
    expect(second).toMatch(/^Mabry Nine S.*25\.00.*none here/)
    expect(last).toMatch(/^Mabry Ten.*does not fit: speeds/)
  })
  it('are kept for the job with the count they were chosen for, a joint of its own box not paid for', async () => {
    const { user } = await open()
    const pitches = count()
    await user.keyboard('k')
    await until(() => expect(server.of(endpoints.keepParts)).toHaveLength(1))
    const { body } = server.of(endpoints.keepParts)[0]!
    expect(body).toMatchObject({
      pitches,
      lines: [
        { partId: 'nine', quantity: 1, included: false },
        { partId: 'own', quantity: 1, included: true },
      ],
    })
  })
  it('are of an even count, two more or fewer by a key, and kept so', async () => {
    const { user } = await open()
    const before = count()
    expect(before % 2).toBe(0)
    await user.keyboard('{ArrowRight}{ArrowRight}{ArrowLeft}')
    expect(count()).toBe(before + 2)
    await user.keyboard('k')
    await until(() => expect(server.of(endpoints.keepParts)[0]?.body).toMatchObject({ pitches: before + 2 }))
  })
  it('that lie here already are let go by a key, of the version that was seen', async () => {
    const lines = parts()
      .chains.slice(0, 1)
      .map(({ part }) => ({
        ...{ id: 'line', partId: part.id, maker: part.maker, name: part.name, quantity: 1, included: false },
        ...{ price: 1700, here: 1, onOrder: 0 },
      }))
    const kept = { id: 'kept', version: 4, pitches: 112, by: 'TS', keptAt: '2026-11-28T10:00:00.000Z', lines }
    server.to(endpoints.bikeParts, parts(kept as unknown as BikeParts['kept']))
    const { user } = await open()
    expect(screen.getByRole('region', { name: /^Kept/ }).textContent).toContain('Mabry Nine')
    await user.click(screen.getByRole('button', { name: /^Let/ }))
    await until(() => expect(server.of(endpoints.dropParts)[0]).toMatchObject({ headers: { 'If-Match': '"4"' } }))
  })
  it('say why they are how long, by every way of finding it', async () => {
    await open()
    const lengths = within(screen.getByRole('region', { name: 'Length' }))
    expect(lengths.getAllByRole('listitem').length).toBeGreaterThanOrEqual(4)
    expect(lengths.getByText(/Largest ring and sprocket/)).toBeTruthy()
  })
  it('lead to the catalogue and back to the bike', async () => {
    const { user, at } = await open()
    await user.keyboard('l')
    expect(at()).toBe('/catalogue?bike=b1')
    const again = await open()
    await again.user.keyboard('b')
    expect(again.at()).toBe('/bikes/b1')
  })
})
