import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  DEFAULTS,
  distanceBetween,
  NO_KM,
  odometerDoubt,
  readLedger,
  recordedBefore,
  rideRate,
  SURFACES,
  totalKm,
  usualWearFactor,
  wearWeighted,
  withOdometer,
  type DistanceTail,
  type LedgerRide,
  type OdometerValue,
  type LedgerView,
} from '../index.ts'

const DAY = 86_400_000
const FACTOR = 1.2

describe('a chain’s distance with a typed odometer value', () => {
  it('counts what was estimated since the last value once', () => {
    // A value on day 30, a reading without one on day 60, one typed on day 70: 1000 km in forty days.
    const tail: DistanceTail = {
      recorded: { at: 30 * DAY, km: 0, s: 0 },
      odometer: { at: 30 * DAY, km: 0, s: 0, shownKm: 5000 },
      rides: [],
      before: [],
      mixBefore: NO_KM,
      unsaidKm: { atOdometer: 0, atReadings: {} },
      fittedFrom: 0,
      usualFactor: FACTOR,
    }
    const { chainAt } = withOdometer(tail, { at: 70 * DAY, km: 6000, restarted: false }, DEFAULTS.distance)
    expect(chainAt(70 * DAY).s).toBeCloseTo(1.2, 9)
    expect(chainAt(60 * DAY)).toMatchObject({ km: 750, s: 0.9 })
  })

  const moment = fc.integer({ min: 0, max: 400 })
  const ledger = fc.record({
    values: fc.uniqueArray(fc.record({ day: moment, km: fc.double({ min: 0, max: 60, noNaN: true }) }), {
      minLength: 1,
      maxLength: 5,
      selector: ({ day }) => day,
    }),
    rides: fc.array(
      fc.record({
        day: moment,
        hours: fc.integer({ min: 1, max: 60 }),
        km: fc.double({ min: 1, max: 150, noNaN: true }),
        surface: fc.constantFrom(...SURFACES, null),
      }),
      { maxLength: 8 },
    ),
    fitted: fc.integer({ min: 0, max: 400 }),
    typedAfter: fc.integer({ min: 1, max: 90 }),
    typedKm: fc.double({ min: 0, max: 900, noNaN: true }),
    lower: fc.boolean(),
  })
  it('is the whole ledger’s, read with that value in it, at every moment since the last one', () => {
    fc.assert(
      fc.property(ledger, ({ values, rides, fitted, typedAfter, typedKm, lower }) => {
        let shown = 1000
        const odometer: OdometerValue[] = values
          .sort((a, b) => a.day - b.day)
          .map(({ day, km }) => ({ at: day * DAY, km: (shown += km * 10), restarted: false }))
        const last = odometer.at(-1)!
        const ridden: LedgerRide[] = rides.map(({ day, hours, km, surface }, i) => ({
          id: `${i}`,
          from: day * DAY,
          to: day * DAY + hours * 3_600_000,
          km,
          surface,
        }))
        const now = Math.max(last.at, ...ridden.map(({ to }) => to)) + typedAfter * DAY
        const typed = { at: now, km: lower ? 3 : last.km + typedKm, restarted: lower }
        const fittedFrom = fitted * DAY
        const whole = readLedger({ odometer: [...odometer, typed], rides: ridden }, DEFAULTS.distance)
        const before = readLedger({ odometer, rides: ridden }, DEFAULTS.distance)
        const usual = ({ segments }: LedgerView, else_: number) =>
          usualWearFactor([distanceBetween(segments, -Infinity, Infinity)], {
            ...DEFAULTS.distance,
            wearFactorUnknown: else_,
          })
        // Where that value leaves nothing of the rides that say what they were on, what they said before still holds.
        const [factorBefore, factor] = [usual(before, FACTOR), usual(whole, usual(before, FACTOR))]
        const at = ({ segments }: LedgerView, moment: number) => {
          const km = distanceBetween(segments, fittedFrom, moment)
          const weighted = wearWeighted(km, segments === whole.segments ? factor : factorBefore, DEFAULTS.distance)
          return { km: totalKm(km), s: weighted / 1000 }
        }
        const unsaidKm = (moment: number) => distanceBetween(before.segments, fittedFrom, moment).unknown
        const readAt = fittedFrom + (last.at - fittedFrom) / 2
        const tail: DistanceTail = {
          recorded: { at: now, ...at(before, now) },
          odometer: { at: last.at, ...at(before, last.at), shownKm: last.km },
          rides: ridden.filter(({ to }) => to > last.at),
          before: recordedBefore(before.segments, last.at, DEFAULTS.distance),
          mixBefore: distanceBetween(before.segments, -Infinity, last.at),
          unsaidKm: { atOdometer: unsaidKm(last.at), atReadings: { read: unsaidKm(readAt) } },
          fittedFrom,
          usualFactor: factorBefore,
        }
        const { chainAt, sOfReading, usualFactor, rate } = withOdometer(tail, typed, DEFAULTS.distance)
        const known = rideRate(whole, DEFAULTS.distance)
        if (known.basis !== 'recent') expect(rate).toBeNull()
        else {
          expect(rate!.kmPerDay).toBeCloseTo(known.kmPerDay, 9)
          expect(rate!.weekScatter).toBeCloseTo(known.weekScatter, 9)
          expect(rate!.meanScatter).toBeCloseTo(known.meanScatter, 9)
        }
        expect(usualFactor).toBeCloseTo(factor, 9)
        if (readAt <= last.at) expect(sOfReading('read', at(before, readAt).s)).toBeCloseTo(at(whole, readAt).s, 9)
        for (const part of [0.2, 0.7, 1]) {
          const moment = Math.max(fittedFrom, last.at + (now - last.at) * part)
          const expected = at(whole, moment)
          expect(chainAt(moment).km!).toBeCloseTo(expected.km, 6)
          expect(chainAt(moment).s!).toBeCloseTo(expected.s, 9)
        }
      }),
    )
  })
})

describe('an odometer value that wants a second look', () => {
  const before = { km: 1000, at: 0 }
  it.each([
    [{ km: 999, at: DAY }, 'odometer-lower'],
    [{ km: 1000, at: DAY }, null],
    [{ km: 3000, at: 5 * DAY }, null],
    [{ km: 4251, at: 5 * DAY }, 'odometer-much'],
    [{ km: 1390, at: 3_600_000 }, null],
    [{ km: 1410, at: 3_600_000 }, 'odometer-much'],
  ])('%j: %s', (value, doubt) => {
    expect(odometerDoubt(value, before, DEFAULTS.distance)).toBe(doubt)
  })
  it('is none without one before it, and moves with what the shop believes', () => {
    expect(odometerDoubt({ km: 90_000, at: 0 }, null, DEFAULTS.distance)).toBeNull()
    expect(odometerDoubt({ km: 3000, at: 5 * DAY }, before, { odometerDayKm: 100 })).toBe('odometer-much')
  })
})
