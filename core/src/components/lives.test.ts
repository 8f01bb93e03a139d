import { describe, expect, it } from 'vitest'
import { KIND_OF_ITEM, PART_KINDS, WEAR_ITEM_IDS } from '../index.ts'
import { ofPresent, onSince, type ComponentLife } from './lives.ts'

const lives: ComponentLife[] = [
  { item: 'cassette', from: 0, to: 500 },
  { item: 'cassette', from: 500, to: null },
  { item: 'rings', from: 100, to: 200 },
]

describe('the lives of what else wears', () => {
  it('tell since when the one that is on is on, where anybody said', () => {
    expect(onSince(lives, 'cassette')).toBe(500)
    expect(onSince(lives, 'rings')).toBeNull()
    expect(onSince(lives, 'tyres')).toBeNull()
  })
  it('leave looks at the one before to the one before', () => {
    const looks = [{ at: 900 }, { at: 500 }, { at: 400 }]
    expect(ofPresent(looks, 500)).toEqual([{ at: 900 }, { at: 500 }])
    expect(ofPresent(looks, null)).toEqual(looks)
  })
  it('are of parts the catalogue has, where it has them', () => {
    for (const item of WEAR_ITEM_IDS) {
      const kind = KIND_OF_ITEM[item]
      expect(kind === null || PART_KINDS.includes(kind)).toBe(true)
    }
    expect(KIND_OF_ITEM.cassette).toBe('cassette')
  })
})
