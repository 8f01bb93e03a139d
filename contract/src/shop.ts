import * as v from 'valibot'
import { CareKind } from './forecast.ts'
import { changeOf, DistanceUnit, line } from './common.ts'
import { endpoint } from './endpoint.ts'

/** A time zone the machine knows. */
const isZone = (name: string): boolean => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    return true
  } catch {
    return false
  }
}

/** How days, clocks and numbers are written, by region: the words are English everywhere so far. */
export const SHOP_LOCALES = [
  'en-GB',
  'en-IE',
  'en-US',
  'en-CA',
  'en-AU',
  'en-NZ',
  'en-ZA',
  'en-IN',
  'en-AT',
  'en-BE',
  'en-CH',
  'en-DE',
  'en-DK',
  'en-FI',
  'en-NL',
  'en-SE',
] as const
const ShopLocale = v.picklist(SHOP_LOCALES, 'locale-unknown')

const TemperatureUnit = v.picklist(['C', 'F'], 'temperature-unit-unknown')

const Clock = v.pipe(v.string('text-missing'), v.regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'clock-malformed'))
/** When the door is open on a weekday; null: not at all. */
const OpeningDay = v.nullable(
  v.pipe(
    v.object({ from: Clock, to: Clock }),
    v.forward(
      v.check(({ from, to }) => from < to, 'opening-ends-before'),
      ['to'],
    ),
  ),
)

/** A name in an address and at the door: small letters, digits, hyphens. */
const ShopCode = v.pipe(line(40), v.toLowerCase(), v.regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'shop-code-malformed'))

/** What a shop says of itself. */
export const ShopSettings = v.object({
  name: line(80),
  code: ShopCode,
  timeZone: v.pipe(line(60), v.check(isZone, 'zone-unknown')),
  /** ISO 4217. */
  currency: v.pipe(
    line(3),
    v.toUpperCase(),
    v.check((code) => Intl.supportedValuesOf('currency').includes(code), 'currency-unknown'),
  ),
  locale: ShopLocale,
  distanceUnit: DistanceUnit,
  temperatureUnit: TemperatureUnit,
  /** Monday to Sunday. */
  opening: v.pipe(v.array(OpeningDay), v.length(7, 'field-invalid')),
  /** Ways to treat a chain that are usual here, the most usual first: offered first of a new chain. */
  careWays: v.pipe(v.array(CareKind), v.minLength(1, 'care-ways-missing')),
  stands: v.pipe(
    v.number('number-malformed'),
    v.integer('stands-range'),
    v.minValue(1, 'stands-range'),
    v.maxValue(40, 'stands-range'),
  ),
})
export type ShopSettings = v.InferOutput<typeof ShopSettings>

/** What a shop says of itself, at a version. */
export const Shop = v.object({ ...ShopSettings.entries, id: v.string(), version: v.number() })
export type Shop = v.InferOutput<typeof Shop>

export const shopEndpoints = {
  shop: endpoint({
    name: 'shop',
    method: 'GET',
    path: '/shop',
    summary: 'What the shop says of itself: name, zone, money, units, opening hours.',
    access: 'signed-in',
    result: Shop,
  }),
  changeShop: endpoint({
    name: 'changeShop',
    method: 'PATCH',
    path: '/shop',
    summary: 'Change what the shop says of itself. What was written before stays what it was.',
    access: 'owner',
    versioned: true,
    body: changeOf(ShopSettings.entries),
    result: Shop,
  }),
}
