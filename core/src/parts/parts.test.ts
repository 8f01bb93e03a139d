import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  aheadBy,
  DEFAULTS,
  chainProblems,
  factsWanted,
  jointProblems,
  judgeChain,
  judgeJoint,
  linksAYear,
  matchChains,
  matchJoints,
  newJoint,
  presentJoint,
  removalsAYear,
  speedsMatch,
  widthClassOf,
  worstOutcome,
  type ChainModel,
  type JointCandidate,
  type JointModel,
  type JointQuery,
  type PartsDrive,
} from '../index.ts'

const drive: PartsDrive = {
  type: 'derailleur',
  speeds: 11,
  system: { id: 'tidal-11', flatTop: false, largeRoller: false },
  level: 'two',
  ringWidth: '3/32',
  motor: false,
  pitches: 112,
  sprocketsSuspect: false,
  care: 'dry-oil',
  takenOff: false,
}
const chain: ChainModel = {
  id: 'c1',
  maker: 'Varrow',
  name: 'Eleven',
  speeds: [11],
  innerMm: 2.2,
  outerMm: 5.5,
  profile: 'plain',
  roller: 'standard',
  approvedFor: ['tidal-11'],
  excludedFrom: [],
  joints: ['link', 'pin'],
  markedOut: false,
  coating: 'plain',
  flaredPins: false,
  motorRated: false,
  level: null,
  inBox: 116,
  jointInBox: 'link',
  price: 3200,
  stock: 2,
}
const link: JointModel = {
  id: 'l1',
  kind: 'link',
  maker: 'Varrow',
  name: 'Eleven link',
  speeds: [11],
  profile: 'plain',
  roller: 'standard',
  outerMm: 5.55,
  reuse: { kind: 'once' },
  belongsTo: [],
  systems: [],
  arrow: false,
  letteredOut: false,
  openedBy: 'pliers',
  greased: false,
  guide: null,
  sheet: null,
  price: 400,
  stock: 10,
}
const pin: JointModel = { ...link, id: 'p1', kind: 'pin', name: 'Eleven pin', outerMm: null }

describe('the rules of a chain', () => {
  const said = (rule: string, ofDrive: Partial<PartsDrive>, ofChain: Partial<ChainModel> = {}): string | null => {
    const found = judgeChain({ ...drive, ...ofDrive }, { ...chain, ...ofChain }).rules.find((one) => one.rule === rule)
    return found ? `${found.outcome}: ${found.reason}` : null
  }
  const flat = { id: 'quay-12', flatTop: true, largeRoller: false }
  const large = { id: 'mole-13', flatTop: false, largeRoller: true }
  const hub = { type: 'hub-gear', speeds: 8, system: null } as const
  it.each<[string, Partial<PartsDrive>, Partial<ChainModel>, string | null]>([
    ['speeds', {}, {}, 'fits: speeds-match'],
    ['speeds', { speeds: 10 }, {}, 'does-not-fit: speeds-differ'],
    ['speeds', { speeds: 7 }, { speeds: [8] }, 'fits: speeds-match'],
    ['speeds', { speeds: 9 }, { speeds: [6, 7, 8] }, 'does-not-fit: speeds-differ'],
    ['speeds', hub, { speeds: [1] }, 'fits: speeds-single'],
    ['speeds', hub, { speeds: [6, 7, 8] }, 'does-not-fit: speeds-not-single'],
    ['width', {}, {}, 'fits: width-match'],
    ['width', {}, { innerMm: 3.3 }, 'caution: width-wide-chain'],
    ['width', { ...hub, ringWidth: '1/8' }, { speeds: [1], innerMm: 2.4 }, 'does-not-fit: width-narrow-chain'],
    ['width', { ringWidth: null }, {}, 'fits: width-match'],
    ['width', { ...hub, ringWidth: null }, { speeds: [1] }, 'not-known: width-ring-unknown'],
    ['width', { ...hub, ringWidth: '1/8' }, { speeds: [1], innerMm: null }, 'not-known: width-chain-unknown'],
    ['profile', {}, {}, 'fits: profile-ordinary'],
    ['profile', { system: flat }, { profile: 'flat-top' }, 'fits: profile-special'],
    ['profile', { system: flat }, {}, 'does-not-fit: profile-wants-special'],
    ['profile', {}, { profile: 'flat-top' }, 'does-not-fit: profile-only-special'],
    ['profile', { system: null, speeds: 12 }, { speeds: [12] }, 'not-known: profile-unknown'],
    ['profile', { system: null }, {}, 'fits: profile-ordinary'],
    ['profile', { system: null }, { profile: 'flat-top' }, 'not-known: profile-unknown'],
    ['rollers', { system: large }, { roller: 'large' }, 'fits: rollers-special'],
    ['rollers', { system: large }, {}, 'does-not-fit: rollers-wants-special'],
    ['rollers', {}, { roller: 'large' }, 'does-not-fit: rollers-only-special'],
    ['rollers', { system: null, speeds: 13 }, { roller: 'large' }, 'not-known: rollers-unknown'],
    ['system', {}, {}, 'fits: system-approved'],
    ['system', {}, { approvedFor: [] }, 'caution: system-not-listed'],
    ['system', {}, { approvedFor: [], excludedFrom: ['tidal-11'] }, 'does-not-fit: system-excluded'],
    ['system', { system: null }, {}, 'not-known: system-unknown'],
    ['system', hub, { speeds: [1], approvedFor: [] }, 'fits: system-none'],
    ['motor', {}, {}, null],
    ['motor', { motor: true }, {}, 'caution: motor-not-rated'],
    ['motor', { motor: true }, { motorRated: true }, 'fits: motor-rated'],
    ['motor', { motor: null }, {}, 'not-known: motor-unknown'],
    ['length', {}, {}, 'fits: length-in-box'],
    ['length', { pitches: 170 }, {}, 'caution: length-boxes'],
    ['length', { pitches: null }, {}, 'not-known: length-unknown'],
    ['worn-sprockets', {}, {}, null],
    ['worn-sprockets', { sprocketsSuspect: true }, {}, 'caution: worn-sprockets'],
  ])('%s: %o with %o', (rule, ofDrive, ofChain, expected) => {
    expect(said(rule, ofDrive, ofChain)).toBe(expected)
  })
})

describe('the rules of a joint', () => {
  const query: JointQuery = { chain, newChain: false, speeds: 11, school: 'strict', care: 'dry-oil', assumed: DEFAULTS }
  const used = (closings: number | null, reuse: JointModel['reuse'], firm?: boolean): JointCandidate => ({
    model: { ...link, reuse },
    closings,
    ...(firm === undefined ? {} : { firm }),
  })
  const said = (rule: string, joint: JointCandidate, more: Partial<JointQuery> = {}): string | null => {
    const found = judgeJoint({ ...query, ...more }, joint).rules.find((one) => one.rule === rule)
    return found ? `${found.outcome}: ${found.reason}` : null
  }
  const pressed: JointCandidate = { model: 're-press' }
  const flatChain = { ...chain, profile: 'flat-top' as const }
  it.each<[string, JointCandidate, Partial<JointQuery>, string | null]>([
    ['joint-kind', newJoint(link), {}, 'fits: kind-link'],
    ['joint-kind', newJoint({ ...link, kind: 'clip' }), {}, 'does-not-fit: kind-not-taken'],
    ['joint-kind', pressed, {}, null],
    ['joint-speeds', newJoint(link), {}, 'fits: joint-speeds-match'],
    ['joint-speeds', newJoint({ ...link, speeds: [10] }), {}, 'does-not-fit: joint-speeds-differ'],
    ['joint-profile', newJoint(link), {}, 'fits: joint-profile-plain'],
    ['joint-profile', newJoint(link), { chain: flatChain }, 'does-not-fit: joint-profile-differs'],
    ['joint-profile', newJoint({ ...link, profile: 'flat-top' }), { chain: flatChain }, 'fits: joint-profile-own'],
    ['joint-profile', newJoint({ ...link, roller: 'large' }), {}, 'does-not-fit: joint-profile-differs'],
    ['joint-maker', newJoint(link), {}, 'fits: joint-maker-own'],
    ['joint-maker', newJoint({ ...link, maker: 'Mabry' }), {}, 'fits: joint-maker-mixes'],
    ['joint-maker', newJoint({ ...link, maker: 'Mabry' }), { chain: flatChain }, 'does-not-fit: joint-maker-special'],
    ['joint-maker', newJoint(pin), {}, 'fits: joint-maker-pin'],
    ['joint-maker', newJoint({ ...pin, maker: 'Mabry' }), {}, 'does-not-fit: joint-maker-pin-other'],
    ['joint-maker', newJoint({ ...pin, belongsTo: ['c9'] }), {}, 'does-not-fit: joint-maker-pin-other'],
    ['joint-width', newJoint(link), {}, 'fits: joint-width-match'],
    ['joint-width', newJoint({ ...link, outerMm: 5.65 }), {}, 'fits: joint-width-match'],
    ['joint-width', newJoint({ ...link, outerMm: 5.7 }), {}, 'does-not-fit: joint-width-apart'],
    ['joint-width', newJoint({ ...link, outerMm: null }), {}, 'not-known: joint-width-unknown'],
    ['joint-width', newJoint(pin), {}, null],
    ['re-press', pressed, { speeds: 8 }, 'fits: re-press-wide'],
    ['re-press', pressed, { speeds: 1 }, 'fits: re-press-wide'],
    ['re-press', pressed, { speeds: 9 }, 'caution: re-press-nine'],
    ['re-press', pressed, { speeds: 10 }, 'does-not-fit: re-press-narrow'],
    ['re-press', pressed, { speeds: 8, chain: { ...chain, flaredPins: true } }, 'does-not-fit: re-press-flared'],
    ['reuse', newJoint(link), { newChain: true }, 'fits: reuse-new'],
    ['reuse', used(1, { kind: 'times', most: 5 }), { newChain: true }, 'does-not-fit: reuse-new-chain'],
    ['reuse', used(4, { kind: 'times', most: 5 }), {}, 'fits: reuse-within'],
    ['reuse', used(5, { kind: 'times', most: 5 }), {}, 'does-not-fit: reuse-spent'],
    ['reuse', used(5, { kind: 'times', most: 5 }), { school: 'by-feel' }, 'caution: reuse-by-feel'],
    ['reuse', used(1, { kind: 'once' }), {}, 'does-not-fit: reuse-spent'],
    ['reuse', used(1, { kind: 'once' }), { school: 'by-feel' }, 'caution: reuse-by-feel'],
    ['reuse', used(1, { kind: 'once' }, false), { school: 'by-feel' }, 'does-not-fit: reuse-not-firm'],
    ['reuse', used(9, { kind: 'firm' }), {}, 'fits: reuse-firm'],
    ['reuse', used(null, { kind: 'once' }), {}, 'not-known: reuse-uncounted'],
    ['ends', newJoint(link), { ends: 'both-inner' }, 'fits: ends-both-inner'],
    ['ends', newJoint(link), { ends: 'one-outer' }, 'does-not-fit: ends-want-inner'],
    ['ends', newJoint(pin), { ends: 'both-inner' }, 'does-not-fit: ends-want-outer'],
    ['ends', newJoint(pin), {}, null],
    ['pin-and-wax', newJoint(pin), { care: 'immersion-wax' }, 'caution: pin-and-wax'],
    ['pin-and-wax', newJoint(link), { care: 'immersion-wax' }, null],
  ])('%s: %#', (rule, joint, more, expected) => {
    expect(said(rule, joint, more)).toBe(expected)
  })
  it('answer "no eleven-speed link: will a ten do?" as they answer everything', () => {
    const ten = newJoint({ ...link, speeds: [10], outerMm: 5.9 })
    const asked = judgeJoint(query, ten)
    expect(asked.outcome).toBe('does-not-fit')
    expect(asked.rules.filter(({ outcome }) => outcome === 'does-not-fit').map(({ rule }) => rule)).toEqual([
      'joint-speeds',
      'joint-width',
    ])
    expect(matchJoints(query, [ten])[0]).toEqual(asked)
  })
})

describe('chains ranked', () => {
  const other = (more: Partial<ChainModel>): ChainModel => ({ ...chain, ...more })
  it('are what fits, then what wants care, then what is not known, then what does not fit', () => {
    const list = matchChains(drive, [
      other({ id: 'no', speeds: [10] }),
      other({ id: 'careful', approvedFor: [] }),
      other({ id: 'good', price: 9000, stock: 0 }),
    ])
    expect(list.map(({ part, outcome }) => [part.id, outcome])).toEqual([
      ['good', 'fits'],
      ['careful', 'caution'],
      ['no', 'does-not-fit'],
    ])
  })
  it('have the drivetrain’s own level first, then what is in stock, then the cheaper', () => {
    const list = matchChains(drive, [
      other({ id: 'dear', price: 5000 }),
      other({ id: 'cheap', price: 2000 }),
      other({ id: 'gone', price: 1000, stock: 0 }),
      other({ id: 'own', level: 'two', price: 8000, stock: 0 }),
      other({ id: 'unpriced', price: null }),
    ])
    expect(list.map(({ part }) => part.id)).toEqual(['own', 'cheap', 'dear', 'unpriced', 'gone'])
  })
  const anyDrive = fc.record<PartsDrive>({
    type: fc.constantFrom('derailleur', 'hub-gear', 'single-speed'),
    speeds: fc.integer({ min: 1, max: 13 }),
    system: fc.constantFrom(
      { id: 's', flatTop: false, largeRoller: false },
      { id: 'f', flatTop: true, largeRoller: false },
      { id: 'l', flatTop: false, largeRoller: true },
    ),
    level: fc.constantFrom(null, 'two'),
    ringWidth: fc.constantFrom('3/32', '1/8'),
    motor: fc.boolean(),
    pitches: fc.integer({ min: 80, max: 180 }),
    sprocketsSuspect: fc.boolean(),
    care: fc.constantFrom('dry-oil', 'immersion-wax'),
    takenOff: fc.boolean(),
  })
  const anyChain = fc.record<ChainModel>({
    id: fc.uuid(),
    maker: fc.constantFrom('Varrow', 'Mabry'),
    name: fc.constantFrom('A', 'B'),
    speeds: fc.constantFrom([1], [6, 7, 8], [9], [10], [11], [12], [13]),
    innerMm: fc.constantFrom(2.2, 2.4, 3.2),
    outerMm: fc.constantFrom(5.5, 7.1),
    profile: fc.constantFrom('plain', 'asymmetric', 'flat-top'),
    roller: fc.constantFrom('standard', 'large'),
    approvedFor: fc.constantFrom([], ['s'], ['f', 'l']),
    excludedFrom: fc.constantFrom([], ['f'], ['s', 'l']),
    joints: fc.constantFrom(['link'], ['pin'], ['link', 'pin', 're-press']),
    markedOut: fc.boolean(),
    coating: fc.constantFrom('plain', 'plated'),
    flaredPins: fc.boolean(),
    motorRated: fc.boolean(),
    level: fc.constantFrom(null, 'two'),
    inBox: fc.constantFrom(112, 116),
    jointInBox: fc.constantFrom('none', 'link', 'pin'),
    price: fc.constantFrom(null, 1000, 2500),
    stock: fc.integer({ min: 0, max: 3 }),
  })
  it('do not change with the order of the catalogue, nor fit or not by price and stock', () => {
    fc.assert(
      fc.property(anyDrive, fc.uniqueArray(anyChain, { selector: ({ id }) => id, maxLength: 12 }), (of, chains) => {
        const list = matchChains(of, chains)
        expect(matchChains(of, [...chains].reverse())).toEqual(list)
        for (const { part, outcome } of list)
          expect(judgeChain(of, { ...part, price: 1, stock: 99 }).outcome).toBe(outcome)
      }),
    )
  })
  it('say by what each stands before the next, and never before one ahead of it', () => {
    const [own, cheap, dear] = matchChains(drive, [
      other({ id: 'dear', price: 5000 }),
      other({ id: 'cheap', price: 2000 }),
      other({ id: 'own', level: 'two', price: 8000, stock: 0 }),
    ])
    expect([aheadBy(drive, own!, cheap!), aheadBy(drive, cheap!, dear!), aheadBy(drive, dear!, cheap!)]).toEqual([
      'level',
      'price',
      null,
    ])
    fc.assert(
      fc.property(anyDrive, fc.uniqueArray(anyChain, { selector: ({ id }) => id, maxLength: 12 }), (of, chains) => {
        const list = matchChains(of, chains)
        for (const [i, one] of list.slice(1).entries()) {
          expect(aheadBy(of, one, list[i]!)).toBeNull()
          expect(aheadBy(of, list[i]!, one)).not.toBeNull()
        }
      }),
    )
  })
  it('are never offered as fitting where a rule excludes them', () => {
    fc.assert(
      fc.property(anyDrive, anyChain, (of, one) => {
        const { outcome, rules } = judgeChain(of, one)
        expect(outcome === 'does-not-fit').toBe(rules.some((rule) => rule.outcome === 'does-not-fit'))
        if (outcome === 'fits') expect(rules.every((rule) => rule.outcome === 'fits')).toBe(true)
      }),
    )
  })
  it('that do not fit are not made to fit by learning something else', () => {
    const gap = fc.subarray(['system', 'ringWidth', 'motor', 'pitches'] as const)
    fc.assert(
      fc.property(anyDrive, anyChain, gap, (whole, one, gaps) => {
        const less = { ...whole, ...Object.fromEntries(gaps.map((fact) => [fact, null])) }
        const before = judgeChain(less, one)
        if (before.outcome === 'does-not-fit') expect(judgeChain(whole, one).outcome).toBe('does-not-fit')
        // And nothing is called fitting that a fact could still exclude by its system.
        if (before.outcome === 'fits' && whole.speeds >= 12 && whole.type === 'derailleur')
          expect(judgeChain(whole, one).outcome).not.toBe('does-not-fit')
      }),
    )
  })
  it('ask for what is missing once, with what it would decide', () => {
    const list = matchChains({ ...drive, system: null, pitches: null }, [
      chain,
      other({ id: 'f', profile: 'flat-top' }),
    ])
    expect(factsWanted(list)).toEqual([
      { fact: 'length', rules: ['length'], parts: 2 },
      { fact: 'system', rules: ['system', 'profile'], parts: 2 },
    ])
    expect(factsWanted(matchChains(drive, [chain]))).toEqual([])
  })
})

describe('a chain that comes off often', () => {
  it('has links that can be used again first, with what the others would cost in a year', () => {
    const again = { ...link, id: 'l2', name: 'Again link', reuse: { kind: 'times', most: 5 } as const, price: 900 }
    const firm = { ...link, id: 'l3', name: 'Firm link', reuse: { kind: 'firm' } as const, price: 1500 }
    const query: JointQuery = {
      chain,
      newChain: true,
      speeds: 11,
      school: 'strict',
      care: 'immersion-wax',
      assumed: DEFAULTS,
    }
    const ids = (removals: number): string[] =>
      matchJoints({ ...query, removalsAYear: removals }, [link, again, firm].map(newJoint)).map(({ part }) =>
        part.model === 're-press' ? '' : part.model.id,
      )
    expect(ids(12)).toEqual(['l3', 'l2', 'l1'])
    expect(ids(0)).toEqual(['l1', 'l2', 'l3'])
    expect(linksAYear(link, 12)).toEqual({ linksAYear: 12, cost: 4800 })
    expect(linksAYear(again, 12)).toEqual({ linksAYear: 3, cost: 2700 })
    expect(linksAYear(firm, 12)).toEqual({ linksAYear: null, cost: null })
    expect(removalsAYear({ care: 'immersion-wax', takenOff: false }, DEFAULTS)).toBe(12)
    expect(removalsAYear({ care: 'dry-oil', takenOff: true }, DEFAULTS)).toBe(6)
    expect(removalsAYear({ care: 'dry-oil', takenOff: false }, DEFAULTS)).toBe(0)
  })
})

describe('joints ranked', () => {
  it('have the kind that comes in the box first, then what can be opened again, whatever it costs', () => {
    const query: JointQuery = {
      chain,
      newChain: true,
      speeds: 11,
      school: 'strict',
      care: 'dry-oil',
      assumed: DEFAULTS,
    }
    const cheapPin = { ...pin, price: 10 }
    const order = (box: ChainModel['jointInBox']): string[] =>
      matchJoints({ ...query, chain: { ...chain, jointInBox: box } }, [newJoint(cheapPin), newJoint(link)]).map(
        ({ part }) => (part.model === 're-press' ? '' : part.model.id),
      )
    expect(order('link')).toEqual(['l1', 'p1'])
    expect(order('none')).toEqual(['l1', 'p1'])
    expect(order('preset-pin')).toEqual(['p1', 'l1'])
  })
})

describe('what a chain is closed with now', () => {
  it('is told by the one link that looks different', () => {
    const nothing = { elongatedHoles: false, springPlate: false, oddPin: false }
    expect(presentJoint(nothing)).toBe('riveted')
    expect(presentJoint({ ...nothing, oddPin: true })).toBe('pin')
    expect(presentJoint({ ...nothing, elongatedHoles: true })).toBe('link')
    expect(presentJoint({ ...nothing, springPlate: true, oddPin: true })).toBe('clip')
    expect(presentJoint({ ...nothing, springPlate: true, elongatedHoles: true })).toBeNull()
  })
})

describe('an entry of the catalogue', () => {
  it('that can be has no problem', () => {
    expect(chainProblems(chain)).toEqual([])
    expect(jointProblems(link)).toEqual([])
  })
  it.each<[string, Partial<ChainModel>, string, string]>([
    ['no speeds', { speeds: [] }, 'speeds', 'speeds-missing'],
    ['thirty speeds', { speeds: [30] }, 'speeds', 'speeds-range'],
    ['plates in inches', { innerMm: 0.09 }, 'innerMm', 'inner-range'],
    ['an outside within its inside', { outerMm: 4, innerMm: 4.5 }, 'outerMm', 'outer-below-inner'],
    ['nothing to close it', { joints: [], jointInBox: 'none' }, 'joints', 'joints-missing'],
    ['a joint in the box it does not take', { joints: ['pin'] }, 'jointInBox', 'joint-in-box-not-taken'],
    ['an odd box', { inBox: 117 }, 'inBox', 'box-odd'],
    ['a box of four', { inBox: 4 }, 'inBox', 'box-range'],
    ['stock below nothing', { stock: -1 }, 'stock', 'stock-negative'],
    ['a price below nothing', { price: -1 }, 'price', 'price-negative'],
    ['a system both ways', { excludedFrom: ['tidal-11'] }, 'excludedFrom', 'systems-both'],
  ])('with %s is named so at its field', (_, wrong, at, problem) => {
    expect(chainProblems({ ...chain, ...wrong })).toEqual([{ at, problem }])
  })
  it('of a joint is held to the same', () => {
    expect(jointProblems({ ...link, outerMm: 30, stock: -2, reuse: { kind: 'times', most: 1 } })).toEqual([
      { at: 'outerMm', problem: 'outer-range' },
      { at: 'reuse', problem: 'reuse-range' },
      { at: 'stock', problem: 'stock-negative' },
    ])
  })
})

describe('speeds and widths', () => {
  it('share chains from six to eight, and stand alone from nine', () => {
    expect(speedsMatch([8], 6)).toBe(true)
    expect(speedsMatch([6, 7, 8], 5)).toBe(true)
    expect(speedsMatch([8], 9)).toBe(false)
    expect(speedsMatch([1], 8)).toBe(false)
    expect(speedsMatch([8], 1)).toBe(false)
    for (const speeds of [9, 10, 11, 12, 13])
      for (const made of [9, 10, 11, 12, 13]) expect(speedsMatch([made], speeds)).toBe(made === speeds)
  })
  it('are told by a caliper between the inner plates', () => {
    expect([2.18, 2.4, 2.79, 2.81, 3.3].map(widthClassOf)).toEqual(['3/32', '3/32', '3/32', '1/8', '1/8'])
    expect(worstOutcome([])).toBe('fits')
  })
})
