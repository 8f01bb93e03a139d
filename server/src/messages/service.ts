import { templateProblem, type Sending } from '@pelrin/core'
import type { endpoints, Output } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import type { ShopJobs } from '../queue/queue.ts'
import { composeReminders, type VisitToRemind } from './compose.ts'
import { MESSAGES } from './models.ts'
import { templatesInForce } from './store.ts'
import { held } from '../db/facts.ts'
import { CUSTOMERS } from '../bikes/models.ts'

/** Refuses a wording that could not be sent. @throws ProblemError 422 at the field */
export function checkTemplate(text: string, path: string): void {
  const problem = templateProblem(text)
  if (problem) throw refuseField(path, problem.code, problem.code === 'template-field' ? { field: problem.field } : {})
}

/**
 * Writes reminders into the outbox, with the job that sends them, in one transaction: one a visit. Who opted out, cannot be reached or was
 * reminded of that day already is left out.
 *
 * @throws ProblemError 409 with nothing to send them by
 */
export async function sendReminders(
  work: Work,
  shop: { name: string; timeZone: string },
  visits: readonly VisitToRemind[],
  { sending, jobs }: { sending: Sending; jobs: Pick<ShopJobs, 'sendMessages'> },
): Promise<{ written: number; left: number }> {
  if (!sending.text && !sending.mail) throw new ProblemError(409, 'gateway-none')
  const composed = await composeReminders(work, shop, visits, sending)
  let written = 0
  for (const [
    i,
    { customerId, day, purpose, language, channel, phone, email, text, problem, sendAfter },
  ] of composed.entries()) {
    if (problem !== null) continue
    const [row] = await work.select(
      `INSERT INTO messages (id, customer_id, visit_day, purpose, language, channel, phone, email, bike_ids, text, send_after, made_at, person_id)
       VALUES (:id, :customerId, :day, :purpose, :language, :channel, :phone, :email, ARRAY[:bikeIds]::uuid[], :text, :sendAfter, :now, :personId)
       ON CONFLICT DO NOTHING RETURNING id`,
      {
        id: v7(),
        customerId,
        day,
        purpose,
        language,
        channel,
        phone: channel === 'text' ? phone : null,
        email: channel === 'mail' ? email : null,
        bikeIds: visits[i]!.bikes.map(({ bikeId }) => bikeId),
        text,
        sendAfter,
        now: work.now,
        personId: authorOf(work).personId,
      },
    )
    if (row) written++
  }
  if (written > 0) await jobs.sendMessages(work)
  await audited(work, 'reminded', 'messages', work.shopId, { written, of: visits.length })
  return { written, left: visits.length - written }
}

/** Takes a reminder back. @throws ProblemError 404; 409 for one that went out, or is on its way */
export async function callOff(work: Work, id: string): Promise<void> {
  const [row] = await work.select<{ state: string }>('SELECT state FROM messages WHERE id = :id FOR UPDATE', { id })
  if (!row) throw new ProblemError(404, 'message-unknown')
  if (row.state !== 'waiting') throw new ProblemError(409, 'message-gone')
  await work.execute(`UPDATE messages SET state = 'called-off', settled_at = :now WHERE id = :id`, {
    id,
    now: work.now,
  })
  await audited(work, 'called-off', 'message', id)
}

/**
 * Sends a mail again that did not arrive, or of which nobody knows: under the same reference, so that who has it already sees one.
 *
 * @throws ProblemError 404; 409 for one that waits, went well, or is a text message
 */
export async function sendAgain(work: Work, id: string, jobs: Pick<ShopJobs, 'sendMessages'>): Promise<void> {
  const [row] = await work.select(
    `UPDATE messages SET state = 'waiting', handed_at = NULL, sending_since = NULL, settled_at = NULL, said = NULL, send_after = :now
     WHERE id = :id AND channel = 'mail' AND state IN ('unsure', 'refused', 'failed') RETURNING id`,
    { id, now: work.now },
  )
  if (!row) throw await whyNot(work, id)
  await jobs.sendMessages(work)
  await audited(work, 'sent-again', 'message', id)
}

/** Mail that waits is tried now: it may go by other settings. */
export async function hurryMail(work: Work, jobs: Pick<ShopJobs, 'sendMessages'>): Promise<void> {
  const waiting = await work.select(
    `UPDATE messages SET send_after = :now WHERE channel = 'mail' AND state = 'waiting' AND tries > 0 RETURNING id`,
    { now: work.now },
  )
  if (waiting.length > 0) await jobs.sendMessages(work)
}

/** A mail came back to the shop's mailbox. @throws ProblemError 404; 409 for one that did not go out by mail */
export async function cameBack(work: Work, id: string): Promise<void> {
  const [row] = await work.select<{ customerId: string; email: string }>(
    `UPDATE messages SET state = 'failed', settled_at = :now
     WHERE id = :id AND channel = 'mail' AND state IN ('sent', 'unsure') RETURNING customer_id AS "customerId", email`,
    { id, now: work.now },
  )
  if (!row) throw await whyNot(work, id)
  await refuseAddress(work, row.customerId, row.email)
  await audited(work, 'came-back', 'message', id)
}

const whyNot = async (work: Work, id: string): Promise<ProblemError> =>
  (await work.of(MESSAGES).findByPk(id, { transaction: work.transaction }))
    ? new ProblemError(409, 'message-settled')
    : new ProblemError(404, 'message-unknown')

/** Nothing more goes to an address of a customer, while it is theirs. */
export const refuseAddress = (work: Work, customerId: string, email: string): Promise<void> =>
  work.execute('UPDATE customers SET email_refused = :email, version = version + 1 WHERE id = :customerId', {
    customerId,
    email,
  })

/** A customer is written to no more: what has not gone out never does. */
export async function optOut(work: Work, id: string): Promise<void> {
  await work.execute(
    `UPDATE customers SET opted_out_at = coalesce(opted_out_at, :now), version = version + 1 WHERE id = :id`,
    { id, now: work.now },
  )
  await callOffAll(work, id)
}

const callOffAll = (work: Work, id: string): Promise<void> =>
  work.execute(
    `UPDATE messages SET state = 'called-off', settled_at = :now WHERE customer_id = :id AND state = 'waiting'`,
    { id, now: work.now },
  )

/** Says what reminders in a language say from now on. @throws ProblemError 422 at `text`; 412 when somebody was faster */
export async function changeTemplate(
  work: Work,
  { language, version, text }: { language: string; version: number; text: string },
): Promise<void> {
  checkTemplate(text, 'text')
  const [written] = await work.select(
    `INSERT INTO message_templates (language, version, text, made_at, person_id)
     SELECT :language, :next, :text, :now, :personId
     WHERE coalesce((SELECT max(version) FROM message_templates WHERE language = :language), 0) = :version
     ON CONFLICT DO NOTHING RETURNING version`,
    { language, version, next: version + 1, text, now: work.now, personId: authorOf(work).personId },
  )
  if (!written) throw new ProblemError(412, 'version-stale', { current: await templatesInForce(work) })
  await audited(work, 'changed', 'message-template', work.shopId, { language, text })
}

/** @throws ProblemError 404; 412 when somebody was faster */
export async function setMessaging(
  work: Work,
  id: string,
  version: number,
  { language, optedOut }: Output<typeof endpoints.setMessaging.body>,
): Promise<Output<typeof endpoints.setMessaging.result>> {
  const { transaction } = work
  const customer = await work.of(CUSTOMERS).findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
  if (!customer) throw new ProblemError(404, 'customer-unknown')
  const shown = () => ({
    version: customer.version,
    language: customer.language,
    optedOut: customer.optedOutAt !== null,
  })
  await held(customer, version, shown)
  await customer.update(
    {
      ...(language === undefined ? {} : { language }),
      ...(optedOut === undefined ? {} : { optedOutAt: optedOut ? work.now : null }),
      version: version + 1,
    },
    { transaction },
  )
  // What has not gone out to who does not want it never does.
  if (optedOut) await callOffAll(work, id)
  await audited(work, 'set-messaging', 'customer', id, { language, optedOut })
  return shown()
}
