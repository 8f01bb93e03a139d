import { KM_PER_MILE } from '@pelrin/core'
import dayjs from 'dayjs'

/** The browser's own locale decides decimal signs, dates and groups. */
export const locale = typeof navigator === 'undefined' ? 'en-GB' : navigator.language

const fixed = new Map<number, Intl.NumberFormat>()

/** A number with so many decimals. A minus is a minus sign. */
export function number(value: number, decimals: number): string {
  let format = fixed.get(decimals)
  if (!format) {
    format = new Intl.NumberFormat(locale, { minimumFractionDigits: decimals, maximumFractionDigits: decimals })
    fixed.set(decimals, format)
  }
  return format.format(value).replace('-', '−')
}

/** An amount of the shop's money, told in minor units. */
export const moneyText = (minor: number): string => number(minor / 100, 2)

/** A share of one as whole per cent, without the sign. */
export const shareText = (share: number): string => number(100 * share, 0)

/** How much of a piece of work is done, per cent; none of nothing. */
export const percentDone = (done: number, of: number): number => (of > 0 ? Math.round((100 * done) / of) : 0)

/** Elongation with two decimals, the finest a mechanic acts on. */
export const percent = (value: number): string => number(value, 2)

/** A distance in the unit a bike's odometer shows. */
export function distance(km: number, unit: 'km' | 'mi'): string {
  return `${number(unit === 'mi' ? km / KM_PER_MILE : km, 0)} ${unit}`
}

// Made once: making one takes longer than writing a hundred days with it.
const dayOfThisYear = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short' })
const dayOfAnyYear = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', year: 'numeric' })
const dayOfWeek = new Intl.DateTimeFormat(locale, { weekday: 'short', day: 'numeric', month: 'short' })
const timeOfDay = new Intl.DateTimeFormat(locale, { hour: '2-digit', minute: '2-digit' })
const howLongAgo = new Intl.RelativeTimeFormat(locale, { numeric: 'auto' })

/** A day, near ones without their year. */
export function day(iso: string): string {
  const date = dayjs(iso)
  return (date.year() === dayjs().year() ? dayOfThisYear : dayOfAnyYear).format(date.toDate())
}

export const clock = (iso: string): string => timeOfDay.format(new Date(iso))

export const dayAndClock = (date: Date): string => `${dayOfWeek.format(date)}, ${timeOfDay.format(date)}`

/** Today in this device's zone, YYYY-MM-DD. */
export const today = (): string => dayjs().format('YYYY-MM-DD')

/** How long ago, in the words of a workshop. */
export function ago(iso: string): string {
  const days = dayjs().startOf('day').diff(dayjs(iso).startOf('day'), 'day')
  return howLongAgo.format(days < 60 ? -days : -Math.round(days / 30.4), days < 60 ? 'day' : 'month')
}

/** The day so many days after a moment. */
export const dayAfter = (moment: string, days: number): string =>
  dayjs(moment).add(Math.floor(days), 'day').format('YYYY-MM-DD')
