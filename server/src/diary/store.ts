import {
  capacityOf,
  dayAfter,
  planVisits,
  type Assumptions,
  type DueItem,
  type ShopDays,
  measuresNothing,
} from '@pelrin/core'
import type { Booking, Diary, DiaryBike, DiaryYear, DueAtHome, DueVisit, ShopDue } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { treatedForEvents } from '../care/eventDates.ts'
import { checkDueOn, instrumentsInUse } from '../instruments/store.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { potBoard } from '../pot/store.ts'
import { CHANGE_STANDS, STANDING_WORD, standingToday } from '../standing/standing.ts'
import { dayIn } from '../days/days.ts'

/** Bikes that are due are grouped into visits up to so many; a shop that has more sees the soonest. */
const MOST_BIKES = 600
/** Of who treats at home the soonest are shown. */
const MOST_AT_HOME = 60
/** What a visit takes where nobody said, minutes. */
const USUAL_MINUTES = 30

/** A bike with what it shows today. */
const BIKE = `json_build_object('id', b.id, 'label', b.label, 'tag', b.tag, 'word', ${STANDING_WORD})`

interface DueRow {
  bike: DiaryBike
  customer: DueVisit['customer']
  dueOn: string
  checkOn: string | null
  careOn: string | null
  washOn: string | null
  wearOn: string | null
  changeOn: string | null
}

/** Bookings from a day on that stand, in the order of their days. */
/** A booking, with when it was last changed and, where that was asked for, one that was called off. */
export type BookingChanged = Omit<Booking, 'state'> & {
  readonly state: Booking['state'] | 'called-off'
  readonly changedAt: string
}

export async function bookingsFrom(work: Work, from: string, to: string): Promise<Booking[]>
export async function bookingsFrom(
  work: Work,
  from: string,
  to: string,
  also: { readonly calledOff: true },
): Promise<BookingChanged[]>
export async function bookingsFrom(
  work: Work,
  from: string,
  to: string,
  also?: { readonly calledOff: true },
): Promise<Booking[] | BookingChanged[]> {
  const { today } = await standingToday(work)
  return work.select<Booking>(
    `SELECT v.id, v.day::text AS day,
       to_char(v.promised_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS "promisedAt",
       coalesce(v.minutes, ${USUAL_MINUTES}) AS minutes, v.reason, v.state, v.version, ${BIKE} AS bike,${also ? ` to_char(v.changed_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS "changedAt",` : ''}
       json_build_object('id', c.id, 'name', c.name) AS customer
     FROM visits v JOIN bikes b ON b.id = v.bike_id JOIN customers c ON c.id = b.customer_id
     JOIN bike_state s ON s.bike_id = b.id
     WHERE v.day BETWEEN :from AND :to AND ${also ? `(v.state <> 'called-off' OR v.changed_at > CAST(:now AS timestamptz) - interval '30 days')` : `v.state <> 'called-off'`} ORDER BY v.day, v.position, v.id`,
    { from, to, today, now: work.now },
  )
}

const NOT_BOOKED = `NOT EXISTS
  (SELECT 1 FROM visits v WHERE v.bike_id = s.bike_id AND v.day >= :today AND v.state IN ('waiting', 'on-stand'))`

/** Bikes due up to a day that are not booked in, the soonest first, by the index of their first day; with those wanted for a day. */
const dueBikes = (work: Work, today: string, to: string, forEvents: readonly string[]): Promise<DueRow[]> =>
  work.select<DueRow>(
    `SELECT ${BIKE} AS bike, json_build_object('id', c.id, 'name', c.name, 'goodWeekday', c.good_weekday) AS customer,
       s.due_on::text AS "dueOn", LEAST(s.check_on, s.measure_from)::text AS "checkOn", s.care_on::text AS "careOn",
       s.wash_on::text AS "washOn",
       s.wear_on::text AS "wearOn",
       CASE WHEN ${CHANGE_STANDS} THEN s.change_on::text END AS "changeOn"
     FROM bike_state s JOIN bikes b ON b.id = s.bike_id JOIN customers c ON c.id = b.customer_id
     WHERE s.bike_id IN (
         (SELECT s.bike_id FROM bike_state s JOIN bikes b ON b.id = s.bike_id
          WHERE s.due_on <= :to AND b.gone_on IS NULL AND ${NOT_BOOKED} ORDER BY s.due_on, s.bike_id LIMIT ${MOST_BIKES})
         UNION (SELECT s.bike_id FROM bike_state s WHERE s.bike_id = ANY(CAST(:forEvents AS uuid[])) AND ${NOT_BOOKED}))
     ORDER BY s.due_on, s.bike_id`,
    { today, to, forEvents: `{${forEvents.join()}}` },
  )

const itemsOf = ({ checkOn, careOn, washOn, wearOn, changeOn }: DueRow, eventBy: string | undefined): DueItem[] => [
  ...(changeOn === null ? [] : [{ kind: 'change' as const, on: changeOn }]),
  ...(checkOn === null || changeOn !== null ? [] : [{ kind: 'check' as const, on: checkOn }]),
  ...(washOn === null || changeOn !== null ? [] : [{ kind: 'wash' as const, on: washOn }]),
  // No sense in waxing a chain that comes off.
  ...(careOn === null || changeOn !== null ? [] : [{ kind: 'care' as const, on: careOn }]),
  ...(eventBy === undefined || changeOn !== null ? [] : [{ kind: 'event' as const, on: eventBy }]),
  ...(wearOn === null ? [] : [{ kind: 'other-wear' as const, on: wearOn }]),
]

/** What is due and booked over so many days from today. */
export async function diaryOf(work: Work, timeZone: string, length: number): Promise<Diary> {
  const { assumed } = await assumptionsInForce(work)
  const today = dayIn(timeZone, work.now)
  const to = dayAfter(today, length - 1)
  const forEvents = await treatedForEvents(work, timeZone, to, assumed)
  const rows = await dueBikes(work, today, to, [...forEvents.keys()])
  const bookings = await bookingsFrom(work, today, to)
  const closed = await closedDays(work, today, to)
  const days: ShopDays = {
    minutes: openingOf(assumed),
    closed: new Set(closed.keys()),
    booked: sumBy(bookings.map(({ day, minutes }) => [day, minutes])),
  }
  const byId = new Map(rows.map((row) => [row.bike.id, row]))
  const visits = planVisits(
    rows.map((row) => ({
      bikeId: row.bike.id,
      customerId: row.customer.id,
      goodWeekday: row.customer.goodWeekday,
      items: itemsOf(row, forEvents.get(row.bike.id)),
    })),
    days,
    today,
    assumed.diary,
  ).map(({ customerId: _, bikes, ...visit }): DueVisit => ({
    ...visit,
    customer: byId.get(bikes[0]!.bikeId)!.customer,
    bikes: bikes.map(({ bikeId, minutes, items }) => ({ bike: byId.get(bikeId)!.bike, minutes, items: [...items] })),
  }))
  const due = sumBy(visits.map(({ day, minutes }) => [day, minutes]))
  return {
    today,
    days: Array.from({ length }, (_, i) => dayAfter(today, i)).map((day) => ({
      day,
      capacity: capacityOf(days, day),
      booked: days.booked.get(day) ?? 0,
      due: due.get(day) ?? 0,
      closed: closed.get(day) ?? null,
    })),
    visits,
    bookings,
    ofShop: await ofShop(work, assumed, today, to),
    atHome: await atHomeUntil(work, to),
    more: rows.length < MOST_BIKES ? 0 : (await countDue(work, to)) - rows.length,
  }
}

/** Minutes of work by weekday, Monday first. */
export const openingOf = ({ diary }: Assumptions): number[] => [
  diary.minutes1,
  diary.minutes2,
  diary.minutes3,
  diary.minutes4,
  diary.minutes5,
  diary.minutes6,
  diary.minutes7,
]

function sumBy(entries: readonly (readonly [string, number])[]): Map<string, number> {
  const sums = new Map<string, number>()
  for (const [key, value] of entries) sums.set(key, (sums.get(key) ?? 0) + value)
  return sums
}

export async function closedDays(work: Work, from: string, to: string): Promise<Map<string, string>> {
  const rows = await work.select<{ day: string; reason: string }>(
    'SELECT day::text AS day, reason FROM closed_days WHERE day BETWEEN :from AND :to ORDER BY day',
    { from, to },
  )
  return new Map(rows.map(({ day, reason }) => [day, reason]))
}

/** Bikes that whoever rides them treats at home up to a day, the soonest first, with the latest reminder that was written since. */
const atHomeUntil = (work: Work, to: string): Promise<DueAtHome[]> =>
  work.select<DueAtHome>(
    `SELECT json_build_object('id', c.id, 'name', c.name) AS customer, json_build_object('id', b.id, 'label', b.label) AS bike,
       s.home_on::text AS on, h.care,
       (SELECT to_char(max(m.made_at) AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') FROM messages m
        WHERE m.customer_id = c.id AND m.purpose = 'home' AND m.visit_day = s.home_on AND b.id = ANY (m.bike_ids)
          AND m.state <> 'called-off') AS "remindedAt"
     FROM bike_state s JOIN bikes b ON b.id = s.bike_id JOIN customers c ON c.id = b.customer_id JOIN chains h ON h.id = s.chain_id
     WHERE s.home_on <= :to AND b.gone_on IS NULL ORDER BY s.home_on, s.bike_id LIMIT ${MOST_AT_HOME}`,
    { to },
  )

async function countDue(work: Work, to: string): Promise<number> {
  const [row] = await work.select<{ bikes: number }>(
    'SELECT count(*)::int AS bikes FROM bike_state WHERE due_on <= :to',
    { to },
  )
  return row?.bikes ?? 0
}

/** What the shop itself has to see to: instruments whose check falls due, wax that is to be changed. */
async function ofShop(work: Work, assumed: Assumptions, today: string, to: string): Promise<ShopDue[]> {
  const instruments = (await instrumentsInUse(work)).flatMap(({ id, kind, name, checkedOn }): ShopDue[] => {
    const on = measuresNothing(kind) ? null : checkDueOn(checkedOn, assumed)
    return on !== null && on <= to ? [{ kind: 'instrument', id, name, on, overdue: on < today }] : []
  })
  const baths = (await potBoard(work)).pots.flatMap(({ id, name, bath }): ShopDue[] =>
    bath.change ? [{ kind: 'bath', id, name, on: null, overdue: true }] : [],
  )
  return [...baths, ...instruments.sort((a, b) => ((a.on ?? '') < (b.on ?? '') ? -1 : 1))]
}

/** How many bikes fall due in each of the twelve months from this one, what is overdue in the first: from the index alone. */
export async function diaryYear(work: Work, timeZone: string): Promise<DiaryYear> {
  const today = dayIn(timeZone, work.now)
  const months = await work.select<{ month: string; bikes: number }>(
    `SELECT to_char(m, 'YYYY-MM') AS month,
       (SELECT count(*)::int FROM bike_state s
        WHERE s.due_on < CAST(m AS date) + interval '1 month' AND (s.due_on >= CAST(m AS date) OR m = date_trunc('month', CAST(:today AS date))))
         AS bikes
     FROM generate_series(date_trunc('month', CAST(:today AS date)),
       date_trunc('month', CAST(:today AS date)) + interval '11 months', interval '1 month') m ORDER BY m`,
    { today },
  )
  return { months }
}
