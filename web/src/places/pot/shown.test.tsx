import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import { DEFAULTS, planPot, potInput } from '@pelrin/core'
import type { PotBoard, PotChainNow } from '@pelrin/contract'
import { at, chain as waiting, FROM } from './chain.testing.ts'
import { NextActions } from './NextActions.tsx'
import { asItStands, potActions } from './potActions.ts'
import { PotTimeline } from './PotTimeline.tsx'
import { textOf } from '../../testing/textOf.ts'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const chain = (id: string, customer: string, more: Partial<PotChainNow> = {}): PotChainNow =>
  waiting(id, { bike: { id: `bike ${id}`, label: 'Courier', customer }, ...more })
const pots: PotBoard['pots'] = [
  {
    id: 'copper',
    name: 'Copper',
    capacity: 4,
    onSince: at(-60),
    thermometer: false,
    vessel: 'thermostat',
    heatMinutes: DEFAULTS.pot.heatMinutes,
    alarmCelsius: DEFAULTS.pot.alarmCelsius,
    own: { heatMinutes: null, alarmCelsius: null },
    bath: { load: 0, most: 60, change: false, since: null },
    version: 1,
  },
]
const planned = (chains: PotChainNow[]) => planPot(potInput({ pots, chains }, FROM, DEFAULTS.pot, () => true)!)

describe('what is next at the pot', () => {
  const said = (chains: PotChainNow[], now = FROM, moved: readonly string[] = []): string =>
    renderToStaticMarkup(
      <NextActions
        actions={potActions(planned(chains).plan, FROM, chains)}
        pots={pots}
        now={now}
        moved={moved}
        onDo={() => undefined}
        onDry={() => undefined}
      />,
    )
  it('names the pot, the recipe and whose chains go in together; only the first is Enter', () => {
    const markup = said([
      chain('a', 'Mara Lisk'),
      chain('b', 'Noll Fathom'),
      chain('c', 'Ivo Marsh', { needs: 'strip' }),
    ])
    expect(textOf(markup)).toMatch(
      /Into the stripping bath.*Ivo Marsh|Into Copper, soak and hang.*Mara Lisk; Noll Fathom/,
    )
    expect(markup.match(/Enter/g)).toHaveLength(1)
    expect(markup.match(/role="timer"/g)).toHaveLength(1)
  })
  it('counts down by the clock to what is not due, and up from what is late', () => {
    const wax = [chain('a', 'Mara Lisk', { state: 'in-pot', potId: 'copper', since: at(-2) })]
    expect(textOf(said(wax))).toMatch(/in 1\d:00, 1\d:1\d/)
    expect(textOf(said(wax, FROM + 60 * 60_000))).toMatch(/4\d:00/)
  })
  it('holds back only what is being written: the next may be pressed meanwhile', () => {
    const chains = [chain('a', 'Mara Lisk', { needs: 'strip' }), chain('b', 'Noll Fathom')]
    const actions = potActions(planned(chains).plan, FROM, chains)
    const sent = actions[0]!.chains
    const buttons = said(chains, FROM, sent.map(asItStands)).match(/<button[^>]*>/g) ?? []
    const held = actions.map((action) => action.chains.some((one) => sent.includes(one)))
    expect(new Set(held)).toEqual(new Set([true, false]))
    expect(buttons.map((button) => button.includes('disabled=""'))).toEqual(held)
  })
  it('holds a chain back by whatever plan it is asked for, until it is shown where it went', () => {
    const alone = chain('a', 'Mara Lisk')
    const beside = [alone, chain('b', 'Noll Fathom')]
    expect(said(beside, FROM, [asItStands(alone)])).toContain('disabled=""')
    const drawn = chain('a', 'Mara Lisk', { state: 'in-pot', potId: 'copper', since: at(-20), version: 2 })
    expect(said([drawn], FROM, [asItStands(alone)])).not.toContain('disabled=""')
  })
  it('says that nothing is to be done where nothing is', () => {
    expect(textOf(said([]))).toContain('Nothing')
  })
})

describe('a session drawn over time', () => {
  const drawn = (chains: PotChainNow[], chosenId?: string): string =>
    renderToStaticMarkup(
      <PotTimeline
        plan={{ ...planned(chains), from: FROM }}
        pots={pots}
        chains={chains}
        chosenId={chosenId}
        now={FROM}
        onChoose={() => undefined}
        onPin={() => undefined}
      />,
    )
  it('has a row a pot and a chain, its dips numbered in their order', () => {
    const markup = drawn([chain('a', 'Mara Lisk'), chain('b', 'Noll Fathom', { recipe: 'cool-draw' })])
    expect(textOf(markup)).toMatch(/Copper 1 2 Mara Lisk .* Noll Fathom/)
  })
  it('says at its chain by how much a promise is late, and marks what is pinned', () => {
    const markup = drawn([chain('a', 'Mara Lisk', { readyBy: at(10), notBefore: at(20) })])
    expect(textOf(markup)).toMatch(/\d+ min late/)
    expect(markup).toContain('<circle')
    expect(drawn([chain('a', 'Mara Lisk', { readyBy: at(300) })])).not.toMatch(/min late|<circle/)
  })
  it('is not squeezed by a promise far off', () => {
    const widthOfHang = (markup: string): number =>
      Number(/<rect[^>]*? width="([\d.]+)"[^>]*opacity="0.28"/.exec(markup)?.[1])
    const near = widthOfHang(drawn([chain('a', 'Mara Lisk', { readyBy: at(60) })]))
    const far = widthOfHang(drawn([chain('a', 'Mara Lisk', { readyBy: at(3000) })]))
    expect(far).toBeGreaterThan(near * 0.8)
  })
})
