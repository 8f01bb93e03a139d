import { createHash } from 'node:crypto'
import { ProblemError } from '../problems/problem.ts'
import type { Work } from '../db/work.ts'
import { IDEMPOTENCY_KEYS } from './models.ts'

/** What a request is, for telling a repetition from another use of its key. */
export function fingerprint(method: string, path: string, body: unknown): string {
  return createHash('sha256')
    .update(`${method} ${path} ${JSON.stringify(body ?? null)}`)
    .digest('hex')
}

/** The key under which a request may be sent again. @throws ProblemError 400 where it has none */
export function idempotencyKey(header: string): string {
  if (!/^[\x21-\x7e]{8,200}$/.test(header)) throw new ProblemError(400, 'idempotency-key-missing')
  return header
}

/**
 * Does a piece of work once per key, in its transaction: the key and what the work wrote stand or fall together.
 * A second request with the key waits for the first, then gets its answer.
 *
 * @throws ProblemError 422 when the key was used for another request
 */
export async function once<T>(work: Work, key: string, requestHash: string, job: () => Promise<T>): Promise<T> {
  const [taken] = await work.select<{ key: string }>(
    `INSERT INTO idempotency_keys (key, request_hash) VALUES (:key, :requestHash)
     ON CONFLICT DO NOTHING RETURNING key`,
    { key, requestHash },
  )
  if (!taken) {
    const before = await work.of(IDEMPOTENCY_KEYS).findOne({ where: { key }, transaction: work.transaction })
    if (before?.requestHash !== requestHash) throw new ProblemError(422, 'idempotency-key-reused')
    return before.response as T
  }
  const result = await job()
  await work
    .of(IDEMPOTENCY_KEYS)
    .update({ status: 200, response: result }, { where: { key }, transaction: work.transaction })
  return result
}
