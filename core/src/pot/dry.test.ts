import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../index.ts'
import { keptFromWax, needsBefore } from './dry.ts'

const MINUTE = 60_000
const { pot } = DEFAULTS
const chain = { state: 'waiting', needs: 'nothing', since: 0, addedAt: 0 } as const

describe('a chain on its way into hot wax', () => {
  it('that came wet is dried first, and stripped where it has to be', () => {
    expect(needsBefore('nothing', 'wet')).toBe('dry')
    expect(needsBefore('strip', 'wet')).toBe('strip')
    expect(needsBefore('nothing', 'gritty')).toBe('nothing')
  })
  it('is kept out until it is stripped and dry', () => {
    expect(keptFromWax(chain, 0, pot)).toBeNull()
    expect(keptFromWax({ ...chain, needs: 'strip' }, 90 * MINUTE, pot)).toBe('unstripped')
    expect(keptFromWax({ ...chain, state: 'stripping', needs: 'strip' }, 90 * MINUTE, pot)).toBe('undried')
    const wet = { ...chain, needs: 'dry' } as const
    expect(keptFromWax(wet, (pot.dryMinutes - 1) * MINUTE, pot)).toBe('undried')
    expect(keptFromWax(wet, pot.dryMinutes * MINUTE, pot)).toBeNull()
    expect(keptFromWax({ ...wet, state: 'drying', since: 60 * MINUTE }, 61 * MINUTE, pot)).toBe('undried')
    expect(keptFromWax({ ...wet, state: 'drying' }, 61 * MINUTE, { dryMinutes: 90 })).toBe('undried')
    // Blown dry, and said to be.
    expect(keptFromWax({ ...wet, state: 'drying', needs: 'nothing' }, MINUTE, pot)).toBeNull()
  })
})
