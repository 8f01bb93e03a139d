import type { Output, PresentJointSeen } from '@pelrin/contract'
import type { endpoints } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { jointOfChain } from './jointStore.ts'
import { newFact } from '../db/facts.ts'
import { BIKES } from '../bikes/models.ts'
import { PARTS } from '../catalogue/models.ts'
import { JOINTS, JOINT_EVENTS } from './models.ts'

/** What a chain is closed with now, by the last that was written down of it. */
export async function presentJoint(work: Work, chainId: string): Promise<PresentJointSeen | null> {
  const joint = await jointOfChain(work, chainId)
  if (!joint) return null
  const { kind, model, closings, firm, seenAt } = joint
  return { kind, model, closings, firm, seenAt: seenAt.toISOString() }
}

/** Parts a joint of a kind can be. */
const IS_PART: Readonly<Record<PresentJointSeen['kind'], readonly string[]>> = {
  link: ['link'],
  pin: ['pin'],
  clip: ['clip'],
  riveted: [],
}

/** Writes down what the chain on a bike is closed with, as somebody sees it. */
export async function seeJoint(
  work: Work,
  bikeId: string,
  { id, kind, partId, closings, firm }: Output<typeof endpoints.seeJoint.body>,
): Promise<PresentJointSeen> {
  const { of, transaction } = work
  if (!(await of(BIKES).findByPk(bikeId, { transaction }))) throw new ProblemError(404, 'bike-unknown')
  const fitting = await presentFitting(work, bikeId)
  if (!fitting) throw new ProblemError(409, 'no-chain-on')
  if (partId !== null) {
    const part = await of(PARTS).findByPk(partId, { transaction })
    if (!part || !IS_PART[kind].includes(part.kind)) throw refuseField('partId', 'part-unknown')
  }
  const jointId = v7()
  await of(JOINTS).create(
    { id: jointId, kind, partId, closingsBefore: kind === 'link' || kind === 'clip' ? closings : null },
    { transaction },
  )
  await of(JOINT_EVENTS).create(
    {
      id,
      jointId,
      chainId: fitting.chainId,
      kind: 'seen',
      click: firm === null ? null : firm ? 'firm' : 'weak',
      occurredAt: work.now,
      ...newFact(work),
    },
    { transaction },
  )
  await audited(work, 'saw', 'joint', jointId, { bikeId, kind, closings })
  return (await presentJoint(work, fitting.chainId))!
}
