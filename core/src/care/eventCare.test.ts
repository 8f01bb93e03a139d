import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayAfter, DEFAULTS, eventCare, TREATMENTS, type BeforeEvent } from '../index.ts'

const TODAY = '2028-02-20'
const used = (more: Partial<NonNullable<BeforeEvent['used']>> = {}): NonNullable<BeforeEvent['used']> => ({
  km: 60,
  days: 5,
  interval: { km: 300, days: 90 },
  kmLeft: 160,
  asOf: TODAY,
  ...more,
})
const before = (more: Partial<BeforeEvent> = {}): BeforeEvent => ({
  eventOn: '2028-03-02',
  today: TODAY,
  care: 'immersion-wax',
  used: used(),
  kmPerDay: 2,
  ...more,
})

describe('care before a day a bike is wanted', () => {
  it('is nothing for a treatment that still has half of itself on the day', () => {
    expect(eventCare(before(), DEFAULTS.care)).toEqual({ word: 'ready', by: '2028-03-02' })
  })
  it('waxes what would be more than half used up, early enough to ride it in: over a 29 February', () => {
    // 60 of 300 dry km now; eleven days of 10 km at one and a half dry km each come to 165 more.
    expect(eventCare(before({ kmPerDay: 10 }), DEFAULTS.care)).toEqual({ word: 'treat', by: '2028-02-29' })
    expect(eventCare(before({ used: used({ days: 40 }) }), DEFAULTS.care)!.word).toBe('treat')
    expect(eventCare(before({ kmPerDay: 10, care: 'dry-oil' }), DEFAULTS.care)).toEqual({
      word: 'treat',
      by: '2028-03-01',
    })
  })
  it('treats what was never treated here, what was washed, and what nobody counted', () => {
    for (const what of [null, used({ days: null }), used({ kmLeft: 0 })])
      expect(eventCare(before({ used: what }), DEFAULTS.care)!.word).toBe('treat')
  })
  it('asks for the first ride of a chain that was just waxed, and of no oiled one', () => {
    const fresh = { used: used({ km: 3, days: 0, kmLeft: 200 }), kmPerDay: 0 }
    expect(eventCare(before(fresh), DEFAULTS.care)).toEqual({ word: 'ride-in', by: '2028-03-01' })
    expect(eventCare(before({ ...fresh, care: 'wet-oil' }), DEFAULTS.care)!.word).toBe('ready')
  })
  it('says nothing of a day that is over, nor of a care nobody knows', () => {
    expect(eventCare(before({ eventOn: '2028-02-19' }), DEFAULTS.care)).toBeNull()
    expect(eventCare(before({ care: 'unknown' }), DEFAULTS.care)).toBeNull()
  })
  it('never asks after the day or before today, and never less of a chain that ran further', () => {
    const WORDS = ['ready', 'ride-in', 'treat']
    fc.assert(
      fc.property(
        fc.constantFrom(...TREATMENTS),
        fc.integer({ min: 0, max: 60 }),
        fc.double({ min: DEFAULTS.care.firstRideKm, max: 400, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 40, noNaN: true }),
        (care, ahead, km, further, kmPerDay) => {
          const eventOn = dayAfter(TODAY, ahead)
          const asked = (dry: number) =>
            eventCare(
              { eventOn, today: TODAY, care, kmPerDay, used: used({ km: dry, kmLeft: (300 - dry) / 1.5 }) },
              DEFAULTS.care,
            )!
          const [less, more] = [asked(km), asked(km + further)]
          expect(less.by >= TODAY && less.by <= eventOn).toBe(true)
          expect(WORDS.indexOf(more.word)).toBeGreaterThanOrEqual(WORDS.indexOf(less.word))
        },
      ),
    )
  })
})
