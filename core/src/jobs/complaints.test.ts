import { describe, expect, it } from 'vitest'
import { checksFor, complaintIn, COMPLAINTS } from '../index.ts'

describe('a complaint', () => {
  it('opens its checks, wear first, unless the chain is in two', () => {
    for (const complaint of COMPLAINTS) {
      const checks = checksFor(complaint)
      expect(new Set(checks).size).toBe(checks.length)
      expect(checks[complaint === 'broken' ? 1 : 0]).toBe('wear')
    }
    expect(checksFor('broken')[0]).toBe('break')
  })
  it.each([
    ['noisy under load', 'noise'],
    ['broke, shortened', 'broken'],
    ['new cassette?', 'skipping'],
    ['wax, race Sunday', 'wash'],
    ['service', 'service'],
    ['gears will not shift', 'poor-shifting'],
    ['squeaks in the rain', 'squeak'],
    ['collect at five', null],
    ['', null],
  ])('is heard in “%s” as %s', (reason, complaint) => {
    expect(complaintIn(reason)).toBe(complaint)
  })
})
