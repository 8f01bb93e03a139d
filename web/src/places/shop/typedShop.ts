import type { ShopSettings } from '@pelrin/contract'
import { numberWanted } from '../../forms/typed.ts'

/** What a shop says of itself, as it is typed. */
export interface TypedShop {
  name: string
  code: string
  timeZone: string
  currency: string
  locale: string
  distanceUnit: string
  temperatureUnit: string
  opening: string[]
  stands: string
  careWays: string[]
}

/** Hours as people write them: 9-17:30, 09.00–17.30; nothing where the door stays shut. */
const hoursTyped = (day: ShopSettings['opening'][number]): string => (day === null ? '' : `${day.from}–${day.to}`)

/** @returns hours by the clock; null for a closed day; what no schema takes where it is neither */
export function hoursIn(typed: string): ShopSettings['opening'][number] {
  if (typed.trim() === '') return null
  const [from = '', to = ''] = typed.split(/\s*(?:[-–—]|to)\s*/u).map((one) => clockIn(one))
  return { from, to }
}

/** 9, 9:30, 9.30, 0930 as 09:30; as it was typed where it is none. */
function clockIn(typed: string): string {
  const [, hours, minutes = '00'] = /^(\d{1,2})(?:[:.h]?(\d{2}))?$/.exec(typed.trim()) ?? []
  return hours === undefined ? typed : `${hours.padStart(2, '0')}:${minutes}`
}

export const shopTyped = ({ opening, stands, careWays, ...rest }: ShopSettings): TypedShop => ({
  ...rest,
  opening: opening.map(hoursTyped),
  stands: String(stands),
  careWays: [...careWays],
})

/** What is typed as it is written; the endpoint's schema refuses what is none. */
export const shopIn = ({ opening, stands, ...typed }: TypedShop): ShopSettings =>
  ({ ...typed, opening: opening.map(hoursIn), stands: numberWanted(stands) }) as ShopSettings

/** A short name made of a long one: small letters, digits, hyphens. */
export const codeOf = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40)

/** Initials of a name, three at most. */
export const initialsOf = (name: string): string =>
  name
    .split(/[\s-]+/)
    .map((word) => /\p{L}/u.exec(word)?.[0] ?? '')
    .join('')
    .slice(0, 3)
    .toUpperCase()

/** By which somebody signs in, made of their first name. */
export const signInNameOf = (name: string): string => codeOf(name.split(/\s+/)[0] ?? '')
