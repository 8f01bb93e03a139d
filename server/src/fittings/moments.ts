import type { Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { presentFitting, type PresentFitting } from './presentFitting.ts'

/** A fitting as far as a fact about its chain needs it, and whether the chain is still on. */
export type FittingMeant = Pick<PresentFitting, 'id' | 'chainId' | 'bikeId' | 'from'> & { readonly present: boolean }

/** A device's clock may be a little off ours, ms. */
const LEEWAY_MS = 5 * 60_000

/**
 * The fitting a fact was taken on. What arrives after the chain was changed belongs to the chain it was taken on, if that was on the bike then:
 * never, in silence, to the one that is on now.
 *
 * @throws ProblemError 422 with no chain on the bike and none meant; 409 where the chain that is meant was not on it then
 */
export async function fittingMeant(
  work: Work,
  bikeId: string,
  { fittingId, occurredAt }: { readonly fittingId: string; readonly occurredAt: string },
): Promise<FittingMeant> {
  const present = await presentFitting(work, bikeId)
  if (present?.id === fittingId) return { ...present, present: true }
  const [ended] = await work.select<{ id: string; chainId: string; from: Date; to: Date }>(
    `SELECT id, chain_id AS "chainId", lower(during) AS "from", upper(during) AS "to" FROM fittings
     WHERE id = :fittingId AND bike_id = :bikeId AND NOT upper_inf(during) AND NOT isempty(during)`,
    { fittingId, bikeId },
  )
  const at = Date.parse(occurredAt)
  if (ended && at >= ended.from.getTime() - LEEWAY_MS && at <= ended.to.getTime() + LEEWAY_MS)
    return { id: ended.id, chainId: ended.chainId, bikeId, from: ended.from, present: false }
  if (!present && !ended) throw refuseField('bikeId', 'bike-without-chain')
  throw new ProblemError(409, 'chain-changed-since')
}

/** The fitting of the chain that was on a bike at a moment; the one that is on now where none was, null with none at all. */
export async function fittingAt(work: Work, bikeId: string, at: Date): Promise<string | null> {
  const [found] = await work.select<{ id: string }>(
    `SELECT id FROM fittings WHERE bike_id = :bikeId AND NOT isempty(during)
     ORDER BY (during @> CAST(:at AS timestamptz)) DESC, upper_inf(during) DESC, lower(during) DESC LIMIT 1`,
    { bikeId, at },
  )
  return found?.id ?? null
}

/**
 * A piece of work on a bike whose moment lies after all that is written of the bike. A clock that leapt ahead and was set back would otherwise have
 * a chain come off before it went on, and the newest verdict not be the latest. Called once the bike is held.
 */
export async function afterAll(work: Work, bikeId: string): Promise<Work> {
  const [last] = await work.select<{ at: Date | null }>(
    `SELECT greatest(
       (SELECT max(lower(during)) FROM fittings WHERE bike_id = :bikeId),
       (SELECT max(recorded_at) FROM verdicts WHERE bike_id = :bikeId)) AS at`,
    { bikeId },
  )
  return last?.at && last.at >= work.now ? { ...work, now: new Date(last.at.getTime() + 1) } : work
}
