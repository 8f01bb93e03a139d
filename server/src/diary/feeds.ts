import { createHash, randomBytes } from 'node:crypto'
import ical, { ICalEventBusyStatus, ICalEventStatus, ICalEventTransparency } from 'ical-generator'
import type { CalendarFeed } from '@pelrin/contract'
import { dayAfter } from '@pelrin/core'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { dayIn } from '../days/days.ts'
import { bookingsFrom, type BookingChanged } from './store.ts'

/** How far back and ahead a calendar is told, days. */
const BACK = 30
const AHEAD = 366
const MINUTE = 60_000

/** Only this of an address is kept. */
const digestOf = (token: string): Buffer => createHash('sha256').update(token).digest()

export const calendarFeeds = (work: Work): Promise<CalendarFeed[]> =>
  work.select<CalendarFeed>(
    `SELECT f.id, f.name, to_char(f.made_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS "madeAt", p.name AS person
     FROM calendar_feeds f JOIN people p ON p.id = f.person_id WHERE f.revoked_at IS NULL ORDER BY f.made_at, f.id`,
  )

/** Makes an address a calendar program may ask by. The only time it is told. @throws ProblemError 409 for an id that is there */
export async function makeFeed(
  work: Work,
  shopCode: string,
  { id, name }: { id: string; name: string },
): Promise<{ path: string; feeds: CalendarFeed[] }> {
  const token = randomBytes(24).toString('base64url')
  const [made] = await work.select(
    `INSERT INTO calendar_feeds (id, digest, name, made_at, person_id)
     VALUES (:id, decode(:digest, 'hex'), :name, :now, :personId)
     ON CONFLICT DO NOTHING RETURNING id`,
    { id, digest: digestOf(token).toString('hex'), name, now: work.now, personId: authorOf(work).personId },
  )
  // Its address is told once: sent again, it is made again under another id.
  if (!made) throw new ProblemError(409, 'feed-there')
  await audited(work, 'made', 'calendar-feed', id, { name })
  return { path: `/calendar/${shopCode}/${token}.ics`, feeds: await calendarFeeds(work) }
}

/** @throws ProblemError 404 for one that is not there, or leads nowhere already */
export async function revokeFeed(work: Work, id: string): Promise<CalendarFeed[]> {
  const [revoked] = await work.select(
    'UPDATE calendar_feeds SET revoked_at = :now WHERE id = :id AND revoked_at IS NULL RETURNING id',
    { id, now: work.now },
  )
  if (!revoked) throw new ProblemError(404, 'feed-unknown')
  await audited(work, 'revoked', 'calendar-feed', id)
  return calendarFeeds(work)
}

/** Whether an address leads into this shop: made here, not taken back, by somebody who still works here. */
export async function leadsHere(work: Work, token: string): Promise<boolean> {
  const [feed] = await work.select(
    `SELECT f.id FROM calendar_feeds f JOIN people p ON p.id = f.person_id AND p.active
     WHERE f.digest = decode(:digest, 'hex') AND f.revoked_at IS NULL`,
    { digest: digestOf(token).toString('hex') },
  )
  return feed !== undefined
}

/**
 * The shop's bookings as an iCalendar file. A booking keeps its id, so that one that moved moves in a calendar that has it; times are
 * told in UTC, so that no calendar has to know the zone's clock changes; one without a time is of the whole day.
 */
export async function calendarFile(work: Work, shop: { name: string; timeZone: string }): Promise<string> {
  const today = dayIn(shop.timeZone, work.now)
  const bookings = await bookingsFrom(work, dayAfter(today, -BACK), dayAfter(today, AHEAD), { calledOff: true })
  const calendar = ical({
    name: shop.name,
    prodId: { company: 'Pelrin', product: 'Diary', language: 'EN' },
    ttl: 30 * 60,
  })
  for (const booking of bookings) calendar.createEvent(asEvent(booking))
  return calendar.toString()
}

function asEvent({ id, day, promisedAt, minutes, reason, state, bike, customer, version, changedAt }: BookingChanged) {
  const end = promisedAt === null ? null : new Date(promisedAt)
  return {
    id: `${id}@pelrin`,
    sequence: version,
    stamp: new Date(changedAt),
    summary: `${customer.name}, ${bike.label}`,
    description: [reason, `${minutes} min`, `tag ${bike.tag}`].filter((part) => part !== '').join(', '),
    // One that was called off is told to be: a calendar that has it would keep it otherwise.
    status: state === 'called-off' ? ICalEventStatus.CANCELLED : ICalEventStatus.CONFIRMED,
    transparency:
      state === 'waiting' || state === 'on-stand' ? ICalEventTransparency.OPAQUE : ICalEventTransparency.TRANSPARENT,
    busystatus: state === 'done' || state === 'called-off' ? ICalEventBusyStatus.FREE : ICalEventBusyStatus.BUSY,
    // What was promised is when it is ready: the work lies before it.
    ...(end === null
      ? { start: `${day}T00:00:00.000Z`, allDay: true, timezone: null }
      : { start: new Date(end.getTime() - minutes * MINUTE), end }),
  }
}
