import { KM_PER_MILE } from '@pelrin/core'
import { formats, perShop } from './shopFormats.ts'
import { inZone, todayInZone } from './shopClock.ts'

/** The shop's own locale decides decimal signs, dates and groups. */
export const locale = (): string => formats().locale

const fixed = perShop(() => new Map<number, Intl.NumberFormat>())

/** A number with so many decimals. A minus is a minus sign. */
export function number(value: number, decimals: number): string {
  let format = fixed().get(decimals)
  if (!format) {
    format = new Intl.NumberFormat(locale(), { minimumFractionDigits: decimals, maximumFractionDigits: decimals })
    fixed().set(decimals, format)
  }
  return format.format(value).replace('-', '−')
}

const money = perShop(({ locale: of, currency }) => {
  const format = new Intl.NumberFormat(of, { style: 'currency', currency, currencyDisplay: 'narrowSymbol' })
  // Some countries' data has other signs within an amount than within a number; a shop writes one way.
  const signs = new Map(new Intl.NumberFormat(of).formatToParts(12_345.6).map(({ type, value }) => [type, value]))
  return (amount: number): string =>
    format
      .formatToParts(amount)
      .map(({ type, value }) => (type === 'decimal' || type === 'group' ? (signs.get(type) ?? value) : value))
      .join('')
})

/** An amount of the shop's money, told in minor units. */
export const moneyText = (minor: number): string => money()(minor / 100).replace('-', '−')

/** The same, told in whole units, such as pounds. */
export const moneyOf = (amount: number): string => moneyText(Math.round(100 * amount))

/** As an axis has it: without pence. */
export const moneyRound = (amount: number): string => moneyOf(Math.round(amount)).replace(/[.,]00(?=\D*$)/, '')

/** A long time as hours, with one decimal and without their sign. */
export const hoursText = (minutes: number): string => number(minutes / 60, 1)

/** A temperature as the shop reads its thermometers, without decimals. */
export const temperature = (celsius: number): string =>
  formats().temperatureUnit === 'F' ? `${number((celsius * 9) / 5 + 32, 0)} °F` : `${number(celsius, 0)} °C`

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

const dates = perShop(({ locale: of, timeZone }) => {
  const inThe = (zone: string) => ({
    thisYear: new Intl.DateTimeFormat(of, { timeZone: zone, day: 'numeric', month: 'short' }),
    anyYear: new Intl.DateTimeFormat(of, { timeZone: zone, day: 'numeric', month: 'short', year: 'numeric' }),
    week: new Intl.DateTimeFormat(of, { timeZone: zone, weekday: 'short', day: 'numeric', month: 'short' }),
  })
  return {
    moment: inThe(timeZone),
    // A day without a clock is the same one everywhere.
    day: inThe('UTC'),
    clock: new Intl.DateTimeFormat(of, { timeZone, hour: '2-digit', minute: '2-digit' }),
    longAgo: new Intl.RelativeTimeFormat(of, { numeric: 'auto' }),
  }
})

const isDay = (iso: string): boolean => iso.length === 10

/** A day, or the day a moment falls on in the shop's zone; near ones without their year. */
export function day(iso: string): string {
  const { thisYear, anyYear } = isDay(iso) ? dates().day : dates().moment
  const year = isDay(iso) ? iso.slice(0, 4) : inZone(iso).format('YYYY')
  return (year === today().slice(0, 4) ? thisYear : anyYear).format(new Date(iso))
}

export const clock = (iso: string): string => dates().clock.format(new Date(iso))

export const dayAndClock = (date: Date): string => `${dates().moment.week.format(date)}, ${dates().clock.format(date)}`

/** Today in the shop's zone, YYYY-MM-DD. */
export const today = (): string => todayInZone()

/** How long ago, in the words of a workshop. */
export function ago(iso: string): string {
  const from = isDay(iso) ? iso : inZone(iso).format('YYYY-MM-DD')
  const days = Math.round((Date.parse(today()) - Date.parse(from)) / 86_400_000)
  return dates().longAgo.format(days < 60 ? -days : -Math.round(days / 30.4), days < 60 ? 'day' : 'month')
}

/** The day so many days after a moment. */
export const dayAfter = (moment: string | number, days: number): string =>
  inZone(moment).add(Math.floor(days), 'day').format('YYYY-MM-DD')

/** The day of the week, in full. */
export const weekdayName = (day: string): string =>
  new Intl.DateTimeFormat(locale(), { weekday: 'long', timeZone: 'UTC' }).format(new Date(`${day}T00:00:00Z`))

/** In which distances of a bike are shown: as its odometer counts, else as the shop does. */
export const unitOf = (record: { readonly lastOdometer: { readonly unit: 'km' | 'mi' } | null }): 'km' | 'mi' =>
  record.lastOdometer?.unit ?? formats().distanceUnit
