import { describe, expect, it } from 'vitest'
import {
  DEFAULTS,
  HEATING,
  POT_RECIPES,
  POT_VESSELS,
  SHIPPED_WAX,
  WAXING,
  waxingAsUsual,
  WAX_FINISHES,
} from '../index.ts'
import { POT_ACTIONS, potSteps } from './potSteps.ts'

const pot = { vessel: 'thermostat', heatMinutes: 12 } as const

describe('what the pot tells to do', () => {
  it('is every step of a recipe once, at one action or another, in the order of the recipe', () => {
    for (const recipe of POT_RECIPES)
      for (const vessel of POT_VESSELS)
        for (const finish of WAX_FINISHES) {
          const waxing = waxingAsUsual({ ...SHIPPED_WAX, recipe, finish }, DEFAULTS.pot, { ...pot, vessel })
          const told = (['load', 'draw', 'flex'] as const).flatMap((what) => potSteps(what, waxing).map(({ id }) => id))
          const all = WAXING.filter(({ when }) => when(waxing)).map(({ id }) => id)
          expect(told).toEqual(expect.arrayContaining(all))
          expect(told).toHaveLength(all.length)
        }
  })
  it('waits as long as the recipe and the pot say', () => {
    const waxing = waxingAsUsual(SHIPPED_WAX, DEFAULTS.pot, pot)
    expect(HEATING.waits?.(waxing)).toBe(12)
    const soak = potSteps('draw', waxing).find(({ id }) => id === 'soak-wax')
    expect(soak?.waits).toBe(DEFAULTS.pot['soak-and-hang'].minutes)
  })
  it('strips and dries before the wax', () => {
    const waxing = waxingAsUsual(SHIPPED_WAX, DEFAULTS.pot, pot)
    expect(POT_ACTIONS.slice(0, 2).map((what) => potSteps(what, waxing).map(({ id }) => id))).toEqual([
      ['strip-chain'],
      ['dry'],
    ])
  })
})
