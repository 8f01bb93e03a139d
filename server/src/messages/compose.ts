import {
  fillTemplate,
  quietFor,
  reachOf,
  type Assumptions,
  type CareKind,
  type DueKind,
  type Reachable,
  type Sending,
} from '@pelrin/core'
import { reminders, type ReminderLanguage } from '@pelrin/contract/messages'
import type { endpoints, Output, ReminderPreview, ReminderTemplate } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { dayIn, daysLater, momentAt } from '../days/days.ts'
import { templatesInForce } from './store.ts'

export type VisitToRemind = Output<typeof endpoints.sendReminders.body>['visits'][number]

interface CustomerRow extends Reachable {
  id: string
  name: string
  language: ReminderLanguage
  optedOut: boolean
  bikes: Record<string, { label: string; care: CareKind | null }>
  there: string[]
}

export interface Composed extends ReminderPreview {
  readonly customerId: string
  readonly purpose: VisitToRemind['purpose']
}

/**
 * What reminders of visits say, on the data as it is, and which do not go out.
 *
 * @param sending by what the shop can send
 * @param wording one that is not kept yet, in place of its language's
 * @throws ProblemError 404 for a customer or bike nobody knows
 */
export async function composeReminders(
  work: Work,
  shop: { name: string; timeZone: string },
  visits: readonly VisitToRemind[],
  sending: Sending,
  wording?: Pick<ReminderTemplate, 'language' | 'text'>,
): Promise<Composed[]> {
  const templates = new Map((await templatesInForce(work)).map(({ language, text }) => [language, text]))
  if (wording) templates.set(wording.language, wording.text)
  const { assumed } = await assumptionsInForce(work)
  const sendAfter = firstMoment(work.now, shop.timeZone, assumed)
  const customers = await customersOf(work, visits)
  return visits.map(({ customerId, day, bikes, purpose }) => {
    const customer = customers.get(customerId)
    if (!customer || bikes.some(({ bikeId }) => customer.bikes[bikeId] === undefined))
      throw new ProblemError(404, 'bike-unknown')
    const { language, phone, email, optedOut, there } = customer
    const reach = reachOf(customer, sending)
    const problem = optedOut
      ? 'opted-out'
      : 'problem' in reach
        ? reach.problem
        : there.includes(`${purpose} ${day}`)
          ? 'there'
          : null
    return {
      customerId,
      customer: { id: customer.id, name: customer.name },
      day,
      language,
      channel: 'channel' in reach ? reach.channel : null,
      phone,
      email,
      sendAfter: sendAfter.toISOString(),
      problem,
      purpose,
      text: fillTemplate(
        purpose === 'home'
          ? reminders[language].home.template
          : (templates.get(language) ?? reminders[language].template),
        {
          name: customer.name,
          bikes: inWords(
            bikes.map(({ bikeId }) => customer.bikes[bikeId]!.label),
            language,
          ),
          what:
            purpose === 'home'
              ? homeWords(
                  bikes.map(({ bikeId }) => customer.bikes[bikeId]!.care),
                  language,
                )
              : inWords(
                  wordsOf(
                    bikes.flatMap(({ kinds }) => kinds),
                    language,
                  ),
                  language,
                ),
          day: new Intl.DateTimeFormat(LOCALE[language], {
            weekday: 'long',
            day: 'numeric',
            month: 'long',
            timeZone: 'UTC',
          }).format(new Date(`${day}T00:00:00Z`)),
          shop: shop.name,
        },
      ),
    }
  })
}

/** How days are written in a language, where its name alone leaves that open. */
export const LOCALE: Readonly<Record<ReminderLanguage, string>> = { en: 'en-GB', fr: 'fr-FR' }

/** What whoever rides them does, in a sentence each care. */
const homeWords = (cares: readonly (CareKind | null)[], language: ReminderLanguage): string =>
  [...new Set(cares.map((care) => reminders[language].home.steps[care ?? 'unknown']))].join(' ')

const wordsOf = (kinds: readonly DueKind[], language: ReminderLanguage): string[] =>
  [...new Set(kinds)].map((kind) => reminders[language].kinds[kind])

/** Things one after another, as a language says them. */
export const inWords = (parts: readonly string[], language: ReminderLanguage): string =>
  new Intl.ListFormat(LOCALE[language], { type: 'conjunction' }).format(parts)

/** Now, or when it is no longer quiet by the shop's clock: what waits until eight goes at eight, in the nights the clock is changed too. */
export function firstMoment(now: Date, timeZone: string, { diary }: Assumptions): Date {
  const [hour = 0, minute = 0] = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  })
    .format(now)
    .split(':')
    .map(Number)
  const at = hour + minute / 60
  if (quietFor(at, { from: diary.quietFrom, until: diary.quietUntil }) === 0) return now
  const today = dayIn(timeZone, now)
  const minutes = Math.round(diary.quietUntil * 60)
  const clock = [Math.floor(minutes / 60) % 24, minutes % 60].map((part) => String(part).padStart(2, '0')).join(':')
  // Quiet until midnight is quiet until the next day begins.
  const later = (at < diary.quietUntil ? 0 : 1) + (diary.quietUntil === 24 ? 1 : 0)
  return momentAt(timeZone, daysLater(today, later), clock)
}

async function customersOf(work: Work, visits: readonly VisitToRemind[]): Promise<Map<string, CustomerRow>> {
  const rows = await work.select<CustomerRow>(
    `SELECT c.id, c.name, c.phone, c.email, c.email_refused AS "emailRefused", c.reached_by AS "reachedBy", c.language, c.opted_out_at IS NOT NULL AS "optedOut",
       (SELECT json_object_agg(b.id, json_build_object('label', b.label, 'care', h.care)) FROM bikes b
        LEFT JOIN fittings f ON f.bike_id = b.id AND upper_inf(f.during) LEFT JOIN chains h ON h.id = f.chain_id
        WHERE b.customer_id = c.id) AS bikes,
       (SELECT coalesce(json_agg(m.purpose || ' ' || m.visit_day::text), '[]') FROM messages m
        WHERE m.customer_id = c.id AND m.state <> 'called-off') AS there
     FROM customers c WHERE c.id IN (:ids)`,
    { ids: [...new Set(visits.map(({ customerId }) => customerId))] },
  )
  return new Map(rows.map((row) => [row.id, row]))
}
