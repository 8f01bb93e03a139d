import { eventCare, type Assumptions, type CareKind, type EventCare } from '@pelrin/core'
import type { CareNext, EventDate } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { dayIn } from '../days/days.ts'

interface Row {
  id: string
  bikeId: string
  day: string
  name: string
  care: CareKind | null
  next: CareNext | null
  kmPerDay: number | null
}

/** Days bikes are wanted for that come, with what is known of the chains on them now. */
const comingDates = (work: Work, where: string, values: Record<string, unknown>): Promise<Row[]> =>
  work.select<Row>(
    `SELECT e.id, e.bike_id AS "bikeId", e.day::text AS day, e.name, s.care AS next, s.km_per_day AS "kmPerDay",
       (SELECT h.care FROM fittings f JOIN chains h ON h.id = f.chain_id WHERE f.bike_id = e.bike_id AND upper_inf(f.during)) AS care
     FROM event_dates e JOIN bike_state s ON s.bike_id = e.bike_id JOIN bikes b ON b.id = e.bike_id
     WHERE e.dropped_at IS NULL AND b.gone_on IS NULL AND e.day >= :today AND ${where} ORDER BY e.day, e.id`,
    values,
  )

function before(
  { day, care, next, kmPerDay }: Row,
  today: string,
  zone: string,
  assumed: Assumptions,
): EventCare | null {
  if (care === null) return null
  const used = next && {
    km: next.usedKm,
    days: next.usedDays,
    interval: next.interval,
    kmLeft: next.kmLeft,
    asOf: dayIn(zone, new Date(next.asOf)),
  }
  return eventCare({ eventOn: day, today, care, used, kmPerDay: kmPerDay ?? 0 }, assumed.care)
}

/** Days a bike is wanted for, from today on, and what its chain needs before each. */
export async function eventDatesOf(
  work: Work,
  bikeId: string,
  zone: string,
  assumed: Assumptions,
): Promise<EventDate[]> {
  const today = dayIn(zone, work.now)
  const rows = await comingDates(work, 'e.bike_id = :bikeId', { bikeId, today })
  return rows.map((row) => ({ id: row.id, day: row.day, name: row.name, care: before(row, today, zone, assumed) }))
}

/** The day by which each bike's chain is treated for a day it is wanted, up to a day; by bike, its soonest. */
export async function treatedForEvents(
  work: Work,
  zone: string,
  to: string,
  assumed: Assumptions,
): Promise<Map<string, string>> {
  const today = dayIn(zone, work.now)
  const due = new Map<string, string>()
  const rows = await comingDates(work, `e.day <= CAST(:to AS date) + CAST(:lead AS integer)`, {
    today,
    to,
    lead: assumed.care.eventLeadDays,
  })
  for (const row of rows) {
    const care = before(row, today, zone, assumed)
    if (care?.word === 'treat' && care.by <= to && !due.has(row.bikeId)) due.set(row.bikeId, care.by)
  }
  return due
}
