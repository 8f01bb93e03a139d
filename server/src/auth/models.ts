import type { Role, ShopSettings } from '@pelrin/contract'
import {
  bytes,
  day,
  flag,
  integer,
  json,
  key,
  maybe,
  moment,
  table,
  text,
  texts,
  usually,
  uuid,
  type RowOf,
} from '../db/table.ts'

export const SHOPS = table('shops', {
  id: key(uuid()),
  code: text(),
  name: text(),
  timeZone: text(),
  distanceUnit: usually(text<'km' | 'mi'>(), null),
  demo: usually(flag(), null),
  version: usually(integer(), null),
  /** ISO 4217. */
  currency: usually(text(), null),
  /** How days, clocks and numbers are written. */
  locale: usually(text(), null),
  temperatureUnit: usually(text<'C' | 'F'>(), null),
  /** Monday to Sunday. */
  opening: usually(json<ShopSettings['opening']>(), null),
  stands: usually(integer(), null),
  /** Ways to treat a chain that are usual here, the most usual first. */
  careWays: usually(texts<ShopSettings['careWays'][number]>(), null),
  /** When its owner came in for the first time; null: nobody has yet. */
  begunAt: maybe(moment()),
  createdAt: usually(moment(), null),
})
export type ShopRow = RowOf<typeof SHOPS>

export const PEOPLE = table('people', {
  id: key(uuid()),
  name: text(),
  initials: text(),
  signInName: text(),
  role: text<Role>(),
  /** Null until one is chosen: no password fits. */
  passwordHash: maybe(text()),
  pinHash: maybe(text()),
  active: usually(flag(), null),
  /** The last day they were here; null while they are. */
  leftOn: maybe(day()),
  version: usually(integer(), null),
  /** Kept in a demo shop only, to be shown on its sign-in page. */
  demoPassword: maybe(text()),
})
export type PersonRow = RowOf<typeof PEOPLE>

export const DEVICES = table('devices', {
  id: key(uuid()),
  name: text(),
  /** Of the token it keeps from one session to the next; null for one of before, or from an archive. */
  tokenHash: maybe(bytes()),
  lastSeenAt: maybe(moment()),
  createdAt: usually(moment(), null),
})
export type DeviceRow = RowOf<typeof DEVICES>

export const SESSIONS = table('sessions', {
  tokenHash: key(bytes()),
  shopId: uuid(),
  deviceId: uuid(),
  personId: uuid(),
  lastSeenAt: usually(moment(), null),
  expiresAt: moment(),
  provedAt: maybe(moment()),
  createdAt: usually(moment(), null),
})
export type SessionRow = RowOf<typeof SESSIONS>

export const DEVICE_PEOPLE = table('device_people', {
  deviceId: key(uuid()),
  personId: key(uuid()),
  role: text<Role>(),
  invitedAt: usually(moment(), null),
  lastHereAt: usually(moment(), null),
})
export type DevicePersonRow = RowOf<typeof DEVICE_PEOPLE>

/** How often somebody failed to sign in, or a device did, and until when it waits. */
export const SIGN_IN_TRIES = table('sign_in_tries', {
  subject: key(text()),
  failed: integer(),
  lastAt: moment(),
  waitsUntil: moment(),
})
export type SignInTryRow = RowOf<typeof SIGN_IN_TRIES>

/** A link that lets one person in, once. */
export const INVITATIONS = table('invitations', {
  tokenHash: key(bytes()),
  shopId: uuid(),
  personId: uuid(),
  kind: text<'first-day' | 'invited' | 'way-back'>(),
  expiresAt: moment(),
  usedAt: maybe(moment()),
  createdAt: usually(moment(), null),
})
export type InvitationRow = RowOf<typeof INVITATIONS>

/** By which another program asks. */
export const API_TOKENS = table('api_tokens', {
  digest: key(bytes()),
  id: uuid(),
  shopId: uuid(),
  name: text(),
  rights: texts(),
  personId: uuid(),
  /** What it writes is written at a device of its own. */
  deviceId: uuid(),
  madeAt: usually(moment(), null),
  lastUsedAt: maybe(moment()),
  revokedAt: maybe(moment()),
})
