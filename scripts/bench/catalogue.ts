import type { Catalogue, ChainModel, JointModel, PartsDrive } from '@pelrin/core'

const SPEEDS = [[1], [6, 7, 8], [9], [10], [11], [12], [13]] as const

/** A catalogue of so many parts of every family, half of them chains, the same every time. */
export function catalogueOf(parts: number): Catalogue {
  const chains = Array.from({ length: Math.floor(parts / 2) }, (_, i): ChainModel => {
    const speeds = SPEEDS[i % SPEEDS.length]!
    return {
      id: `c${i}`,
      maker: `Maker ${i % 40}`,
      name: `Chain ${i}`,
      speeds,
      innerMm: speeds[0] === 1 && i % 2 === 0 ? 3.3 : 2.2,
      outerMm: 5 + (i % 30) / 10,
      profile: i % 9 === 0 ? 'flat-top' : 'plain',
      roller: i % 11 === 0 ? 'large' : 'standard',
      approvedFor: [`s${i % 20}`],
      excludedFrom: i % 5 === 0 ? [`s${(i + 1) % 20}`] : [],
      joints: ['link', 'pin'],
      markedOut: false,
      coating: 'plain',
      flaredPins: i % 2 === 0,
      motorRated: i % 6 === 0,
      level: i % 3 === 0 ? 'harbour' : null,
      inBox: 112 + (i % 8) * 2,
      jointInBox: 'link',
      price: 1_000 + ((i * 37) % 5_000),
      stock: i % 4,
    }
  })
  const joints = Array.from({ length: parts - chains.length }, (_, i): JointModel => ({
    id: `j${i}`,
    kind: i % 3 === 0 ? 'pin' : 'link',
    maker: `Maker ${i % 40}`,
    name: `Joint ${i}`,
    speeds: SPEEDS[i % SPEEDS.length]!,
    profile: 'plain',
    roller: 'standard',
    outerMm: 5 + (i % 30) / 10,
    reuse: i % 2 === 0 ? { kind: 'once' } : { kind: 'times', most: 5 },
    belongsTo: [],
    systems: [],
    arrow: false,
    letteredOut: false,
    openedBy: 'pliers',
    greased: false,
    guide: null,
    sheet: null,
    price: 200 + ((i * 13) % 600),
    stock: i % 5,
  }))
  return { chains, joints }
}

export const DRIVE: PartsDrive = {
  type: 'derailleur',
  speeds: 11,
  system: { id: 's4', flatTop: false, largeRoller: false },
  level: 'harbour',
  ringWidth: '3/32',
  motor: false,
  pitches: 114,
  sprocketsSuspect: true,
  care: 'immersion-wax',
  takenOff: true,
}
