import * as v from 'valibot'
import { CHANNELS } from '@pelrin/core'
import { ById } from './bikes.ts'
import { Day, Id, Moment } from './common.ts'
import { DueKindField } from './diary.ts'
import { endpoint } from './endpoint.ts'
import { REMINDER_LANGUAGES } from './messages/reminders.ts'

export const Language = v.picklist(REMINDER_LANGUAGES, 'field-invalid')
/** By what a message goes. */
export const ChannelField = v.picklist(CHANNELS, 'field-invalid')
export const MessageState = v.picklist([
  'waiting',
  'sending',
  'sent',
  'delivered',
  'failed',
  'refused',
  'called-off',
  'unsure',
])
export type MessageState = v.InferOutput<typeof MessageState>

const Of = v.object({ id: Id, name: v.string() })

/** A message of the outbox. */
export const Message = v.object({
  id: Id,
  customer: Of,
  visitDay: Day,
  purpose: v.picklist(['visit', 'home']),
  language: Language,
  channel: ChannelField,
  phone: v.nullable(v.string()),
  email: v.nullable(v.string()),
  text: v.string(),
  state: MessageState,
  tries: v.number(),
  /** Not before: it may be quiet now, or the gateway away. */
  sendAfter: Moment,
  sentAt: v.nullable(Moment),
  /** What the other side said of it, in its own words. */
  said: v.nullable(v.string()),
  madeAt: Moment,
  person: v.string(),
})
export type Message = v.InferOutput<typeof Message>

export const ReminderTemplate = v.object({ language: Language, version: v.number(), text: v.string() })
export type ReminderTemplate = v.InferOutput<typeof ReminderTemplate>

export const SentMessages = v.object({
  /** Whether there is a gateway for text messages, and a mail server that is on. */
  sending: v.object({ text: v.boolean(), mail: v.boolean() }),
  templates: v.array(ReminderTemplate),
  /** The newest hundred. */
  messages: v.array(Message),
  replies: v.array(v.object({ number: v.number(), customer: Of, text: v.string(), at: Moment })),
})
export type SentMessages = v.InferOutput<typeof SentMessages>

const VisitToRemind = v.object({
  /** That they come, or that they care for it themselves. */
  purpose: v.optional(v.picklist(['visit', 'home'], 'field-invalid'), 'visit'),
  customerId: Id,
  day: Day,
  bikes: v.pipe(
    v.array(v.object({ bikeId: Id, kinds: v.pipe(v.array(DueKindField), v.minLength(1, 'field-invalid')) })),
    v.minLength(1, 'booking-none'),
    v.maxLength(40, 'booking-many'),
  ),
})
const Visits = v.pipe(v.array(VisitToRemind), v.minLength(1, 'message-none'), v.maxLength(300, 'message-many'))

/** A reminder as it would go out; or why it would not. */
export const ReminderPreview = v.object({
  customer: Of,
  day: Day,
  language: Language,
  /** By what it would go; null where it does not. */
  channel: v.nullable(ChannelField),
  phone: v.nullable(v.string()),
  email: v.nullable(v.string()),
  text: v.string(),
  problem: v.nullable(
    v.picklist([
      'opted-out',
      'no-phone',
      'no-mail',
      'mail-refused',
      'no-way',
      'no-gateway',
      'no-mail-service',
      'there',
    ]),
  ),
  sendAfter: Moment,
})
export type ReminderPreview = v.InferOutput<typeof ReminderPreview>

export const remindersEndpoints = {
  outbox: endpoint({
    name: 'outbox',
    method: 'GET',
    path: '/messages',
    summary: 'Reminders written, what became of them, what was answered, and what they say.',
    access: 'signed-in',
    result: SentMessages,
  }),
  previewReminders: endpoint({
    name: 'previewReminders',
    method: 'POST',
    path: '/messages/preview',
    summary: 'What reminders of visits would say, and which would not go out.',
    access: 'signed-in',
    body: v.object({
      visits: Visits,
      /** A wording that is not kept yet, to be seen on real data. */
      template: v.exactOptional(
        v.object({ language: Language, text: v.pipe(v.string(), v.maxLength(1000, 'template-long')) }),
      ),
    }),
    result: v.object({ previews: v.array(ReminderPreview) }),
  }),
  sendReminders: endpoint({
    name: 'sendReminders',
    method: 'POST',
    path: '/messages',
    summary: 'Write reminders of visits into the outbox: one a visit, none to who opted out.',
    access: 'messages',
    creates: true,
    body: v.object({ visits: Visits }),
    result: v.object({ written: v.number(), left: v.number() }),
  }),
  callOffReminder: endpoint({
    name: 'callOffReminder',
    method: 'POST',
    path: '/messages/:id/call-off',
    summary: 'Take a reminder back that has not gone out.',
    access: 'messages',
    creates: true,
    params: ById,
    result: SentMessages,
  }),
  sendAgain: endpoint({
    name: 'sendAgain',
    method: 'POST',
    path: '/messages/:id/again',
    summary: 'Send a mail again of which nobody knows whether it arrived, or which did not.',
    access: 'messages',
    creates: true,
    params: ById,
    result: SentMessages,
  }),
  cameBack: endpoint({
    name: 'cameBack',
    method: 'POST',
    path: '/messages/:id/return',
    summary: 'A mail came back: nothing goes to that address until it is corrected.',
    access: 'messages',
    creates: true,
    params: ById,
    result: SentMessages,
  }),
  changeTemplate: endpoint({
    name: 'changeTemplate',
    method: 'PATCH',
    path: '/message-templates/:id',
    summary: 'Say what reminders in a language say from now on.',
    access: 'messages',
    versioned: true,
    params: v.object({ id: Language }),
    body: v.object({ text: v.pipe(v.string(), v.maxLength(1000, 'template-long')) }),
    result: SentMessages,
  }),
  setMessaging: endpoint({
    name: 'setMessaging',
    method: 'PATCH',
    path: '/customers/:id/messaging',
    summary: 'Say in which language a customer is written to, or that they do not want to be.',
    access: 'messages',
    versioned: true,
    params: ById,
    body: v.object({ language: v.exactOptional(Language), optedOut: v.exactOptional(v.boolean('field-invalid')) }),
    result: v.object({ version: v.number(), language: Language, optedOut: v.boolean() }),
  }),
}
