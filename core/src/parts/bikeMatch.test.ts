import { describe, expect, it } from 'vitest'
import {
  DEFAULTS,
  bikeQuestion,
  cutFor,
  jointCandidateId,
  matchForBike,
  shoppingList,
  withOwn,
  type AskedOfBike,
  type BikeForParts,
  type ChainModel,
  type JointModel,
} from '../index.ts'

const chain = (more: Partial<ChainModel>): ChainModel => ({
  id: 'nine',
  maker: 'Mabry',
  name: 'Nine',
  speeds: [9],
  innerMm: 2.2,
  outerMm: 6.6,
  profile: 'plain',
  roller: 'standard',
  approvedFor: ['dyke'],
  excludedFrom: [],
  joints: ['link', 'pin'],
  markedOut: false,
  coating: 'plain',
  flaredPins: false,
  motorRated: false,
  level: null,
  inBox: 116,
  jointInBox: 'link',
  price: 1700,
  stock: 2,
  ...more,
})
const link = (more: Partial<JointModel>): JointModel => ({
  id: 'link9',
  kind: 'link',
  maker: 'Mabry',
  name: 'Link 9',
  speeds: [9],
  profile: 'plain',
  roller: 'standard',
  outerMm: 6.6,
  reuse: { kind: 'times', most: 3 },
  belongsTo: [],
  systems: [],
  arrow: false,
  letteredOut: false,
  openedBy: 'pliers',
  greased: false,
  guide: null,
  sheet: null,
  price: 500,
  stock: 4,
  ...more,
})
const single = chain({
  id: 'plain',
  name: 'Plain',
  speeds: [1],
  innerMm: 2.4,
  outerMm: 7.6,
  approvedFor: [],
  inBox: 112,
})
const catalogue = {
  chains: [chain({}), chain({ id: 'ten', name: 'Ten', speeds: [10] }), single],
  joints: [
    link({}),
    link({ id: 'other', maker: 'Varrow', name: 'Link 9' }),
    link({ id: 'one', name: 'Broad', speeds: [1], outerMm: 7.6 }),
  ],
}
const tandem: BikeForParts = {
  drive: {
    type: 'derailleur',
    speeds: 9,
    fronts: [48, 36, 26],
    sprockets: [11, 13, 15, 17, 20, 23, 26, 30, 34],
    system: { id: 'dyke', flatTop: false, largeRoller: false },
    level: null,
    ringWidth: null,
    motor: false,
    takenOff: false,
    chainstayMm: 445,
    suspension: 'rigid',
    growthMm: null,
    statedAdd: null,
    pulleys: null,
    pulleysCounted: false,
    ownPitches: null,
    capacityTeeth: 45,
    largestSprocketTeeth: 34,
    axleMm: null,
    timing: { teeth: [40, 40], fromMm: 690, toMm: 714 },
  },
  care: 'dry-oil',
  sprocketsSuspect: true,
  oldPitches: 114,
  presentChainId: 'nine',
  present: { model: link({}), closings: 3, firm: true },
  kept: null,
}
const asked: AskedOfBike = { of: 'drive', joints: 'new', school: 'strict' }
const match = (more: Partial<AskedOfBike> = {}, bike = tandem) => {
  const { question, pitches } = bikeQuestion(bike, { ...asked, ...more }, DEFAULTS)
  return { pitches, ...matchForBike(question, catalogue) }
}

describe('what fits a bike', () => {
  it('is its drive chain at the length worked out, with a joint for a new chain', () => {
    const { pitches, chainId, joints, chainsExcluded } = match()
    expect([pitches, chainId, chainsExcluded]).toEqual([114, 'nine', 2])
    expect(joints[0]).toMatchObject({ outcome: 'fits', part: { closings: 0, model: { id: 'link9' } } })
  })
  it('of a tandem’s second chain runs over two rings: one speed, 3/32″, no sprockets to suspect, two boxes', () => {
    const { pitches, chainId, chains } = match({ of: 'timing' })
    expect([pitches, chainId]).toEqual([150, 'plain'])
    const rules = chains[0]!.rules.map(({ rule, outcome }) => `${rule} ${outcome}`)
    expect(rules).toContain('width fits')
    expect(rules).toContain('length caution')
    expect(rules.join()).not.toContain('worn-sprockets')
  })
  it('may be asked by name, whether it fits or not, and at another length', () => {
    const { chains, pitches } = match({ ask: 'mabry ten', pitches: 120 })
    expect(chains[0]).toMatchObject({ outcome: 'does-not-fit', part: { id: 'ten' } })
    expect(pitches).toBe(120)
  })
  it('to close the old chain again begins with the link that is on it, by both schools', () => {
    const strict = match({ joints: 'on' })
    expect(strict.chainId).toBe('nine')
    expect(jointCandidateId(strict.joints[0]!)).toBe('link9 used')
    expect(strict.joints[0]?.outcome).toBe('does-not-fit')
    expect(match({ joints: 'on', school: 'by-feel' }).joints[0]?.outcome).toBe('caution')
    const fresh = { ...tandem, present: { model: link({}), closings: 1, firm: true } }
    expect(match({ joints: 'on' }, fresh).joints[0]?.outcome).toBe('fits')
    const weak = { ...tandem, present: { model: link({}), closings: 1, firm: false } }
    expect(match({ joints: 'on', school: 'by-feel' }, weak).joints[0]?.outcome).toBe('does-not-fit')
  })
  it('counts what is kept for it as there', () => {
    const none = { chains: catalogue.chains.map((one) => ({ ...one, stock: 0 })), joints: catalogue.joints }
    const own = withOwn(none, [
      { partId: 'nine', quantity: 2, included: false },
      { partId: 'ten', quantity: 1, included: true },
    ])
    expect(own.chains.map(({ stock }) => stock)).toEqual([2, 0, 0])
    expect(withOwn(none, [])).toBe(none)
  })
})

describe('the shopping list', () => {
  const fresh = (model: JointModel) => ({ model, closings: 0 })
  it('has the chain, and its maker’s link out of its box', () => {
    expect(shoppingList(chain({}), fresh(link({})), 114)).toEqual([
      { partId: 'nine', quantity: 1, included: false },
      { partId: 'link9', quantity: 1, included: true },
    ])
  })
  it('pays for another maker’s link, and for one where none is in the box', () => {
    expect(shoppingList(chain({}), fresh(link({ maker: 'Varrow' })), 114)[1]?.included).toBe(false)
    expect(shoppingList(chain({ jointInBox: 'none' }), fresh(link({})), 114)[1]?.included).toBe(false)
  })
  it('has two boxes and two joints where one does not reach', () => {
    expect(shoppingList(single, fresh(link({ speeds: [1] })), 150)).toMatchObject([{ quantity: 2 }, { quantity: 2 }])
  })
  it('buys no joint where the one that is on is closed again, or the old pin pressed in', () => {
    expect(shoppingList(chain({}), { model: link({}), closings: 1 }, 114)).toHaveLength(1)
    expect(shoppingList(chain({}), { model: 're-press' }, 114)).toHaveLength(1)
  })
  it('of an odd count is bought as the next even one', () => {
    expect(shoppingList(chain({ inBox: 112 }), fresh(link({})), 111)[0]?.quantity).toBe(1)
    expect(shoppingList(chain({ inBox: 112 }), fresh(link({})), 113)[0]?.quantity).toBe(2)
  })
  it('goes with a cut whose ends suit the joint', () => {
    expect(cutFor(chain({}), fresh(link({})), 114).ends).toBe('both-inner')
    expect(cutFor(chain({ jointInBox: 'preset-pin' }), { model: 're-press' }, 114).ends).toBe('one-outer')
  })
})
