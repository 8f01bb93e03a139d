import type { BikeMends, ChainJoint, Mend } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { stands } from '../db/facts.ts'
import { asChainJoint } from '../chains/joints.ts'
import { handlingOf } from '../jobs/handling.ts'
import { partsFacts } from '../parts/bikeParts.ts'
import { jointOfChain } from '../parts/jointStore.ts'

type Row = Omit<Mend, 'at' | 'addedBackAt'> & { at: Date; addedBackAt: Date | null }

/** The chain on a bike as mending it needs to know it. */
export interface ChainNow {
  readonly id: string
  readonly fittingId: string
  readonly name: string
  /** After every shortening that stands. */
  readonly pitches: number | null
  readonly offcut: number
  /** What it is closed with; null: nobody looked. */
  readonly joint: ChainJoint | null
  /** That is a link, and may be closed once more. */
  readonly ownLink: boolean
}

export async function chainNow(work: Work, bikeId: string): Promise<ChainNow | null> {
  const fitting = await presentFitting(work, bikeId)
  if (!fitting) return null
  const [more] = await work.select<{ pitchesAfter: number | null; offcut: number }>(
    `SELECT (SELECT e.pitches_after FROM chain_events e
         WHERE e.chain_id = :chainId AND e.pitches_after IS NOT NULL AND ${stands('chain_events', 'e')}
         ORDER BY e.occurred_at DESC, e.id DESC LIMIT 1) AS "pitchesAfter",
       (SELECT coalesce(max(o.pitches), 0)::int FROM offcuts o
         WHERE o.chain_id = :chainId AND o.gone_at IS NULL) AS offcut`,
    { chainId: fitting.chainId },
  )
  const known = await jointOfChain(work, fitting.chainId)
  const joint = known && asChainJoint(known)
  return {
    id: fitting.chainId,
    fittingId: fitting.id,
    name: fitting.chainName,
    pitches: more?.pitchesAfter ?? fitting.pitches,
    offcut: more?.offcut ?? 0,
    joint,
    ownLink: joint?.kind === 'link' && (joint.mayClose === 'yes' || joint.mayClose === 'not-known'),
  }
}

/** Breaks of a bike's chains, newest first, and the one that is on. @throws ProblemError 404 */
export async function bikeMends(work: Work, bikeId: string): Promise<BikeMends> {
  const facts = await partsFacts(work, bikeId)
  const handling = await handlingOf(work, facts)
  const rows = await work.select<Row>(
    `SELECT m.id, m.occurred_at AS at, p.name AS person, json_build_object('id', c.id, 'name', c.name) AS chain, m.pitches,
       m.broken, m.damaged, m.option, m.cause, m.choice, m.advised, m.roadside, m.follow_up_on::text AS "followUpOn",
       (SELECT max(e.occurred_at) FROM chain_events e WHERE e.because_id = m.id AND e.kind = 'lengthened'
          AND ${stands('chain_events', 'e')}) AS "addedBackAt"
     FROM mends m JOIN chains c ON c.id = m.chain_id JOIN people p ON p.id = m.person_id
     WHERE m.bike_id = :bikeId AND NOT m.deleted ORDER BY m.occurred_at DESC, m.id DESC`,
    { bikeId },
  )
  const chain = await chainNow(work, bikeId)
  return {
    chain,
    handling: chain && handling,
    care: facts.care,
    rePress: handling.rePress,
    assumptions: { ...(await assumptionsInForce(work)).overrides },
    mends: rows.map(({ at, addedBackAt, ...row }) => ({
      ...row,
      at: at.toISOString(),
      addedBackAt: addedBackAt?.toISOString() ?? null,
    })),
  }
}
