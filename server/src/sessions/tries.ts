import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import { audited, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'

/** So many wrong tries in a row cost nothing; then the wait doubles from one to the next, seconds. */
const FREE = 5
const FIRST_WAIT = 30
const LONGEST_WAIT = 3600

/** Of one address and one device, whatever names they try, in a quarter of an hour. */
const OF_ADDRESS = 60
const OF_DEVICE = 30
const WINDOW_SECONDS = 15 * 60

/** How long the next try waits after so many wrong ones in a row, seconds. */
export const waitAfter = (failed: number): number =>
  failed < FREE ? 0 : Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** Math.min(12, failed - FREE))

function tooOften(seconds: number): ProblemError {
  return new ProblemError(429, 'sign-in-too-often', {
    values: { minutes: Math.max(1, Math.ceil(seconds / 60)) },
    retryAfterSeconds: Math.ceil(seconds),
  })
}

/**
 * Takes one of a subject's tries, before it is looked at: of many made at once, no more are looked at than of as many one after another.
 *
 * @returns how long the next one waits if this one is wrong, seconds
 * @throws ProblemError 429 while they have to wait
 */
export async function takeTry(work: Work, subject: string): Promise<number> {
  // Two at once wait for each other here: whoever comes second sees what the first one left.
  const [row] = await work.select<{ failed: number }>(
    `INSERT INTO sign_in_tries (subject, failed, last_at, waits_until) VALUES (:subject, 1, :now, to_timestamp(0))
     ON CONFLICT (shop_id, subject) DO UPDATE SET last_at = excluded.last_at,
       failed = CASE WHEN sign_in_tries.last_at < CAST(:now AS timestamptz) - interval '1 day' THEN 1 ELSE sign_in_tries.failed + 1 END
     WHERE sign_in_tries.waits_until <= CAST(:now AS timestamptz)
     RETURNING failed`,
    { subject, now: work.now },
  )
  if (!row) {
    const [waits] = await work.select<{ seconds: number }>(
      `SELECT extract(epoch FROM waits_until - CAST(:now AS timestamptz))::float8 AS seconds
       FROM sign_in_tries WHERE subject = :subject`,
      { subject, now: work.now },
    )
    throw tooOften(waits?.seconds ?? FIRST_WAIT)
  }
  const seconds = waitAfter(row.failed)
  if (seconds > 0)
    await work.execute('UPDATE sign_in_tries SET waits_until = :until WHERE subject = :subject', {
      subject,
      until: new Date(work.now.getTime() + seconds * 1000),
    })
  return seconds
}

/** Writes down that a try was wrong, for the owner to see. */
export async function tellWrong(
  work: Work,
  told: {
    readonly kind: 'password' | 'pin'
    readonly who: string
    readonly address: string
    readonly device: string
    readonly waitSeconds: number
  },
): Promise<void> {
  await audited(work, 'sign-in-failed', 'session', work.shopId, told)
}

/** Who got in starts anew. */
export async function forgetWrong(work: Work, subject: string): Promise<void> {
  await work.execute('DELETE FROM sign_in_tries WHERE subject = :subject', { subject })
}

/** Wrong tries of addresses and devices, whatever they try: kept in memory, since they belong to no shop. */
export class WrongFrom {
  private readonly addresses = new RateLimiterMemory({ points: OF_ADDRESS, duration: WINDOW_SECONDS })
  private readonly devices = new RateLimiterMemory({ points: OF_DEVICE, duration: WINDOW_SECONDS })

  /** Takes a try, before it is looked at. @throws ProblemError 429 for an address or a device that has to wait */
  async take(address: string, device: string | null): Promise<void> {
    try {
      await this.addresses.consume(address)
      if (device !== null) await this.devices.consume(device)
    } catch (error) {
      throw error instanceof RateLimiterRes ? tooOften(error.msBeforeNext / 1000) : error
    }
  }

  /** A try that was right does not count. */
  async giveBack(address: string, device: string | null): Promise<void> {
    await this.addresses.reward(address)
    if (device !== null) await this.devices.reward(device)
  }
}
