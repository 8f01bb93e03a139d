import type { VerdictWord } from '@pelrin/core'
import type { Decision } from '@pelrin/contract'
import type { Work } from '../db/work.ts'

interface DecisionFact {
  id: string
  occurredAt: Date
  verdictId: string
  overruled: VerdictWord
  decision: Decision['decision']
  reason: string
  person: string
  withdrawn: boolean
}

/** Decisions about the chain in a fitting, newest first, withdrawn ones among them. */
const select = (work: Work, bikeId: string, fittingId: string | null): Promise<DecisionFact[]> =>
  work.prepared<DecisionFact>(
    `SELECT d.id, d.occurred_at AS "occurredAt", d.verdict_id AS "verdictId", d.overruled, d.decision, d.reason,
       p.name AS person, later.id IS NOT NULL AS withdrawn
     FROM decisions d JOIN people p ON p.id = d.person_id
     LEFT JOIN decisions later ON later.supersedes_id = d.id
     WHERE d.bike_id = :bikeId AND d.fitting_id IS NOT DISTINCT FROM :fittingId::uuid AND NOT d.deleted
     ORDER BY d.recorded_at DESC, d.id DESC`,
    { bikeId, fittingId },
  )

/** The decision that stands beside a verdict: the newest not withdrawn, while the word is still the one overruled. */
export async function decisionStanding(
  work: Work,
  bikeId: string,
  fittingId: string | null,
  word: VerdictWord,
): Promise<DecisionFact | null> {
  const newest = (await select(work, bikeId, fittingId)).find(({ withdrawn }) => !withdrawn)
  return newest?.overruled === word ? newest : null
}

/** Every decision about a chain, with whether it still stands. */
export async function decisionsOf(
  work: Work,
  bikeId: string,
  fittingId: string | null,
  standsBeside: VerdictWord | null,
): Promise<Decision[]> {
  const all = await select(work, bikeId, fittingId)
  const newest = all.find(({ withdrawn }) => !withdrawn)
  return all.map((one) => ({
    ...one,
    occurredAt: one.occurredAt.toISOString(),
    stands: one === newest && one.overruled === standsBeside,
  }))
}
