import { describe, expect, it } from 'vitest'
import { COMES_BEFORE, inOrder } from './order.ts'

const ids = (...all: string[]) => all.map((id) => ({ id }))
const ordered = (...all: string[]) => inOrder(ids(...all)).map(({ id }) => id)

describe('an order of steps', () => {
  it('is the usual one where nothing speaks against it', () => {
    expect(ordered('pick', 'clean', 'hang-new')).toEqual(['pick', 'clean', 'hang-new'])
  })
  it('lifts a chain back on its ring before a pedal pulls on it, and after pliers have closed it', () => {
    const usual = ['join-link', 'first-catch', 'snap-pliers', 'look-click', 'back-on-ring']
    expect(ordered(...usual)).toEqual(usual)
    expect(ordered('join-link', 'first-catch', 'snap-pedal', 'look-click', 'back-on-ring')).toEqual([
      'join-link',
      'first-catch',
      'back-on-ring',
      'snap-pedal',
      'look-click',
    ])
  })
  it('can be kept by all there are at once: nothing waits for itself by way of others', () => {
    const all = new Set(COMES_BEFORE.flat())
    expect(inOrder(ids(...all))).toHaveLength(all.size)
  })
})
