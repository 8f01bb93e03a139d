import { hash, verify } from '@node-rs/argon2'
import pLimit from 'p-limit'
import { ProblemError } from '../problems/problem.ts'

/** How many are checked at a time, and how many may wait: each takes a core for a while, and 19 MB. */
const AT_ONCE = 2
const WAITING = 40

/** Checked when no such person exists, so that the answer takes as long as for one who does. */
const NOBODY = await hash('nobody signs in with this')

const turns = pLimit(AT_ONCE)

/**
 * Whether a password or a PIN is the one a hash was made of. Takes its turn, and never while a connection to the database is held.
 *
 * @param hashed null where there is nobody to compare with
 * @throws ProblemError 503 when too many wait
 */
export async function isSecretOf(hashed: string | null, typed: string): Promise<boolean> {
  if (turns.pendingCount >= WAITING) throw new ProblemError(503, 'server-busy', { retryAfterSeconds: 5 })
  const right = await turns(() => verify(hashed ?? NOBODY, typed))
  return right && hashed !== null
}
