import type { Channel } from '@pelrin/core'
import type { MessageState } from '@pelrin/contract'
import { day, integer, key, maybe, moment, table, text, usually, uuid, uuids, type RowOf } from '../db/table.ts'

/** What reminders say, by language; the newest counts. */
export const MESSAGE_TEMPLATES = table('message_templates', {
  language: key(text()),
  version: key(integer()),
  text: text(),
  madeAt: moment(),
  personId: uuid(),
})
export type MessageTemplateRow = RowOf<typeof MESSAGE_TEMPLATES>

/** The outbox. A message goes under its own id, so that the gateway takes it once; one of a customer and day is there once. */
export const MESSAGES = table('messages', {
  id: key(uuid()),
  customerId: uuid(),
  visitDay: day(),
  /** That they come, or that they care for it themselves. */
  purpose: usually(text<'visit' | 'home'>(), null),
  language: text(),
  channel: usually(text<Channel>(), 'text'),
  phone: maybe(text()),
  email: maybe(text()),
  /** The bikes it is about, whose sheets go along. */
  bikeIds: usually(uuids(), null),
  text: text(),
  state: usually(text<MessageState>(), 'waiting'),
  tries: usually(integer(), null),
  sendAfter: moment(),
  sendingSince: maybe(moment()),
  sentAt: maybe(moment()),
  /** Since when the mail server may have it: after this it is not sent again by itself. */
  handedAt: maybe(moment()),
  /** What the other side said of it. */
  said: maybe(text()),
  settledAt: maybe(moment()),
  madeAt: moment(),
  personId: uuid(),
})
export type MessageRow = RowOf<typeof MESSAGES>

/** What customers answered. */
export const MESSAGE_REPLIES = table('message_replies', {
  number: key(integer()),
  customerId: uuid(),
  text: text(),
  heardAt: moment(),
})
export type MessageReplyRow = RowOf<typeof MESSAGE_REPLIES>

/** The last thing a shop heard of its gateway. */
export const MESSAGE_CURSORS = table('message_cursors', {
  heard: integer(),
})
export type MessageCursorRow = RowOf<typeof MESSAGE_CURSORS>
