import { perShop } from './shopFormats.ts'

const TOKENS: Partial<Record<Intl.DateTimeFormatPartTypes, string>> = { day: 'DD', month: 'MM', year: 'YYYY' }

/** How a day is typed in digits, in the order and with the signs the shop writes it in, such as DD/MM/YYYY. */
export const dayPattern = perShop(({ locale }) =>
  new Intl.DateTimeFormat(locale, { day: '2-digit', month: '2-digit', year: 'numeric', timeZone: 'UTC' })
    .formatToParts(new Date('2024-11-23T00:00:00Z'))
    .map(({ type, value }) => TOKENS[type] ?? value)
    .join(''),
)

/** How a time of day is typed: by half days where the shop tells it so. */
export const timePattern = perShop(({ locale }) =>
  new Intl.DateTimeFormat(locale, { hour: 'numeric', timeZone: 'UTC' }).resolvedOptions().hour12 === true
    ? 'hh:mm A'
    : 'HH:mm',
)

/** Whose names of months and first day of a week a calendar has. */
export const calendarLocale = perShop(({ locale }) => (/-(US|CA|IN|ZA)$/.test(locale) ? 'en' : 'en-gb'))
