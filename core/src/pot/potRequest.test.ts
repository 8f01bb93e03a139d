import { describe, expect, it } from 'vitest'
import { potRequest, recipeInPot } from './potRequest.ts'

describe('what a chain wants of the pot', () => {
  it('is stripping where nobody treated it, or where it was cleaned to the metal', () => {
    expect(potRequest({ recipe: 'soak-and-hang', wasTreated: false, cleaning: 'wipe', because: null }).needs).toBe(
      'strip',
    )
    expect(potRequest({ recipe: 'soak-and-hang', wasTreated: true, cleaning: 'strip', because: 'days' }).needs).toBe(
      'strip',
    )
    expect(potRequest({ recipe: 'soak-and-hang', wasTreated: true, cleaning: 'boil', because: 'days' }).needs).toBe(
      'nothing',
    )
  })
  it('is drying for what is due for a wash, which counts against the bath as wet', () => {
    expect(potRequest({ recipe: 'cool-draw', wasTreated: true, cleaning: 'wipe', because: 'wash' })).toEqual({
      needs: 'dry',
      recipe: 'cool-draw',
      condition: 'wet',
    })
    expect(
      potRequest({ recipe: 'soak-and-hang', wasTreated: true, cleaning: 'wipe', because: 'distance' }).condition,
    ).toBe('clean')
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
