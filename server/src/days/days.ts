import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone.js'
import utc from 'dayjs/plugin/utc.js'

dayjs.extend(utc)
dayjs.extend(timezone)

/** Making one takes a hundred times as long as using it. */
const days = new Map<string, Intl.DateTimeFormat>()

/** The day a moment falls on in a shop's zone, YYYY-MM-DD. */
export function dayIn(timeZone: string, moment: Date): string {
  let format = days.get(timeZone)
  if (!format) {
    // Canada writes a day as it is written here.
    format = new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' })
    days.set(timeZone, format)
  }
  return format.format(moment)
}

/** A day so many days later, YYYY-MM-DD. */
export function daysLater(day: string, days: number): string {
  return dayjs.utc(day).add(days, 'day').format('YYYY-MM-DD')
}

/** A clock time of a day in a shop's zone, as a moment. */
export function momentAt(timeZone: string, day: string, clock: string): Date {
  return dayjs.tz(`${day} ${clock}`, timeZone).toDate()
}
