import type { Assumptions } from '../assumptions.ts'

export const DRIVE_TYPES = ['derailleur', 'hub-gear', 'single-speed'] as const
export type DriveType = (typeof DRIVE_TYPES)[number]
/** The drives for which limits differ. Front rings do not multiply speeds; a hub gear has one sprocket. */
export type DriveClass = 'derailleur-11-up' | 'derailleur-to-10' | 'single-or-hub'

export const SCHOOLS = [
  'by-speeds',
  'half-for-all',
  'early-change',
  'plan-and-change',
  'one-pair',
  'as-marked',
  'custom',
] as const
export type School = (typeof SCHOOLS)[number]

/** Elongations at which a rule acts, %. */
export interface Limits {
  readonly change: number
  /** Where the change is planned ahead, if the school plans. */
  readonly plan?: number
}

/** One school's limits for every class of drive, in a version that is never rewritten. */
export interface HouseRule {
  readonly id: string
  readonly version: number
  readonly school: School
  readonly limits: Readonly<Record<DriveClass, Limits>>
  /** Share of the limit at which to look more often, 0…1. */
  readonly watchShare: number
  /** Where sprockets are suspect, by a rule that has its own marks; left out: by the physics of the drive. */
  readonly sprocketMarks?: Readonly<Record<DriveClass, SprocketMarks>>
}

/** Elongations from which the sprockets, and everything else the chain runs on, are suspect, %. */
export interface SprocketMarks {
  readonly sprockets: number
  readonly everything: number
}

/** Share of the limit at which the shipped rules look more often; a shop sets it rule by rule. */
const WATCH_SHARE = 0.8

const rule = (
  school: School,
  narrow: Limits,
  wide: Limits,
  single: Limits,
): Omit<HouseRule, 'id' | 'version'> & { readonly school: School } => ({
  school,
  limits: { 'derailleur-11-up': narrow, 'derailleur-to-10': wide, 'single-or-hub': single },
  watchShare: WATCH_SHARE,
})

/**
 * The schools Pelrin ships whose limits are fixed numbers. The first is the default of a new shop.
 * Half for all: one number to remember, a chain is the cheap part. One pair for all: dear chains on cheap sprockets.
 */
export const SHIPPED_RULES = [
  rule('by-speeds', { change: 0.5 }, { change: 0.75 }, { change: 1.0 }),
  rule('half-for-all', { change: 0.5 }, { change: 0.5 }, { change: 0.5 }),
  rule('early-change', { change: 0.5 }, { change: 0.5 }, { change: 0.75 }),
  rule('plan-and-change', { plan: 0.5, change: 0.75 }, { plan: 0.75, change: 1.0 }, { plan: 0.75, change: 1.0 }),
  rule('one-pair', { plan: 0.75, change: 1.0 }, { plan: 0.75, change: 1.0 }, { plan: 0.75, change: 1.0 }),
] as const

/** Every class of drive, narrow chains first. */
export const DRIVE_CLASSES = ['derailleur-11-up', 'derailleur-to-10', 'single-or-hub'] as const satisfies DriveClass[]

/** What no chain's limit can be: below it a new chain would be off, above it no chain runs. %. */
export const LIMIT_RANGE = { lowest: 0.2, highest: 1.5 } as const

/** Why limits, or sprocket marks, cannot stand. Keys of the message catalogue. */
export type LimitsProblem =
  'limit-range' | 'plan-not-below-change' | 'plan-range' | 'sprocket-mark-range' | 'everything-not-above'

/** What is wrong with a class's limits, and with which; null when nothing is. */
export function limitsProblem({ change, plan }: Limits): { at: 'change' | 'plan'; problem: LimitsProblem } | null {
  const { lowest, highest } = LIMIT_RANGE
  if (!(change >= lowest && change <= highest)) return { at: 'change', problem: 'limit-range' }
  if (plan === undefined) return null
  if (!(plan >= lowest && plan <= highest)) return { at: 'plan', problem: 'plan-range' }
  return plan < change ? null : { at: 'plan', problem: 'plan-not-below-change' }
}

/** What sprocket marks can be, %. */
export const SPROCKET_MARK_RANGE = { lowest: 0.2, highest: 3 } as const

/** What is wrong with a rule's own sprocket marks, and with which; null when nothing is. */
export function sprocketMarksProblem({
  sprockets,
  everything,
}: SprocketMarks): { at: keyof SprocketMarks; problem: LimitsProblem } | null {
  const inRange = (mark: number): boolean => mark >= SPROCKET_MARK_RANGE.lowest && mark <= SPROCKET_MARK_RANGE.highest
  if (!inRange(sprockets)) return { at: 'sprockets', problem: 'sprocket-mark-range' }
  if (!inRange(everything)) return { at: 'everything', problem: 'sprocket-mark-range' }
  return everything > sprockets ? null : { at: 'everything', problem: 'everything-not-above' }
}

/**
 * The "as marked" school: the change mark of the instrument named for a bike, its customer or the shop, whatever the drive.
 *
 * @param rule the school's own entry, whose watch share stays
 * @param changeMark the mark at which that instrument says to change, %
 */
export function asMarkedBy(rule: HouseRule, changeMark: number): HouseRule {
  const marked: Limits = { change: changeMark }
  return {
    ...rule,
    limits: { 'derailleur-11-up': marked, 'derailleur-to-10': marked, 'single-or-hub': marked },
  }
}

/** The class whose limits a drive follows. */
export function driveClassOf(drive: { type: DriveType; speeds: number }): DriveClass {
  if (drive.type !== 'derailleur' || drive.speeds <= 1) return 'single-or-hub'
  return drive.speeds >= 11 ? 'derailleur-11-up' : 'derailleur-to-10'
}

/** Limit, plan limit and watch mark of a rule for a class, %; watch never lies above the plan limit. */
export function limitsFor(
  houseRule: HouseRule,
  driveClass: DriveClass,
): { change: number; plan: number | null; watch: number } {
  const { change, plan = null } = houseRule.limits[driveClass]
  const watch = houseRule.watchShare * change
  return { change, plan, watch: plan === null ? watch : Math.min(watch, plan) }
}

/** The sprocket marks of a rule for a class: its own, else those of {@link sprocketMarks}. */
export const sprocketMarksOf = (
  houseRule: Pick<HouseRule, 'sprocketMarks'>,
  driveClass: DriveClass,
  assumed: Assumptions,
): SprocketMarks => houseRule.sprocketMarks?.[driveClass] ?? sprocketMarks(driveClass, assumed)

/** The sprocket marks that follow the physics of the drive, not the rule chosen for its chain. */
export function sprocketMarks(driveClass: DriveClass, assumed: Assumptions): SprocketMarks {
  const bySpeeds = SHIPPED_RULES[0].limits[driveClass].change
  const { sprocketMark, everythingMark } = assumed.verdict
  return {
    sprockets: Math.max(sprocketMark.floor, bySpeeds + sprocketMark.overLimit),
    everything: Math.max(everythingMark.floor, bySpeeds + everythingMark.overLimit),
  }
}
