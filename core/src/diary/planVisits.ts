import type { Assumptions } from '../assumptions.ts'

/** What a bike comes in for. */
export const DUE_KINDS = ['change', 'check', 'wash', 'care', 'event', 'other-wear'] as const
export type DueKind = (typeof DUE_KINDS)[number]

/** Something due on a bike. Days are `YYYY-MM-DD`, so that they compare as they read. */
export interface DueItem {
  readonly kind: DueKind
  readonly on: string
}

export interface DueBike {
  readonly bikeId: string
  readonly customerId: string
  readonly items: readonly DueItem[]
  /** The weekday that suits its customer, 1 Monday to 7 Sunday. */
  readonly goodWeekday: number | null
}

/** What a day at the shop can take. */
export interface ShopDays {
  /** Minutes of work by weekday, Monday first; 0 is closed. */
  readonly minutes: readonly number[]
  /** Days closed beside those. */
  readonly closed: ReadonlySet<string>
  /** Minutes booked already, by day. */
  readonly booked: ReadonlyMap<string, number>
}

/** An item of a visit, and by how many days it is done sooner than it is due. */
export interface VisitItem extends DueItem {
  readonly pulledForwardDays: number
}

export interface PlannedVisit {
  readonly customerId: string
  readonly day: string
  /** Each with what it takes, minutes. */
  readonly bikes: readonly { readonly bikeId: string; readonly items: readonly VisitItem[]; readonly minutes: number }[]
  readonly minutes: number
  /** Why it is on this day. */
  readonly because: 'overdue' | 'due' | 'good-weekday' | 'full' | 'closed'
}

const DAY_MS = 86_400_000
const at = (day: string): number => Date.parse(`${day}T00:00:00Z`)
export const daysBetween = (from: string, to: string): number => Math.round((at(to) - at(from)) / DAY_MS)
export const dayAfter = (day: string, days: number): string =>
  new Date(at(day) + days * DAY_MS).toISOString().slice(0, 10)
/** 1 Monday to 7 Sunday. */
export const weekdayOf = (day: string): number => ((new Date(at(day)).getUTCDay() + 6) % 7) + 1

/** Minutes of work a day takes in all; 0 where it is closed. */
export const capacityOf = ({ minutes, closed }: ShopDays, day: string): number =>
  closed.has(day) ? 0 : (minutes[weekdayOf(day) - 1] ?? 0)

/** What a visit for these takes, minutes: one look serves every item that only wants looking. */
export function visitMinutes(kinds: readonly DueKind[], assumed: Assumptions['diary']): number {
  const each = new Set(kinds)
  return (
    assumed.arriveMinutes +
    (each.has('change') ? assumed.changeMinutes : 0) +
    (each.has('check') && !each.has('change') ? assumed.checkMinutes : 0) +
    // One treatment serves the chain and the day it is wanted.
    ((each.has('care') || each.has('event')) && !each.has('change') ? assumed.careMinutes : 0) +
    // A new chain runs on what was cleaned for it.
    (each.has('wash') && !each.has('change') ? assumed.washMinutes : 0) +
    (each.has('other-wear') ? assumed.otherWearMinutes : 0)
  )
}

/**
 * Groups what is due into visits: all of one bike within some days of its first item, and of its customer's other bikes as well; each on
 * the last open day before it is due that has room, on the customer's good weekday where one lies within reach. What is overdue
 * comes on the next open day with room.
 *
 * @returns visits, soonest first; of one day in the order they fall due
 */
export function planVisits(
  bikes: readonly DueBike[],
  days: ShopDays,
  today: string,
  assumed: Assumptions['diary'],
): PlannedVisit[] {
  const pull = assumed.pullForwardDays
  const firstOf = ({ items }: DueBike): string =>
    items.reduce((first, { on }) => (on < first ? on : first), items[0]!.on)
  const waiting = bikes.filter(({ items }) => items.length > 0).sort((a, b) => (firstOf(a) < firstOf(b) ? -1 : 1))
  const taken = new Set<string>()
  const booked = new Map(days.booked)
  const visits: PlannedVisit[] = []
  for (const bike of waiting) {
    if (taken.has(bike.bikeId)) continue
    const due = firstOf(bike)
    const until = dayAfter(due < today ? today : due, pull)
    const together = waiting.filter(
      (one) => !taken.has(one.bikeId) && one.customerId === bike.customerId && firstOf(one) <= until,
    )
    for (const { bikeId } of together) taken.add(bikeId)
    const kinds = together.map(({ items }) => items.filter(({ on }) => on <= until))
    const each = kinds.map((items) =>
      visitMinutes(
        items.map(({ kind }) => kind),
        assumed,
      ),
    )
    const minutes = each.reduce((sum, one) => sum + one, 0)
    const { day, because } = dayFor({ due, minutes, goodWeekday: bike.goodWeekday }, { ...days, booked }, today, pull)
    booked.set(day, (booked.get(day) ?? 0) + minutes)
    visits.push({
      customerId: bike.customerId,
      day,
      minutes,
      because,
      bikes: together.map(({ bikeId }, i) => ({
        bikeId,
        minutes: each[i]!,
        items: kinds[i]!.map((item) => ({ ...item, pulledForwardDays: Math.max(0, daysBetween(day, item.on)) })),
      })),
    })
  }
  return visits.sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))
}

/** No shop is closed, or full, for longer. */
const LOOK_AHEAD_DAYS = 400

function dayFor(
  { due, minutes, goodWeekday }: { due: string; minutes: number; goodWeekday: number | null },
  days: ShopDays,
  today: string,
  pull: number,
): Pick<PlannedVisit, 'day' | 'because'> {
  // A visit longer than a whole day still comes on a day with nothing else.
  const room = (day: string): boolean => {
    const capacity = capacityOf(days, day)
    const there = days.booked.get(day) ?? 0
    return capacity > 0 && (there + minutes <= capacity || there === 0)
  }
  if (due > today) {
    const back = Math.min(pull, daysBetween(today, due))
    const earlier = Array.from({ length: back + 1 }, (_, i) => dayAfter(due, -i))
    const good = goodWeekday === null ? undefined : earlier.find((day) => weekdayOf(day) === goodWeekday && room(day))
    if (good !== undefined) return { day: good, because: good === due ? 'due' : 'good-weekday' }
    const first = earlier.find(room)
    if (first !== undefined)
      return { day: first, because: first === due ? 'due' : capacityOf(days, due) === 0 ? 'closed' : 'full' }
  }
  const from = due > today ? due : today
  for (let i = 0; i < LOOK_AHEAD_DAYS; i++) {
    const day = dayAfter(from, i)
    if (room(day)) return { day, because: due > today ? (capacityOf(days, due) === 0 ? 'closed' : 'full') : 'overdue' }
  }
  return { day: from, because: 'full' }
}
