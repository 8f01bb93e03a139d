import { chainSpeeds, rePressOf, type ChainModel, type DriveType } from '@pelrin/core'
import type { BikeMends, Mend } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { stands } from '../db/facts.ts'

type Row = Omit<Mend, 'at'> & { at: Date }

/** The chain on a bike as mending it needs to know it. */
export interface ChainNow {
  readonly id: string
  readonly fittingId: string
  readonly name: string
  /** After every shortening that stands. */
  readonly pitches: number | null
  readonly offcut: number
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
  return {
    id: fitting.chainId,
    fittingId: fitting.id,
    name: fitting.chainName,
    pitches: more?.pitchesAfter ?? fitting.pitches,
    offcut: more?.offcut ?? 0,
  }
}

/** Breaks of a bike's chains, newest first, and the one that is on. @throws ProblemError 404 */
export async function bikeMends(work: Work, bikeId: string): Promise<BikeMends> {
  const [drive] = await work.select<{ type: DriveType; speeds: number; facts: Partial<ChainModel> | null }>(
    `SELECT d.type, d.speeds, p.facts FROM drives d
     LEFT JOIN fittings f ON f.bike_id = d.bike_id AND upper_inf(f.during)
     LEFT JOIN chains c ON c.id = f.chain_id LEFT JOIN parts p ON p.id = c.part_id WHERE d.bike_id = :bikeId`,
    { bikeId },
  )
  if (!drive) throw new ProblemError(404, 'bike-unknown')
  const rows = await work.select<Row>(
    `SELECT m.id, m.occurred_at AS at, p.name AS person, json_build_object('id', c.id, 'name', c.name) AS chain, m.pitches,
       m.broken, m.damaged, m.option, m.cause, m.choice, m.advised, m.follow_up_on::text AS "followUpOn"
     FROM mends m JOIN chains c ON c.id = m.chain_id JOIN people p ON p.id = m.person_id
     WHERE m.bike_id = :bikeId AND NOT m.deleted ORDER BY m.occurred_at DESC, m.id DESC`,
    { bikeId },
  )
  return {
    chain: await chainNow(work, bikeId),
    rePress: rePressOf({ speeds: chainSpeeds(drive), flaredPins: drive.facts?.flaredPins ?? false }),
    assumptions: { ...(await assumptionsInForce(work)).overrides },
    mends: rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() })),
  }
}
