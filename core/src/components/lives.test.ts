import { describe, expect, it } from 'vitest'
import { KIND_OF_ITEM, PART_KINDS, WEAR_ITEM_IDS } from '../index.ts'
import { ofPresent } from './lives.ts'

describe('the lives of what else wears', () => {
  it('leave looks at the one before to the one before', () => {
    const looks = [900, 500, 400].map((at) => ({ at: new Date(at) }))
    expect(ofPresent(looks, new Date(500))).toEqual(looks.slice(0, 2))
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
