import type { JointModel } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { Chance } from './random.ts'
import type { PartRow } from '../catalogue/models.ts'
import { JOINTS, JOINT_EVENTS, type JointEventRow, type JointRow } from '../parts/models.ts'

/** A chain that was fitted, as far as its joint follows from it. */
export interface FittedChain {
  readonly chainId: string
  readonly partId: string
  readonly from: Date
  readonly waxed: boolean
}

/** Of so many chains nobody looked what one of them is closed with. */
const UNLOOKED = 4
/** Closings of a link whose chain goes into the wax pot. */
const WAXED_CLOSINGS = 2

/** Loads what chains are closed with: a link of their own speed, closed once for each time the chain came off. */
export async function loadJoints(
  { of, transaction }: Work,
  seed: number,
  parts: readonly PartRow[],
  fitted: readonly FittedChain[],
  personId: string,
): Promise<void> {
  const chance = new Chance(seed)
  const byId = new Map(parts.map((part) => [part.id, part]))
  const joints: JointRow[] = []
  const events: JointEventRow[] = []
  for (const [i, { chainId, partId, from, waxed }] of fitted.entries()) {
    const chain = byId.get(partId)
    if (!chain || (!waxed && i % UNLOOKED === UNLOOKED - 1)) continue
    const speeds = (chain.facts as Pick<JointModel, 'speeds'>).speeds
    const closes = parts.filter(
      ({ kind, facts }) =>
        kind === (speeds[0] === 1 ? 'clip' : 'link') && (facts as JointModel).speeds[0] === speeds[0],
    )
    // Who takes a chain off for its wax has a link that lasts more than once, of another maker if need be.
    const part =
      (waxed ? closes.find(({ facts }) => (facts as JointModel).reuse.kind === 'times') : undefined) ??
      closes.find(({ maker }) => maker === chain.maker)
    if (!part) continue
    const joint: JointRow = {
      id: chance.id(from),
      kind: part.kind === 'clip' ? 'clip' : 'link',
      partId: part.id,
      closingsBefore: waxed ? WAXED_CLOSINGS : 0,
    }
    joints.push(joint)
    events.push({
      id: chance.id(from),
      jointId: joint.id,
      chainId,
      kind: 'closed',
      click: 'firm',
      becauseId: null,
      occurredAt: from,
      recordedAt: from,
      personId,
      deviceId: null,
      supersedesId: null,
      reason: null,
      deleted: false,
    })
  }
  await of(JOINTS).bulkCreate(joints, { transaction })
  await of(JOINT_EVENTS).bulkCreate(events, { transaction })
}
