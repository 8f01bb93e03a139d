import { assumptionsWith, wearEvidence, type ForecastReading, type Surface } from '@pelrin/core'
import type { VerdictInput } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { RIDE_STANDS } from '../distance/store.ts'
import type { ShopJobs } from '../queue/queue.ts'
import type { TaughtChain } from '../queue/learnAsked.ts'
import { priorVersions } from './priorsStore.ts'
import { PRIOR_VERSIONS } from './models.ts'

/** The readings of every chain as the newest verdict of it took them, by chain. */
export async function taughtChains(work: Work): Promise<TaughtChain[]> {
  const verdicts = await work.select<{ id: string; bikeId: string }>(
    `SELECT DISTINCT ON (chain_id) id, bike_id AS "bikeId" FROM verdicts
     WHERE chain_id IS NOT NULL AND NOT deleted AND input ? 'life'
     ORDER BY chain_id, recorded_at DESC, id DESC`,
  )
  const surfaces = await work.select<{ bikeId: string; surface: Surface }>(
    `SELECT DISTINCT ON (r.bike_id) r.bike_id AS "bikeId", r.surface FROM rides r
     WHERE ${RIDE_STANDS} AND r.surface IS NOT NULL
     GROUP BY r.bike_id, r.surface ORDER BY r.bike_id, sum(r.km) DESC`,
  )
  const surfaceOf = new Map(surfaces.map(({ bikeId, surface }) => [bikeId, surface]))
  const unknown = verdicts.filter(({ id }) => !evidence.has(id))
  if (evidence.size + unknown.length > EVIDENCE_KEPT) evidence.clear()
  for (let at = 0; at < unknown.length; at += AT_A_TIME) {
    const inputs = await work.select<{ id: string; input: VerdictInput }>(
      'SELECT id, input FROM verdicts WHERE id IN (:ids)',
      {
        ids: unknown.slice(at, at + AT_A_TIME).map(({ id }) => id),
      },
    )
    for (const { id, input } of inputs) evidence.set(id, evidenceOf(input))
    // Others are served in between.
    await new Promise((done) => setImmediate(done))
  }
  return verdicts.flatMap(({ id, bikeId }) => {
    const known = evidence.get(id)
    if (!known) return []
    const { care, chain } = known
    return [{ care, surface: surfaceOf.get(bikeId) ?? null, chain }]
  })
}

type Evidence = Pick<TaughtChain, 'care' | 'chain'>

/** A verdict is never rewritten, so neither is what its readings say: worked out once. By the verdict's id. */
const evidence = new Map<string, Evidence | null>()
const EVIDENCE_KEPT = 200_000
const AT_A_TIME = 50

/** What a chain's readings say; null with fewer than two visits. */
function evidenceOf(input: VerdictInput): Evidence | null {
  if (!input.life) return null
  const { baseline, visits } = wearEvidence(
    input.readings as ForecastReading[],
    input.chain.countChangedAt,
    assumptionsWith(input.assumptions ?? {}),
  )
  if (visits.length < 2) return null
  const observations = visits.map(({ observation }) => observation)
  return { care: input.life.care, chain: { observations, baseline, start: input.life.start } }
}

/** Learns anew and puts what was learned in force as a version of its own. */
export async function learn(work: Work, jobs: ShopJobs, id: string): Promise<void> {
  const { assumed } = await assumptionsInForce(work)
  // One at a time: two must not both write version 3.
  await work.select('SELECT id FROM shops WHERE id = :id FOR NO KEY UPDATE', { id: work.shopId })
  const version = ((await priorVersions(work))[0]?.version ?? 0) + 1
  const { groups, unsaid } = await jobs.learn({ chains: await taughtChains(work), assumed })
  await work
    .of(PRIOR_VERSIONS)
    .create(
      { id, version, learnedAt: work.now, personId: authorOf(work).personId, groups, unsaid, undoneAt: null },
      { transaction: work.transaction },
    )
  await audited(work, 'learned', 'prior', id, { version, groups: groups.length })
}

/** Takes the newest learning back. @throws ProblemError 409 when another one is newest */
export async function undoLearning(work: Work, version: number): Promise<void> {
  const newest = (await priorVersions(work)).find(({ undoneAt }) => undoneAt === null)
  if (newest?.version !== version) throw new ProblemError(409, 'learning-stale')
  await work.of(PRIOR_VERSIONS).update({ undoneAt: work.now }, { where: { version }, transaction: work.transaction })
  await audited(work, 'took back', 'prior', v7(), { version })
}
