import type { Job, JobWritten } from '@pelrin/contract'
import { v7 } from 'uuid'
import { reopen } from '../chains/closeAgain.ts'
import { takeBackFitting } from '../chains/undo.ts'
import { unfitFor } from '../components/service.ts'
import { audited, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { dropParts } from '../stock/kept.ts'
import { moveStock } from '../stock/movements.ts'
import { requireJob, lockedJob } from './service.ts'
import { OFFCUTS } from './models.ts'
import { KEPT_PARTS } from '../stock/models.ts'

/** Ends a job without a new chain: its parts are free again, and the old chain is as it was. */
export async function stopJob(work: Work, id: string, reason: string): Promise<Job> {
  const row = await lockedJob(work, id)
  if (row.state === 'stopped') return requireJob(work, id)
  if (row.state !== 'open') throw new ProblemError(409, 'job-ended', { current: await requireJob(work, id) })
  const kept =
    row.keptId === null ? null : await work.of(KEPT_PARTS).findByPk(row.keptId, { transaction: work.transaction })
  if (kept?.state === 'kept') await dropParts(work, kept.id, kept.version)
  await row.update(
    { state: 'stopped', closedAt: work.now, version: row.version + 1 },
    { transaction: work.transaction },
  )
  await audited(work, 'stopped', 'job', id, { reason })
  return requireJob(work, id)
}

/**
 * Takes back what closing wrote: the old chain is on again as if it had never come off, the new one was never on, its joint
 * is a tombstone, and its parts are in stock again.
 *
 * @throws ProblemError 409 after the day, where the new chain was measured, or where another one is on by now
 */
export async function undoJob(work: Work, id: string, reason: string): Promise<Job> {
  const row = await lockedJob(work, id)
  const job = await requireJob(work, id)
  if (row.state === 'undone') return job
  const { written } = row
  if (row.state !== 'closed' || written === null) throw new ProblemError(409, 'job-ended', { current: job })
  if (!job.canUndo) throw new ProblemError(409, 'undo-late')
  const { of, transaction } = work
  await lockBikeState(work, row.bikeId)
  if (written.newFittingId !== null && written.newChainId !== null) {
    const { newFittingId: fittingId, newChainId: chainId, oldFittingId, oldChainId } = written
    const before =
      oldFittingId !== null && oldChainId !== null ? { fittingId: oldFittingId, chainId: oldChainId } : null
    await takeBackFitting(work, { bikeId: row.bikeId, fittingId, chainId, before }, reason)
    if (written.offcutId !== null)
      await of(OFFCUTS).update({ goneAt: work.now }, { where: { id: written.offcutId }, transaction })
    for (const [partId, quantity] of await ownParts(work, row.id, written.used))
      await moveStock(work, partId, { id: v7(), kind: 'received', quantity, note: reason })
  }
  // The old chain's own closing, where it went back on.
  await reopen(work, row.id, reason)
  await unfitFor(work, row.id, reason)
  await row.update({ state: 'undone', version: row.version + 1 }, { transaction })
  await audited(work, 'undid', 'job', id, { reason })
  await judgeBike(work, row.bikeId, { readingId: null, occurredAt: work.now })
  return requireJob(work, id)
}

/** What a job used up itself, by part: what has a life of its own is taken back with that. */
async function ownParts(work: Work, jobId: string, used: JobWritten['used']): Promise<ReadonlyMap<string, number>> {
  const components = await work.select<{ partId: string }>(
    'SELECT part_id AS "partId" FROM components WHERE because_id = :jobId AND from_stock',
    { jobId },
  )
  const own = new Map<string, number>()
  for (const { partId, quantity } of used) own.set(partId, (own.get(partId) ?? 0) + quantity)
  for (const { partId } of components) own.set(partId, (own.get(partId) ?? 0) - 1)
  return new Map([...own].filter(([, quantity]) => quantity > 0))
}
