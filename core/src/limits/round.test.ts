import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import { ownReadings, presentRound } from './round.ts'
import type { InstrumentKind } from '../readings/index.ts'
import type { VerdictReading, VerdictSpot } from './verdictTypes.ts'

const DAY = 86_400_000
const HOUR = 3_600_000
const NOW = 500 * DAY

const taken = (
  id: string,
  before: number,
  spots: VerdictSpot[] = [{ value: 0.4, u: 0.05 }],
  more: Partial<VerdictReading> & { kind?: InstrumentKind } = {},
): VerdictReading => {
  const { kind = 'digital', ...rest } = more
  return {
    id,
    occurredAt: NOW - before,
    chainKm: 1000,
    source: 'shop',
    instrument: { id: kind, kind, biasU: 0 },
    spots,
    ...rest,
  }
}
const ids = (readings: VerdictReading[], countChangedAt?: number): string[] =>
  presentRound(ownReadings(readings, countChangedAt), DEFAULTS).readings.map((reading) => reading.id)
const spots = (n: number, u: number): VerdictSpot[] => Array.from({ length: n }, () => ({ value: 0.4, u }))

describe('whose readings count', () => {
  it('the shop’s own, with an instrument, that have a spot', () => {
    const readings = [
      taken('shop', 0),
      taken('customer', 0, undefined, { source: 'customer' }),
      taken('hand', 0, undefined, { kind: 'by-hand' }),
      taken('empty', 0, []),
    ]
    expect(ids(readings)).toEqual(['shop'])
  })
  it('those since the chain’s count last changed, the moment itself included', () => {
    const readings = [taken('before', 2 * DAY, spots(3, 0.02)), taken('after', DAY)]
    expect(ids(readings, NOW - DAY)).toEqual(['after'])
    expect(ids(readings, NOW - 2 * DAY)).toEqual(['before', 'after'])
  })
})

describe('how far back a reading counts', () => {
  // Each earlier one is finer and fuller than the latest, so that only its age can send it away.
  const latest = taken('latest', 0, spots(1, 0.08))
  it.each([
    ['14 days', 14 * DAY, 1000, true],
    ['14 days and a minute', 14 * DAY + 60_000, 1000, false],
    ['100 km', DAY, 900, true],
    ['101 km', DAY, 899, false],
  ])('%s before the latest: %s', (_, before, chainKm, counts) => {
    const earlier = taken('earlier', before, spots(3, 0.02), { chainKm })
    expect(ids([earlier, latest])).toEqual(counts ? ['earlier', 'latest'] : ['latest'])
  })
  it('goes by days alone where no distance is known', () => {
    const earlier = taken('earlier', DAY, spots(3, 0.02), { chainKm: null })
    expect(ids([earlier, latest])).toEqual(['earlier', 'latest'])
  })
})

describe('measuring again', () => {
  it.each([
    ['as fine and as full', 3, 0.05, ['later']],
    ['finer and as full', 3, 0.03, ['later']],
    ['as fine and fuller', 5, 0.05, ['later']],
    ['as fine with fewer spots', 2, 0.05, ['earlier', 'later']],
    ['rougher and fuller', 8, 0.06, ['earlier', 'later']],
  ])('%s: counts %j', (_, n, u, counted) => {
    expect(ids([taken('earlier', HOUR, spots(3, 0.05)), taken('later', 0, spots(n, u))])).toEqual(counted)
  })
  it('weighs the instrument’s shared bias too', () => {
    const biased = taken('later', 0, spots(3, 0.05), { instrument: { id: 'b', kind: 'digital', biasU: 0.04 } })
    expect(ids([taken('earlier', HOUR, spots(3, 0.05)), biased])).toEqual(['earlier', 'later'])
  })
  it('is known as such within one visit of 12 hours', () => {
    const again = (before: number): boolean =>
      presentRound(ownReadings([taken('first', before), taken('second', 0)]), DEFAULTS).measuredAgain
    expect(again(12 * HOUR)).toBe(true)
    expect(again(12 * HOUR + 60_000)).toBe(false)
  })
})

describe('one named spot read twice', () => {
  const named = (id: string, before: number, u: number): VerdictReading =>
    taken(id, before, [
      { value: 0.4, u, place: 2 },
      { value: 0.4, u: u * 3, place: 3 },
    ])
  it('leaves it to the later where that is no coarser; a coarser one joins, and of one moment both count', () => {
    const governing = (first: VerdictReading, second: VerdictReading): string[] =>
      presentRound(ownReadings([first, second]), DEFAULTS)
        .spots.filter(({ spot }) => spot.place === 2)
        .map(({ reading }) => reading.id)
    expect(governing(named('fine', HOUR, 0.02), named('rough', 0, 0.05))).toEqual(['fine', 'rough'])
    expect(governing(named('rough', HOUR, 0.05), named('fine', 0, 0.02))).toEqual(['fine'])
    expect(governing(named('a', HOUR, 0.05), named('b', 0, 0.05))).toEqual(['b'])
    expect(governing(named('a', 0, 0.05), named('b', 0, 0.05))).toEqual(['a', 'b'])
  })
})
