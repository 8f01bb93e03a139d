import { capacityOf } from '@pelrin/core'
import type { Booking, endpoints, Output } from '@pelrin/contract'
import { lockPresentBike } from '../bikes/lockPresentBike.ts'
import { brokenBy } from '../db/refused.ts'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { dayIn } from '../days/days.ts'
import { bookingsFrom, closedDays, openingOf } from './store.ts'
import { held } from '../db/facts.ts'
import { VISITS } from '../stand/models.ts'

interface Booked {
  bookings: Booking[]
}

/**
 * Books bikes in for a day: they stand in that day's line-up. One that was called off that day is booked again.
 *
 * @throws ProblemError 422 at `day` for one that is over or closed, 409 for a bike that is in that day already, or gone
 */
export async function book(
  work: Work,
  timeZone: string,
  { day, promisedAt, bikes }: Output<typeof endpoints.book.body>,
): Promise<Booked> {
  await openOn(work, timeZone, day)
  for (const { id, bikeId, reason, minutes } of bikes) {
    await lockPresentBike(work, bikeId)
    const [booked] = await work.select(
      `INSERT INTO visits (id, bike_id, day, position, promised_at, reason, state, minutes, booked_at)
       VALUES (:id, :bikeId, :day, (SELECT coalesce(max(position), 0) + 1 FROM visits WHERE day = :day), :promisedAt, :reason,
         'waiting', :minutes, :now)
       ON CONFLICT (shop_id, day, bike_id) DO UPDATE SET state = 'waiting', promised_at = EXCLUDED.promised_at,
         reason = EXCLUDED.reason, minutes = EXCLUDED.minutes, booked_at = EXCLUDED.booked_at, version = visits.version + 1
         WHERE visits.state = 'called-off'
       RETURNING id`,
      { id, bikeId, day, reason, minutes, promisedAt, now: work.now },
    )
    if (!booked) throw new ProblemError(409, 'booking-there')
  }
  await audited(work, 'booked', 'visit', bikes[0]!.id, { day, bikes: bikes.map(({ bikeId }) => bikeId) })
  return { bookings: await bookingsFrom(work, day, day) }
}

/** @throws ProblemError 422 at `day` */
async function openOn(work: Work, timeZone: string, day: string): Promise<void> {
  if (day < dayIn(timeZone, work.now)) throw refuseField('day', 'booking-past')
  const { assumed } = await assumptionsInForce(work)
  const closed = new Set((await closedDays(work, day, day)).keys())
  if (capacityOf({ minutes: openingOf(assumed), closed, booked: new Map() }, day) === 0)
    throw refuseField('day', 'booking-closed')
}

/**
 * Moves a booking, or calls it off. It keeps its id, so that it moves in calendars that have it.
 *
 * @throws ProblemError 404; 409 for one that is begun or another one of the bike that day; 412 when somebody was faster
 */
export async function moveBooking(
  work: Work,
  timeZone: string,
  id: string,
  version: number,
  { day, promisedAt, minutes, calledOff }: Output<typeof endpoints.moveBooking.body>,
): Promise<Booked> {
  const { transaction } = work
  const visit = await work.of(VISITS).findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
  if (!visit || visit.state === 'called-off') throw new ProblemError(404, 'booking-unknown')
  await held(visit, version, async () => ({ bookings: await bookingsFrom(work, visit.day, visit.day) }))
  if (visit.state !== 'waiting') throw new ProblemError(409, 'booking-begun')
  if (day !== undefined && day !== visit.day) {
    await openOn(work, timeZone, day)
    // One that was called off that day makes room.
    await work.execute(`DELETE FROM visits WHERE bike_id = :bikeId AND day = :day AND state = 'called-off'`, {
      bikeId: visit.bikeId,
      day,
    })
  }
  try {
    await visit.update(
      {
        ...(day === undefined ? {} : { day }),
        ...(promisedAt === undefined ? {} : { promisedAt: promisedAt === null ? null : new Date(promisedAt) }),
        ...(minutes === undefined ? {} : { minutes }),
        ...(calledOff ? { state: 'called-off' as const } : {}),
        version: version + 1,
      },
      { transaction },
    )
  } catch (error) {
    if (brokenBy(error)?.rule === 'unique') throw new ProblemError(409, 'booking-there')
    throw error
  }
  await audited(work, calledOff ? 'called-off' : 'moved', 'visit', id, { day, promisedAt, minutes })
  return { bookings: await bookingsFrom(work, visit.day, visit.day) }
}

/** Says that the shop is closed on some days, or open after all. */
export async function setClosed(
  work: Work,
  { days, reason }: Output<typeof endpoints.setClosed.body>,
): Promise<{ days: string[] }> {
  for (const day of days)
    await work.select(
      reason === null
        ? 'DELETE FROM closed_days WHERE day = :day RETURNING day'
        : `INSERT INTO closed_days (day, reason) VALUES (:day, :reason)
           ON CONFLICT (shop_id, day) DO UPDATE SET reason = EXCLUDED.reason RETURNING day`,
      { day, reason },
    )
  await audited(work, reason === null ? 'opened' : 'closed', 'shop', work.shopId, { days, reason })
  return { days: [...days] }
}
