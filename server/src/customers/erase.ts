import type { CustomerPage } from '@pelrin/contract'
import { audited, type Work } from '../db/work.ts'
import { bikesOf, customerShown, lockedCustomer, refreshBikes, write } from './service.ts'

/** What is put where a name was. */
const NOBODY = 'Erased customer'
/** The bikes of a customer, and everything written of them by hand that may say who they are. */
const OF_BIKES = [
  `UPDATE bikes SET notes = '', frame_mark = NULL, label = kind WHERE id IN (:bikes)`,
  `DELETE FROM bike_pictures WHERE bike_id IN (:bikes)`,
  `UPDATE readings SET note = NULL WHERE bike_id IN (:bikes) AND note IS NOT NULL`,
  `UPDATE care_events SET note = NULL WHERE bike_id IN (:bikes) AND note IS NOT NULL`,
  `UPDATE rides SET title = NULL WHERE bike_id IN (:bikes) AND title IS NOT NULL`,
  `DELETE FROM ride_tracks t USING rides r WHERE r.id = t.ride_id AND r.bike_id IN (:bikes)`,
  `UPDATE ride_accounts SET token = '', account = '', removed_at = coalesce(removed_at, now()) WHERE bike_id IN (:bikes)`,
  `UPDATE visits SET reason = '' WHERE bike_id IN (:bikes)`,
  `UPDATE job_events SET detail = '{}' WHERE kind = 'note' AND job_id IN (SELECT id FROM jobs WHERE bike_id IN (:bikes))`,
]

/**
 * Erases who a customer was: how they are called and reached, what was written to them and of them by hand, where they rode. Their chains,
 * readings, distances and what they paid stay, nobody's; what is of the shop's sums does not change. It is not taken back.
 *
 * @throws ProblemError 404, 409 where they are erased already
 */
export async function eraseCustomer(work: Work, id: string): Promise<CustomerPage> {
  const customer = await lockedCustomer(work, id)
  const bikes = await bikesOf(work, id)
  const twins = await work.select<{ id: string }>('SELECT id FROM customers WHERE merged_into_id = :id', { id })
  const theirs = [id, ...twins.map((twin) => twin.id)]
  if (bikes.length > 0) for (const sql of OF_BIKES) await work.execute(sql, { bikes })
  await work.execute(
    `UPDATE messages SET text = '', phone = CASE channel WHEN 'text' THEN '' END, email = CASE channel WHEN 'mail' THEN '' END, said = NULL WHERE customer_id IN (:theirs)`,
    { theirs },
  )
  await work.execute(`UPDATE message_replies SET text = '' WHERE customer_id IN (:theirs)`, { theirs })
  await work.execute(
    `UPDATE customers SET name = :nobody, phone = NULL, email = NULL, email_refused = NULL, notes = '', good_weekday = NULL WHERE id IN (:theirs)`,
    { theirs, nobody: NOBODY },
  )
  // What was answered to writes about them is not answered again.
  await work.execute('DELETE FROM idempotency_keys WHERE response::text LIKE ANY (ARRAY[:mentioned])', {
    mentioned: theirs.map((one) => `%${one}%`),
  })
  await work.execute('SELECT pelrin_forget(ARRAY[:subjects]::uuid[])', { subjects: [...theirs, ...bikes] })
  await write(work, customer, { erasedAt: work.now, optedOutAt: customer.optedOutAt ?? work.now })
  await refreshBikes(work, bikes)
  await audited(work, 'erased', 'customer', id, { bikes: bikes.length })
  return customerShown(work, id)
}
