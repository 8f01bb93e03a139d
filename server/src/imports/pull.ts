import { isSameRide } from '@pelrin/core'
import type { PullOutcome, RideAccount } from '@pelrin/contract'
import * as v from 'valibot'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { v7 } from 'uuid'
import type { Database } from '../db/connection.ts'
import { audited, inShop, type Author, type Work } from '../db/work.ts'
import { appendRide, followDistance } from '../distance/service.ts'
import { RIDE_STANDS, standingRides } from '../distance/store.ts'
import { ProblemError } from '../problems/problem.ts'
import { isSealed, type Secrets } from '../secrets.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { BIKES } from '../bikes/models.ts'
import { RIDE_ACCOUNTS, type RideAccountRow } from './models.ts'

const TIMEOUT_MS = 5_000
/** Pages taken in one pull; the next goes on. */
const PAGES = 200

const Page = v.object({
  changes: v.array(
    v.variant('deleted', [
      v.object({ id: v.string(), deleted: v.literal(true) }),
      v.object({
        id: v.string(),
        deleted: v.literal(false),
        start: v.pipe(v.string(), v.isoTimestamp()),
        end: v.pipe(v.string(), v.isoTimestamp()),
        metres: v.pipe(v.number(), v.minValue(0)),
        name: v.string(),
      }),
    ]),
  ),
  cursor: v.string(),
  more: v.boolean(),
})
type Page = v.InferOutput<typeof Page>

export const asRideAccount = ({ id, bikeId, address, account, pulledAt, outcome }: RideAccountRow): RideAccount => ({
  id,
  bikeId,
  address,
  account,
  pulledAt: pulledAt?.toISOString() ?? null,
  outcome,
})

export async function accountOfBike(work: Work, bikeId: string): Promise<RideAccount | null> {
  const row = await work.of(RIDE_ACCOUNTS).findOne({
    where: { bikeId, removedAt: null },
    transaction: work.transaction,
  })
  return row && asRideAccount(row.get({ plain: true }))
}

/** The ride service, as far as this server knows one. */
export interface RideService {
  /** Where it listens, `host:port`. */
  readonly address: string | undefined
  /** What its accounts' tokens are kept under; undefined where whoever runs this set no key. */
  readonly secrets: Secrets | undefined
}

/** Joins a bike to an account of the ride service. Its token is kept sealed. */
export async function joinAccount(
  work: Work,
  bikeId: string,
  { address, secrets }: RideService,
  { id, account, token }: { id: string; account: string; token: string },
): Promise<RideAccount | null> {
  if (address === undefined) throw new ProblemError(409, 'rides-service-missing')
  if (secrets === undefined) throw new ProblemError(409, 'secret-key-missing')
  if (!(await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })))
    throw new ProblemError(404, 'bike-unknown')
  if (await accountOfBike(work, bikeId)) throw new ProblemError(409, 'account-joined-already')
  await work.of(RIDE_ACCOUNTS).create(
    {
      id,
      bikeId,
      address,
      account,
      token: secrets.seal(token),
      pulledTo: null,
      pulledAt: null,
      outcome: null,
      removedAt: null,
    },
    { transaction: work.transaction },
  )
  await audited(work, 'joined', 'ride account', id, { bikeId, account })
  return accountOfBike(work, bikeId)
}

/** Leaves an account. Its token goes at once. */
export async function leaveAccount(work: Work, id: string): Promise<void> {
  const [changed] = await work
    .of(RIDE_ACCOUNTS)
    .update({ removedAt: work.now, token: '' }, { where: { id, removedAt: null }, transaction: work.transaction })
  if (changed === 0) throw new ProblemError(404, 'account-unknown')
  await audited(work, 'left', 'ride account', id)
}

/** A page could not be had, and why: keys of the message catalogue. */
class PullStopped extends Error {
  constructor(readonly code: string) {
    super(code)
  }
}

/** One page of changes after a cursor. @throws PullStopped */
async function fetchPage(
  { account, token }: Pick<RideAccountRow, 'account' | 'token'>,
  address: string,
  after: string | null,
): Promise<Page> {
  const query = after === null ? '' : `?after=${encodeURIComponent(after)}`
  let response: Response
  try {
    response = await fetch(`http://${address}/v1/accounts/${encodeURIComponent(account)}/changes${query}`, {
      headers: { authorization: `Bearer ${token}` },
      signal: AbortSignal.timeout(TIMEOUT_MS),
    })
  } catch (error) {
    throw new PullStopped((error as Error).name === 'TimeoutError' ? 'service-slow' : 'service-away')
  }
  if (response.status === 429) throw new PullStopped('service-busy')
  if (response.status === 401 || response.status === 404) throw new PullStopped('service-refused')
  if (!response.ok) throw new PullStopped('service-failed')
  try {
    return v.parse(Page, await response.json())
  } catch {
    throw new PullStopped('service-garbled')
  }
}

/**
 * Pulls what is new in an account. Each page is one transaction with the cursor it leads to: whatever stops the pull, what
 * came is kept, and the next one goes on behind it.
 */
export async function pullRides(
  database: Database,
  shopId: string,
  author: Author,
  accountId: string,
  { address, secrets }: RideService,
): Promise<RideAccount> {
  const found = await inShop(database, shopId, null, (work) =>
    work.of(RIDE_ACCOUNTS).findOne({ where: { id: accountId, removedAt: null }, transaction: work.transaction }),
  )
  if (!found) throw new ProblemError(404, 'account-unknown')
  const row = found.get({ plain: true })
  // One of before it was sealed is as it stands.
  const token = isSealed(row.token) ? (secrets?.open(row.token) ?? null) : row.token
  if (token === null) throw new ProblemError(409, 'secret-key-missing')
  const account = { ...row, token }
  const outcome: { -readonly [K in keyof PullOutcome]: PullOutcome[K] } = {
    added: 0,
    known: 0,
    changed: 0,
    removed: 0,
    stopped: null,
  }
  let after = account.pulledTo
  try {
    if (address === undefined) throw new PullStopped('service-away')
    for (let pages = 0; pages < PAGES; pages++) {
      const page = await fetchPage(account, address, after)
      await inShop(database, shopId, author, (work) => takePage(work, account, after, page, outcome))
      after = page.cursor
      if (!page.more) break
    }
  } catch (error) {
    if (!(error instanceof PullStopped)) throw error
    outcome.stopped = error.code
  }
  return inShop(database, shopId, author, async (work) => {
    await work
      .of(RIDE_ACCOUNTS)
      .update({ pulledAt: work.now, outcome }, { where: { id: accountId }, transaction: work.transaction })
    await audited(work, 'pulled', 'ride account', accountId, { ...outcome })
    return asRideAccount({ ...account, pulledAt: work.now, outcome })
  })
}

/** Takes a page into the ledger. A page another pull has taken meanwhile is left alone. */
async function takePage(
  work: Work,
  { id: accountId, bikeId }: RideAccountRow,
  after: string | null,
  { changes, cursor }: Page,
  outcome: { added: number; known: number; changed: number; removed: number },
): Promise<void> {
  const account = await work.of(RIDE_ACCOUNTS).findOne({
    where: { id: accountId },
    transaction: work.transaction,
    lock: work.transaction.LOCK.UPDATE,
  })
  if (account?.pulledTo !== after) return
  await lockBikeState(work, bikeId)
  let touched = false
  const { assumed } = await assumptionsInForce(work)
  for (const change of changes) {
    const [before] = await work.select<{
      id: string
      bikeId: string
      from: Date
      to: Date
      km: number
      title: string | null
    }>(
      `SELECT r.id, r.bike_id AS "bikeId", r.occurred_at AS "from", r.ended_at AS "to", r.km, r.title FROM rides r
       WHERE r.account_id = :accountId AND r.external_id = :externalId AND ${RIDE_STANDS}`,
      { accountId, externalId: change.id },
    )
    const common = { source: 'service' as const, accountId, externalId: change.id }
    if (change.deleted) {
      if (!before) continue
      await appendRide(work, {
        ...common,
        id: v7(),
        bikeId: before.bikeId,
        occurredAt: before.from,
        endedAt: before.to,
        km: before.km,
        surface: null,
        title: before.title,
        supersedesId: before.id,
        reason: 'deleted at the ride service',
        deleted: true,
      })
      outcome.removed++
      touched = true
      continue
    }
    const ride = {
      occurredAt: new Date(change.start),
      endedAt: new Date(change.end),
      km: change.metres / 1000,
      title: change.name.slice(0, 80) || null,
    }
    if (ride.endedAt <= ride.occurredAt || ride.km === 0) continue
    if (before) {
      const same =
        before.km === ride.km &&
        before.from.getTime() === ride.occurredAt.getTime() &&
        before.to.getTime() === ride.endedAt.getTime()
      if (same) {
        outcome.known++
        continue
      }
      // Where a mechanic moved it, it stays.
      await appendRide(work, {
        ...common,
        ...ride,
        id: v7(),
        bikeId: before.bikeId,
        surface: null,
        supersedesId: before.id,
        reason: 'edited at the ride service',
      })
      outcome.changed++
      touched = true
      continue
    }
    const span = { from: ride.occurredAt.getTime(), to: ride.endedAt.getTime(), km: ride.km }
    const known = (await standingRides(work, bikeId)).some(({ from, to, km }) =>
      isSameRide(span, { from: from.getTime(), to: to.getTime(), km }, assumed.distance),
    )
    if (known || (await wasTakenOut(work, accountId, change.id))) {
      outcome.known++
      continue
    }
    await appendRide(work, { ...common, ...ride, id: v7(), bikeId, surface: null })
    outcome.added++
    touched = true
  }
  await account.update({ pulledTo: cursor }, { transaction: work.transaction })
  if (touched) await followDistance(work, bikeId)
}

/** A ride somebody took out of the ledger does not come back because the service repeats it. */
async function wasTakenOut(work: Work, accountId: string, externalId: string): Promise<boolean> {
  const [found] = await work.select(
    'SELECT 1 AS one FROM rides WHERE account_id = :accountId AND external_id = :externalId',
    {
      accountId,
      externalId,
    },
  )
  return found !== undefined
}

/** Seals tokens of accounts that were joined by an older Pelrin, and forgets those of accounts that were left. */
export async function sealTokens(work: Work, secrets: Secrets): Promise<void> {
  await work.execute(`UPDATE ride_accounts SET token = '' WHERE removed_at IS NOT NULL AND token <> ''`)
  const rows = await work.select<{ id: string; token: string }>(
    'SELECT id, token FROM ride_accounts WHERE removed_at IS NULL FOR UPDATE',
  )
  for (const { id, token } of rows.filter((row) => !isSealed(row.token)))
    await work
      .of(RIDE_ACCOUNTS)
      .update({ token: secrets.seal(token) }, { where: { id }, transaction: work.transaction })
}
