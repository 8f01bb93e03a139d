import { DEFAULTS, POT_RECIPES, type PotInput } from '@pelrin/core'

/** A session of so many chains that wait for one pot, wanted over the day, the same every time. */
export function potSession(chains: number): PotInput {
  const { pot } = DEFAULTS
  return {
    chains: Array.from({ length: chains }, (_, i) => ({
      id: `chain ${i}`,
      readyBy: i % 4 === 3 ? null : 120 + ((i * 37) % 300),
      needs: i % 5 === 0 ? 'strip' : 'nothing',
      recipe: POT_RECIPES[i % 7 === 6 ? 2 : 0],
      stage: { kind: 'waiting' },
    })),
    shop: {
      ...pot,
      mechanics: pot.hands,
      recipes: pot,
      pots: [{ id: 'pot', capacity: 4, hotAt: pot.heatMinutes }],
    },
  }
}
