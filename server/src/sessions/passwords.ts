import { hash, verify } from '@node-rs/argon2'
import pLimit from 'p-limit'
import { dictionary } from '@zxcvbn-ts/language-common'
import { ProblemError, refuseField } from '../problems/problem.ts'

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

/** What is kept of a password or a PIN somebody chose. Takes its turn like a look at one. */
export async function hashOfSecret(secret: string): Promise<string> {
  if (turns.pendingCount >= WAITING) throw new ProblemError(503, 'server-busy', { retryAfterSeconds: 5 })
  return turns(() => hash(secret))
}

/** The passwords that are tried first everywhere, as they are typed and without the digits somebody adds behind. */
const COMMON = new Set(dictionary['passwords-common'])

/** Whether a password is one of those everybody tries first, in whatever letters and with whatever digits behind. */
export function isCommon(password: string): boolean {
  const plain = password.toLowerCase()
  const bare = plain.replace(/[\d!?.*_-]+$/, '')
  const half = plain.slice(0, Math.floor(plain.length / 2))
  return (
    COMMON.has(plain) ||
    COMMON.has(bare) ||
    // One said twice over is no longer to guess than once.
    (plain === half + half && COMMON.has(half)) ||
    new Set(plain).size < 4
  )
}

/** @throws ProblemError 422 at the field for a password everybody tries first */
export function refuseCommon(password: string, field: string): void {
  if (isCommon(password)) throw refuseField(field, 'password-common')
}
