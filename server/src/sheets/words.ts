import { createInstance } from 'i18next'
import { KM_PER_MILE } from '@pelrin/core'
import { care, riderGears, sheet, steps, word } from '@pelrin/contract/messages'

const messages = createInstance({
  lng: 'en',
  fallbackLng: 'en',
  // At once: nothing is fetched.
  initAsync: false,
  returnObjects: true,
  resources: { en: { translation: { sheet, care, word, steps, parts: riderGears } } },
  interpolation: { escapeValue: false },
})
await messages.init()

/** The words of a sheet: messages with values, numbers and days as somebody in a place and zone writes them. */
export class Words {
  constructor(
    readonly locale: string,
    private readonly timeZone: string,
    private readonly unit: 'km' | 'mi',
    private readonly currency: string,
  ) {}

  t(key: string, values: Record<string, string | number> = {}): string {
    return messages.t(key, values)
  }
  /** A message that is a list of sentences. */
  list(key: string): string[] {
    return messages.t(key) as unknown as string[]
  }
  /** Several facts about one thing, side by side. */
  listed(facts: readonly string[]): string {
    return new Intl.ListFormat(this.locale, { type: 'unit', style: 'short' }).format(facts)
  }
  number(value: number, decimals: number): string {
    return new Intl.NumberFormat(this.locale, { minimumFractionDigits: decimals, maximumFractionDigits: decimals })
      .format(value)
      .replace('-', '−')
  }
  distance(km: number): string {
    return `${this.number(this.unit === 'mi' ? km / KM_PER_MILE : km, 0)} ${this.unit}`
  }
  money(minor: number | null): string {
    if (minor === null) return this.t('sheet.bill.none')
    const format = new Intl.NumberFormat(this.locale, {
      style: 'currency',
      currency: this.currency,
      currencyDisplay: 'narrowSymbol',
    })
    return format.format(minor / 100).replace('-', '−')
  }
  day(moment: Date | string): string {
    // A day without a clock is that day everywhere.
    const plain = typeof moment === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(moment)
    return new Intl.DateTimeFormat(this.locale, {
      day: 'numeric',
      month: 'long',
      year: 'numeric',
      timeZone: plain ? 'UTC' : this.timeZone,
    }).format(new Date(moment))
  }
}

/** A locale as it was asked for; British English where there is none of that name. */
export function localeOf(asked: string): string {
  try {
    return Intl.DateTimeFormat.supportedLocalesOf([asked])[0] ?? 'en-GB'
  } catch {
    return 'en-GB'
  }
}
