import { afterEach, describe, expect, it } from 'vitest'
import { ASSUMPTIONS } from '@pelrin/core'
import { formats, formatsAreOf } from '../../messages/shopFormats.ts'
import { shownIn, typedIn, unitIn } from './assumedIn.ts'

const ours = formats()
afterEach(() => formatsAreOf(ours))
const named = (end: string) => ASSUMPTIONS.find(({ key }) => key.endsWith(end))!

describe('what is assumed, in the shop’s units', () => {
  it('is as it is kept where those are its own', () => {
    for (const one of ASSUMPTIONS) {
      expect(shownIn(one, one.shipped)).toBe(String(one.shipped))
      // Money is the shop's own.
      expect(unitIn(one)).toBe(one.unit === 'money' ? 'GBP' : null)
    }
  })
  it('is in Fahrenheit, and a step of degrees begins nowhere', () => {
    formatsAreOf({ ...ours, temperatureUnit: 'F' })
    expect([shownIn(named('lowCelsius'), 75), unitIn(named('lowCelsius'))]).toEqual(['167', '°F'])
    expect(typedIn(named('lowCelsius'), '176', [75])).toBeCloseTo(80)
    expect(shownIn(named('spikeCelsius'), 15)).toBe('27')
  })
  it('is in miles, and comes back to its last digit where nobody changed it', () => {
    formatsAreOf({ ...ours, distanceUnit: 'mi' })
    for (const one of ASSUMPTIONS.filter(({ unit }) => unit === 'km'))
      expect(typedIn(one, shownIn(one, one.shipped), [one.shipped])).toBe(one.shipped)
    expect(typedIn(named('odometerDayKm'), '100', [400])).toBeCloseTo(160.9344)
    expect(typedIn(named('odometerDayKm'), 'many', [400])).toBeUndefined()
  })
})
