import type { Sending } from '@pelrin/core'
import type { Message, SentMessages, ReminderTemplate } from '@pelrin/contract'
import { REMINDER_LANGUAGES, reminders } from '@pelrin/contract/messages'
import type { Work } from '../db/work.ts'
import { mailIsOn } from '../mail/store.ts'

const STAMP = (column: string, name: string): string =>
  `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS "${name}"`

/** What reminders say, by language: the shop's newest wording, else the one shipped, as version 0. */
export async function templatesInForce(work: Work): Promise<ReminderTemplate[]> {
  const own = await work.select<ReminderTemplate>(
    'SELECT DISTINCT ON (language) language, version, text FROM message_templates ORDER BY language, version DESC',
  )
  return REMINDER_LANGUAGES.map(
    (language) =>
      own.find((one) => one.language === language) ?? { language, version: 0, text: reminders[language].template },
  )
}

/** By what the shop can send. @param gateway whether there is one for text messages */
export const sendingOf = async (work: Work, gateway: boolean): Promise<Sending> => ({
  text: gateway,
  mail: await mailIsOn(work),
})

/** @param gateway whether there is one for text messages */
export async function sentMessages(work: Work, gateway: boolean): Promise<SentMessages> {
  return {
    sending: await sendingOf(work, gateway),
    templates: await templatesInForce(work),
    messages: await work.select<Message>(
      `SELECT m.id, json_build_object('id', c.id, 'name', c.name) AS customer, m.visit_day::text AS "visitDay", m.purpose, m.language,
         m.channel, m.phone, m.email, m.text, m.state, m.tries, m.said, ${STAMP('m.send_after', 'sendAfter')}, ${STAMP('m.sent_at', 'sentAt')},
         ${STAMP('m.made_at', 'madeAt')}, p.name AS person
       FROM messages m JOIN customers c ON c.id = m.customer_id JOIN people p ON p.id = m.person_id
       ORDER BY m.made_at DESC, m.id LIMIT 100`,
    ),
    replies: await work.select<SentMessages['replies'][number]>(
      `SELECT r.number, json_build_object('id', c.id, 'name', c.name) AS customer, r.text, ${STAMP('r.heard_at', 'at')}
       FROM message_replies r JOIN customers c ON c.id = r.customer_id ORDER BY r.number DESC LIMIT 50`,
    ),
  }
}
