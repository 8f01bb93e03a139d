import {
  learnLife,
  shippedPrior,
  wearEvidence,
  assumptionsWith,
  CARE_KINDS,
  SURFACES,
  CHAINS_TO_LEARN,
  type Assumptions,
  type CareKind,
  type ForecastReading,
  type LearningChain,
  type Surface,
} from '@pelrin/core'
import type { LearnedGroup, VerdictInput } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { RIDE_STANDS } from '../distance/store.ts'
import { priorVersions } from './priorsStore.ts'

/** A chain to learn from: every one with two readings or more, finished, running and changed early alike. */
export interface TaughtChain {
  readonly care: CareKind
  /** What its bike is ridden on most; null when nobody said. */
  readonly surface: Surface | null
  readonly chain: LearningChain
}

/** The readings of every chain as the newest verdict of it took them, by chain. */
export async function taughtChains(work: Work, assumed: Assumptions): Promise<TaughtChain[]> {
  const verdicts = await work.select<{ bikeId: string; input: VerdictInput }>(
    `SELECT DISTINCT ON (chain_id) bike_id AS "bikeId", input FROM verdicts
     WHERE chain_id IS NOT NULL AND NOT deleted AND input ? 'life'
     ORDER BY chain_id, recorded_at DESC, id DESC`,
  )
  const surfaces = await work.select<{ bikeId: string; surface: Surface }>(
    `SELECT DISTINCT ON (r.bike_id) r.bike_id AS "bikeId", r.surface FROM rides r
     WHERE ${RIDE_STANDS} AND r.surface IS NOT NULL
     GROUP BY r.bike_id, r.surface ORDER BY r.bike_id, sum(r.km) DESC`,
  )
  const surfaceOf = new Map(surfaces.map(({ bikeId, surface }) => [bikeId, surface]))
  return verdicts.flatMap(({ bikeId, input }) => {
    if (!input.life) return []
    const { baseline, visits } = wearEvidence(
      input.readings as ForecastReading[],
      input.chain.countChangedAt,
      assumptionsWith(input.assumptions),
    )
    if (visits.length < 2) return []
    const chain: LearningChain = {
      observations: visits.map(({ observation }) => observation),
      baseline,
      start: input.life.start,
      defaults: assumed.forecast,
    }
    return [{ care: input.life.care, surface: surfaceOf.get(bikeId) ?? null, chain }]
  })
}

/** What chains teach: each care with enough of them, and each care on one usual surface with enough of those. */
export function learnFrom(chains: readonly TaughtChain[], assumed: Assumptions): LearnedGroup[] {
  return CARE_KINDS.flatMap((care) => {
    const ofCare = chains.filter((one) => one.care === care)
    return [null, ...SURFACES].flatMap((surface) => {
      const group = surface === null ? ofCare : ofCare.filter((one) => one.surface === surface)
      const learned = learnLife(
        care,
        group.map(({ chain }) => chain),
        assumed.forecast,
      )
      if (!learned || group.length < CHAINS_TO_LEARN) return []
      const { prior: _, ...rest } = learned
      return [
        {
          ...rest,
          lifeRange: [...rest.lifeRange] as [number, number],
          care,
          surface,
          shipped: shippedPrior(care, assumed.forecast),
        },
      ]
    })
  })
}

/** Learns anew and puts what was learned in force as a version of its own. */
export async function learn(work: Work, id: string): Promise<void> {
  const { assumed } = await assumptionsInForce(work)
  // One at a time: two must not both write version 3.
  await work.select('SELECT id FROM shops WHERE id = :id FOR NO KEY UPDATE', { id: work.shopId })
  const version = ((await priorVersions(work))[0]?.version ?? 0) + 1
  const groups = learnFrom(await taughtChains(work, assumed), assumed)
  await work.models.PriorVersion.create(
    { id, version, learnedAt: work.now, personId: authorOf(work).personId, groups, undoneAt: null },
    { transaction: work.transaction },
  )
  await audited(work, 'learned', 'prior', id, { version, groups: groups.length })
}

/** Takes the newest learning back. @throws ProblemError 409 when another one is newest */
export async function undoLearning(work: Work, version: number): Promise<void> {
  const newest = (await priorVersions(work)).find(({ undoneAt }) => undoneAt === null)
  if (newest?.version !== version) throw new ProblemError(409, 'learning-stale')
  await work.models.PriorVersion.update({ undoneAt: work.now }, { where: { version }, transaction: work.transaction })
  await audited(work, 'took back', 'prior', v7(), { version })
}
