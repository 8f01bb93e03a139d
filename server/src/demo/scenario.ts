import type { InstrumentKind } from '@pelrin/core'
import type { DriveType } from '@pelrin/core'

/** Saltmarsh Row Cycles, in the harbour town of Ostrey on a tidal island. Everything here is made up. */
export const SHOP = {
  code: 'saltmarsh',
  name: 'Saltmarsh Row Cycles',
  timeZone: 'Europe/London',
} as const

export const TEAM = [
  { name: 'Tove Sandell', initials: 'TS', signInName: 'tove', role: 'owner', password: 'causeway-1', pin: '4071' },
  { name: 'Ruan Pike', initials: 'RP', signInName: 'ruan', role: 'mechanic', password: 'chalkdown-2', pin: '2280' },
  { name: 'Ismay Dune', initials: 'ID', signInName: 'ismay', role: 'apprentice', password: 'eelgrass-3', pin: '9135' },
  { name: 'Coral Hatch', initials: 'CH', signInName: 'coral', role: 'read-only', password: 'slipway-4', pin: '5502' },
  { name: 'Lowen Tarr', initials: 'LT', signInName: 'lowen', role: 'desk', password: 'fairway-6', pin: '3364' },
] as const

/** A drive with the chain that suits it. */
export interface DriveKind {
  readonly type: DriveType
  readonly speeds: number
  readonly fronts: readonly number[]
  readonly sprockets: readonly number[]
  readonly motor?: boolean
  readonly chain: string
  readonly pitches: number
}

const derailleur = (
  speeds: number,
  fronts: readonly number[],
  sprockets: readonly number[],
  chain: string,
  pitches: number,
): DriveKind => ({ type: 'derailleur', speeds, fronts, sprockets, chain, pitches })

export const DRIVE_KINDS = {
  road12: derailleur(12, [50, 34], [11, 12, 13, 14, 15, 17, 19, 21, 24, 27, 30, 34], 'Ostling Halyard 12', 112),
  trail12: derailleur(12, [32], [10, 12, 14, 16, 18, 21, 24, 28, 32, 38, 44, 51], 'Tindrel Scree 12', 118),
  road11: derailleur(11, [50, 34], [11, 12, 13, 14, 15, 17, 19, 21, 24, 28, 32], 'Varrow Eleven', 116),
  sand11: derailleur(11, [42], [11, 13, 15, 17, 19, 21, 24, 28, 32, 37, 42], 'Varrow Eleven S', 114),
  flat10: derailleur(10, [48, 34], [11, 13, 15, 17, 19, 21, 24, 28, 32, 36], 'Korvane Ten', 112),
  tour9: derailleur(9, [48, 36, 26], [11, 13, 15, 17, 20, 23, 26, 30, 34], 'Mabry Nine', 114),
  flat9: derailleur(9, [44, 32], [11, 12, 14, 16, 18, 21, 24, 28, 32], 'Mabry Nine', 112),
  old8: derailleur(8, [46, 36], [11, 13, 15, 17, 19, 22, 26, 32], 'Korvane Six to Eight', 110),
  pool7: derailleur(7, [42], [14, 16, 18, 20, 22, 24, 28], 'Korvane Six to Eight', 108),
  cargo: { type: 'hub-gear', speeds: 8, fronts: [42], sprockets: [19], chain: 'Mabry Broad', pitches: 122 },
  cargoMotor: {
    type: 'hub-gear',
    speeds: 5,
    fronts: [46],
    sprockets: [20],
    motor: true,
    chain: 'Mabry Broad M',
    pitches: 126,
  },
  town: { type: 'hub-gear', speeds: 3, fronts: [44], sprockets: [18], chain: 'Mabry Broad', pitches: 108 },
  single: { type: 'single-speed', speeds: 1, fronts: [46], sprockets: [18], chain: 'Ostling Plain', pitches: 100 },
} satisfies Record<string, DriveKind>

export type DriveName = keyof typeof DRIVE_KINDS
export type Care = 'immersion-wax' | 'drip-wax' | 'dry-oil' | 'wet-oil'

/** How a bike lives: what it is ridden, on what, and how its chain is kept. */
export interface Life {
  readonly kmPerWeek: number
  /** How much harder than dry road its riding is on a chain. */
  readonly harshness: number
  readonly care: Care
}

export interface BikePlan {
  readonly label: string
  readonly kind: string
  readonly drive: DriveName
  readonly life: Life
  readonly miles?: boolean
}

export interface CustomerPlan {
  readonly name: string
  /** How often they want their chains looked at, where they said so. */
  readonly rhythm?: { readonly rhythmDays?: number; readonly eachVisit?: boolean }
  readonly bikes: readonly BikePlan[]
}

const life = (kmPerWeek: number, harshness: number, care: Care): Life => ({ kmPerWeek, harshness, care })
const COMMUTE = life(68, 1.35, 'dry-oil')
const CLUB = life(150, 1.1, 'drip-wax')
const RACE = life(170, 1.15, 'immersion-wax')
const TOUR = life(75, 1.3, 'wet-oil')
const MAIL = life(120, 1.9, 'wet-oil')
const CARGO = life(95, 1.4, 'wet-oil')
const POOL = life(22, 1.3, 'dry-oil')
const LEISURE = life(30, 1.2, 'dry-oil')
const TRAIL = life(55, 1.9, 'dry-oil')
const SAND = life(60, 2.4, 'drip-wax')

const fleet = (count: number, name: string, kind: string, drives: readonly DriveName[], lived: Life): BikePlan[] =>
  Array.from({ length: count }, (_, i) => ({
    label: `${name} ${i + 1}`,
    kind,
    drive: drives[i % drives.length]!,
    life: { ...lived, kmPerWeek: lived.kmPerWeek * (0.8 + (0.4 * ((i * 7) % 10)) / 10) },
  }))

/** Fleets and those with a story. The bikes of these stand first in the line-up. */
export const NAMED_CUSTOMERS: readonly CustomerPlan[] = [
  { name: 'Ivo Marsh', bikes: [{ label: 'Causeway', kind: 'road', drive: 'road11', life: life(71, 1.35, 'dry-oil') }] },
  {
    name: 'Oven & Tide Bakery',
    rhythm: { rhythmDays: 60 },
    bikes: fleet(6, 'Bakery van', 'cargo', ['cargo', 'cargo', 'cargoMotor'], CARGO),
  },
  {
    name: 'Nell Quayle',
    bikes: [
      { label: 'Sand racer', kind: 'gravel', drive: 'sand11', life: SAND },
      { label: 'Winter bike', kind: 'road', drive: 'flat10', life: COMMUTE },
    ],
  },
  {
    name: 'Island Mail',
    rhythm: { eachVisit: true },
    bikes: fleet(9, 'Island mail', 'flat bar', ['flat9', 'flat9', 'old8'], MAIL),
  },
  {
    name: 'Oda Thrift',
    bikes: [
      { label: 'Tandem', kind: 'tandem', drive: 'tour9', life: TOUR },
      { label: 'Shopper', kind: 'town', drive: 'town', life: LEISURE },
    ],
  },
  { name: 'Quay School', bikes: fleet(12, 'School pool', 'school', ['pool7'], POOL) },
  { name: 'Bram Fenn', bikes: [{ label: 'Downs', kind: 'trail', drive: 'trail12', life: TRAIL }] },
  {
    name: 'Mara Lisk',
    bikes: [{ label: 'Courier', kind: 'road', drive: 'road12', life: life(230, 1.4, 'immersion-wax') }],
  },
  { name: 'Ostrey Ferry Crew', bikes: fleet(5, 'Crew bike', 'town', ['town', 'single'], COMMUTE) },
]

const GIVEN = [
  'Ada',
  'Bryn',
  'Cass',
  'Dilys',
  'Edda',
  'Fitch',
  'Greta',
  'Hob',
  'Ines',
  'Jory',
  'Kerra',
  'Lowen',
  'Merryn',
  'Noll',
  'Orla',
  'Perran',
  'Quill',
  'Rosen',
  'Senna',
  'Tamsin',
  'Una',
  'Veryan',
  'Wilf',
  'Yestin',
  'Zella',
] as const
const FAMILY = [
  'Brack',
  'Cobble',
  'Drift',
  'Eddy',
  'Fathom',
  'Garrow',
  'Haven',
  'Inlet',
  'Keel',
  'Ledge',
  'Mudge',
  'Narrow',
  'Oarsman',
  'Pebble',
  'Reed',
  'Shoal',
  'Tarn',
  'Wrack',
  'Yawl',
] as const

/** Who rides what, for the customers without a story of their own. */
const RIDERS: readonly (readonly BikePlan[])[] = [
  [
    { label: 'Ferry bike', kind: 'flat bar', drive: 'flat9', life: COMMUTE },
    { label: 'Old faithful', kind: 'town', drive: 'town', life: LEISURE },
  ],
  [{ label: 'Club bike', kind: 'road', drive: 'road11', life: CLUB }],
  [
    { label: 'Race bike', kind: 'road', drive: 'road12', life: RACE },
    { label: 'Training bike', kind: 'road', drive: 'flat10', life: CLUB },
  ],
  [{ label: 'Night ferry', kind: 'flat bar', drive: 'flat10', life: COMMUTE, miles: true }],
  [
    { label: 'Tourer', kind: 'touring', drive: 'tour9', life: TOUR },
    { label: 'Quay bike', kind: 'single speed', drive: 'single', life: LEISURE },
  ],
  [{ label: 'Chalk', kind: 'trail', drive: 'trail12', life: TRAIL }],
  [
    { label: 'Commuter', kind: 'flat bar', drive: 'old8', life: COMMUTE },
    { label: 'Sunday', kind: 'road', drive: 'road11', life: LEISURE, miles: true },
  ],
]

/** The first 60 customers, about 120 bikes: those with a story, then riders drawn in a fixed order. */
export function customers(): CustomerPlan[] {
  const plans: CustomerPlan[] = [...NAMED_CUSTOMERS]
  for (let i = 0; plans.length < 60; i++) {
    const name = `${GIVEN[(i * 7) % GIVEN.length]!} ${FAMILY[(i * 11 + Math.floor(i / 25)) % FAMILY.length]!}`
    plans.push({ name, bikes: RIDERS[i % RIDERS.length]! })
  }
  return plans
}

/** Why a bike is in today. */
export const LINE_UP = [
  { customer: 'Ivo Marsh', label: 'Causeway', at: '09:30', reason: 'noisy under load' },
  { customer: 'Oven & Tide Bakery', label: 'Bakery van 2', at: '10:00', reason: 'check due' },
  { customer: 'Nell Quayle', label: 'Sand racer', at: '10:30', reason: 'wax, race Sunday' },
  { customer: 'Island Mail', label: 'Island mail 4', at: '11:15', reason: 'measured twice, disagree' },
  { customer: 'Oda Thrift', label: 'Tandem', at: '13:00', reason: 'new cassette?' },
  { customer: 'Quay School', label: 'School pool 7', at: '14:00', reason: 'service' },
  { customer: 'Bram Fenn', label: 'Downs', at: '15:30', reason: 'broke, shortened' },
] as const

interface InstrumentPlan {
  readonly key: string
  readonly kind: InstrumentKind
  readonly name: string
  readonly uMm?: number
  readonly u?: number
  readonly marks?: readonly number[]
  readonly changeMark?: number
  readonly seesRollerWear?: boolean
  readonly checkedDaysAgo: number
}

/** Instruments on the wall. The drop-in gauge with the red handle reads late: nobody has checked it for long. */
export const WALL = [
  { key: 'rule', kind: 'steel-rule', name: 'Steel rule, 600 mm', uMm: 0.25, checkedDaysAgo: 80 },
  { key: 'ruleInch', kind: 'steel-rule', name: 'Steel rule, 24 in', uMm: 0.25, checkedDaysAgo: 80 },
  { key: 'digital', kind: 'digital', name: 'Digital gauge', u: 0.03, checkedDaysAgo: 40 },
  {
    key: 'dropIn',
    kind: 'drop-in',
    name: 'Drop-in gauge, red handle',
    u: 0.05,
    marks: [0.5, 0.75],
    changeMark: 0.75,
    seesRollerWear: true,
    checkedDaysAgo: 430,
  },
  {
    key: 'dropInBlue',
    kind: 'drop-in',
    name: 'Drop-in gauge, blue handle',
    u: 0.05,
    marks: [0.5, 0.75],
    changeMark: 0.5,
    seesRollerWear: true,
    checkedDaysAgo: 60,
  },
  {
    key: 'swingArm',
    kind: 'swing-arm',
    name: 'Swing-arm gauge',
    u: 0.06,
    marks: [0.5, 0.75, 1],
    changeMark: 0.75,
    checkedDaysAgo: 200,
  },
  { key: 'graduated', kind: 'graduated', name: 'Graduated gauge', u: 0.06, checkedDaysAgo: 150 },
  { key: 'caliper', kind: 'caliper', name: 'Caliper', uMm: 0.1, checkedDaysAgo: 120 },
  { key: 'hook', kind: 'full-length', name: 'Hook and two-metre rule', uMm: 0.8, checkedDaysAgo: 80 },
  { key: 'hand', kind: 'by-hand', name: 'By hand', checkedDaysAgo: 80 },
] as const satisfies readonly InstrumentPlan[]

export type InstrumentKey = (typeof WALL)[number]['key']

/** An instrument of the scenario by its key. */
export const instrumentPlan = (key: InstrumentKey): InstrumentPlan => WALL.find((one) => one.key === key)!
