import * as v from 'valibot'
import { changeOf, Email, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

/** How the connection to the mail server is kept from others' eyes: from its first byte, from a word on, or not at all. */
export const MAIL_SECURITIES = ['tls', 'starttls', 'none'] as const
const Security = v.picklist(MAIL_SECURITIES, 'field-invalid')

const Port = v.pipe(
  v.number('number-malformed'),
  v.integer('port-range'),
  v.minValue(1, 'port-range'),
  v.maxValue(65_535, 'port-range'),
)
const Host = v.pipe(line(253), v.toLowerCase(), v.regex(/^[a-z0-9]([a-z0-9.-]*[a-z0-9])?$/, 'host-malformed'))
/** An address of the web without a path: what stands before every link. */
const PublicAddress = v.pipe(
  line(200),
  v.regex(/^https?:\/\/[^\s/?#@]+\/?$/, 'address-malformed'),
  v.url('address-malformed'),
  v.transform((text) => text.replace(/\/$/, '')),
)

/** By which server the shop's mail goes, and as whom. */
export const MailEntries = {
  /** Whether it goes at all. */
  on: v.boolean('field-invalid'),
  host: Host,
  port: Port,
  security: Security,
  userName: v.nullable(line(200)),
  // It stands in the head of a mail, where a line that ends begins something else.
  fromName: v.pipe(line(80), v.regex(/^\P{Cc}*$/u, 'field-invalid')),
  fromAddress: Email,
  publicAddress: PublicAddress,
}

/** The settings without their secret, which is never told. */
export const MailSettings = v.object({
  version: v.number(),
  on: v.boolean(),
  host: v.string(),
  port: v.number(),
  security: Security,
  userName: v.nullable(v.string()),
  hasPassword: v.boolean(),
  fromName: v.string(),
  fromAddress: v.string(),
  publicAddress: v.string(),
  /** What was said when mail last did not go by it; null since it did. */
  trouble: v.nullable(v.object({ said: v.string(), at: Moment })),
})
export type MailSettings = v.InferOutput<typeof MailSettings>

/** How a message fared at the mail server. */
export const MAIL_FARES = ['taken', 'refused', 'sign-in', 'certificate', 'no-encryption', 'away', 'unsure'] as const
export const MailFared = v.object({
  fared: v.picklist(MAIL_FARES),
  /** The server's own words, where it had any. */
  said: v.nullable(v.string()),
})
export type MailFared = v.InferOutput<typeof MailFared>

export const mailEndpoints = {
  mail: endpoint({
    name: 'mail',
    method: 'GET',
    path: '/mail',
    summary: 'By which server the shop’s mail goes; version 0 where none was set yet.',
    access: 'owner',
    result: MailSettings,
  }),
  changeMail: endpoint({
    name: 'changeMail',
    method: 'PATCH',
    path: '/mail',
    summary: 'Say by which server the shop’s mail goes. A password is kept sealed, and told to nobody again.',
    access: 'owner',
    versioned: true,
    body: v.object({
      ...changeOf(MailEntries).entries,
      /** Left out: as it was. Null: none. */
      password: v.exactOptional(v.nullable(line(500))),
    }),
    result: MailSettings,
  }),
  tryMail: endpoint({
    name: 'tryMail',
    method: 'POST',
    path: '/mail/trial',
    summary: 'Send a message to try the settings, now, and tell what the mail server said.',
    access: 'owner',
    body: v.object({ to: Email }),
    result: MailFared,
  }),
}
