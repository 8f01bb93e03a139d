import type { Assumptions } from '../assumptions.ts'
import { dayAfter, daysBetween } from '../diary/planVisits.ts'
import { chanceByDay, dayOfChance } from '../forecast/outlook.ts'
import type { ChainVerdict, VerdictWord } from '../limits/verdictTypes.ts'

/**
 * What a bike shows today. A verdict is a stored, dated fact; its standing is worked out from it, the forecast and the
 * day it is asked on. Days are `YYYY-MM-DD` in the shop's zone.
 */
export interface Standing {
  readonly word: VerdictWord
  /** What the word rests on today: the verdict as it was given, somebody's decision, the day of the next look, or the forecast. */
  readonly because: 'verdict' | 'decided' | 'check-passed' | 'chance'
  /** The chance of being over the limit by now, 0…1; null with no forecast. */
  readonly chance: number | null
}

/** What a standing is worked out from. Nothing of it changes overnight. */
export interface StandingFacts {
  /** As the verdict was given. */
  readonly word: VerdictWord
  /** Of a change: the readings alone make it, without the forecast (`earnedByReadings`). */
  readonly earned: boolean
  /** Somebody decided otherwise, and that stands. */
  readonly decided: boolean
  /** The last day on which the verdict's round still describes the chain; null where nothing was measured. */
  readonly presentUntil: string | null
  /** The day the next look is due; null where none is. */
  readonly checkOn: string | null
  /** What the forecast says of days to come; null where none is shown. */
  readonly outlook: Outlook | null
}

/** A forecast by days. */
export interface Outlook {
  /** The day of the last recorded moment. */
  readonly from: string
  /** Days after it on which the chance of being over reaches each of the chances an outlook keeps. */
  readonly reached: readonly number[]
}

/**
 * Whether a change rests on what was measured: by the readings alone the chain is at least as likely over its limit as not.
 * One that a forecast brought about, while its readings were fresh, is said for as long as they are, and no longer.
 */
export const earnedByReadings = (
  { word, steps }: Pick<ChainVerdict, 'word' | 'steps'>,
  { verdict }: Pick<Assumptions, 'verdict'>,
): boolean =>
  word === 'change' &&
  steps.some(
    ({ rule, result }) => rule.startsWith('D1') && typeof result.value === 'number' && result.value >= verdict.changeAt,
  )

/**
 * The first day on which a bike is to be measured whatever its verdict said: its round is no longer present, and its next
 * look has passed or the chance of being over by then is at least the check's risk.
 *
 * @returns null where that never comes: a change that was measured stands until the chain is off
 */
export function measureFrom(facts: StandingFacts, { forecast }: Assumptions): string | null {
  const { word, earned, decided, presentUntil, checkOn, outlook } = facts
  const overdue = checkOn === null ? null : dayAfter(checkOn, 1)
  if (decided) return overdue
  if (word === 'change' && earned) return null
  const risky = outlook && dayOfChance(outlook.reached, forecast.checkRisk)
  const due = [overdue, outlook && risky !== null ? dayAfter(outlook.from, risky) : null].filter((day) => day !== null)
  const soonest = due.reduce<string | null>((first, day) => (first === null || day < first ? day : first), null)
  if (soonest === null || presentUntil === null) return soonest
  const past = dayAfter(presentUntil, 1)
  return past > soonest ? past : soonest
}

/**
 * What a bike shows on a day.
 *
 * A *change* earned by readings stands until the chain is off, measured better, or decided otherwise; any other verdict
 * whose round is no longer present becomes *measure it* as soon as its next look has passed or the forecast's chance of
 * being over by now is at least the check's risk. A forecast alone never has a chain changed.
 *
 * @param today its distance enters by the days the facts hold: they were counted from the distance and the ride rate
 */
export function standingOf(facts: StandingFacts, today: string, assumed: Assumptions): Standing {
  const { word, decided, checkOn, outlook } = facts
  const chance = outlook && chanceByDay(outlook.reached, Math.max(0, daysBetween(outlook.from, today)))
  const from = measureFrom(facts, assumed)
  if (from === null || today < from) return { word, because: decided ? 'decided' : 'verdict', chance }
  const passed = checkOn !== null && today > checkOn
  return {
    word: 'measure-it',
    because: chance !== null && chance >= assumed.forecast.checkRisk ? 'chance' : passed ? 'check-passed' : 'verdict',
    chance,
  }
}

/**
 * The last day on which a round is present: 14 days after its latest reading, or once 150 km were ridden since (defaults).
 *
 * @param round `measuredOn` the day of its latest reading; `kmSince` ridden between it and the last recorded moment, on
 *   `recordedOn`; `kmPerDay` how fast the bike is ridden from there
 */
export function lastPresentDay(
  round: {
    readonly measuredOn: string
    readonly recordedOn: string
    readonly kmSince: number
    readonly kmPerDay: number
  },
  { verdict }: Assumptions,
): string {
  const byDays = dayAfter(round.measuredOn, verdict.presentDays)
  const left = verdict.presentKm - round.kmSince
  // Where too much was ridden already, it was some day before the last recorded one.
  const byKm =
    left < 0
      ? dayAfter(round.recordedOn, -1)
      : round.kmPerDay > 0
        ? dayAfter(round.recordedOn, Math.floor(left / round.kmPerDay))
        : byDays
  return byKm < byDays ? byKm : byDays
}

/** How a standing is ordered among others, before its day or its chance: what comes off first, then what is in doubt, then what is to be measured. */
export const standingRank = ({ word, because }: Pick<Standing, 'word' | 'because'>): number => {
  if (word === 'change') return because === 'decided' ? 3 : 0
  if (word === 'measure-again') return 1
  return word === 'measure-it' ? 2 : 3
}
