import type { CareKind } from '../forecast/priors.ts'
import type { DriveType } from '../limits/houseRules.ts'

/** How far apart a chain's inner plates are: for 3/32″ or for 1/8″ teeth. */
export const WIDTH_CLASSES = ['3/32', '1/8'] as const
export type WidthClass = (typeof WIDTH_CLASSES)[number]
export const PLATE_PROFILES = ['plain', 'asymmetric', 'flat-top'] as const
export type PlateProfile = (typeof PLATE_PROFILES)[number]
export const ROLLER_CLASSES = ['standard', 'large'] as const
export type RollerClass = (typeof ROLLER_CLASSES)[number]
/** What a chain can be closed with. A re-pressed pin is the old one, pushed back in. */
export const JOINT_KINDS = ['link', 'pin', 're-press', 'clip'] as const
export type JointKind = (typeof JOINT_KINDS)[number]
/** A family of drivetrain parts made for each other. */
export interface DriveSystem {
  readonly id: string
  readonly flatTop: boolean
  readonly largeRoller: boolean
}

/** What a chain's plates are covered with; one sold waxed needs neither stripping nor its first wax. */
export const COATINGS = ['plain', 'plated', 'low-friction', 'waxed'] as const
export type Coating = (typeof COATINGS)[number]
/** How a link is opened again. */
export const OPENED_BY = ['hand', 'pliers', 'never'] as const
export type OpenedBy = (typeof OPENED_BY)[number]
/** How a joining pin's guide comes off once it is in. */
export const PIN_GUIDES = ['snapped', 'pulled'] as const
export type PinGuide = (typeof PIN_GUIDES)[number]
/** What a chain has to fit. What is not known is null. */
export interface PartsDrive {
  readonly type: DriveType
  /** Of a derailleur drive its sprockets; of a hub gear its gears. */
  readonly speeds: number
  readonly system: DriveSystem | null
  /** The maker's own level for this drivetrain ranks first. */
  readonly level: string | null
  readonly ringWidth: WidthClass | null
  readonly motor: boolean | null
  /** Pitches the chain must have, its joint among them. */
  readonly pitches: number | null
  /** Whether its sprockets are suspected worn. */
  readonly sprocketsSuspect: boolean
  readonly care: CareKind
  /** Whether the chain is taken off often: for waxing, or to be washed off the bike. */
  readonly takenOff: boolean
}

/** A chain as the catalogue describes it. */
export interface ChainModel {
  readonly id: string
  readonly maker: string
  readonly name: string
  /** Every number of speeds it is made for; 1 is single speed and hub gear. */
  readonly speeds: readonly number[]
  readonly innerMm: number | null
  readonly outerMm: number | null
  readonly profile: PlateProfile
  readonly roller: RollerClass
  readonly approvedFor: readonly string[]
  readonly excludedFrom: readonly string[]
  readonly joints: readonly JointKind[]
  /** Whether one side is marked to face away from the bike. */
  readonly markedOut: boolean
  readonly coating: Coating
  /** Its maker flares the pin ends: a pin pushed out cannot go back in. */
  readonly flaredPins: boolean
  readonly motorRated: boolean
  readonly level: string | null
  /** Closed length of one box. */
  readonly inBox: number
  /** What comes in the box; a pin already sits in the end plate with `preset-pin`. */
  readonly jointInBox: 'none' | 'link' | 'pin' | 'preset-pin'
  /** In minor units of the shop's money; null: not known. */
  readonly price: number | null
  readonly stock: number
}

/** How often a link may be closed: once, so many times, or until it no longer clicks firmly. */
export type ReuseClass =
  { readonly kind: 'once' } | { readonly kind: 'times'; readonly most: number } | { readonly kind: 'firm' }

/** A link, a pin or a clip as the catalogue describes it. */
export interface JointModel {
  readonly id: string
  readonly kind: Exclude<JointKind, 're-press'>
  readonly maker: string
  readonly name: string
  readonly speeds: readonly number[]
  readonly profile: PlateProfile
  readonly roller: RollerClass
  readonly outerMm: number | null
  readonly reuse: ReuseClass
  /** Chains a pin belongs to, beside all of its maker's of the same speed; empty: those. */
  readonly belongsTo: readonly string[]
  /** Systems its maker names it for; empty: every one of its speeds. */
  readonly systems: readonly string[]
  /** Whether an arrow on it points the way the chain travels. */
  readonly arrow: boolean
  /** Whether its lettered side faces away from the bike. */
  readonly letteredOut: boolean
  readonly openedBy: OpenedBy
  /** Whether it comes packed in grease, which a waxed chain wants off. */
  readonly greased: boolean
  /** Of a pin; null otherwise, or where it has none. */
  readonly guide: PinGuide | null
  /** Its maker's fitting sheet in a few words, which comes before anything said here; null where none is known. */
  readonly sheet: string | null
  readonly price: number | null
  readonly stock: number
}

/** What a rule says of a part: whether it fits, or that a fact is wanted to tell. */
export const OUTCOMES = ['fits', 'not-known', 'caution', 'does-not-fit'] as const
export type Outcome = (typeof OUTCOMES)[number]
/** A fact that decides something, in the words of the catalogue. */
export const PARTS_FACTS = [
  'system',
  'ring-width',
  'inner-width',
  'outer-width',
  'motor',
  'length',
  'closings',
] as const
export type PartsFact = (typeof PARTS_FACTS)[number]
/** What one rule says, and the one sentence why: a key of the catalogue with its values. */
export interface RuleOutcome<Id extends string = string> {
  readonly rule: Id
  readonly outcome: Outcome
  readonly reason: string
  readonly values?: Readonly<Record<string, string | number>>
  /** What would tell, where it is not known. */
  readonly missing?: PartsFact
}

/** One rule: what it is called, and what it says. */
export interface Rule<Facts, Id extends string> {
  readonly id: Id
  /** Null where the rule has nothing to say of these facts. */
  readonly decide: (facts: Facts) => Omit<RuleOutcome, 'rule'> | null
}

const ORDER: readonly Outcome[] = ['fits', 'caution', 'not-known', 'does-not-fit']

/** The worst of some outcomes: one that excludes is never outweighed. */
export const worstOutcome = (outcomes: readonly { readonly outcome: Outcome }[]): Outcome =>
  ORDER[Math.max(0, ...outcomes.map(({ outcome }) => ORDER.indexOf(outcome)))]!

/** How a part stands by its rules, without their reasons. */
export interface Weight {
  readonly outcome: Outcome
  /** How many rules are to be minded; 0 of what is excluded, where none was counted further. */
  readonly cautions: number
}

/** What the rules come to, asked one after the other until one excludes: of a large catalogue most fall at the first. */
export function weigh<Facts>(rules: readonly Rule<Facts, string>[], facts: Facts): Weight {
  let worst = 0
  let cautions = 0
  for (const { decide } of rules) {
    const said = decide(facts)
    if (!said) continue
    if (said.outcome === 'does-not-fit') return { outcome: 'does-not-fit', cautions: 0 }
    if (said.outcome === 'caution') cautions++
    worst = Math.max(worst, ORDER.indexOf(said.outcome))
  }
  return { outcome: ORDER[worst]!, cautions }
}

/** What every rule says that has something to say. */
export function decideAll<Facts, Id extends string>(
  rules: readonly Rule<Facts, Id>[],
  facts: Facts,
): RuleOutcome<Id>[] {
  const found: RuleOutcome<Id>[] = []
  for (const { id, decide } of rules) {
    const said = decide(facts)
    if (said) found.push({ rule: id, ...said })
  }
  return found
}
