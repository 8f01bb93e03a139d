import type { CustomerPage, Erasure } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { stands } from '../db/facts.ts'

/** How many of their visits, messages and jobs are shown, the newest. */
const MOST = 40

const STAMP = (column: string): string => `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`
/** They, and whoever they were entered as a second time. */
const THEIRS = '(SELECT id FROM customers WHERE id = :id OR merged_into_id = :id)'

/** All there is of a customer; null for one that is not there. */
export async function customerPage(work: Work, id: string): Promise<CustomerPage | null> {
  const [known] = await work.select<
    Omit<CustomerPage, 'bikes' | 'visits' | 'messages' | 'spent' | 'merged' | 'mergedInto'> & {
      mergedId: string | null
      mergedName: string | null
    }
  >(
    `SELECT c.id, c.version, c.name, c.phone, c.email, c.language, c.notes, c.good_weekday AS "goodWeekday", c.rhythm_days AS "rhythmDays",
       c.opted_out_at IS NOT NULL AS "optedOut", c.reached_by AS "reachedBy", coalesce(c.email = c.email_refused, false) AS "emailRefused", ${STAMP('c.erased_at')} AS "erasedAt", m.id AS "mergedId", m.name AS "mergedName"
     FROM customers c LEFT JOIN customers m ON m.id = c.merged_into_id WHERE c.id = :id`,
    { id },
  )
  if (!known) return null
  const { mergedId, mergedName, ...customer } = known
  const jobs = await spentOn(work, id)
  return {
    ...customer,
    mergedInto: mergedId === null ? null : { id: mergedId, name: mergedName ?? '' },
    bikes: await bikesOf(work, id),
    visits: await work.select(
      `SELECT v.day::text, b.label AS bike, b.id AS "bikeId", v.reason, v.state FROM visits v JOIN bikes b ON b.id = v.bike_id
       WHERE b.customer_id = :id ORDER BY v.day DESC, v.id DESC LIMIT ${MOST}`,
      { id },
    ),
    messages: await messagesOf(work, id),
    spent: { total: jobs.reduce((sum, { amount }) => sum + amount, 0), jobs: jobs.slice(0, MOST) },
    merged: await work.select(
      `SELECT id, name, ${STAMP('merged_at')} AS at FROM customers
       WHERE merged_into_id = :id AND merged_at > CAST(:now AS timestamptz) - interval '1 day' ORDER BY merged_at DESC`,
      { id, now: work.now },
    ),
  }
}

/** Bikes that are theirs, then those that were. */
const bikesOf = (work: Work, id: string): Promise<CustomerPage['bikes']> =>
  work.select(
    `SELECT b.id, b.label, b.kind, b.tag, b.customer_id = :id AS now, b.gone_on::text AS "goneOn",
       ${STAMP('(SELECT max(p.at) FROM bike_passings p WHERE p.bike_id = b.id AND p.to_customer_id = :id AND NOT p.merge)')} AS "cameAt",
       CASE WHEN b.customer_id = :id THEN NULL ELSE
         ${STAMP('(SELECT max(p.at) FROM bike_passings p WHERE p.bike_id = b.id AND p.from_customer_id = :id)')} END AS "wentAt"
     FROM bikes b WHERE b.merged_into_id IS NULL AND (b.customer_id = :id
       OR b.id IN (SELECT p.bike_id FROM bike_passings p WHERE p.from_customer_id = :id AND NOT p.merge))
     ORDER BY (b.customer_id = :id) DESC, b.label, b.id`,
    { id },
  )

const messagesOf = (work: Work, id: string): Promise<CustomerPage['messages']> =>
  work.select(
    `SELECT * FROM (
       SELECT ${STAMP('made_at')} AS at, text, state, false AS theirs FROM messages WHERE customer_id IN ${THEIRS}
       UNION ALL SELECT ${STAMP('heard_at')} AS at, text, 'heard' AS state, true AS theirs FROM message_replies WHERE customer_id IN ${THEIRS}) m
     ORDER BY at DESC LIMIT ${MOST}`,
    { id },
  )

/** What the jobs on their bikes came to, the newest first. A bike that has gone on took its bills along. */
const spentOn = (work: Work, id: string): Promise<CustomerPage['spent']['jobs']> =>
  work.select(
    `SELECT ${STAMP('j.closed_at')} AS at, b.label AS bike, round((j.written->'bill'->>'total')::numeric)::int AS amount
     FROM jobs j JOIN bikes b ON b.id = j.bike_id
     WHERE b.customer_id = :id AND j.state = 'closed' AND j.written->'bill'->>'total' IS NOT NULL ORDER BY j.closed_at DESC`,
    { id },
  )

/** What erasing a customer would take away, and what stays. */
export async function erasureOf(work: Work, id: string): Promise<Erasure> {
  const [sums] = await work.select<Omit<Erasure, 'spent'>>(
    `SELECT (SELECT count(*)::int FROM bikes WHERE customer_id = :id) AS bikes,
       (SELECT count(*)::int FROM messages WHERE customer_id IN ${THEIRS}) AS messages,
       (SELECT count(*)::int FROM rides r JOIN bikes b ON b.id = r.bike_id WHERE b.customer_id = :id AND ${stands('rides', 'r')}) AS rides,
       (SELECT count(*)::int FROM bikes WHERE customer_id = :id AND notes <> '') +
         (SELECT count(*)::int FROM customers WHERE id = :id AND notes <> '') AS notes,
       (SELECT count(*)::int FROM readings r JOIN bikes b ON b.id = r.bike_id WHERE b.customer_id = :id AND ${stands('readings', 'r')}) AS readings`,
    { id },
  )
  const jobs = await spentOn(work, id)
  return { ...sums!, spent: jobs.reduce((sum, { amount }) => sum + amount, 0) }
}
