import type { Shop } from '@pelrin/contract'

/** By what days, clocks, numbers and money are written: the shop's, wherever the tablet thinks it is. */
export type Formats = Pick<Shop, 'locale' | 'timeZone' | 'currency' | 'distanceUnit' | 'temperatureUnit'>

/** Until it is known whose shop it is: this device's own. */
let shown: Formats = {
  locale: (typeof navigator === 'undefined' ? 'en-GB' : navigator.language) as Formats['locale'],
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  currency: 'GBP',
  distanceUnit: 'km',
  temperatureUnit: 'C',
}
const forgotten: (() => void)[] = []

export const formats = (): Formats => shown

/** From now on everything is written as this shop writes it. */
export function formatsAreOf({ locale, timeZone, currency, distanceUnit, temperatureUnit }: Formats): void {
  if (
    shown.locale === locale &&
    shown.timeZone === timeZone &&
    shown.currency === currency &&
    shown.distanceUnit === distanceUnit &&
    shown.temperatureUnit === temperatureUnit
  )
    return
  shown = { locale, timeZone, currency, distanceUnit, temperatureUnit }
  for (const forget of forgotten) forget()
}

/** Something made once for a shop's formats, since making it takes longer than using it a hundred times. */
export function perShop<T>(make: (formats: Formats) => T): () => T {
  let made: T | undefined
  forgotten.push(() => (made = undefined))
  return () => (made ??= make(shown))
}
