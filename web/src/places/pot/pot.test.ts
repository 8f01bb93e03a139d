import { describe, expect, it } from 'vitest'
import { DEFAULTS, planPot, potInput, SHIPPED_WAX } from '@pelrin/core'
import type { PotBoard, PotChainNow } from '@pelrin/contract'
import { timeOn } from '../../messages/timeOn.ts'
import { at, chain, FROM } from './chain.testing.ts'
import { potActions } from './potActions.ts'
import { ofBike, shortName } from './shortName.ts'

const TIMES = DEFAULTS.pot
const board = (chains: PotChainNow[], onSince: string | null = at(-60)): PotBoard => ({
  pots: [
    {
      id: 'copper',
      name: 'Copper',
      capacity: 4,
      onSince,
      thermometer: false,
      vessel: 'thermostat',
      heatMinutes: DEFAULTS.pot.heatMinutes,
      alarmCelsius: DEFAULTS.pot.alarmCelsius,
      own: { heatMinutes: null, alarmCelsius: null },
      bath: { load: 0, most: 60, change: false, since: null },
      version: 1,
    },
  ],
  chains,
  done: [],
  hung: [],
  waxing: SHIPPED_WAX,
  candidates: [],
  learned: [],
  assumptions: {},
})
const inputOf = (chains: PotChainNow[], onSince?: string | null, hot = false) =>
  potInput(board(chains, onSince), FROM, TIMES, () => hot)!
const actionsOf = (chains: PotChainNow[]) => potActions(planPot(inputOf(chains)).plan, FROM, chains)

describe('what the planner is asked', () => {
  it('is the board in minutes from now, what is begun before it', () => {
    const { chains } = inputOf([
      chain('a', { readyBy: at(90), notBefore: at(-5) }),
      chain('b', { state: 'in-pot', potId: 'copper', since: at(-7.5) }),
      chain('c', { state: 'hanging', potId: 'copper', since: at(-3) }),
    ])
    expect(chains).toMatchObject([
      { readyBy: 90, notBefore: 0, stage: { kind: 'waiting' } },
      { readyBy: null, stage: { kind: 'in-pot', since: -7, pot: 'copper' } },
      { stage: { kind: 'hanging', since: -3 } },
    ])
  })
  it('takes what only has to dry as drying since it lies there', () => {
    expect(inputOf([chain('a', { needs: 'dry', addedAt: at(-4) })]).chains[0]!.stage).toEqual({
      kind: 'drying',
      since: -4,
    })
  })
  it('waits for a pot that is cold or cooled by its last dip, and believes a thermometer before that', () => {
    expect(inputOf([chain('a')], null).shop.pots[0]!.hotAt).toBe(TIMES.heatMinutes)
    expect(inputOf([chain('a')], at(-10)).shop.pots[0]!.hotAt).toBe(TIMES.heatMinutes - 10)
    expect(inputOf([chain('a')], at(-10), true).shop.pots[0]!.hotAt).toBeLessThanOrEqual(0)
    const cooled = chain('b', { state: 'hanging', potId: 'copper', recipe: 'cool-draw', since: at(-3) })
    expect(inputOf([chain('a'), cooled]).shop.pots[0]!.hotAt).toBe(TIMES['cool-draw'].reheatMinutes - 3)
  })
  it('is nothing without a pot', () => {
    expect(potInput({ ...board([]), pots: [] }, FROM, TIMES, () => false)).toBeNull()
  })
})

describe('what is to be done next', () => {
  it('is what the plan has first, with chains that go together', () => {
    const [first] = actionsOf([chain('a'), chain('b')])
    expect(first).toMatchObject({ what: 'load', to: 'in-pot', potId: 'copper', at: FROM })
    expect(first!.chains.map(({ id }) => id).sort()).toEqual(['a', 'b'])
  })
  it('leaves out what follows upon something that is not done yet', () => {
    expect(actionsOf([chain('a', { needs: 'strip' })]).map(({ what }) => what)).toEqual(['strip', 'load'])
    const bath = actionsOf([chain('a', { needs: 'strip', state: 'stripping', since: at(-20) })])
    expect(bath.map(({ what, at: due }) => [what, due - FROM])).toEqual([['unstrip', 5 * 60_000]])
  })
  it('says when what is in the wax is drawn and what hangs is flexed', () => {
    const now = actionsOf([
      chain('a', { state: 'in-pot', potId: 'copper', since: at(-4) }),
      chain('b', { state: 'hanging', since: at(-30) }),
    ])
    expect(now.map(({ what, to }) => [what, to])).toEqual([
      ['flex', 'done'],
      ['draw', 'hanging'],
    ])
  })
})

describe('words and times', () => {
  it('tells twins by what is tied to them', () => {
    expect([shortName(chain('a')), ofBike(chain('a'))]).toEqual(['Mara Lisk, red tie', 'Courier, red tie'])
    expect(shortName(chain('a', { bike: null }))).toBe('Varrow Twelve, red tie')
    expect(shortName(chain('a', { chain: 'Varrow Twelve' }))).toBe('Mara Lisk')
  })
  it('reads a time of today as people type it, and no other', () => {
    const read = (typed: string) => {
      const time = timeOn(typed, '2026-03-02')
      return time == null ? time : new Date(time).getHours() * 100 + new Date(time).getMinutes()
    }
    expect(['14:30', '14.30', '1430', ' 9:05 ', ''].map(read)).toEqual([1430, 1430, 1430, 905, null])
    expect(['25:00', '12:60', 'soon', '9'].map(read)).toEqual([undefined, undefined, undefined, undefined])
  })
})
