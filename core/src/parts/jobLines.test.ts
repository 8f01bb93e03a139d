import { describe, expect, it } from 'vitest'
import { costOfLines, differsFromKept, keptForOtherChain, missingOf, type JobLine } from './jobLines.ts'

const line = (partId: string, rest: Partial<JobLine> = {}): JobLine => ({
  partId,
  name: partId,
  quantity: 1,
  included: false,
  price: 1000,
  here: 1,
  onOrder: 0,
  ...rest,
})

describe('what a job takes', () => {
  it('misses what is neither here nor coming, and nothing out of another part’s box', () => {
    expect(missingOf(line('chain', { quantity: 3, here: 1, onOrder: 1 }))).toBe(1)
    expect(missingOf(line('chain', { here: 4 }))).toBe(0)
    expect(missingOf(line('link', { included: true, here: 0 }))).toBe(0)
  })
  it('costs what is paid for, and is not said where a price is not known', () => {
    expect(costOfLines([line('chain', { quantity: 2 }), line('link', { included: true, price: null })])).toBe(2000)
    expect(costOfLines([line('chain'), line('link', { price: null })])).toBeNull()
    expect(costOfLines([])).toBe(0)
  })
  it('differs from what is put aside by its count or by a line', () => {
    const kept = { pitches: 114, lines: [line('chain'), line('link')] }
    expect(differsFromKept(kept, [line('chain'), line('link')], 114)).toBe(false)
    expect(differsFromKept(kept, [line('chain'), line('link')], 116)).toBe(true)
    expect(differsFromKept(kept, [line('chain', { quantity: 2 })], 114)).toBe(true)
    expect(differsFromKept(kept, [], 116)).toBe(false)
  })
  it('keeps what is aside for a tandem’s other chain', () => {
    const kept = [line('drive chain'), line('timing chain'), line('pin')]
    expect(keptForOtherChain(kept, new Set(['drive chain', 'pin'])).map(({ partId }) => partId)).toEqual([
      'timing chain',
    ])
  })
})
