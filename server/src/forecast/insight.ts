import {
  assumptionsWith,
  CARE_KINDS,
  fitWear,
  shippedPrior,
  straightLineAt,
  wearBandAt,
  wearEvidence,
  type CareKind,
  type ForecastReading,
} from '@pelrin/core'
import type { Insight, VerdictInput } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { taughtChains } from './learning.ts'
import { priorVersions } from './priorsStore.ts'
import { newestRun } from './runs.ts'

/** Pairs of forecast and later reading scored; the newest ones. */
const SCORED = 300

/** What the shop has learned, and how its forecasts came true. */
export async function insight(work: Work): Promise<Insight> {
  const versions = await priorVersions(work)
  const inForce = versions.find(({ undoneAt }) => undoneAt === null)
  const { assumed } = await assumptionsInForce(work)
  const chains = await taughtChains(work)
  return {
    learned: inForce
      ? {
          version: inForce.version,
          learnedAt: inForce.learnedAt.toISOString(),
          person: inForce.person,
          groups: [...inForce.groups],
          unsaid: inForce.unsaid,
        }
      : null,
    versions: versions.map(({ version, learnedAt, person, undoneAt }) => ({
      version,
      learnedAt: learnedAt.toISOString(),
      person,
      undoneAt: undoneAt?.toISOString() ?? null,
    })),
    chains: CARE_KINDS.map((care) => ({
      care,
      chains: chains.filter((one) => one.care === care).length,
      shipped: shippedPrior(care, assumed.forecast),
    })),
    calibration: await calibration(work),
    job: await newestRun(work),
  }
}

interface Score {
  readonly care: CareKind
  readonly inside: boolean
  readonly error: number
  readonly lineError: number | null
}

/** Verdicts are never rewritten, so neither is how one came true by the next: scored once. By the two verdicts' ids. */
const scored = new Map<string, Score | null>()
const SCORES_KEPT = 20_000

/** Each forecast as it was made with its verdict, held against the next visit's reading of the same chain. */
async function calibration(work: Work): Promise<Insight['calibration']> {
  const pairs = await work.select<{ id: string; laterId: string }>(
    `SELECT id, "laterId" FROM (
       SELECT id, recorded_at, lead(id) OVER (PARTITION BY chain_id ORDER BY occurred_at, id) AS "laterId"
       FROM verdicts WHERE chain_id IS NOT NULL AND reading_id IS NOT NULL AND NOT deleted AND input ? 'life') AS v
     WHERE "laterId" IS NOT NULL ORDER BY recorded_at DESC LIMIT ${SCORED}`,
  )
  const wanted = pairs.filter((pair) => !scored.has(pair.id + pair.laterId))
  const inputs = new Map(
    (wanted.length === 0
      ? []
      : await work.select<{ id: string; input: VerdictInput }>(`SELECT id, input FROM verdicts WHERE id IN (:ids)`, {
          ids: wanted.flatMap(({ id, laterId }) => [id, laterId]),
        })
    ).map(({ id, input }) => [id, input]),
  )
  for (const { id, laterId } of wanted) {
    const made = inputs.get(id)
    const later = inputs.get(laterId)
    if (scored.size > SCORES_KEPT) scored.clear()
    scored.set(id + laterId, made && later ? scoreOf(made, later) : null)
    // Others are served in between.
    await new Promise((done) => setImmediate(done))
  }
  const scores = pairs.flatMap((pair) => scored.get(pair.id + pair.laterId) ?? [])
  return CARE_KINDS.flatMap((care) => {
    const own = scores.filter((score) => score.care === care)
    if (own.length === 0) return []
    const lines = own.flatMap(({ lineError }) => (lineError === null ? [] : [lineError]))
    return [
      {
        care,
        forecasts: own.length,
        inside: own.filter(({ inside }) => inside).length / own.length,
        error: median(own.map(({ error }) => error)),
        lineError: lines.length === 0 ? null : median(lines),
      },
    ]
  })
}

/** How a forecast came true by the next reading; null where it was withheld, or the reading gives no value to compare. */
function scoreOf(made: VerdictInput, later: VerdictInput): Score | null {
  const { life } = made
  if (!life || made.forecast === null) return null
  const assumed = assumptionsWith(made.assumptions ?? {})
  const known = wearEvidence(made.readings as ForecastReading[], made.chain.countChangedAt, assumed)
  const seen = wearEvidence(later.readings as ForecastReading[], later.chain.countChangedAt, assumed)
  const next = seen.visits.at(-1)?.observation
  const before = known.visits.map(({ observation }) => observation)
  const last = before.at(-1)
  if (!next || !('value' in next) || !last || next.s <= last.s) return null
  const posterior = fitWear({
    care: life.care,
    observations: before,
    baseline: known.baseline,
    start: life.start,
    prior: life.prior,
    defaults: assumed.forecast,
  })
  const there = wearBandAt(posterior, next.s)
  // What is read scatters beside what is so.
  const reach = 1.645 * next.u
  const line = straightLineAt(before, next.s, known.baseline?.value ?? assumed.forecast.epsilon0)
  return {
    care: life.care,
    inside:
      next.value >= there.middle - Math.hypot(there.middle - there.low, reach) &&
      next.value <= there.middle + Math.hypot(there.high - there.middle, reach),
    error: Math.abs(next.value - there.middle),
    lineError: line === null ? null : Math.abs(next.value - line),
  }
}

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0
