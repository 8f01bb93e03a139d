import { describe, expect, it } from 'vitest'
import { ASSUMPTIONS, assumptionsWith, planPot, potInput } from '@pelrin/core'
import { at, chain, FROM } from './chain.testing.ts'

const RECIPES = ['soak-and-hang', 'bubble-out', 'cool-draw'] as const
const chains = RECIPES.flatMap((recipe, i) =>
  [0, 1, 2, 3, 4].map((n) =>
    chain(`${recipe} ${n}`, { recipe, needs: n === 0 ? 'strip' : 'nothing', readyBy: at(120 + 60 * i) }),
  ),
)
const pots = [{ id: 'copper', name: 'Copper', capacity: 4, onSince: null, thermometer: false, version: 1 }]
const bath = { load: 0, most: 60, change: false, since: null }

/** The plan of a session, and the band its pot is to hold, by what is assumed. */
function planned(key: string, to: number): string {
  const { pot } = assumptionsWith({ [key]: to })
  const input = potInput(
    { pots: pots.map((one) => ({ ...one, heatMinutes: pot.heatMinutes, bath })), chains },
    FROM,
    pot,
    () => false,
  )!
  return JSON.stringify([
    planPot(input).plan,
    RECIPES.map((recipe) => [pot[recipe].lowCelsius, pot[recipe].highCelsius]),
  ])
}

describe('every value of the pot’s session a shop may set', () => {
  const keys = ASSUMPTIONS.filter(({ key }) =>
    /^pot\.(?:.*Minutes|.*minutes|stripCapacity|railCapacity|hands|.*(?:low|high)Celsius)$/.test(key),
  ).filter(({ key }) => key !== 'pot.stuckMinutes')
  it.each(keys.map((one) => [one.key, one] as const))(
    '%s moves the plan or the band it is held to',
    (key, { lowest, highest }) => {
      expect(keys.length).toBeGreaterThan(20)
      const shipped = planned('pot.alarmCelsius', 115)
      expect([lowest, Math.min(highest, lowest + 70)].some((to) => planned(key, to) !== shipped)).toBe(true)
    },
  )
})
