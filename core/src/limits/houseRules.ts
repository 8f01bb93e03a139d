import { DEFAULTS } from '../defaults.ts'

export type DriveType = 'derailleur' | 'hub-gear' | 'single-speed'

/** The drives for which limits differ. Front rings do not multiply speeds; a hub gear has one sprocket. */
export type DriveClass = 'derailleur-11-up' | 'derailleur-to-10' | 'single-or-hub'

export type School = 'by-speeds' | 'early-change' | 'plan-and-change' | 'as-marked' | 'custom'

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
}

const rule = (
  school: School,
  narrow: Limits,
  wide: Limits,
  single: Limits,
): Omit<HouseRule, 'id' | 'version'> & { readonly school: School } => ({
  school,
  limits: { 'derailleur-11-up': narrow, 'derailleur-to-10': wide, 'single-or-hub': single },
  watchShare: DEFAULTS.verdict.watchShare,
})

/** The schools Pelrin ships whose limits are fixed numbers. The first is the default of a new shop. */
export const SHIPPED_RULES = [
  rule('by-speeds', { change: 0.5 }, { change: 0.75 }, { change: 1.0 }),
  rule('early-change', { change: 0.5 }, { change: 0.5 }, { change: 0.75 }),
  rule('plan-and-change', { plan: 0.5, change: 0.75 }, { plan: 0.75, change: 1.0 }, { plan: 0.75, change: 1.0 }),
] as const

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

/**
 * Elongations from which the sprockets, and everything else the chain runs on, are suspect, %.
 * They follow the physics of the drive, not the rule chosen for its chain.
 */
export function sprocketMarks(driveClass: DriveClass): { sprockets: number; everything: number } {
  const bySpeeds = SHIPPED_RULES[0].limits[driveClass].change
  const { sprocketMark, everythingMark } = DEFAULTS.verdict
  return {
    sprockets: Math.max(sprocketMark.floor, bySpeeds + sprocketMark.overLimit),
    everything: Math.max(everythingMark.floor, bySpeeds + everythingMark.overLimit),
  }
}
