import { jobNow, type JobNow } from '@pelrin/core'
import type { endpoints } from '@pelrin/contract'
import type { Job, JobWritten, Output } from '@pelrin/contract'
import { v7 } from 'uuid'
import { writeCare } from '../care/service.ts'
import { closeAgain, closeFirst, refuseClick } from '../chains/closeAgain.ts'
import { setAside } from '../chains/setAside.ts'
import { fitComponent } from '../components/service.ts'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { dropParts } from '../stock/kept.ts'
import { moveStock } from '../stock/movements.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { afterAll } from '../fittings/moments.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { catalogueChanged } from '../parts/catalogueStore.ts'
import { billOf } from './bill.ts'
import { requireJob, lockedJob } from './service.ts'
import { eventsOf } from './store.ts'
import { PARTS } from '../catalogue/models.ts'
import { CHAINS, FITTINGS } from '../chains/models.ts'
import { OFFCUTS, type JobRow } from './models.ts'
import { KEPT_PARTS, KEPT_PART_LINES } from '../stock/models.ts'

type Closing = Output<typeof endpoints.closeJob.body>

/**
 * Closes a job: the old chain ends with its reason and fate, the new one begins as a thing with its own life, its joint is
 * closed for the first time, parts leave the stock, the offcut is kept. All of it or nothing; closed again, it answers with
 * what it did.
 *
 * @throws ProblemError 422 at `click` for a link that does not click firmly, at `parts` when stock ran out meanwhile
 */
export async function closeJob(asked: Work, id: string, closing: Closing): Promise<Job> {
  const row = await lockedJob(asked, id)
  if (row.state === 'closed') return requireJob(asked, id)
  if (row.state !== 'open') throw new ProblemError(409, 'job-ended', { current: await requireJob(asked, id) })
  await lockBikeState(asked, row.bikeId)
  const work = await afterAll(asked, row.bikeId)
  const now = jobNow(row.plan, await eventsOf(work, id))
  const { plan } = now
  const clicks = plan.joint.kind === 'link'
  const oldBack = plan.outcomes.includes('skips-old-back')
  if (clicks && !oldBack) refuseClick(closing.click)
  const cassette = plan.outcomes.includes('skips-cassette') ? closing.cassette : null
  if (cassette)
    await fitComponent(
      work,
      {
        id: v7(),
        bikeId: row.bikeId,
        item: 'cassette',
        ...cassette,
        endReason: 'worn',
        at: work.now,
        becauseId: row.id,
      },
      'cassette',
    )
  const extra = cassette?.partId == null ? [] : [{ partId: cassette.partId, quantity: 1 }]
  const written = oldBack ? await putBack(work, row, closing, extra) : await fitNew(work, row, now, closing, extra)
  await row.update(
    { state: 'closed', closedAt: work.now, written, version: row.version + 1 },
    { transaction: work.transaction },
  )
  await audited(work, 'closed', 'job', id, { ...written })
  await judgeBike(work, row.bikeId, { readingId: null, occurredAt: work.now })
  return requireJob(work, id)
}

const NOTHING = { newFittingId: null, newChainId: null, offcutId: null, used: [] } as const

/** The new chain skipped and the old one went back on: nothing ended, nothing began, and the new parts are free again. */
async function putBack(
  work: Work,
  row: JobRow,
  { minutes, click, byFeel, linkPartId }: Closing,
  extra: JobWritten['used'],
): Promise<JobWritten> {
  const fitting = await presentFitting(work, row.bikeId)
  if (fitting)
    await closeAgain(work, {
      chainId: fitting.chainId,
      bikeId: row.bikeId,
      closing: { click, byFeel, linkPartId },
      at: work.now,
      becauseId: row.id,
    })
  const used = [...(linkPartId === null ? [] : [{ partId: linkPartId, quantity: 1 }]), ...extra]
  if (row.keptId !== null) await letGo(work, row.keptId)
  return {
    ...NOTHING,
    used,
    oldFittingId: fitting?.id ?? null,
    oldChainId: fitting?.chainId ?? null,
    jointId: null,
    bill: await billOf(work, minutes, used),
    minutes,
    oldReason: null,
    click,
  }
}

async function letGo(work: Work, keptId: string): Promise<void> {
  const kept = await work.of(KEPT_PARTS).findByPk(keptId, { transaction: work.transaction })
  if (kept?.state === 'kept') await dropParts(work, keptId, kept.version)
}

async function fitNew(
  work: Work,
  row: JobRow,
  { plan, steps }: JobNow,
  closing: Closing,
  extra: JobWritten['used'],
): Promise<JobWritten> {
  const { of, transaction } = work
  const { oldReason, oldFate, click, minutes, pitches } = closing
  const old = await presentFitting(work, row.bikeId)
  if (old) {
    await work.execute(
      `UPDATE fittings SET during = tstzrange(lower(during), :now, '[)'), end_reason = :oldReason WHERE id = :id`,
      { now: work.now, oldReason, id: old.id },
    )
    await setAside(work, old.chainId, { fate: oldFate, homeBikeId: oldFate === 'rotation' ? row.bikeId : null })
  }
  const chainId = v7()
  await of(CHAINS).create(
    {
      id: chainId,
      name: row.parts.chain,
      pitches,
      care: plan.care,
      partId: row.parts.chainPartId,
      fate: null,
      homeBikeId: null,
      version: 1,
    },
    { transaction },
  )
  const fittingId = v7()
  const { personId } = authorOf(work)
  await of(FITTINGS).create(
    {
      id: fittingId,
      bikeId: row.bikeId,
      chainId,
      during: [
        { value: work.now, inclusive: true },
        { value: null, inclusive: false },
      ],
      start: 'fitted',
      endReason: null,
      cameFrom: null,
      personId,
      recordedAt: work.now,
    },
    { transaction },
  )
  const { care } = plan
  const treated = steps.some(({ id, done }) => done !== null && (id === 'wax-first' || id === 'first-oil'))
  if (treated && care !== 'unknown')
    await writeCare(work, {
      id: v7(),
      chainId,
      bikeId: row.bikeId,
      kind: 'treated',
      care,
      cleaning: steps.some(({ id }) => id === 'strip') ? 'strip' : 'wipe',
      at: work.now,
    })
  const jointId = await closeFirst(work, {
    chainId,
    kind: plan.joint.kind === 're-press' ? 'riveted' : plan.joint.kind,
    partId: row.parts.jointPartId,
    click,
    at: work.now,
    becauseId: null,
    reason: null,
  })
  const offcutId = plan.chain.cut.offcut > 0 ? v7() : null
  if (offcutId !== null)
    await of(OFFCUTS).create(
      { id: offcutId, chainId, jobId: row.id, pitches: plan.chain.cut.offcut, keptAt: work.now, goneAt: null },
      { transaction },
    )
  const taken = await useParts(work, row)
  const used = [...taken, ...extra]
  return {
    oldFittingId: old?.id ?? null,
    oldChainId: old?.chainId ?? null,
    newFittingId: fittingId,
    newChainId: chainId,
    jointId,
    offcutId,
    used,
    bill: await billOf(work, minutes, used),
    minutes,
    oldReason,
    click,
    pitches,
  }
}

/** Kinds of which a job puts on one of its own; whatever else is kept goes along with it. */
const OWN_KINDS: readonly string[] = ['chain', 'link', 'pin', 'clip']

/**
 * Takes the job's parts out of stock: those kept for it, or what it wants where they were let go meanwhile. What is kept for a
 * tandem's other chain stays kept.
 */
async function useParts(work: Work, row: JobRow): Promise<JobWritten['used']> {
  const { of, transaction } = work
  const kept = row.keptId === null ? null : await of(KEPT_PARTS).findByPk(row.keptId, { transaction })
  const ofList =
    kept?.state === 'kept' ? await of(KEPT_PART_LINES).findAll({ where: { keptId: kept.id }, transaction }) : null
  const lines: readonly { id: string | null; partId: string; quantity: number; included: boolean }[] =
    ofList ?? row.parts.list.map((line) => ({ ...line, id: null }))
  const used: { partId: string; quantity: number }[] = []
  const gone: string[] = []
  // Two who close at once lock parts in one order.
  for (const line of [...lines].sort((one, other) => (one.partId < other.partId ? -1 : 1))) {
    const { id, partId, quantity, included } = line
    const part = await of(PARTS).findByPk(partId, { transaction, lock: transaction.LOCK.UPDATE })
    const own = partId === row.parts.chainPartId || partId === row.parts.jointPartId
    if (!part || (OWN_KINDS.includes(part.kind) && !own)) continue
    if (id !== null) gone.push(id)
    if (included) continue
    if (part.stock < quantity)
      throw refuseField('parts', 'parts-short', { part: `${part.maker} ${part.name}`, stock: part.stock })
    await moveStock(work, partId, {
      id: v7(),
      kind: 'used',
      quantity,
      ...(row.keptId === null ? {} : { keptId: row.keptId }),
    })
    used.push({ partId, quantity })
  }
  if (kept?.state !== 'kept') return used
  if (gone.length < lines.length) await of(KEPT_PART_LINES).destroy({ where: { id: gone }, transaction })
  else await kept.update({ state: 'used', settledAt: work.now }, { transaction })
  await catalogueChanged(work)
  return used
}
