import { describe, expect, it } from 'vitest'
import { RIGHTS } from '@pelrin/contract'
import { othersPlace } from './rights.ts'

describe('a place', () => {
  it('says whose it is to work in, to a role that only looks there', () => {
    expect(othersPlace('desk', '/bikes/b/measure')).toEqual(RIGHTS.record)
    expect(othersPlace('apprentice', '/orders')).toEqual(RIGHTS.orders)
    expect(othersPlace('read-only', '/gauges/g')).toEqual(RIGHTS.instruments)
    expect(othersPlace('mechanic', '/house-rules')).toEqual(['owner'])
  })
  it('says nothing to whoever works there, and where there is only something to look at', () => {
    expect(othersPlace('desk', '/diary')).toBeNull()
    expect(othersPlace('apprentice', '/bikes/b/job')).toBeNull()
    for (const path of ['/', '/rack', '/bikes/b', '/insight', '/rule-chart'])
      expect(othersPlace('read-only', path)).toBeNull()
  })
})
