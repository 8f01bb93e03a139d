import type { Assumptions } from '../assumptions.ts'
import type { RideRate } from '../distance/rideRate.ts'
import { careDistance, type SurfaceKm } from '../distance/surface.ts'
import { daysUntil } from '../forecast/dates.ts'
import type { CareKind } from '../forecast/priors.ts'
import type { VerdictWord } from '../limits/verdictTypes.ts'

const DAY_MS = 86_400_000

/** How long a treatment lasts: whichever comes first. */
export interface CareInterval {
  /** Dry km. */
  readonly km: number
  readonly days: number
}

/** Why a treatment is due. */
export const CARE_REASONS = ['distance', 'days', 'wash', 'squeak', 'first-care', 'never-treated'] as const
export type CareReason = (typeof CARE_REASONS)[number]
/** What is known of a chain since its last treatment. */
export interface CareState {
  readonly care: CareKind
  /** Kilometres since, by surface, while it was fitted. */
  readonly km: SurfaceKm
  /** What a kilometre of its usual mix uses up, against a dry one. */
  readonly usualFactor: number
  /** Days since, while it was fitted: the days of a chain in a rotation run only then. Null: never treated here. */
  readonly days: number | null
  /** Something since then that makes it due at once. */
  readonly since: readonly ('wash' | 'squeak')[]
  /** It is new, was not stripped, and its factory coat still carries it. */
  readonly factoryCoat: boolean
  readonly rate: RideRate
  /** The bike's own interval, where it has one. */
  readonly own?: CareInterval
  /** What its verdict says, and how far off its next look is, km and days; null where none is due. */
  readonly verdict: VerdictWord
  readonly nextLookKm: number | null
  readonly nextLookDays: number | null
}

/** When a chain is treated next. */
export interface CareDue {
  readonly because: CareReason
  /** Real km left in its usual mix; negative where it is past. */
  readonly kmLeft: number
  /** Days left at its ride rate: at 5, 50 and 95 in 100; null where they are beyond telling. Negative where it is past. */
  readonly daysLeft: readonly [early: number | null, median: number | null, late: number | null]
  readonly overdue: boolean
  /** Measured before it is treated: no sense in waxing a chain that is due off. */
  readonly checkFirst: boolean
}

/** The interval in force: the bike's own, else the shop's for its care; null for a care nobody knows. */
export function intervalOf(
  { care, own }: Pick<CareState, 'care' | 'own'>,
  assumed: Assumptions['care'],
): CareInterval | null {
  if (own) return own
  return care === 'unknown' ? null : { km: assumed[care].km, days: assumed[care].days }
}

const LOOKS_FIRST: readonly VerdictWord[] = ['closing-in', 'change', 'measure-again', 'measure-it']

/**
 * When a chain is treated next: at the earliest of its distance in dry km, its days, a wash, a squeak, or the first care of a
 * new chain. Wear is checked before, where a check falls due within the next interval or the verdict asks for one.
 *
 * @returns null for a care nobody knows
 * @throws RangeError for an interval of nothing, or days that are negative
 */
export function careDue(state: CareState, assumed: Pick<Assumptions, 'care' | 'distance'>): CareDue | null {
  const interval = intervalOf(state, assumed.care)
  if (!interval) return null
  if (!(interval.km > 0 && interval.days > 0)) throw new RangeError('a treatment lasts some distance and some days')
  const { days, since, factoryCoat, rate, usualFactor, km, verdict, nextLookKm, nextLookDays } = state
  if (days !== null && !(days >= 0)) throw new RangeError('no treatment was given after now')
  const checkFirst =
    LOOKS_FIRST.includes(verdict) ||
    (nextLookKm !== null && nextLookKm <= interval.km / Math.max(usualFactor, 1e-9)) ||
    (nextLookDays !== null && nextLookDays <= interval.days)
  const [first] = since
  const atOnce = (because: CareReason): CareDue => ({
    because,
    kmLeft: 0,
    daysLeft: [0, 0, 0],
    overdue: true,
    checkFirst,
  })
  if (first !== undefined) return atOnce(first)
  if (days === null && !factoryCoat) return atOnce('never-treated')
  const carries = factoryCoat ? Math.min(assumed.care.firstCareKm, interval.km) : interval.km
  const kmLeft = (carries - careDistance(km, usualFactor, assumed.distance)) / usualFactor
  const byDistance =
    kmLeft <= 0
      ? past(kmLeft, rate)
      : ([0.05, 0.5, 0.95].map((probability) => daysUntil([kmLeft], probability, rate)) as [
          number | null,
          number | null,
          number | null,
        ])
  const byDays = interval.days - (days ?? 0)
  const earliest = (one: number | null): number => (one === null ? byDays : Math.min(one, byDays))
  const [early, median, late] = byDistance
  const daysFirst = median === null || byDays < median
  return {
    because: daysFirst ? 'days' : factoryCoat ? 'first-care' : 'distance',
    kmLeft,
    daysLeft: [earliest(early), earliest(median), earliest(late)],
    overdue: kmLeft < 0 || byDays < 0,
    checkFirst,
  }
}

/** How long ago a distance was reached, days; 0 for a bike nobody rides. */
function past(kmLeft: number, { kmPerDay }: RideRate): readonly [number, number, number] {
  const ago = kmPerDay > 0 ? kmLeft / kmPerDay : 0
  return [ago, ago, ago]
}

/** Days a chain was fitted since a moment, by when it was on. */
export const fittedDays = (
  fittings: readonly { readonly from: number; readonly to: number | null }[],
  since: number,
  now: number,
): number =>
  fittings.reduce((sum, { from, to }) => sum + Math.max(0, Math.min(to ?? now, now) - Math.max(from, since)), 0) /
  DAY_MS
