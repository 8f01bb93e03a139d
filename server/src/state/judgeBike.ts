import { chainVerdict } from '@pelrin/core'
import type { VerdictInput } from '@pelrin/contract'
import { v7 } from 'uuid'
import { type Work } from '../db/work.ts'
import { refreshBikeState } from './bikeState.ts'
import { afterAll } from '../fittings/moments.ts'
import type { ShopFacts } from './shopFacts.ts'
import { bikeFacts, forecastOf, shownOf } from './verdictInput.ts'
import { factBy } from '../db/facts.ts'
import { VERDICTS } from '../readings/models.ts'

/**
 * Judges the chain on a bike from all that is known now, stores the verdict with everything it rested on, and
 * brings the bike's state up to it.
 *
 * @param because the reading that made it due, and when it happened
 * @param shared what all bikes of the shop share, where many are judged
 * @param always false: only if what it rests on is not what the last verdict rested on
 * @returns whether a verdict was given
 */
export async function judgeBike(
  asked: Work,
  bikeId: string,
  because: { readingId: string | null; occurredAt: Date },
  shared?: ShopFacts,
  always = true,
): Promise<boolean> {
  const work = shared ? asked : await afterAll(asked, bikeId)
  const facts = await bikeFacts(work, bikeId, because.occurredAt, shared)
  const forecast = forecastOf(facts.input)
  const input: VerdictInput = { ...facts.input, forecast: shownOf(forecast) }
  if (!always && (await restsOnTheSame(work, bikeId, input))) return false
  const outcome = chainVerdict({ ...input, assumptions: input.assumptions ?? {} })
  await work.of(VERDICTS).create(
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
      input,
      outcome,
    },
    { transaction: work.transaction },
  )
  await refreshBikeState(work, bikeId, {
    forecast,
    chainDistance: facts.chainDistance,
    distance: facts.distance,
  })
  return true
}

/** When it is judged is no reason to judge anew. */
async function restsOnTheSame(work: Work, bikeId: string, input: VerdictInput): Promise<boolean> {
  const [last] = await work.select<{ same: boolean }>(
    `SELECT v.input - 'asOf' = CAST(:input AS jsonb) - 'asOf' AS same FROM bike_state s JOIN verdicts v ON v.id = s.verdict_id
     WHERE s.bike_id = :bikeId`,
    { bikeId, input: JSON.stringify(input) },
  )
  return last?.same === true
}
