import { chainVerdict } from '@pelrin/core'
import { v7 } from 'uuid'
import { factBy, type Work } from '../db/work.ts'
import { refreshBikeState } from './bikeState.ts'
import type { ShopFacts } from './shopFacts.ts'
import { bikeFacts } from './verdictInput.ts'

/**
 * Judges the chain on a bike from all that is known now, stores the verdict with everything it rested on, and
 * brings the bike's state up to it.
 *
 * @param because the reading that made it due, and when it happened
 * @param shared what all bikes of the shop share, where many are judged
 */
export async function judgeBike(
  work: Work,
  bikeId: string,
  because: { readingId: string | null; occurredAt: Date },
  shared?: ShopFacts,
): Promise<void> {
  const facts = await bikeFacts(work, bikeId, because.occurredAt, shared)
  const outcome = chainVerdict(facts.input)
  await work.models.Verdict.create(
    {
      id: v7(),
      occurredAt: because.occurredAt,
      ...factBy(work),
      bikeId,
      chainId: facts.fitting?.chainId ?? null,
      fittingId: facts.fitting?.id ?? null,
      readingId: because.readingId,
      houseRuleVersionId: facts.rule.versionId,
      word: outcome.word,
      probability: outcome.probabilityOver,
      input: facts.input,
      outcome,
    },
    { transaction: work.transaction },
  )
  await refreshBikeState(work, bikeId)
}
