import type { BikeChains } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { bikeChains } from './store.ts'
import { reopen } from './closeAgain.ts'
import { setAside } from './setAside.ts'
import { swapOf } from './swaps.ts'
import { tombstone, stands } from '../db/facts.ts'
import { JOINT_EVENTS } from '../parts/models.ts'
import { READINGS } from '../readings/models.ts'

/** What put a chain on in the place of another. */
export interface Fitted {
  readonly bikeId: string
  readonly fittingId: string
  readonly chainId: string
  /** The fitting that ended by it, and its chain; null where none was on. */
  readonly before: { readonly fittingId: string; readonly chainId: string } | null
}

/**
 * Takes back that a chain went on: it was never on, the one before never came off, and what was closed with it stands no more.
 *
 * @throws ProblemError 409 where another chain is on by now, or this one was measured since
 */
export async function takeBackFitting(
  work: Work,
  { bikeId, fittingId, chainId, before }: Fitted,
  reason: string,
): Promise<void> {
  const { of, transaction } = work
  const present = await presentFitting(work, bikeId)
  if (present?.id !== fittingId) throw new ProblemError(409, 'undo-moved-on')
  if (await of(READINGS).findOne({ where: { fittingId, deleted: false }, transaction }))
    throw new ProblemError(409, 'undo-measured')
  await work.execute(`UPDATE fittings SET during = 'empty' WHERE id = :fittingId`, { fittingId })
  if (before) {
    await work.execute(
      `UPDATE fittings SET during = tstzrange(lower(during), NULL, '[)'), end_reason = NULL WHERE id = :id`,
      { id: before.fittingId },
    )
    await setAside(work, before.chainId, { fate: null, homeBikeId: null })
  }
  const closed = await work.select<{ id: string }>(
    `SELECT e.id FROM joint_events e WHERE e.chain_id = :chainId AND e.occurred_at >= :from AND ${stands('joint_events', 'e')}`,
    { chainId, from: present.from },
  )
  for (const { id } of closed) {
    const event = (await of(JOINT_EVENTS).findByPk(id, { transaction, rejectOnEmpty: true })).get({ plain: true })
    await of(JOINT_EVENTS).create({ ...event, id: v7(), ...tombstone(work, id, reason) }, { transaction })
  }
}

/** Takes a swap of today back. @throws ProblemError 409 where it was none, or something rests on it */
export async function undoSwap(work: Work, fittingId: string, reason: string): Promise<BikeChains> {
  const swap = await swapOf(work, 'f.id = :fittingId', { fittingId })
  if (!swap) throw new ProblemError(409, 'swap-not')
  const { bikeId, chainId, beforeId, beforeChainId, cameFrom } = swap
  await lockBikeState(work, bikeId)
  const before = { fittingId: beforeId, chainId: beforeChainId }
  await reopen(work, fittingId, reason)
  await takeBackFitting(work, { bikeId, fittingId, chainId, before }, reason)
  await setAside(work, chainId, cameFrom)
  await audited(work, 'undid', 'swap', fittingId, { reason })
  await judgeBike(work, bikeId, { readingId: null, occurredAt: work.now })
  return bikeChains(work, bikeId)
}
