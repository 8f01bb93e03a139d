import pg from 'pg'
import PgBoss from 'pg-boss'
import { QUEUE_SCHEMA } from '../db/roles.ts'

export const FORECAST = 'forecast-shop'
export const ORDER = 'settle-order'
export const MESSAGES = 'send-messages'
export const REBUILD = 'rebuild-shop'
export const BACKUP = 'back-up'

/** The request itself asks first; afterwards it is asked again and again, less and less often. */
export const ORDER_FIRST_SECONDS = 8
const ORDER_RETRY_SECONDS = 15
const ORDER_TRIES = 400
/** A server that was killed holds its job no longer than this; the next one goes on. Every job is done well within it. */
const HELD_SECONDS = 45
const TRIES = 20

const QUEUES: readonly PgBoss.Queue[] = [
  { name: FORECAST, retryLimit: TRIES, retryDelay: 2, expireInSeconds: HELD_SECONDS },
  { name: ORDER, retryLimit: ORDER_TRIES, retryDelay: ORDER_RETRY_SECONDS, expireInSeconds: HELD_SECONDS },
  // One of a shop waits while one is at work: more would do the same.
  {
    name: MESSAGES,
    policy: 'stately',
    retryLimit: TRIES,
    retryDelay: ORDER_RETRY_SECONDS,
    expireInSeconds: HELD_SECONDS,
  },
  { name: REBUILD, policy: 'stately', retryLimit: TRIES, retryDelay: 5, expireInSeconds: HELD_SECONDS },
  { name: BACKUP, policy: 'stately', retryLimit: 3, retryDelay: 600, expireInSeconds: 3600 },
]

/** Makes the queue's schema and its queues, or brings them up to date. @param url of the database as its owner */
export async function installQueue(url: string): Promise<void> {
  const boss = new PgBoss({ connectionString: url, schema: QUEUE_SCHEMA, max: 1, supervise: false })
  const failed: Error[] = []
  boss.on('error', (error) => failed.push(error))
  await boss.start()
  try {
    for (const queue of QUEUES) {
      await boss.createQueue(queue.name, queue)
      await boss.updateQueue(queue.name, queue)
    }
  } finally {
    await boss.stop({ graceful: false, wait: true })
  }
  if (failed[0]) throw failed[0]
}

/** Gives back what a server that is gone was at: right where no other runs, since each piece of work may be done again. */
export async function takeUpAbandoned(url: string): Promise<void> {
  const client = new pg.Client({ connectionString: url })
  client.on('error', () => undefined)
  await client.connect()
  try {
    // Where the next one waits already, one more would do the same.
    await client.query(
      `WITH abandoned AS (
         SELECT name, id, EXISTS (SELECT 1 FROM ${QUEUE_SCHEMA}.job r WHERE r.name = j.name AND r.state = 'retry'
           AND r.policy = 'stately' AND coalesce(r.singleton_key, '') = coalesce(j.singleton_key, '')) AS waits
         FROM ${QUEUE_SCHEMA}.job j WHERE state = 'active')
       UPDATE ${QUEUE_SCHEMA}.job j SET state = (CASE WHEN a.waits THEN 'cancelled' ELSE 'retry' END)::${QUEUE_SCHEMA}.job_state,
         started_on = NULL, start_after = now()
       FROM abandoned a WHERE j.name = a.name AND j.id = a.id`,
    )
  } finally {
    await client.end()
  }
}
