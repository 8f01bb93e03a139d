import type { endpoints } from '@pelrin/contract'
import type { Job, JobEntry, Output } from '@pelrin/contract'
import { onBikePitches } from '@pelrin/core'
import { CHAINS } from '../chains/models.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { DRIVES } from '../parts/models.ts'
import { lockPresentBike } from '../bikes/lockPresentBike.ts'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { planJob } from './planJob.ts'
import { jobById, jobOfBike } from './store.ts'
import { JOBS, JOB_EVENTS } from './models.ts'

/** Holds a job until the transaction ends. @throws ProblemError 404 */
export async function lockedJob(work: Work, id: string) {
  const job = await work.of(JOBS).findByPk(id, {
    transaction: work.transaction,
    lock: work.transaction.LOCK.UPDATE,
  })
  if (!job) throw new ProblemError(404, 'job-unknown')
  return job
}

export async function requireJob(work: Work, id: string): Promise<Job> {
  const job = await jobById(work, id)
  if (!job) throw new ProblemError(404, 'job-unknown')
  return job
}

/** The job on a bike, and what one would cost where none is open; null where it cannot be told yet. */
export async function jobAndEstimate(work: Work, bikeId: string): Promise<Output<typeof endpoints.bikeJob.result>> {
  const job = await jobOfBike(work, bikeId)
  if (job?.state === 'open') return { job, estimate: null }
  try {
    const { parts } = await planJob(work, bikeId, { reason: 'worn', oldFate: 'scrapped' })
    return { job, estimate: parts.estimate ?? null }
  } catch (error) {
    // No chain that fits, or no length: said when it is begun.
    if (error instanceof ProblemError) return { job, estimate: null }
    throw error
  }
}

/** Begins a job. @throws ProblemError 409 with the open one where there is one already */
export async function openJob(
  work: Work,
  bikeId: string,
  { id, reason, oldFate }: Output<typeof endpoints.openJob.body>,
): Promise<Job> {
  await lockPresentBike(work, bikeId)
  const open = await jobOfBike(work, bikeId)
  if (open?.state === 'open') throw new ProblemError(409, 'job-open-already', { current: open })
  const { plan, parts, keptId } = await planJob(work, bikeId, { reason, oldFate })
  await work.of(JOBS).create(
    {
      id,
      bikeId,
      state: 'open',
      plan,
      parts,
      keptId,
      openedAt: work.now,
      closedAt: null,
      written: null,
      personId: authorOf(work).personId,
      version: 1,
    },
    { transaction: work.transaction },
  )
  await audited(work, 'opened', 'job', id, { bikeId, reason })
  return requireJob(work, id)
}

/** What was found at a step belongs to the chain, or to the bike, whatever becomes of the job. */
async function kept(work: Work, bikeId: string, entry: JobEntry): Promise<void> {
  const { of, transaction } = work
  if (entry.asks === 'size') {
    const { way, counted, addPitches } = entry
    const own = { ownPitches: onBikePitches({ way, counted }, addPitches), ownPitchesBy: way }
    await of(DRIVES).update(own, { where: { bikeId }, transaction })
  }
  if (entry.asks === 'old-count') {
    const fitting = await presentFitting(work, bikeId)
    if (fitting)
      await of(CHAINS).update(
        { hungSmall: entry.small, hungLarge: entry.large },
        { where: { id: fitting.chainId }, transaction },
      )
  }
}

/** Writes down what happened on a job. Two who tick one step at once both did; the first counts. */
export async function addEvent(
  work: Work,
  jobId: string,
  { id, occurredAt, kind, ...detail }: Output<typeof endpoints.jobEvent.body>,
): Promise<Job> {
  const job = await lockedJob(work, jobId)
  if (job.state !== 'open') throw new ProblemError(409, 'job-ended', { current: await requireJob(work, jobId) })
  const { personId, deviceId } = authorOf(work)
  // Nothing happened before the job began, or after now.
  const at = new Date(Math.min(work.now.getTime(), Math.max(job.openedAt.getTime(), Date.parse(occurredAt))))
  await work
    .of(JOB_EVENTS)
    .create(
      { id, jobId, kind, detail, occurredAt: at, recordedAt: work.now, personId, deviceId },
      { transaction: work.transaction },
    )
  if (kind === 'entered') await kept(work, job.bikeId, (detail as { entry: JobEntry }).entry)
  await job.update({ version: job.version + 1 }, { transaction: work.transaction })
  return requireJob(work, jobId)
}
