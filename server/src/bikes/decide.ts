import type { BikeRecord, Decide } from '@pelrin/contract'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { lockBikeState, refreshBikeState } from '../state/bikeState.ts'
import { bikeRecord } from './record.ts'
import { inPlaceOf, withdraw } from '../db/facts.ts'
import { DECISIONS } from '../limits/models.ts'
import { BIKE_STATE } from '../state/models.ts'

/** Writes down that a mechanic decided otherwise than the verdict says, and flags the chain. */
export async function decide(work: Work, bikeId: string, decided: Decide): Promise<BikeRecord> {
  const { of, transaction } = work
  await lockBikeState(work, bikeId)
  const state = await of(BIKE_STATE).findByPk(bikeId, { transaction })
  if (!state) throw new ProblemError(404, 'bike-unknown')
  if (state.verdictId !== decided.verdictId)
    throw new ProblemError(409, 'verdict-moved-on', { current: await bikeRecord(work, bikeId) })
  if ((state.word === 'change') === (decided.decision === 'change-early'))
    throw refuseField('decision', 'decision-does-not-fit')
  await of(DECISIONS).create(
    {
      id: decided.id,
      occurredAt: work.now,
      // The one before, if any stands, gives way to this one.
      ...inPlaceOf(work, state.decisionId, decided.reason),
      bikeId,
      chainId: state.chainId,
      fittingId: state.fittingId,
      verdictId: decided.verdictId,
      overruled: state.word,
      decision: decided.decision,
    },
    { transaction },
  )
  await audited(work, 'decided', 'bike', bikeId, { decision: decided.decision, reason: decided.reason })
  await refreshBikeState(work, bikeId)
  return bikeRecord(work, bikeId)
}

/** Takes a decision back: a tombstone supersedes it, and the verdict stands alone again. */
export async function withdrawDecision(
  work: Work,
  id: string,
  withdrawal: { id: string; reason: string },
): Promise<BikeRecord> {
  const { of, transaction } = work
  const found = await of(DECISIONS).findByPk(id, { transaction })
  if (!found || found.deleted) throw new ProblemError(404, 'decision-unknown')
  await lockBikeState(work, found.bikeId)
  const gone = { unknown: 'decision-unknown', already: 'decision-withdrawn-already' } as const
  const { bikeId } = await withdraw(work, DECISIONS, id, withdrawal, gone, { occurredAt: work.now })
  await audited(work, 'took back', 'decision', id, { reason: withdrawal.reason })
  await refreshBikeState(work, bikeId)
  return bikeRecord(work, bikeId)
}
