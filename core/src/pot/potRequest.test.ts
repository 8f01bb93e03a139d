import { describe, expect, it } from 'vitest'
import { potRequest, recipeInPot } from './potRequest.ts'

describe('what a chain wants of the pot', () => {
  const asked = { recipe: 'soak-and-hang', washed: false, waxCase: 'rewax', cleaning: 'wipe' } as const
  it('is stripping for its first wax, or where it is cleaned to the metal', () => {
    expect(potRequest({ ...asked, waxCase: 'first', cleaning: 'strip' }).needs).toBe('strip')
    expect(potRequest({ ...asked, cleaning: 'ultrasonic' }).needs).toBe('strip')
  })
  it('is drying after water of any kind: a wash, or boiling water', () => {
    expect(potRequest({ ...asked, washed: true, waxCase: 'rewax-wet' }).needs).toBe('dry')
    expect(potRequest({ ...asked, waxCase: 'rewax-gritty', cleaning: 'boil' }).needs).toBe('dry')
    expect(potRequest(asked).needs).toBe('nothing')
  })
  it('counts against the bath by what it was ridden through', () => {
    expect(potRequest({ ...asked, waxCase: 'rewax-gritty' }).condition).toBe('gritty')
    expect(potRequest({ ...asked, waxCase: 'rewax-wet' }).condition).toBe('wet')
    expect(potRequest({ ...asked, waxCase: 'ready-waxed', recipe: 'cool-draw' })).toEqual({
      needs: 'nothing',
      recipe: 'cool-draw',
      condition: 'clean',
    })
  })
})

describe('what a pot is to hold', () => {
  const chain = (state: string, recipe: 'bubble-out' | 'cool-draw', potId: string | null = null) => ({
    state,
    recipe,
    potId,
  })
  it('is what the chain in it is waxed by, else the first that goes in', () => {
    const chains = [chain('waiting', 'cool-draw'), chain('in-pot', 'bubble-out', 'p1')]
    expect(recipeInPot(chains, 'p1', 'soak-and-hang')).toBe('bubble-out')
    expect(recipeInPot(chains, 'p2', 'soak-and-hang')).toBe('cool-draw')
  })
  it('is the usual one where nothing goes in', () => {
    expect(recipeInPot([chain('hanging', 'cool-draw')], 'p1', 'bubble-out')).toBe('bubble-out')
  })
})
