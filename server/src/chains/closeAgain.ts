import { chainSpeeds, type PresentJoint } from '@pelrin/core'
import type { ChainJoint, Closing } from '@pelrin/contract'
import { v7 } from 'uuid'
import type { Work } from '../db/work.ts'
import { newFact, stands, tombstone } from '../db/facts.ts'
import { PARTS, type PartRow } from '../catalogue/models.ts'
import { driveOf } from '../parts/drive.ts'
import { jointOfChain } from '../parts/jointStore.ts'
import { JOINTS, JOINT_EVENTS } from '../parts/models.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { moveStock } from '../stock/movements.ts'
import { asChainJoint } from './joints.ts'

/** A chain that goes back on, and how it is closed. */
export interface ClosedChain {
  readonly chainId: string
  /** On which its link has to fit. */
  readonly bikeId: string
  readonly closing: Closing
  readonly at: Date
  /** The fact it was closed for: a care, a way through the pot. Taken back with it. */
  readonly becauseId: string | null
  /** It has to be a link from now on: no pin goes into the wax. */
  readonly toLink?: boolean
}

/**
 * Closes a chain as it goes back on, whatever it came off for: its own joint once more, counted and with its click, or a new link out of
 * stock. One nobody looked at yet is taken as it is.
 *
 * @throws ProblemError 409 for a joint that is never closed again, 422 at `click`, `byFeel` or `linkPartId`
 */
export async function closeAgain(work: Work, closed: ClosedChain): Promise<void> {
  const { chainId, closing, toLink = false } = closed
  if (closing.linkPartId !== null) return closeWithNew(work, closed, closing.linkPartId)
  const known = await jointOfChain(work, chainId)
  if (toLink && known && known.kind !== 'link') throw refuseField('linkPartId', 'joint-to-link')
  if (!known) return
  const joint = asChainJoint(known)
  refuseJoint(joint, closing)
  const { click, byFeel } = closing
  await written(work, { ...closed, click, reason: byFeel ? 'by-feel' : null }, joint.id)
}

/** A joint that cannot be closed once more, or did not click. */
function refuseJoint({ kind, mayClose }: ChainJoint, { click, byFeel }: Closing): void {
  if (mayClose === 'no') throw new ProblemError(409, 'joint-not-reusable')
  if (kind === 'link') refuseClick(click)
  if (mayClose === 'by-feel' && !byFeel) throw refuseField('byFeel', 'closings-spent')
}

/** @throws ProblemError 422 where nobody said how a link clicked, or it did not */
export function refuseClick(click: Closing['click']): void {
  if (click === null) throw refuseField('click', 'click-missing')
  if (click !== 'firm') throw refuseField('click', 'click-weak')
}

async function closeWithNew(work: Work, closed: ClosedChain, partId: string): Promise<void> {
  const part = await work.of(PARTS).findByPk(partId, { transaction: work.transaction })
  const drive = await driveOf(work, closed.bikeId)
  if (part?.removedAt !== null || (part.kind !== 'link' && part.kind !== 'clip'))
    throw refuseField('linkPartId', 'part-unknown')
  if (drive && !speedsOf(part.get({ plain: true })).includes(chainSpeeds(drive)))
    throw refuseField('linkPartId', 'link-misfit')
  if (part.kind === 'link') refuseClick(closed.closing.click)
  await takeLink(work, partId)
  const { click, byFeel } = closed.closing
  await closeFirst(work, { ...closed, kind: part.kind, partId, click, reason: byFeel ? 'by-feel' : null })
}

/** A chain closed by a joint it did not have before. */
export interface FirstClosing {
  readonly chainId: string
  readonly kind: PresentJoint
  /** Which part of the catalogue it is, where that is known. */
  readonly partId: string | null
  readonly click: Closing['click']
  readonly at: Date
  /** The fact it was closed for, taken back with it; null where that takes it back by itself. */
  readonly becauseId: string | null
  readonly reason: string | null
}

/** Makes a new joint the thing it is and writes its first closing; what is closed by hand counts from none. Returns its id. */
export async function closeFirst(work: Work, { kind, partId, ...closed }: FirstClosing): Promise<string> {
  const id = v7()
  const counts = kind === 'link' || kind === 'clip'
  await work
    .of(JOINTS)
    .create({ id, kind, partId, closingsBefore: counts ? 0 : null }, { transaction: work.transaction })
  await written(work, closed, id)
  return id
}

const speedsOf = ({ facts }: Pick<PartRow, 'facts'>): readonly number[] =>
  (facts as { speeds?: readonly number[] }).speeds ?? []

/** One link out of stock. @throws ProblemError 422 where none is left */
export async function takeLink(work: Work, partId: string): Promise<void> {
  const part = await work
    .of(PARTS)
    .findByPk(partId, { transaction: work.transaction, lock: work.transaction.LOCK.UPDATE })
  if (part && part.stock < 1) throw refuseField('linkPartId', 'link-short')
  await moveStock(work, partId, { id: v7(), kind: 'used', quantity: 1 })
}

async function written(
  work: Work,
  { chainId, click, at, becauseId, reason }: Omit<FirstClosing, 'kind' | 'partId'>,
  jointId: string,
): Promise<void> {
  await work.of(JOINT_EVENTS).create(
    {
      id: v7(),
      jointId,
      chainId,
      kind: 'closed',
      click,
      becauseId,
      occurredAt: at,
      ...newFact(work),
      reason,
    },
    { transaction: work.transaction },
  )
}

/** Closes a chain's link once more where nobody of the shop was there: it counts, and how it clicked is not known. */
export async function closedElsewhere(work: Work, closed: Omit<ClosedChain, 'closing'>): Promise<void> {
  const known = await jointOfChain(work, closed.chainId)
  if (known?.kind !== 'link') return
  await written(work, { ...closed, click: null, reason: null }, known.id)
}

/** Takes back what was closed for a fact that is taken back; a link that came out of stock for it lies there again. */
export async function reopen(work: Work, becauseId: string, reason: string): Promise<void> {
  const { of, transaction } = work
  const closed = await work.select<{ id: string; jointId: string; partId: string | null; fresh: boolean }>(
    `SELECT e.id, e.joint_id AS "jointId", j.part_id AS "partId", j.closings_before = 0 AND NOT EXISTS (SELECT 1
         FROM joint_events o WHERE o.joint_id = e.joint_id AND o.id <> e.id AND ${stands('joint_events', 'o')}) AS fresh
     FROM joint_events e JOIN joints j ON j.id = e.joint_id
     WHERE e.because_id = :becauseId AND ${stands('joint_events', 'e')}`,
    { becauseId },
  )
  for (const { id, partId, fresh } of closed) {
    const event = (await of(JOINT_EVENTS).findByPk(id, { transaction, rejectOnEmpty: true })).get({ plain: true })
    await of(JOINT_EVENTS).create({ ...event, id: v7(), ...tombstone(work, id, reason) }, { transaction })
    if (fresh && partId !== null)
      await moveStock(work, partId, { id: v7(), kind: 'received', quantity: 1, note: reason })
  }
}
