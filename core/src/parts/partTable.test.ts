import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { PART_KINDS, readNumber, readPart, writePart, type CataloguePart, type PartNames } from '../index.ts'

const SYSTEMS: Readonly<Record<string, string>> = { 'tidal 11': 's1', 'mole 13': 's2' }
const names: PartNames = {
  systemId: (name) => SYSTEMS[name.toLowerCase()],
  systemName: (id) => Object.keys(SYSTEMS).find((name) => SYSTEMS[name] === id),
  chainId: (maker, name) => (maker === 'Varrow' && name === 'Eleven' ? 'c1' : undefined),
  chainName: (id) => (id === 'c1' ? 'Eleven' : undefined),
}

const chain = {
  kind: 'chain',
  maker: 'Varrow',
  name: 'Eleven',
  price: '26,00',
  stock: '3',
  speeds: '11',
  innerMm: '2.2',
  outerMm: '5,5',
  approvedFor: 'Tidal 11',
  joints: 'link, pin',
  inBox: '116',
  jointInBox: 'link',
}

describe('a part in words', () => {
  it('is read with point or comma, systems by name, and what is left out as its field says', () => {
    const read = readPart(chain, names)
    expect(read).toMatchObject({
      ok: true,
      part: {
        kind: 'chain',
        price: 2600,
        stock: 3,
        reorderPoint: 0,
        facts: {
          speeds: [11],
          innerMm: 2.2,
          outerMm: 5.5,
          approvedFor: ['s1'],
          excludedFrom: [],
          joints: ['link', 'pin'],
          profile: 'plain',
          flaredPins: false,
          level: null,
        },
      },
    })
  })
  it('takes speeds in a run', () => {
    const read = readPart({ ...chain, speeds: '6-8' }, names)
    expect(read.ok && read.part.facts['speeds']).toEqual([6, 7, 8])
  })
  it.each<[string, Record<string, string>, string, string]>([
    ['no kind', { kind: 'saddle' }, 'kind', 'part-kind-unknown'],
    ['a chain with no speeds', { speeds: '' }, 'speeds', 'speeds-missing'],
    ['speeds in words', { speeds: 'eleven' }, 'speeds', 'teeth-malformed'],
    ['negative stock', { stock: '-2' }, 'stock', 'stock-negative'],
    ['half a piece in stock', { stock: '1.5' }, 'stock', 'number-whole'],
    ['a negative price', { price: '-1' }, 'price', 'price-negative'],
    ['a price in words', { price: 'on request' }, 'price', 'number-malformed'],
    ['a name a spreadsheet would compute', { name: '=2+3' }, 'name', 'cell-formula'],
    ['a system nobody knows', { approvedFor: 'Breaker 20' }, 'approvedFor', 'system-unknown'],
    ['a system both ways', { excludedFrom: 'Tidal 11' }, 'excludedFrom', 'systems-both'],
    ['an odd count in the box', { inBox: '115' }, 'inBox', 'box-odd'],
    ['a link in the box that does not close it', { joints: 'pin' }, 'jointInBox', 'joint-in-box-not-taken'],
    ['pins narrower than the inner plates', { innerMm: '4.5', outerMm: '4.4' }, 'outerMm', 'outer-below-inner'],
    ['a reorder point below none', { reorderPoint: '-1' }, 'reorderPoint', 'reorder-negative'],
    ['an answer that is neither', { motorRated: 'perhaps' }, 'motorRated', 'yes-no-unknown'],
    ['a profile there is not', { profile: 'wavy' }, 'profile', 'choice-unknown'],
  ])('with %s says so at its field', (_, cells, at, problem) => {
    const read = readPart({ ...chain, ...cells }, names)
    expect(read.ok ? [] : read.problems).toContainEqual({ at, problem })
  })
  it.each<[string, Record<string, string>, string, string]>([
    ['a ring of seven teeth', { kind: 'ring', teeth: '7', speeds: '11' }, 'teeth', 'teeth-few'],
    ['sprockets out of order', { kind: 'cassette', sprockets: '11 15 13' }, 'sprockets', 'sprockets-order'],
    ['a sprocket twice', { kind: 'cassette', sprockets: '11 11 13' }, 'sprockets', 'sprocket-twice'],
    ['no sprockets', { kind: 'cassette' }, 'sprockets', 'teeth-missing'],
    [
      'one pulley',
      { kind: 'derailleur', speeds: '11', capacityTeeth: '37', largestSprocketTeeth: '34', pulleys: '11' },
      'pulleys',
      'pulleys-two',
    ],
    [
      'a capacity of nothing',
      { kind: 'derailleur', speeds: '11', capacityTeeth: '2', largestSprocketTeeth: '34', pulleys: '11 11' },
      'capacityTeeth',
      'capacity-range',
    ],
    [
      'a pin for a chain nobody knows',
      { kind: 'pin', speeds: '11', belongsTo: 'Twelve' },
      'belongsTo',
      'chain-unknown',
    ],
    ['a link used minus times', { kind: 'link', speeds: '11', reuse: 'often' }, 'reuse', 'reuse-unknown'],
    ['a link used one time of many', { kind: 'link', speeds: '11', reuse: '1' }, 'reuse', 'reuse-range'],
  ])('of another kind with %s says so', (_, cells, at, problem) => {
    const read = readPart({ maker: 'Varrow', name: 'It', ...cells }, names)
    expect(read.ok ? [] : read.problems).toContainEqual({ at, problem })
  })

  const remark = fc.constantFrom(null, 'centre lock', 'two to a set')
  const common = {
    maker: fc.constantFrom('Varrow', 'Mabry'),
    name: fc.constantFrom('Eleven', 'Ten R'),
    price: fc.option(fc.integer({ min: 0, max: 999_999 })),
    stock: fc.integer({ min: 0, max: 500 }),
    reorderPoint: fc.integer({ min: 0, max: 9 }),
  }
  const joint = {
    speeds: fc.constantFrom([11], [6, 7, 8]),
    profile: fc.constantFrom('plain', 'flat-top'),
    roller: fc.constantFrom('standard', 'large'),
    outerMm: fc.constantFrom(null, 5.55),
    systems: fc.constantFrom([], ['s2', 's1']),
    reuse: fc.constantFrom({ kind: 'once' }, { kind: 'firm' }, { kind: 'times', most: 5 }),
    belongsTo: fc.constantFrom([], ['c1']),
    arrow: fc.boolean(),
    letteredOut: fc.boolean(),
    openedBy: fc.constantFrom('hand', 'pliers', 'never'),
    greased: fc.boolean(),
    guide: fc.constantFrom(null, 'snapped'),
    sheet: fc.constantFrom(null, 'Close it with pliers.'),
  }
  const facts = {
    link: joint,
    pin: joint,
    clip: joint,
    chain: {
      speeds: fc.constantFrom([11], [6, 7, 8]),
      innerMm: fc.constantFrom(null, 2.2),
      outerMm: fc.constantFrom(null, 5.55),
      profile: fc.constantFrom('plain', 'asymmetric'),
      roller: fc.constantFrom('standard', 'large'),
      approvedFor: fc.constantFrom([], ['s1']),
      excludedFrom: fc.constantFrom([], ['s2']),
      joints: fc.constantFrom(['link'], ['link', 're-press']),
      flaredPins: fc.boolean(),
      markedOut: fc.boolean(),
      coating: fc.constantFrom('plain', 'plated'),
      motorRated: fc.boolean(),
      level: fc.constantFrom(null, 'estuary'),
      inBox: fc.constantFrom(112, 126),
      jointInBox: fc.constantFrom('none', 'link'),
    },
    cassette: { sprockets: fc.constantFrom([11, 13, 15], [51, 44]), systems: fc.constantFrom([], ['s1']) },
    ring: {
      teeth: fc.constantFrom([42], [50, 34]),
      width: fc.constantFrom('3/32', '1/8'),
      wideNarrow: fc.boolean(),
      speeds: fc.constant([11]),
    },
    derailleur: {
      speeds: fc.constant([11]),
      systems: fc.constant(['s1']),
      capacityTeeth: fc.integer({ min: 8, max: 80 }),
      largestSprocketTeeth: fc.integer({ min: 20, max: 52 }),
      pulleys: fc.constant([11, 13]),
      clutch: fc.boolean(),
      cageLock: fc.boolean(),
      addPitches: fc.option(fc.integer({ min: 0, max: 12 })),
      addPitchesSuspended: fc.option(fc.integer({ min: 0, max: 12 })),
      pulleysCounted: fc.boolean(),
    },
    pulley: { teeth: fc.constant([11, 13]), remark },
    rotor: { minimumMm: fc.option(fc.constant(1.5)), remark },
    pads: { remark },
    tyre: { remark },
    consumable: { remark },
    tool: { remark },
  }
  const anyPart = fc.oneof(
    ...PART_KINDS.map((kind) =>
      fc.record({
        kind: fc.constant(kind),
        ...common,
        facts: fc.record(facts[kind] as Record<string, fc.Arbitrary<unknown>>),
      }),
    ),
  ) as fc.Arbitrary<CataloguePart>
  it('of any kind is the same part after it was written and read again', () => {
    fc.assert(
      fc.property(anyPart, (part) => {
        // A name only its own maker has.
        const own = part.facts['belongsTo'] === undefined ? part : { ...part, maker: 'Varrow' }
        expect(readPart(writePart(own, names), names)).toEqual({ ok: true, part: own })
      }),
    )
  })
})

describe('a number in words', () => {
  it.each([
    ['34', 34],
    ['34.5', 34.5],
    ['34,50', 34.5],
    ['1.234,50', 1234.5],
    ['1,234.50', 1234.5],
    ['1 234,5', 1234.5],
    ['1.234.567', 1_234_567],
    ['.5', 0.5],
    ['-3', -3],
    ['−3', -3],
  ])('%s is %d', (typed, is) => expect(readNumber(typed)).toBe(is))
  it.each(['', 'ten', '1.2.3', '3 km', '12..5', '1,23,456'])('%s is none', (typed) =>
    expect(readNumber(typed)).toBeNaN(),
  )
})
