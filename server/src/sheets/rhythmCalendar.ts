import ical, { ICalEventRepeatingFreq, ICalEventTransparency } from 'ical-generator'
import { dayAfter } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { dayIn } from '../days/days.ts'
import { shopZone } from '../days/shopZone.ts'
import type { Words } from './words.ts'
import { careOf } from '../care/store.ts'

/** How far ahead a rhythm is told: what is known of riding is not known for longer. */
const AHEAD_DAYS = 365

/**
 * When a bike's chain is treated, washed and measured by its usual rhythm, as an iCalendar file for whoever rides it: each a day that comes
 * again. They keep their ids, so that a newer file moves the same days.
 *
 * @throws ProblemError 404 for a bike, or one of which no rhythm is known
 */
export async function rhythmCalendar(work: Work, bikeId: string, words: Words): Promise<string> {
  const { next, wash, rhythm } = await careOf(work, bikeId)
  const [bike] = await work.select<{ label: string; shop: string; checkOn: string | null }>(
    `SELECT b.label, sh.name AS shop, LEAST(s.check_on, s.measure_from)::text AS "checkOn" FROM bikes b
     JOIN bike_state s ON s.bike_id = b.id JOIN shops sh ON sh.id = pelrin_shop() WHERE b.id = :bikeId`,
    { bikeId },
  )
  const today = dayIn(await shopZone(work), work.now)
  const dates = [
    { what: 'care', from: next?.dueOn ?? null, every: rhythm.care },
    { what: 'wash', from: wash.on, every: rhythm.wash },
    { what: 'look', from: bike?.checkOn ?? null, every: rhythm.look },
  ].flatMap(({ what, from, every }) => (from === null || every === null ? [] : [{ what, from, every }]))
  if (!bike || dates.length === 0) throw new ProblemError(404, 'rhythm-unknown')
  const calendar = ical({ name: bike.label, prodId: { company: 'Pelrin', product: 'Rhythm', language: 'EN' } })
  for (const { what, from, every } of dates)
    calendar.createEvent({
      id: `${bikeId}-${what}@pelrin`,
      stamp: work.now,
      summary: words.t(`sheet.calendar.${what}`, { bike: bike.label, shop: bike.shop }),
      // What is overdue is done today.
      start: `${from < today ? today : from}T00:00:00.000Z`,
      allDay: true,
      timezone: null,
      transparency: ICalEventTransparency.TRANSPARENT,
      repeating: {
        freq: ICalEventRepeatingFreq.DAILY,
        interval: every,
        until: new Date(`${dayAfter(today, AHEAD_DAYS)}T00:00:00Z`),
      },
    })
  return calendar.toString()
}
