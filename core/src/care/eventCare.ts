import type { Assumptions } from '../assumptions.ts'
import { dayAfter, daysBetween } from '../diary/planVisits.ts'
import type { CareKind } from '../forecast/priors.ts'
import { isOiled } from '../jobs/jobPlan.ts'

/** What is known of a chain's care as a day comes near that its bike is wanted for. */
export interface BeforeEvent {
  /** The day, YYYY-MM-DD, as is every day here. */
  readonly eventOn: string
  readonly today: string
  readonly care: CareKind
  /** Used up since its last treatment, and of what; null where nobody knows. */
  readonly used: {
    /** Dry km. */
    readonly km: number
    /** Days fitted; null: never treated here. */
    readonly days: number | null
    readonly interval: { readonly km: number; readonly days: number }
    /** Real km left in its usual mix; 0 or less where it is due, be it by a wash. */
    readonly kmLeft: number
    /** The day these were counted. */
    readonly asOf: string
  } | null
  /** Real km a day; 0 where nobody knows. */
  readonly kmPerDay: number
}

/** What is done for a day a bike is wanted: treated, ridden in, or nothing more. */
export interface EventCare {
  readonly word: 'treat' | 'ride-in' | 'ready'
  /** The last day for it; of one that is ready, the day itself. Never after it, and never before today. */
  readonly by: string
}

/**
 * What a chain needs before an event. On the day no more than a share of its treatment may be used up; a waxed chain is ridden
 * in before, so it is treated some days sooner.
 *
 * @returns null for an event that is over, and for a care nobody knows
 */
export function eventCare(
  { eventOn, today, care, used, kmPerDay }: BeforeEvent,
  assumed: Assumptions['care'],
): EventCare | null {
  if (eventOn < today || care === 'unknown') return null
  const waxed = !isOiled(care)
  const before = (days: number): string => {
    const day = dayAfter(eventOn, -days)
    return day < today ? today : day
  }
  if (used?.days == null || shareOn(eventOn, used, used.days, kmPerDay) > assumed.eventUsedShare)
    return { word: 'treat', by: before(waxed ? assumed.eventLeadDays : 1) }
  if (waxed && used.km < assumed.firstRideKm) return { word: 'ride-in', by: before(1) }
  return { word: 'ready', by: eventOn }
}

/** How much of a treatment is used up on a day, by whichever of distance and days is further. */
function shareOn(
  day: string,
  { km, interval, kmLeft, asOf }: NonNullable<BeforeEvent['used']>,
  days: number,
  kmPerDay: number,
): number {
  const ahead = Math.max(0, daysBetween(asOf, day))
  if (kmLeft <= 0) return 1
  const dryPerKm = Math.max(0, interval.km - km) / kmLeft
  return Math.max((km + ahead * kmPerDay * dryPerKm) / interval.km, (days + ahead) / interval.days)
}
