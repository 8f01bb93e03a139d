import { describe, expect, it } from 'vitest'
import { judgeSimulated } from './simulateJudging.ts'

const prices = [{ name: 'as shipped', chain: 38, cassette: 64, rings: 95, look: 1 }]
const run = (spots: number, u = 0.06) =>
  judgeSimulated({ chains: 300, seed: 1, setting: { spots, u, uneven: 'any' }, prices })

describe('judging chains whose truth is known', () => {
  it('by eight noisy spots rarely condemns a sound one, where the plain worst number often does', () => {
    const { verdict, plain } = run(8)
    expect(verdict.wrongChanges).toBeLessThan(0.4 * plain.wrongChanges)
    expect(verdict.brier).toBeLessThan(plain.brier)
  })
  it.each([1, 3])('by %d of eight places says more truly what the others are than those read alone', (spots) => {
    const { 'all-places': all, 'read-alone': alone } = run(spots)
    expect(all.brier).toBeLessThan(alone.brier)
    expect(all.missed).toBeLessThan(0.8 * alone.missed)
    expect(all.cost[0]).toBeLessThan(alone.cost[0]!)
  })
  it('is the same for the same seed', () => {
    expect(run(1)).toEqual(run(1))
  })
})
