import type { JointModel, Output, PresentJointSeen } from '@pelrin/contract'
import type { endpoints } from '@pelrin/contract'
import { v7 } from 'uuid'
import type { PartRow } from '../db/models/rows.ts'
import { audited, factBy, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../http/problem.ts'
import { presentFitting } from '../state/presentFitting.ts'

interface Seen {
  kind: PresentJointSeen['kind']
  jointId: string
  partId: string | null
  closings: number | null
  click: 'firm' | 'weak' | 'none' | null
  seenAt: Date
}

/** What a chain is closed with now, by the last that was written down of it. */
export async function presentJoint(work: Work, chainId: string): Promise<PresentJointSeen | null> {
  const [seen] = await work.select<Seen>(
    `SELECT j.kind, j.id AS "jointId", j.part_id AS "partId", e.click, e.occurred_at AS "seenAt",
       j.closings_before + (SELECT count(*)::int FROM joint_events c
         WHERE c.joint_id = j.id AND c.kind = 'closed' AND NOT c.deleted
           AND NOT EXISTS (SELECT 1 FROM joint_events later WHERE later.supersedes_id = c.id)) AS closings
     FROM joint_events e JOIN joints j ON j.id = e.joint_id
     WHERE e.chain_id = :chainId AND NOT e.deleted
       AND NOT EXISTS (SELECT 1 FROM joint_events later WHERE later.supersedes_id = e.id)
     ORDER BY e.occurred_at DESC, e.id DESC LIMIT 1`,
    { chainId },
  )
  if (!seen) return null
  const part =
    seen.partId === null ? null : await work.models.Part.findByPk(seen.partId, { transaction: work.transaction })
  return {
    kind: seen.kind,
    model: part && asJointModel(part.get({ plain: true })),
    closings: seen.closings,
    firm: seen.click === null ? null : seen.click === 'firm',
    seenAt: seen.seenAt.toISOString(),
  }
}

const asJointModel = ({ id, kind, maker, name, price, stock, facts }: PartRow): JointModel =>
  ({ id, kind, maker, name, price, stock, ...facts }) as JointModel

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
  const { models, transaction } = work
  if (!(await models.Bike.findByPk(bikeId, { transaction }))) throw new ProblemError(404, 'bike-unknown')
  const fitting = await presentFitting(work, bikeId)
  if (!fitting) throw new ProblemError(409, 'no-chain-on')
  if (partId !== null) {
    const part = await models.Part.findByPk(partId, { transaction })
    if (!part || !IS_PART[kind].includes(part.kind)) throw refuseField('partId', 'part-unknown')
  }
  const jointId = v7()
  await models.Joint.create(
    { id: jointId, kind, partId, closingsBefore: kind === 'link' || kind === 'clip' ? closings : null },
    { transaction },
  )
  await models.JointEvent.create(
    {
      id,
      jointId,
      chainId: fitting.chainId,
      kind: 'seen',
      click: firm === null ? null : firm ? 'firm' : 'weak',
      occurredAt: work.now,
      ...factBy(work),
      supersedesId: null,
      reason: null,
      deleted: false,
    },
    { transaction },
  )
  await audited(work, 'saw', 'joint', jointId, { bikeId, kind, closings })
  return (await presentJoint(work, fitting.chainId))!
}
