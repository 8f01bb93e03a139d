import type { ChainModel, JointModel } from '@pelrin/contract'
import { DRIVE_KINDS } from './scenario.ts'

/** Systems of the made-up makers. */
export const SYSTEMS = [
  { name: 'Ostling Halyard 12', flatTop: false, largeRoller: false },
  { name: 'Tindrel Scree 12', flatTop: false, largeRoller: false },
  { name: 'Tindrel Quoin 12', flatTop: true, largeRoller: false },
  { name: 'Mabry Capstan 13', flatTop: false, largeRoller: true },
  { name: 'Ostling Halyard 13', flatTop: false, largeRoller: false },
  { name: 'Varrow Gannet 11', flatTop: false, largeRoller: false },
  { name: 'Korvane Wharf 10', flatTop: false, largeRoller: false },
  { name: 'Mabry Dyke 9', flatTop: false, largeRoller: false },
  { name: 'Korvane Wharf 8', flatTop: false, largeRoller: false },
] as const
export type SystemName = (typeof SYSTEMS)[number]['name']

type Facts<Part> = Omit<Part, 'id' | 'approvedFor' | 'excludedFrom' | 'belongsTo' | 'systems'>
export interface PlannedChain extends Facts<ChainModel> {
  readonly approvedFor: readonly SystemName[]
  readonly excludedFrom: readonly SystemName[]
}
export interface PlannedJoint extends Facts<JointModel> {
  /** Names of its maker's chains, where a pin belongs to some only. */
  readonly belongsTo: readonly string[]
}

/** Widths over the pins by speeds, mm. */
const OUTER_MM: Readonly<Record<number, number>> = { 1: 8.6, 8: 7.1, 9: 6.6, 10: 5.9, 11: 5.5, 12: 5.25, 13: 4.95 }
/** Levels of a drivetrain, the plainest first: what the box is marked with, and what it costs more. */
const LEVELS = [
  { level: 'harbour', mark: '', dearer: 1 },
  { level: 'estuary', mark: ' S', dearer: 1.5 },
  { level: 'open sea', mark: ' R', dearer: 2.2 },
] as const

interface Family {
  readonly maker: string
  readonly name: string
  readonly speeds: readonly number[]
  readonly systems: readonly SystemName[]
  readonly price: number
  readonly levels: number
  readonly more?: Partial<PlannedChain>
}

const WIDE = [6, 7, 8]
const FAMILIES: readonly Family[] = [
  { maker: 'Ostling', name: 'Halyard 12', speeds: [12], systems: ['Ostling Halyard 12'], price: 3400, levels: 3 },
  { maker: 'Ostling', name: 'Halyard 13', speeds: [13], systems: ['Ostling Halyard 13'], price: 4800, levels: 3 },
  {
    maker: 'Tindrel',
    name: 'Scree 12',
    speeds: [12],
    systems: ['Tindrel Scree 12'],
    price: 3200,
    levels: 3,
    more: { profile: 'asymmetric', inBox: 126 },
  },
  {
    maker: 'Tindrel',
    name: 'Quoin 12',
    speeds: [12],
    systems: ['Tindrel Quoin 12'],
    price: 5200,
    levels: 2,
    more: { profile: 'flat-top', joints: ['link'], excludedFrom: ['Ostling Halyard 12', 'Tindrel Scree 12'] },
  },
  {
    maker: 'Mabry',
    name: 'Capstan 13',
    speeds: [13],
    systems: ['Mabry Capstan 13'],
    price: 5600,
    levels: 2,
    more: { roller: 'large', joints: ['link'] },
  },
  { maker: 'Varrow', name: 'Eleven', speeds: [11], systems: ['Varrow Gannet 11'], price: 2600, levels: 3 },
  { maker: 'Ostling', name: 'Mooring 11', speeds: [11], systems: ['Varrow Gannet 11'], price: 2400, levels: 2 },
  { maker: 'Korvane', name: 'Ten', speeds: [10], systems: ['Korvane Wharf 10'], price: 2000, levels: 3 },
  { maker: 'Varrow', name: 'Ten', speeds: [10], systems: [], price: 1850, levels: 2 },
  { maker: 'Mabry', name: 'Nine', speeds: [9], systems: ['Mabry Dyke 9'], price: 1700, levels: 3 },
  { maker: 'Korvane', name: 'Nine', speeds: [9], systems: ['Mabry Dyke 9'], price: 1600, levels: 2 },
  {
    maker: 'Korvane',
    name: 'Six to Eight',
    speeds: WIDE,
    systems: ['Korvane Wharf 8'],
    price: 1100,
    levels: 2,
    more: { joints: ['link', 'pin', 're-press'], jointInBox: 'preset-pin' },
  },
  {
    maker: 'Mabry',
    name: 'Eight',
    speeds: WIDE,
    systems: ['Korvane Wharf 8'],
    price: 1000,
    levels: 2,
    more: { joints: ['link', 're-press'] },
  },
  {
    maker: 'Ostling',
    name: 'Motor Twelve',
    speeds: [12],
    systems: ['Ostling Halyard 12', 'Tindrel Scree 12'],
    price: 3900,
    levels: 2,
    more: { motorRated: true, inBox: 126 },
  },
  {
    maker: 'Varrow',
    name: 'Motor Eleven',
    speeds: [11],
    systems: ['Varrow Gannet 11'],
    price: 3100,
    levels: 2,
    more: { motorRated: true, inBox: 124 },
  },
  {
    maker: 'Korvane',
    name: 'Motor Ten',
    speeds: [10],
    systems: ['Korvane Wharf 10'],
    price: 2500,
    levels: 1,
    more: { motorRated: true, inBox: 124 },
  },
  {
    maker: 'Mabry',
    name: 'Broad',
    speeds: [1],
    systems: [],
    price: 1300,
    levels: 2,
    more: { innerMm: 3.3, joints: ['clip', 'link', 're-press'], inBox: 128 },
  },
  {
    maker: 'Mabry',
    name: 'Broad M',
    speeds: [1],
    systems: [],
    price: 1900,
    levels: 1,
    more: { innerMm: 3.3, joints: ['clip', 'link'], inBox: 128, motorRated: true },
  },
  {
    maker: 'Ostling',
    name: 'Plain',
    speeds: [1],
    systems: [],
    price: 1200,
    levels: 2,
    more: { innerMm: 2.45, outerMm: 7.6, joints: ['clip', 'link', 're-press'], inBox: 112 },
  },
  {
    maker: 'Tindrel',
    name: 'Lockgate',
    speeds: [1],
    systems: [],
    price: 2200,
    levels: 2,
    more: { innerMm: 3.3, joints: ['clip', 'link'], flaredPins: true, inBox: 112 },
  },
]

/** How many of a part are in the drawer: some of most, none of a few. */
const stockOf = (i: number): number => [3, 0, 5, 1, 2, 0, 8][(Math.round(i) * 5) % 7]!

export const CHAINS: readonly PlannedChain[] = FAMILIES.flatMap(
  ({ maker, name, speeds, systems, price, levels, more }) =>
    LEVELS.slice(0, levels).map(({ level, mark, dearer }, i): PlannedChain => {
      const narrow = Math.max(...speeds) >= 9
      return {
        maker,
        name: `${name}${mark}`,
        speeds: [...speeds],
        innerMm: narrow ? 2.2 : 2.4,
        outerMm: OUTER_MM[Math.max(...speeds)]!,
        profile: 'plain',
        roller: 'standard',
        approvedFor: systems,
        excludedFrom: [],
        joints: narrow ? ['link', 'pin'] : ['link'],
        markedOut: narrow && maker !== 'Mabry',
        coating: level === 'open sea' ? 'low-friction' : level === 'estuary' ? 'plated' : 'plain',
        flaredPins: narrow && Math.max(...speeds) >= 10,
        motorRated: false,
        level,
        inBox: 116,
        jointInBox: 'link',
        price: Math.round((price * dearer) / 10) * 10,
        stock: stockOf(price / 100 + i),
        ...more,
      }
    }),
)

const LINKS: readonly Pick<PlannedJoint, 'maker' | 'speeds' | 'price' | 'reuse'>[] = [
  ...['Ostling', 'Varrow', 'Tindrel', 'Korvane', 'Mabry'].flatMap((maker, i) =>
    [WIDE, [9], [10], [11], [12], [13]].map(
      (speeds, j): Pick<PlannedJoint, 'maker' | 'speeds' | 'price' | 'reuse'> => ({
        maker,
        speeds,
        price: 290 + 60 * j + 30 * i,
        // Wide links open by hand and last; narrow ones are used once, or so many times where their maker says so.
        reuse:
          speeds === WIDE
            ? { kind: 'firm' }
            : maker === 'Korvane' || maker === 'Varrow'
              ? { kind: 'times', most: 5 }
              : { kind: 'once' },
      }),
    ),
  ),
]

const linkOf = (
  { maker, speeds, price, reuse }: (typeof LINKS)[number],
  i: number,
  more: Partial<PlannedJoint> = {},
): PlannedJoint => ({
  maker,
  kind: 'link',
  name: `Link ${speeds.length > 1 ? '6 to 8' : speeds[0]}`,
  speeds,
  profile: 'plain',
  roller: 'standard',
  outerMm: Number((OUTER_MM[Math.max(...speeds)]! + [0, 0.05, 0.1, -0.05, 0][i % 5]!).toFixed(2)),
  reuse,
  belongsTo: [],
  arrow: speeds.length === 1 && speeds[0]! >= 11,
  letteredOut: maker === 'Ostling' || maker === 'Tindrel',
  openedBy:
    speeds.length > 1 || speeds[0] === 1 ? 'hand' : reuse.kind === 'once' && maker === 'Mabry' ? 'never' : 'pliers',
  greased: maker === 'Varrow' || maker === 'Tindrel',
  guide: null,
  sheet:
    maker === 'Ostling' && speeds[0]! >= 12
      ? 'Close it under 200 N at the crank, wheel held; look for the full groove on both sides.'
      : null,
  price,
  stock: [6, 0, 12, 4, 0, 9, 2][(i * 3) % 7]!,
  ...more,
})

export const JOINTS: readonly PlannedJoint[] = [
  ...LINKS.map((link, i) => linkOf(link, i)),
  linkOf({ maker: 'Tindrel', speeds: [12], price: 650, reuse: { kind: 'once' } }, 2, {
    name: 'Link 12 flat',
    profile: 'flat-top',
    outerMm: OUTER_MM[12]!,
  }),
  linkOf({ maker: 'Mabry', speeds: [13], price: 700, reuse: { kind: 'times', most: 3 } }, 5, {
    name: 'Link 13 large',
    roller: 'large',
    outerMm: OUTER_MM[13]!,
  }),
  ...['Korvane', 'Mabry', 'Varrow', 'Ostling'].flatMap((maker, i) =>
    [[9], [10], [11], [12]].map((speeds, j): PlannedJoint =>
      linkOf({ maker, speeds, price: 180 + 40 * j, reuse: { kind: 'once' } }, i + j, {
        kind: 'pin',
        name: `Pin ${speeds[0]}`,
        outerMm: null,
        arrow: false,
        letteredOut: false,
        openedBy: 'never',
        guide: i % 2 === 0 ? 'snapped' : 'pulled',
        sheet: null,
      }),
    ),
  ),
  linkOf({ maker: 'Korvane', speeds: WIDE, price: 150, reuse: { kind: 'once' } }, 0, {
    kind: 'pin',
    name: 'Pin 6 to 8',
    outerMm: null,
    openedBy: 'never',
    guide: 'snapped',
  }),
  ...(['Mabry', 'Ostling', 'Tindrel'] as const).flatMap((maker, i): PlannedJoint[] => [
    linkOf({ maker, speeds: [1], price: 220 + 20 * i, reuse: { kind: 'firm' } }, i, {
      kind: 'clip',
      name: 'Clip link',
      outerMm: maker === 'Ostling' ? 7.6 : OUTER_MM[1]!,
    }),
    linkOf({ maker, speeds: [1], price: 340 + 20 * i, reuse: { kind: 'firm' } }, i + 2, {
      name: 'Link broad',
      outerMm: maker === 'Ostling' ? 7.6 : OUTER_MM[1]!,
    }),
  ]),
]

interface PlannedPart {
  readonly maker: string
  readonly name: string
  readonly price: number
  readonly stock: number
}
export interface PlannedCassette extends PlannedPart {
  readonly sprockets: readonly number[]
  readonly systems: readonly SystemName[]
}
export interface PlannedRing extends PlannedPart {
  readonly teeth: readonly number[]
  readonly width: '3/32' | '1/8'
  readonly wideNarrow: boolean
  readonly speeds: readonly number[]
}
export interface PlannedDerailleur extends PlannedPart {
  readonly speeds: readonly number[]
  readonly systems: readonly SystemName[]
  readonly capacityTeeth: number
  readonly largestSprocketTeeth: number
  readonly pulleys: readonly [number, number]
  readonly clutch: boolean
  readonly cageLock: boolean
  readonly addPitches: number | null
  readonly pulleysCounted: boolean
}

const cassette = (
  maker: string,
  name: string,
  sprockets: readonly number[],
  systems: readonly SystemName[],
  price: number,
  stock: number,
): PlannedCassette => ({ maker, name, sprockets, systems, price, stock })

export const CASSETTES: readonly PlannedCassette[] = [
  cassette('Ostling', 'Halyard 12 11-34', DRIVE_KINDS.road12.sprockets, ['Ostling Halyard 12'], 9800, 1),
  cassette('Tindrel', 'Scree 12 10-51', DRIVE_KINDS.trail12.sprockets, ['Tindrel Scree 12'], 11200, 1),
  cassette('Varrow', 'Gannet 11 11-32', DRIVE_KINDS.road11.sprockets, ['Varrow Gannet 11'], 6400, 2),
  cassette('Varrow', 'Gannet 11 11-42', DRIVE_KINDS.sand11.sprockets, ['Varrow Gannet 11'], 7200, 0),
  cassette('Korvane', 'Wharf 10 11-36', DRIVE_KINDS.flat10.sprockets, ['Korvane Wharf 10'], 4300, 2),
  cassette('Mabry', 'Dyke 9 11-34', DRIVE_KINDS.tour9.sprockets, ['Mabry Dyke 9'], 3600, 1),
  cassette('Mabry', 'Dyke 9 11-32', DRIVE_KINDS.flat9.sprockets, ['Mabry Dyke 9'], 3400, 4),
  cassette('Korvane', 'Wharf 8 11-32', DRIVE_KINDS.old8.sprockets, ['Korvane Wharf 8'], 2600, 3),
  cassette('Korvane', 'Freewheel 7 14-28', DRIVE_KINDS.pool7.sprockets, [], 1900, 6),
]

/** What is used up at the stand, and what is kept there. */
export interface PlannedSupply {
  readonly kind: 'consumable' | 'tool' | 'pads' | 'rotor' | 'pulley'
  readonly maker: string
  readonly name: string
  /** What is to be said of its kind. */
  readonly facts: { readonly remark: string; readonly teeth?: readonly number[]; readonly minimumMm?: number }
  readonly price: number
  readonly stock: number
}
const supply = (
  kind: PlannedSupply['kind'],
  maker: string,
  name: string,
  remark: string,
  price: number,
  stock: number,
  more: Partial<PlannedSupply['facts']> = {},
): PlannedSupply => ({ kind, maker, name, facts: { ...more, remark }, price, stock })

export const SUPPLIES: readonly PlannedSupply[] = [
  supply('consumable', 'Saltpan', 'Hot wax, 500 g', 'about 25 chains', 1900, 3),
  supply('consumable', 'Saltpan', 'Drip wax, 120 ml', 'about 25 treatments', 1250, 4),
  supply('consumable', 'Eelgrass', 'Dry oil, 100 ml', '', 650, 6),
  supply('consumable', 'Eelgrass', 'Wet oil, 100 ml', '', 690, 6),
  supply('consumable', 'Eelgrass', 'Degreaser, 1 l', 'to the collection point when it is spent', 1180, 2),
  supply('consumable', 'Saltpan', 'Wax remover, 250 ml', 'for the boiling water', 940, 2),
  supply('tool', 'Hobbard', 'Link pliers', 'open and close', 2400, 1),
  supply('tool', 'Hobbard', 'Bench chain tool', 'up to 13 speeds', 4200, 1),
  supply('pads', 'Mabry', 'Dyke disc pads', '', 1400, 5),
  supply('rotor', 'Mabry', 'Dyke rotor 160', '', 2600, 3, { minimumMm: 1.5 }),
  supply('pulley', 'Korvane', 'Wharf pulleys 11 and 11', 'a pair', 1700, 2, { teeth: [11, 11] }),
]

const ring = (
  maker: string,
  name: string,
  teeth: readonly number[],
  speeds: readonly number[],
  price: number,
  stock: number,
  more: Partial<PlannedRing> = {},
): PlannedRing => ({ maker, name, teeth, speeds, price, stock, width: '3/32', wideNarrow: false, ...more })

export const RINGS: readonly PlannedRing[] = [
  ring('Ostling', 'Halyard 50-34', [50, 34], [12], 8800, 0),
  ring('Tindrel', 'Scree 32', [32], [12], 5200, 1, { wideNarrow: true }),
  ring('Varrow', 'Gannet 50-34', [50, 34], [11], 7100, 1),
  ring('Varrow', 'Gannet 42', [42], [11], 4900, 0, { wideNarrow: true }),
  ring('Mabry', 'Dyke 48-36-26', [48, 36, 26], [9], 6200, 0),
  ring('Mabry', 'Broad 42', [42], [1], 2400, 2, { width: '1/8' }),
]

const derailleur = (
  maker: string,
  name: string,
  speeds: number,
  systems: readonly SystemName[],
  capacityTeeth: number,
  largestSprocketTeeth: number,
  price: number,
  stock: number,
  more: Partial<PlannedDerailleur> = {},
): PlannedDerailleur => ({
  maker,
  name,
  speeds: [speeds],
  systems,
  capacityTeeth,
  largestSprocketTeeth,
  price,
  stock,
  pulleys: [11, 11],
  clutch: false,
  cageLock: false,
  addPitches: null,
  pulleysCounted: false,
  ...more,
})

export const DERAILLEURS: readonly PlannedDerailleur[] = [
  derailleur('Ostling', 'Halyard 12 mid', 12, ['Ostling Halyard 12'], 39, 34, 12400, 0, { clutch: true }),
  derailleur('Tindrel', 'Scree 12 long', 12, ['Tindrel Scree 12'], 41, 52, 13900, 1, {
    pulleys: [14, 14],
    clutch: true,
    cageLock: true,
  }),
  derailleur('Varrow', 'Gannet 11 mid', 11, ['Varrow Gannet 11'], 37, 34, 8600, 1),
  derailleur('Varrow', 'Gannet 11 long', 11, ['Varrow Gannet 11'], 35, 42, 9100, 0, { clutch: true, cageLock: true }),
  derailleur('Korvane', 'Wharf 10 long', 10, ['Korvane Wharf 10'], 41, 36, 6700, 1),
  derailleur('Mabry', 'Dyke 9 long', 9, ['Mabry Dyke 9'], 45, 34, 5200, 1),
]

/** Every chain a bike of the demo shop wears is to be had. */
export const wornChains = (): string[] => [...new Set(Object.values(DRIVE_KINDS).map(({ chain }) => chain))]
