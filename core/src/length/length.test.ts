import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import vectors from '../../fixtures/length.json' with { type: 'json' }
import {
  DEFAULTS,
  addedPitches,
  capacityNeeded,
  chainstayFor,
  countsOf,
  cutPlan,
  derailleurCautions,
  driveProblems,
  fixedLengths,
  gearReach,
  keepOff,
  lengthSchools,
  loopPitches,
  pulleyPitches,
  recommendedPitches,
  tensionedPitches,
  type LengthDrive,
} from '../index.ts'

describe('the reference results', () => {
  it.each(vectors.loops)('loop $input.frontTeeth × $input.rearTeeth at $input.chainstayMm mm', (vector) => {
    expect(loopPitches(vector.input)).toBeCloseTo(vector.loopPitches, 5)
    expect(recommendedPitches(vector.input)).toBe(vector.recommended)
  })
  it.each(vectors.gearReach)('reach of $input.pitches pitches', (vector) => {
    const gears = gearReach(vector.input)
    expect(gears).toHaveLength(vector.gears.length)
    vector.gears.forEach(({ slack, ...gear }, i) => {
      expect(gears[i]).toMatchObject(gear)
      expect(gears[i]!.slack).toBeCloseTo(slack, 2)
    })
  })
  it.each(vectors.chainstays)('chainstay for $input.pitches pitches', ({ input, chainstayMm }) => {
    expect(chainstayFor(input)).toBeCloseTo(chainstayMm, 3)
  })
})

const chainstay = fc.integer({ min: 390, max: 520 })
const ring = fc.integer({ min: 22, max: 60 })
const sprocket = fc.integer({ min: 9, max: 52 })

describe('a loop', () => {
  it('grows with the chainstay and with every tooth, and is the same both ways round', () => {
    fc.assert(
      fc.property(chainstay, ring, sprocket, (chainstayMm, frontTeeth, rearTeeth) => {
        const at = (c: number, f: number, r: number): number =>
          loopPitches({ chainstayMm: c, frontTeeth: f, rearTeeth: r })
        const loop = at(chainstayMm, frontTeeth, rearTeeth)
        expect(at(chainstayMm + 1, frontTeeth, rearTeeth)).toBeGreaterThan(loop)
        expect(at(chainstayMm, frontTeeth + 1, rearTeeth)).toBeGreaterThan(loop)
        expect(at(chainstayMm, frontTeeth, rearTeeth + 1)).toBeGreaterThan(loop)
        expect(at(chainstayMm, rearTeeth, frontTeeth)).toBeCloseTo(loop, 9)
      }),
    )
  })
  it('is turned back into its chainstay', () => {
    fc.assert(
      fc.property(chainstay, ring, sprocket, (chainstayMm, frontTeeth, rearTeeth) => {
        const pitches = loopPitches({ chainstayMm, frontTeeth, rearTeeth })
        expect(chainstayFor({ pitches, frontTeeth, rearTeeth })).toBeCloseTo(chainstayMm, 4)
      }),
    )
  })
  it('of two equal sprockets is twice the chainstay and once round', () => {
    expect(loopPitches({ chainstayMm: 508, frontTeeth: 20, rearTeeth: 20 })).toBeCloseTo(80 + 20, 9)
  })
  it('cannot be made of seven teeth, parts of teeth, or axles that touch', () => {
    const loop = { chainstayMm: 420, frontTeeth: 42, rearTeeth: 17 }
    expect(() => loopPitches({ ...loop, rearTeeth: 7 })).toThrow(/8 teeth or more/)
    expect(() => loopPitches({ ...loop, rearTeeth: 16.5 })).toThrow(RangeError)
    expect(() => loopPitches({ ...loop, chainstayMm: 17 })).toThrow(/further apart/)
    expect(() => chainstayFor({ pitches: 30, frontTeeth: 42, rearTeeth: 17 })).toThrow(/do not go round/)
    expect(() => chainstayFor({ pitches: NaN, frontTeeth: 42, rearTeeth: 17 })).toThrow(RangeError)
  })
})

describe('what is added to the loop', () => {
  const one = { rings: 1, largestSprocket: 51, suspension: 'rigid', growthMm: null } as const
  it('is the maker’s figure before any other', () => {
    expect(addedPitches({ ...one, stated: 6 }, DEFAULTS)).toEqual({ pitches: 6, from: 'maker' })
    expect(addedPitches({ ...one, stated: 0 }, DEFAULTS)).toEqual({ pitches: 0, from: 'maker' })
  })
  it('is two, four with one ring and a wide cassette, and six on full suspension', () => {
    expect(addedPitches({ ...one, largestSprocket: 44 }, DEFAULTS)).toEqual({ pitches: 2, from: 'usual' })
    expect(addedPitches({ ...one, rings: 2 }, DEFAULTS)).toEqual({ pitches: 2, from: 'usual' })
    expect(addedPitches(one, DEFAULTS)).toEqual({ pitches: 4, from: 'wide' })
    expect(addedPitches({ ...one, suspension: 'hardtail' }, DEFAULTS)).toEqual({ pitches: 4, from: 'wide' })
    expect(addedPitches({ ...one, suspension: 'full' }, DEFAULTS)).toEqual({ pitches: 6, from: 'wide-suspended' })
    // A long travel is the shop's own to say.
    const own = { ...DEFAULTS, length: { ...DEFAULTS.length, addedLongTravel: 4 } }
    expect(addedPitches({ ...one, suspension: 'full', growthMm: 30 }, own)).toEqual({
      pitches: 8,
      from: 'wide-long-travel',
    })
    expect(addedPitches({ ...one, suspension: 'full', growthMm: 10 }, own).pitches).toBe(6)
  })
  it('counts larger pulleys by a third of their teeth above eleven, up to even', () => {
    expect(pulleyPitches([11, 11], DEFAULTS)).toBe(0)
    expect(pulleyPitches([9, 11], DEFAULTS)).toBe(0)
    expect(pulleyPitches([12, 12], DEFAULTS)).toBe(2)
    expect(pulleyPitches([14, 14], DEFAULTS)).toBe(2)
    expect(pulleyPitches([14, 18], DEFAULTS)).toBe(4)
  })
})

const drive: LengthDrive = {
  type: 'derailleur',
  fronts: [50, 34],
  sprockets: [11, 13, 15, 17, 19, 21, 24, 28, 34],
  chainstayMm: 410,
  suspension: 'rigid',
  growthMm: null,
  statedAdd: null,
  pulleys: [11, 11],
  pulleysCounted: false,
  capacityTeeth: 39,
  largestSprocketTeeth: 34,
}
const lengths = (of: LengthDrive, old: number | null = null): Record<string, number | null> =>
  Object.fromEntries(lengthSchools(of, old, DEFAULTS).map(({ school, pitches }) => [school, pitches]))

describe('the schools side by side', () => {
  it('give this bike each its count', () => {
    expect(lengths(drive, 108)).toEqual({
      'largest-and-added': 110,
      'match-old': 108,
      'through-derailleur': 108,
      'smallest-check': 110,
      'in-doubt': 112,
    })
    const apart = lengthSchools(drive, 108, DEFAULTS).map((school) => school.apart)
    expect(apart).toEqual([0, -2, -2, 0, 2])
  })
  it('hold to each other on healthy bikes: the shortest is not above the recommended, nor that above the longest', () => {
    fc.assert(
      fc.property(chainstay, fc.integer({ min: 30, max: 52 }), fc.integer({ min: 25, max: 51 }), (c, front, rear) => {
        const healthy = { ...drive, chainstayMm: c, fronts: [front], sprockets: [10, rear], capacityTeeth: rear - 10 }
        const found = lengths(healthy)
        expect(found['through-derailleur']!).toBeLessThanOrEqual(found['largest-and-added']!)
        expect(found['largest-and-added']!).toBeLessThanOrEqual(found['smallest-check']! + 2)
      }),
    )
  })
  it('measure a suspended frame at its longest', () => {
    const wide = { ...drive, fronts: [32], sprockets: [10, 51], chainstayMm: 435, suspension: 'full' as const }
    const still = lengths({ ...wide, growthMm: null })['largest-and-added']!
    expect(lengths({ ...wide, growthMm: 20 })['largest-and-added']!).toBeGreaterThan(still)
    expect(lengths({ ...wide, suspension: 'hardtail', growthMm: 20 })['largest-and-added']!).toBeLessThan(still)
  })
  it('leave out pulleys that the maker’s figure counts already', () => {
    const large = { ...drive, pulleys: [14, 18] }
    expect(lengths(large)['largest-and-added']).toBe(114)
    expect(lengths({ ...large, statedAdd: 2, pulleysCounted: true })['largest-and-added']).toBe(110)
    // Nothing was stated, so nothing can have counted them.
    expect(lengths({ ...large, pulleysCounted: true })['largest-and-added']).toBe(114)
  })
  it('name together what is missing, and answer what can be answered without', () => {
    const unknown = lengthSchools({ ...drive, chainstayMm: null, fronts: [], capacityTeeth: null }, 112, DEFAULTS)
    expect(unknown.map(({ school, pitches, missing }) => [school, pitches, missing])).toEqual([
      ['largest-and-added', null, ['chainstayMm', 'fronts']],
      ['match-old', 112, []],
      ['through-derailleur', null, ['chainstayMm', 'fronts']],
      ['smallest-check', null, ['chainstayMm', 'fronts', 'capacityTeeth']],
      ['in-doubt', null, ['chainstayMm', 'fronts']],
    ])
    expect(lengths({ ...drive, capacityTeeth: null })['largest-and-added']).toBe(110)
  })
  it('count one length in all the ways people do', () => {
    expect(countsOf(116)).toEqual({ pitches: 116, withoutJoint: 115, wholeLinks: 58 })
  })
})

describe('the gear reach map', () => {
  const reach = (pitches: number, more: Partial<LengthDrive> = {}) => {
    const of = { ...drive, ...more }
    return gearReach({
      pitches,
      chainstayMm: of.chainstayMm!,
      fronts: of.fronts,
      rears: of.sprockets,
      addPitches: 2,
      ...(of.capacityTeeth === null ? {} : { capacityTeeth: of.capacityTeeth }),
    })
  }
  it('of a chain of the recommended length forbids no gear', () => {
    fc.assert(
      fc.property(
        chainstay,
        fc.uniqueArray(ring, { minLength: 1, maxLength: 3 }),
        fc.uniqueArray(sprocket, { minLength: 2, maxLength: 13 }),
        fc.integer({ min: 0, max: 6 }),
        (chainstayMm, fronts, rears, addPitches) => {
          const pitches = recommendedPitches({
            chainstayMm,
            frontTeeth: Math.max(...fronts),
            rearTeeth: Math.max(...rears),
            addPitches,
          })
          const gears = gearReach({ pitches, chainstayMm, fronts, rears, addPitches })
          expect(gears.filter(({ verdict }) => verdict === 'forbidden')).toEqual([])
        },
      ),
    )
  })
  it('opens no gear by removing pitches', () => {
    const closed = (pitches: number) =>
      new Set(reach(pitches).flatMap((g) => (g.verdict === 'forbidden' ? [`${g.front}/${g.rear}`] : [])))
    for (let pitches = 112; pitches > 96; pitches -= 2)
      for (const gear of closed(pitches)) expect(closed(pitches - 2)).toContain(gear)
  })
  it('does not judge looseness without a capacity', () => {
    expect(reach(120).some(({ verdict }) => verdict === 'loose')).toBe(true)
    expect(reach(120, { capacityTeeth: null }).some(({ verdict }) => verdict === 'loose')).toBe(false)
  })
  it('is told to a rider by ring: the largest sprockets to keep off, all of a ring, or nothing', () => {
    expect(keepOff(reach(110))).toEqual([])
    expect(keepOff(reach(106))).toEqual([
      { verdict: 'forbidden', front: 50, ring: 'largest', which: 'largest', rears: [34] },
    ])
    const short = keepOff(reach(94))
    expect(short[0]).toMatchObject({ front: 50, which: 'all' })
    expect(keepOff(reach(122)).at(-1)).toMatchObject({ verdict: 'loose', ring: 'smallest', which: 'smallest' })
    expect(keepOff(reach(106, { fronts: [50] }))[0]?.ring).toBeNull()
  })
})

describe('a derailleur', () => {
  it('is warned of what it does not take up, and of a sprocket beyond it', () => {
    expect(capacityNeeded(drive)).toBe(39)
    expect(derailleurCautions(drive)).toEqual([])
    expect(derailleurCautions({ ...drive, capacityTeeth: 37 })).toEqual(['capacity-small'])
    expect(derailleurCautions({ ...drive, largestSprocketTeeth: 32 })).toEqual(['sprocket-beyond'])
    expect(derailleurCautions({ ...drive, capacityTeeth: null, largestSprocketTeeth: null })).toEqual([])
  })
})

describe('a drive as it is entered', () => {
  it.each<[string, Partial<LengthDrive>, string, string]>([
    ['a ring of seven teeth', { fronts: [7] }, 'fronts', 'teeth-few'],
    ['a ring of half teeth', { fronts: [33.5] }, 'fronts', 'teeth-malformed'],
    ['a ring of a hundred', { fronts: [100] }, 'fronts', 'teeth-many'],
    ['sprockets out of order', { sprockets: [11, 15, 13] }, 'sprockets', 'sprockets-order'],
    ['a sprocket twice', { sprockets: [11, 13, 13] }, 'sprockets', 'sprocket-twice'],
    ['a chainstay in inches', { chainstayMm: 16.5 }, 'chainstayMm', 'chainstay-inches'],
    ['a chainstay of a child’s seat', { chainstayMm: 120 }, 'chainstayMm', 'chainstay-range'],
    ['a travel that grows a foot', { growthMm: 300 }, 'growthMm', 'growth-range'],
    ['a capacity of nothing', { capacityTeeth: 0 }, 'capacityTeeth', 'capacity-range'],
  ])('names %s', (_, wrong, at, problem) => {
    expect(driveProblems({ ...drive, ...wrong })).toEqual([{ at, problem }])
  })
  it('may list its sprockets from either side, and be known in part', () => {
    expect(driveProblems(drive)).toEqual([])
    expect(driveProblems({ ...drive, sprockets: [...drive.sprockets].reverse() })).toEqual([])
    expect(driveProblems({ ...drive, chainstayMm: null, capacityTeeth: null, fronts: [] })).toEqual([])
  })
  it('has everything that is wrong named together', () => {
    expect(driveProblems({ ...drive, fronts: [7], chainstayMm: 17, capacityTeeth: 200 }).map(({ at }) => at)).toEqual([
      'fronts',
      'chainstayMm',
      'capacityTeeth',
    ])
  })
})

describe('the bounds of what a drive can be', () => {
  const problems = (part: Partial<LengthDrive>) => driveProblems({ ...drive, ...part }).map(({ problem }) => problem)
  it.each<[Partial<LengthDrive>, string | null]>([
    [{ growthMm: 0 }, null],
    [{ growthMm: 80 }, null],
    [{ growthMm: 81 }, 'growth-range'],
    [{ growthMm: -1 }, 'growth-range'],
    [{ capacityTeeth: 8 }, null],
    [{ capacityTeeth: 80 }, null],
    [{ capacityTeeth: 7 }, 'capacity-range'],
    [{ capacityTeeth: 81 }, 'capacity-range'],
    [{ chainstayMm: 320, fronts: [38], sprockets: [12] }, null],
    [{ chainstayMm: 900 }, null],
    [{ chainstayMm: 901 }, 'chainstay-range'],
    [{ chainstayMm: 319 }, 'chainstay-range'],
    [{ chainstayMm: 12 }, 'chainstay-inches'],
    [{ chainstayMm: 36 }, 'chainstay-inches'],
    [{ chainstayMm: 11 }, 'chainstay-range'],
    [{ chainstayMm: 37 }, 'chainstay-range'],
    [{ largestSprocketTeeth: 3 }, 'teeth-few'],
    [{ largestSprocketTeeth: 81 }, 'teeth-many'],
    [{ largestSprocketTeeth: 34 }, null],
    [{ fronts: [80] }, null],
    [{ fronts: [81] }, 'teeth-many'],
    [{ sprockets: [11, 13, 13] }, 'sprocket-twice'],
    [{ sprockets: [11, 15, 13] }, 'sprockets-order'],
  ])('%o: %s', (part, problem) => {
    expect(problems(part)).toEqual(problem === null ? [] : [problem])
  })
  it('does not call a chainstay short where the teeth themselves cannot be', () => {
    expect(problems({ chainstayMm: 320, fronts: [2] })).toEqual(['teeth-few'])
    expect(problems({ chainstayMm: 320, sprockets: [2] })).toEqual(['teeth-few'])
  })
})

describe('a loop without a derailleur', () => {
  const loop = { frontTeeth: 44, rearTeeth: 18, fromMm: 420, toMm: 440, halfLink: false }
  it('has every even count its dropout takes, and odd ones with a half link', () => {
    const even = fixedLengths(loop, DEFAULTS)
    expect(even.map(({ pitches }) => pitches)).toEqual([98, 100])
    for (const { chainstayMm } of even) {
      expect(chainstayMm).toBeGreaterThanOrEqual(420)
      expect(chainstayMm).toBeLessThanOrEqual(440)
    }
    const both = fixedLengths({ ...loop, halfLink: true }, DEFAULTS)
    expect(both.map(({ pitches, halfLink }) => [pitches, halfLink])).toEqual([
      [98, false],
      [99, true],
      [100, false],
    ])
  })
  it('with an axle that cannot be moved mostly has none: it wants a tensioner', () => {
    const fixed = { ...loop, fromMm: 425, toMm: 425 }
    expect(fixedLengths(fixed, DEFAULTS)).toEqual([])
    const length = tensionedPitches(fixed)
    expect(length % 2).toBe(0)
    expect(length).toBeGreaterThan(loopPitches({ ...loop, chainstayMm: 425 }))
    const lucky = chainstayFor({ pitches: 98, frontTeeth: 44, rearTeeth: 18 })
    expect(
      fixedLengths({ ...loop, fromMm: lucky + 0.3, toMm: lucky + 0.3 }, DEFAULTS).map(({ pitches }) => pitches),
    ).toEqual([98])
  })
  it('has no range from far to near', () => {
    expect(() => fixedLengths({ ...loop, fromMm: 440, toMm: 420 }, DEFAULTS)).toThrow(RangeError)
  })
})

describe('the cut plan', () => {
  it('for a link takes an even piece off a chain that is inner at both ends', () => {
    expect(cutPlan({ pitches: 110, inBox: 116, boxEnds: 'both-inner', closedBy: 'link' })).toEqual({
      boxes: 1,
      joints: 1,
      chainPitches: 109,
      cuts: [{ pitches: 6, end: 'either' }],
      offcut: 6,
      ends: 'both-inner',
      losesPresetPin: false,
    })
  })
  it('for a pin cuts the inner end, so that the outer one keeps its pin', () => {
    expect(cutPlan({ pitches: 110, inBox: 114, boxEnds: 'one-outer', closedBy: 'pin' })).toMatchObject({
      chainPitches: 110,
      cuts: [{ pitches: 4, end: 'inner' }],
      ends: 'one-outer',
    })
  })
  it('turns a chain made for a pin into one for a link by its outer plate', () => {
    expect(cutPlan({ pitches: 114, inBox: 114, boxEnds: 'one-outer', closedBy: 'link' })).toMatchObject({
      chainPitches: 113,
      cuts: [{ pitches: 1, end: 'outer' }],
      offcut: 0,
      losesPresetPin: true,
    })
  })
  it('cuts nothing from a chain that fits as it comes', () => {
    expect(cutPlan({ pitches: 116, inBox: 116, boxEnds: 'both-inner', closedBy: 'link' }).cuts).toEqual([])
  })
  it('takes as many boxes and joints as a long bike needs', () => {
    expect(cutPlan({ pitches: 170, inBox: 116, boxEnds: 'both-inner', closedBy: 'link' })).toMatchObject({
      boxes: 2,
      joints: 2,
      chainPitches: 168,
    })
  })
  it('accounts for every pitch that was bought', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 140 }),
        fc.integer({ min: 40, max: 70 }),
        fc.constantFrom('both-inner' as const, 'one-outer' as const),
        fc.constantFrom('link' as const, 'pin' as const),
        (halfLength, halfBox, boxEnds, closedBy) => {
          const [pitches, inBox] = [2 * halfLength, 2 * halfBox]
          const plan = cutPlan({ pitches, inBox, boxEnds, closedBy })
          const bought = plan.boxes * (boxEnds === 'both-inner' ? inBox - 1 : inBox)
          const cut = plan.cuts.reduce((sum, one) => sum + one.pitches, 0)
          expect(plan.chainPitches + cut).toBe(bought)
          expect(plan.chainPitches + (closedBy === 'link' ? plan.joints : 0)).toBe(pitches)
          expect(cut).toBeGreaterThanOrEqual(0)
        },
      ),
    )
  })
  it('does not close an odd count', () => {
    expect(() => cutPlan({ pitches: 111, inBox: 116, boxEnds: 'both-inner', closedBy: 'link' })).toThrow(RangeError)
    expect(() => cutPlan({ pitches: 110, inBox: 1, boxEnds: 'both-inner', closedBy: 'link' })).toThrow(RangeError)
  })
})
