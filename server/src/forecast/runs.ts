import type { JobProgress } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { authorOf, inShop, type Work } from '../db/work.ts'
import type { ShopJobs } from '../queue/queue.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { shopFacts } from '../state/shopFacts.ts'
import { FORECAST_RUNS, type ForecastRunRow } from './models.ts'

/** Bikes judged in one transaction: few, so that nobody at a stand waits for it. */
const AT_A_TIME = 10

const asProgress = ({ id, state, done, of, startedAt, finishedAt }: ForecastRunRow): JobProgress => ({
  id,
  state,
  done,
  of,
  startedAt: startedAt?.toISOString() ?? null,
  finishedAt: finishedAt?.toISOString() ?? null,
})

/** The newest run; null when there was none. */
export async function newestRun(work: Work): Promise<JobProgress | null> {
  const run = await work.of(FORECAST_RUNS).findOne({ order: [['askedAt', 'DESC']], transaction: work.transaction })
  return run && asProgress(run.get({ plain: true }))
}

/** Asks for a forecast of every chain; one that is under way already is answered instead. */
export async function askForRun(work: Work, id: string): Promise<JobProgress> {
  // One at a time, so that two who ask at once get the same run.
  await work.select('SELECT id FROM shops WHERE id = :id FOR NO KEY UPDATE', { id: work.shopId })
  const [{ bikes } = { bikes: 0 }] = await work.select<{ bikes: number }>(
    'SELECT count(*)::integer AS bikes FROM bikes',
  )
  const under = await work.of(FORECAST_RUNS).findOne({
    where: { state: ['waiting', 'running'] },
    transaction: work.transaction,
  })
  if (under) return asProgress(under.get({ plain: true }))
  const run = await work.of(FORECAST_RUNS).create(
    {
      id,
      personId: authorOf(work).personId,
      state: 'waiting',
      done: 0,
      of: bikes,
      lastBikeId: null,
      askedAt: work.now,
      startedAt: null,
      finishedAt: null,
    },
    { transaction: work.transaction },
  )
  return asProgress(run.get({ plain: true }))
}

/** Stops a run after the bikes it is at. What is done stays. */
export async function cancelRun(work: Work, id: string): Promise<JobProgress | null> {
  await work
    .of(FORECAST_RUNS)
    .update(
      { state: 'cancelled', finishedAt: work.now },
      { where: { id, state: ['waiting', 'running'] }, transaction: work.transaction },
    )
  return newestRun(work)
}

/**
 * Goes on with a run from where it stands, a few bikes a transaction, each with how far it came.
 *
 * @param until when to stop, ms; the rest is another piece
 * @returns whether more is left
 */
export async function continueRun(database: Database, shopId: string, runId: string, until: number): Promise<boolean> {
  for (;;) {
    const left = await inShop(database, shopId, null, async (work) => {
      const run = await work.of(FORECAST_RUNS).findOne({
        where: { id: runId },
        transaction: work.transaction,
        lock: work.transaction.LOCK.UPDATE,
      })
      // Its job can come before the transaction that asked for it is through: the queue tries again.
      if (!run) throw new Error(`there is no run ${runId} yet`)
      if (run.state !== 'waiting' && run.state !== 'running') return false
      const bikes = await work.select<{ id: string }>(
        `SELECT id FROM bikes WHERE :after::uuid IS NULL OR id > :after::uuid ORDER BY id LIMIT :count`,
        { after: run.lastBikeId, count: AT_A_TIME },
      )
      const by = { ...work, author: { personId: run.personId, deviceId: null, requestId: null } }
      const shared = await shopFacts(by)
      for (const { id } of bikes) {
        await lockBikeState(by, id)
        await judgeBike(by, id, { readingId: null, occurredAt: work.now }, shared, false)
      }
      const over = bikes.length < AT_A_TIME
      await run.update(
        {
          state: over ? 'done' : 'running',
          done: run.done + bikes.length,
          lastBikeId: bikes.at(-1)?.id ?? run.lastBikeId,
          startedAt: run.startedAt ?? work.now,
          finishedAt: over ? work.now : null,
        },
        { transaction: work.transaction },
      )
      return !over
    })
    if (!left) return false
    if (Date.now() >= until) return true
  }
}

/** Hands a run that waits to the queue. @returns the same progress */
export async function handOver(jobs: ShopJobs, shopId: string, progress: JobProgress): Promise<JobProgress> {
  if (progress.state === 'waiting') await jobs.forecastShop(shopId, progress.id)
  return progress
}
