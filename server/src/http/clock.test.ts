import { describe, expect, it } from 'vitest'
import { byOurClock, clockOffset } from './clock.ts'

const NOW = Date.parse('2026-11-01T10:00:00Z')

describe('a device’s clock', () => {
  it('that is an hour ahead or behind is known by what it shows as it sends', () => {
    expect(clockOffset('2026-11-01T11:00:00Z', NOW)).toBe(-3_600_000)
    expect(clockOffset('2026-11-01T09:00:00Z', NOW)).toBe(3_600_000)
    const body = { occurredAt: '2026-11-01T10:58:00.000Z', note: 'x' }
    expect(byOurClock(body, -3_600_000)).toEqual({ occurredAt: '2026-11-01T09:58:00.000Z', note: 'x' })
  })
  it('that is a little off, or is not told, is taken for ours', () => {
    for (const said of ['2026-11-01T10:00:40Z', '2026-11-01T09:59:20Z', '', 'noon'])
      expect(clockOffset(said, NOW)).toBe(0)
    const body = { occurredAt: '2026-11-01T10:58:00.000Z' }
    expect(byOurClock(body, 0)).toBe(body)
    expect(byOurClock(undefined, 5)).toBeUndefined()
  })
})
