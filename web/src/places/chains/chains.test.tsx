// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type BikeChains, type ChainJoint, type ChainThing } from '@pelrin/contract'
import { Answers, inApp } from '../../testing/inApp.tsx'
import { recordOf } from '../../testing/record.ts'
import { ChainsPlace } from './ChainsPlace.tsx'
import { until } from '../../testing/until.ts'

const link = (mayClose: ChainJoint['mayClose']): ChainJoint => ({
  id: `link ${mayClose}`,
  kind: 'link',
  name: 'Link 9',
  closings: 5,
  most: 5,
  firm: true,
  mayClose,
})
const chain = (id: string, name: string, more: Partial<ChainThing> = {}): ChainThing => ({
  id,
  version: 1,
  name,
  pitches: 114,
  care: 'immersion-wax',
  state: 'rotation',
  bike: null,
  km: 1200,
  governing: null,
  joint: link('yes'),
  ...more,
})
const first = chain('c1', 'Courier A', { state: 'on' })
const second = chain('c2', 'Courier B')
const spare = chain('c3', 'Spare', { state: 'spare', joint: link('by-feel') })
const chains: BikeChains = { on: first, rotation: [second], loose: [spare], undo: null }

let server: Answers
beforeEach(() => {
  server = new Answers()
    .to(endpoints.bike, recordOf('b1', 'Ivo Marsh'))
    .to(endpoints.bikeChains, chains)
    .to(endpoints.swapChain, chains)
    .away(endpoints.chain)
})
afterEach(() => vi.unstubAllGlobals())
const open = async () => {
  const app = inApp(<ChainsPlace />, { at: '/bikes/b1/chains', path: '/bikes/:id/chains' })
  await screen.findByRole('heading', { name: 'Ivo Marsh' })
  return app
}
const putOn = (name: string) => screen.getByRole('button', { name: `Put on: ${name}` })

describe('the chains of a bike', () => {
  it('each keep their digit, whichever is on', async () => {
    await open()
    const [own] = screen.getAllByRole('list')
    expect(
      within(own!)
        .getAllByRole('listitem')
        .map(({ textContent }) => textContent.slice(0, 10)),
    ).toEqual(['1Courier A', '2Courier B'])
  })
  it('are swapped by a digit, with the click of the link', async () => {
    const { user, told } = await open()
    await user.keyboard('2')
    expect(await screen.findByRole('dialog', { name: 'Back on: Courier B' })).toBeTruthy()
    expect(server.of(endpoints.swapChain)).toHaveLength(0)
    await user.keyboard('1')
    await until(() => expect(server.of(endpoints.swapChain)).toHaveLength(1))
    expect(server.of(endpoints.swapChain)[0]).toMatchObject({
      params: { id: 'b1' },
      body: { chainId: 'c2', click: 'firm', byFeel: false },
    })
    await until(() => expect(told).toHaveLength(1))
    expect(told[0]).toContain('Courier B')
  })
  it('write nothing where the one that is on is pressed', async () => {
    const { user } = await open()
    await user.keyboard('1')
    expect(server.of(endpoints.swapChain)).toHaveLength(0)
  })
  it('ask before a link is closed once more than its maker lets it be, and say so with the swap', async () => {
    const { user } = await open()
    await user.click(putOn('Spare'))
    const dialog = within(await screen.findByRole('dialog'))
    expect(server.of(endpoints.swapChain)).toHaveLength(0)
    expect(dialog.getByText(/as often as its maker allows/)).toBeTruthy()
    await user.keyboard('1')
    await until(() => expect(server.of(endpoints.swapChain)[0]?.body).toMatchObject({ chainId: 'c3', byFeel: true }))
  })
  it('ask for a new link from stock where the old one is used up, or did not click', async () => {
    const fresh = { id: 'l9', kind: 'link', maker: 'Tindrel', name: 'Firm 12', stock: 4 }
    server
      .to(endpoints.bikeChains, { ...chains, rotation: [chain('c2', 'Courier B', { joint: link('no') })] })
      .to(endpoints.bikeParts, { joints: [{ part: { model: fresh }, outcome: 'fits' }] })
    const { user } = await open()
    await user.click(putOn('Courier B'))
    expect(await screen.findByText(/used up/)).toBeTruthy()
    expect(await screen.findByRole('radio', { name: /Firm 12/ })).toBeTruthy()
    await user.keyboard('2')
    expect(screen.getByText(/no second try/)).toBeTruthy()
    await user.keyboard('1')
    await until(() =>
      expect(server.of(endpoints.swapChain)[0]?.body).toMatchObject({ chainId: 'c2', click: 'firm', linkPartId: 'l9' }),
    )
  })
  it('offer to take a swap of today back, and only then', async () => {
    await open()
    expect(screen.queryByRole('button', { name: /^Take/ })).toBeNull()
    server.to(endpoints.bikeChains, { ...chains, undo: 'f2' }).to(endpoints.undoSwap, chains)
    const { user } = await open()
    await user.keyboard('u')
    await until(() => expect(server.of(endpoints.undoSwap)[0]?.params).toEqual({ id: 'f2' }))
  })
  it('have the one looked at in their address', async () => {
    const { user, at } = await open()
    await user.keyboard('{ArrowDown}')
    expect(at()).toBe('/bikes/b1/chains?chain=c2')
  })
})
