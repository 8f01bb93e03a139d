import type { Database } from '../db/connection.ts'
import { inShop } from '../db/work.ts'
import { idOf } from '../references.ts'
import { sendByMail, type MailMaking } from './byMail.ts'
import { sendByText } from './byText.ts'
import type { Claimed, Fate } from './outgoing.ts'
import { GatewayAway, type Gateway } from './gateway.ts'

/** A message on its way for longer belongs to a server that was stopped: it is asked for before it is sent again. */
const GIVEN_UP_MS = 30_000
/** A mail server may look at what it was given for two minutes before it says so. */
const MAIL_GIVEN_UP_MS = 150_000
/** Between tries of a message while the gateway is away, seconds; the last again and again. */
const BACKOFF = [5, 15, 60, 300, 900]
/** One shop's turn, ms. */
const TURN_MS = 15_000
/** What was sent is asked after for so long. */
const ASKED_AFTER = `interval '3 days'`

/** What a shop's messages go out by. */
export interface Carriers {
  readonly database: Database
  readonly gateway?: Gateway | undefined
  readonly mail?: MailMaking | undefined
  readonly now?: () => Date
}

/** Whether a message's customer wants none. */
const UNWANTED = '(SELECT opted_out_at IS NOT NULL FROM customers WHERE id = messages.customer_id)'

/**
 * Sends what waits in a shop's outbox and is due, each under its own id, and hears what became of what was sent. May be stopped
 * at any moment: a text message whose fate is not known is asked for by its id before it is sent again, a mail is not sent again by itself.
 *
 * @returns seconds until there is something to do again; null with nothing left
 */
export async function drainOutbox(
  { database, gateway, mail, now = () => new Date() }: Carriers,
  shopId: string,
): Promise<number | null> {
  const until = Date.now() + TURN_MS
  for (let claimed = await claim(database, shopId, now()); claimed; claimed = await claim(database, shopId, now())) {
    const fate =
      claimed.channel === 'mail'
        ? await sendByMail({ database, mail, now }, shopId, claimed)
        : await sendByText(gateway, shopId, claimed)
    await settle({ database, now }, shopId, claimed, fate)
    // Other shops have messages too; and a job is done long before another server may take it for given up.
    if (Date.now() > until) return 1
  }
  if (gateway) await hear({ database, gateway, now }, shopId)
  return nextIn(database, shopId, now(), gateway !== undefined)
}

/** Takes one message that is due, so that no other server does. */
async function claim(database: Database, shopId: string, now: Date): Promise<Claimed | null> {
  return inShop(database, shopId, null, async (work) => {
    const [claimed] = await work.select<Claimed>(
      `UPDATE messages SET state = 'sending', sending_since = :now, tries = tries + 1
       WHERE id = (SELECT id FROM messages
         WHERE send_after <= :now AND (state = 'waiting'
           OR (state = 'sending' AND sending_since < CASE WHEN handed_at IS NULL THEN CAST(:givenUp AS timestamptz) ELSE :mailGivenUp END))
         ORDER BY send_after, id LIMIT 1 FOR UPDATE SKIP LOCKED)
       RETURNING id, customer_id AS "customerId", purpose, channel, language, phone, email, bike_ids AS "bikeIds", text, tries,
         handed_at AS "handedAt", ${UNWANTED} AS unwanted`,
      {
        now,
        givenUp: new Date(now.getTime() - GIVEN_UP_MS),
        mailGivenUp: new Date(now.getTime() - MAIL_GIVEN_UP_MS),
      },
    )
    return claimed ?? null
  })
}

/** Writes down what became of a message, unless another server has it by now. One that waits is tried again later, and later still. */
async function settle(
  { database, now }: { database: Database; now: () => Date },
  shopId: string,
  { id, tries }: Claimed,
  { state, said = null }: Fate,
): Promise<void> {
  const seconds = BACKOFF[Math.min(tries, BACKOFF.length) - 1]!
  const again = state === 'waiting' ? new Date(now().getTime() + seconds * 1000) : null
  await inShop(database, shopId, null, async (work) => {
    await work.execute(
      `UPDATE messages SET state = :state, sending_since = NULL, said = :said,
         handed_at = CASE WHEN :state = 'waiting' THEN NULL ELSE handed_at END,
         sent_at = CASE WHEN :state = 'sent' THEN CAST(:now AS timestamptz) ELSE sent_at END,
         settled_at = CASE WHEN :state IN ('refused', 'called-off') THEN CAST(:now AS timestamptz) END,
         send_after = coalesce(CAST(:again AS timestamptz), send_after)
       WHERE id = :id AND tries = :tries AND state = 'sending'`,
      { id, tries, state, said, now: now(), again },
    )
    // Who opted out while it was on its way is not asked again.
    if (again)
      await work.execute(
        `UPDATE messages SET state = 'called-off', settled_at = :now WHERE id = :id AND state = 'waiting' AND ${UNWANTED}`,
        { id, now: now() },
      )
  })
}

/** Hears what happened since the last time, each thing once however often it is told. */
async function hear(
  { database, gateway, now }: { database: Database; gateway: Gateway; now: () => Date },
  shopId: string,
): Promise<void> {
  const heard = await inShop(database, shopId, null, async (work) => {
    const [row] = await work.select<{ heard: number }>('SELECT heard FROM message_cursors')
    return row?.heard ?? 0
  })
  let events
  try {
    events = await gateway.eventsAfter(heard)
  } catch (error) {
    if (error instanceof GatewayAway) return
    throw error
  }
  if (events.length === 0) return
  await inShop(database, shopId, null, async (work) => {
    for (const event of events) {
      const id = idOf(shopId, event.reference)
      if (id === null) continue
      if (event.kind === 'reply')
        await work.execute(
          `INSERT INTO message_replies (number, customer_id, text, heard_at)
           SELECT :number, customer_id, :text, :now FROM messages WHERE id::text = :id
           ON CONFLICT DO NOTHING`,
          { number: event.number, text: event.text, id, now: now() },
        )
      // One that waits for its next try may be there already: nobody said so in time.
      else
        await work.execute(
          `UPDATE messages SET state = :kind, settled_at = :now, sent_at = coalesce(sent_at, CAST(:now AS timestamptz)), sending_since = NULL
           WHERE id::text = :id AND tries > 0 AND state IN ('waiting', 'sending', 'sent')`,
          { kind: event.kind, id, now: now() },
        )
    }
    await work.execute(
      `INSERT INTO message_cursors (heard) VALUES (:heard)
       ON CONFLICT (shop_id) DO UPDATE SET heard = greatest(message_cursors.heard, EXCLUDED.heard)`,
      { heard: events.at(-1)!.number },
    )
  })
}

/** @param hears whether anything is to be heard of what was sent by text message; of mail nothing more is */
async function nextIn(database: Database, shopId: string, now: Date, hears: boolean): Promise<number | null> {
  const [row] = await inShop(database, shopId, null, (work) =>
    work.select<{ seconds: number | null }>(
      `SELECT extract(epoch FROM min(CASE WHEN state = 'sent' THEN CAST(:now AS timestamptz) + interval '15 seconds'
           WHEN state = 'sending' THEN sending_since + interval '31 seconds' ELSE send_after END) - CAST(:now AS timestamptz))::float8 AS seconds
       FROM messages WHERE state IN ('waiting', 'sending') OR (:hears AND state = 'sent' AND channel = 'text' AND sent_at > CAST(:now AS timestamptz) - ${ASKED_AFTER})`,
      { now, hears },
    ),
  )
  return row?.seconds == null ? null : Math.max(1, Math.ceil(row.seconds))
}
