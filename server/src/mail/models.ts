import type { MAIL_SECURITIES } from '@pelrin/contract'
import { flag, integer, key, maybe, moment, table, text, type RowOf } from '../db/table.ts'

/** By which server a shop's mail goes: one row of a shop, or none. */
export const MAIL_SETTINGS = table('mail_settings', {
  // One row a shop: its version is all it is told by.
  version: key(integer()),
  isOn: flag(),
  host: text(),
  port: integer(),
  security: text<(typeof MAIL_SECURITIES)[number]>(),
  userName: maybe(text()),
  /** By a key that is not in the database. */
  passwordSealed: maybe(text()),
  fromName: text(),
  fromAddress: text(),
  /** What stands before the links in a mail. */
  publicAddress: text(),
  trouble: maybe(text()),
  troubleAt: maybe(moment()),
})
export type MailSettingsRow = RowOf<typeof MAIL_SETTINGS>
