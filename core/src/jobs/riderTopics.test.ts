import { describe, expect, it } from 'vitest'
import { COMPLAINTS } from './complaints.ts'
import { riderTopics } from './riderTopics.ts'

describe('what a rider is told', () => {
  it('is three things, none twice, whatever they came for', () => {
    for (const complaint of [...COMPLAINTS, null])
      for (const word of ['change', 'closing-in', 'keep-riding', 'measure-it'] as const) {
        const topics = riderTopics(complaint, word)
        expect(topics).toHaveLength(3)
        expect(new Set(topics).size).toBe(3)
        expect(topics[0]).toBe('stretch')
      }
  })
  it('speaks of what they said, and of money where the chain is done', () => {
    expect(riderTopics('poor-shifting', 'change')).toEqual(['stretch', 'shifting', 'cost'])
    expect(riderTopics('squeak', 'keep-riding')).toEqual(['stretch', 'noise', 'power'])
    expect(riderTopics(null, 'keep-riding')[1]).toBe('uneven')
  })
})
