import { templateProblem } from '@pelrin/core'
import type { endpoints, Output } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import type { ShopJobs } from '../queue/queue.ts'
import { composeReminders, type VisitToRemind } from './compose.ts'
import { templatesInForce } from './store.ts'
import { held } from '../db/facts.ts'
import { CUSTOMERS } from '../bikes/models.ts'

/** Refuses a wording that could not be sent. @throws ProblemError 422 at the field */
export function checkTemplate(text: string, path: string): void {
  const problem = templateProblem(text)
  if (problem) throw refuseField(path, problem.code, problem.code === 'template-field' ? { field: problem.field } : {})
}

/**
 * Writes reminders into the outbox, with the job that sends them, in one transaction: one a visit. Who opted out, has no number or was
 * reminded of that day already is left out.
 *
 * @throws ProblemError 409 with no gateway to send them by
 */
export async function sendReminders(
  work: Work,
  shop: { name: string; timeZone: string },
  visits: readonly VisitToRemind[],
  { gateway, jobs }: { gateway: boolean; jobs: Pick<ShopJobs, 'sendMessages'> },
): Promise<{ written: number; left: number }> {
  if (!gateway) throw new ProblemError(409, 'gateway-none')
  const composed = await composeReminders(work, shop, visits)
  let written = 0
  for (const { customerId, day, language, phone, text, problem, sendAfter } of composed) {
    if (problem !== null) continue
    const [row] = await work.select(
      `INSERT INTO messages (id, customer_id, visit_day, language, phone, text, send_after, made_at, person_id)
       VALUES (:id, :customerId, :day, :language, :phone, :text, :sendAfter, :now, :personId) ON CONFLICT DO NOTHING RETURNING id`,
      { id: v7(), customerId, day, language, phone, text, sendAfter, now: work.now, personId: authorOf(work).personId },
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
  if (optedOut)
    await work.execute(
      `UPDATE messages SET state = 'called-off', settled_at = :now WHERE customer_id = :id AND state = 'waiting'`,
      { id, now: work.now },
    )
  await audited(work, 'set-messaging', 'customer', id, { language, optedOut })
  return shown()
}
