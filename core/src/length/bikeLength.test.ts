import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import {
  bikeLength,
  fixedLoopOf,
  isWholeChain,
  steppedPitches,
  timingLength,
  type BikeLengthDrive,
} from './bikeLength.ts'
import { bikeReach } from './bikeReach.ts'
import { derailleurLength, slackOverLargestMm } from './drive.ts'
import { fixedLengths } from './fixedLoop.ts'
import { gearReach } from './gearReach.ts'
import { fixedLengthExplained } from './lengthExplained.ts'
import { lengthSchools } from './schools.ts'

const derailleur: BikeLengthDrive = {
  type: 'derailleur',
  fronts: [50, 34],
  sprockets: [11, 13, 15, 17, 19, 22, 25, 28, 32],
  chainstayMm: 410,
  suspension: 'rigid',
  growthMm: null,
  statedAdd: null,
  pulleys: [11, 13],
  pulleysCounted: false,
  ownPitches: null,
  capacityTeeth: 37,
  largestSprocketTeeth: null,
  axleMm: null,
  timing: null,
}
const single: BikeLengthDrive = {
  ...derailleur,
  type: 'single-speed',
  fronts: [44],
  sprockets: [18],
  axleMm: { from: 395, to: 410 },
}
const tandem: BikeLengthDrive = { ...derailleur, timing: { teeth: [40, 38], fromMm: 660, toMm: 690 } }

describe('the loop a chain without a derailleur goes over', () => {
  it('is of the drive’s own ring and sprocket, or of a tandem’s two rings', () => {
    expect(fixedLoopOf(single, 'drive', true)).toEqual({
      frontTeeth: 44,
      rearTeeth: 18,
      fromMm: 395,
      toMm: 410,
      halfLink: true,
    })
    expect(fixedLoopOf(tandem, 'timing', false)).toEqual({
      frontTeeth: 40,
      rearTeeth: 38,
      fromMm: 660,
      toMm: 690,
      halfLink: false,
    })
  })
  it.each([
    ['where the axle stands', { ...single, axleMm: null }, 'drive'],
    ['the ring', { ...single, fronts: [] }, 'drive'],
    ['the sprocket', { ...single, sprockets: [] }, 'drive'],
    ['a second chain', single, 'timing'],
  ] as const)('is not told without %s', (_, drive, of) => {
    expect(fixedLoopOf(drive, of, false)).toBeNull()
  })
})

describe('the count a bike’s chain should have', () => {
  it('is what its derailleur asks for', () => {
    expect(bikeLength(derailleur, 120, DEFAULTS)).toBe(lengthSchools(derailleur, 120, DEFAULTS)[0]!.pitches)
  })
  it('is the old one’s where a derailleur’s cannot be told', () => {
    expect(bikeLength({ ...derailleur, chainstayMm: null }, 120, DEFAULTS)).toBe(120)
  })
  it('is the shortest its axle takes, the old one’s where none fits or the axle is not known', () => {
    const shortest = fixedLengths(fixedLoopOf(single, 'drive', false)!, DEFAULTS)[0]!.pitches
    expect(bikeLength(single, 120, DEFAULTS)).toBe(shortest)
    expect(shortest % 2).toBe(0)
    expect(bikeLength({ ...single, axleMm: { from: 400, to: 400.5 } }, 98, DEFAULTS)).toBe(98)
    expect(bikeLength({ ...single, axleMm: null }, 98, DEFAULTS)).toBe(98)
  })
  it('of a tandem’s second chain follows from its own rings, and is not told of a bike without one', () => {
    expect(timingLength(tandem, DEFAULTS)).toBe(
      fixedLengths(fixedLoopOf(tandem, 'timing', false)!, DEFAULTS)[0]!.pitches,
    )
    expect(timingLength(single, DEFAULTS)).toBeNull()
    const tight = { ...tandem, timing: { teeth: [40, 38], fromMm: 660, toMm: 660.2 } }
    expect(timingLength(tight, DEFAULTS)).toBeNull()
  })
})

describe('counts', () => {
  it.each([
    [20, true],
    [400, true],
    [114, true],
    [115, false],
    [18, false],
    [402, false],
  ])('of %i can be a whole chain: %s', (pitches, can) => {
    expect(isWholeChain(pitches)).toBe(can)
  })
  it('are stepped as far as there are chains', () => {
    expect(steppedPitches(114, 2)).toBe(116)
    expect(steppedPitches(114, -2)).toBe(112)
    expect(steppedPitches(20, -2)).toBe(20)
    expect(steppedPitches(399, 2)).toBe(400)
  })
})

describe('which gears a bike’s chain reaches', () => {
  it('is judged with its own capacity, its pulleys and its chainstay at its longest', () => {
    const known = derailleurLength(derailleur, DEFAULTS)!
    expect(known.pulleyPitches).toBeGreaterThan(0)
    expect(bikeReach(derailleur, 108, DEFAULTS)).toEqual(
      gearReach({
        pitches: 108,
        chainstayMm: known.chainstayMm,
        fronts: derailleur.fronts,
        rears: derailleur.sprockets,
        addPitches: known.added.pitches,
        pulleyPitches: known.pulleyPitches,
        capacityTeeth: 37,
      }),
    )
  })
  it('never calls a gear loose where the capacity is not known', () => {
    const loose = (capacityTeeth: number | null) =>
      bikeReach({ ...derailleur, capacityTeeth }, 130, DEFAULTS)!.some(({ verdict }) => verdict === 'loose')
    expect(loose(30)).toBe(true)
    expect(loose(null)).toBe(false)
  })
  it('counts larger pulleys against the slack', () => {
    const slack = (pulleys: readonly number[] | null) => bikeReach({ ...derailleur, pulleys }, 110, DEFAULTS)![0]!.slack
    expect(slack([11, 13])).toBeLessThan(slack(null))
  })
  it('is not told without a derailleur, or without a chainstay', () => {
    expect(bikeReach(single, 108, DEFAULTS)).toBeNull()
    expect(bikeReach({ ...derailleur, chainstayMm: null }, 108, DEFAULTS)).toBeNull()
  })
  it('leaves over the largest two what the loop and the pulleys do not take', () => {
    expect(slackOverLargestMm({ loop: 104.5, pulleyPitches: 1.5 }, 110)).toBeCloseTo(4 * 12.7, 9)
  })
})

describe('why an axle’s chain is as long as it is', () => {
  it('says where the axle then stands, from the teeth and how far it goes', () => {
    const loop = fixedLoopOf(single, 'drive', false)!
    const [found] = fixedLengths(loop, DEFAULTS)
    const [explanation, ...more] = fixedLengthExplained(loop, found!.pitches, DEFAULTS)
    expect(more).toEqual([])
    expect(explanation!.result).toMatchObject({ value: found!.pitches })
    expect(explanation!.inputs.map(({ value }) => value)).toEqual([44, 18, 395, 410, found!.chainstayMm])
    expect(fixedLengthExplained(loop, found!.pitches + 1, DEFAULTS)).toEqual([])
  })
})

describe('the schools where something is not known', () => {
  const of = (drive: BikeLengthDrive, old: number | null = null) =>
    Object.fromEntries(lengthSchools(drive, old, DEFAULTS).map((one) => [one.school, one]))
  it('each name what they want, and nothing they do not', () => {
    const bare = of({ ...derailleur, chainstayMm: null, fronts: [], sprockets: [], capacityTeeth: null })
    expect(bare['largest-and-added']).toMatchObject({
      pitches: null,
      missing: ['chainstayMm', 'fronts', 'sprockets'],
      apart: null,
    })
    expect(bare['match-old']).toMatchObject({ pitches: null, missing: ['old-count'], apart: null })
    expect(bare['smallest-check']!.missing).toEqual(['chainstayMm', 'fronts', 'sprockets', 'capacityTeeth'])
    expect(bare['in-doubt']).toMatchObject({ pitches: null, missing: ['chainstayMm', 'fronts', 'sprockets'] })
  })
  it('want one thing where one thing is missing', () => {
    expect(of({ ...derailleur, capacityTeeth: null })['smallest-check']!.missing).toEqual(['capacityTeeth'])
    expect(of({ ...derailleur, chainstayMm: null })['smallest-check']!.missing).toEqual(['chainstayMm'])
    expect(of(derailleur)['smallest-check']!.missing).toEqual([])
  })
  it('say of an old count how far apart it is, where there is something to be apart from', () => {
    const recommended = of(derailleur)['largest-and-added']!.pitches!
    expect(of(derailleur, recommended + 4)['match-old']).toMatchObject({ apart: 4, missing: [] })
    expect(of({ ...derailleur, chainstayMm: null }, 110)['match-old']).toMatchObject({ pitches: 110, apart: null })
  })
  it('thread larger pulleys too', () => {
    const through = (pulleys: readonly number[] | null) =>
      of({ ...derailleur, pulleys })['through-derailleur']!.pitches!
    expect(through([13, 15])).toBeGreaterThan(through(null))
  })
})
