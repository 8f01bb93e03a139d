import type { endpoints } from '@pelrin/contract'
import type { BikeChains, ChainPage, Output } from '@pelrin/contract'
import { lockPresentBike } from '../bikes/lockPresentBike.ts'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { afterAll } from '../fittings/moments.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { closeAgain } from './closeAgain.ts'
import { chainFits } from './fits.ts'
import { setAside } from './setAside.ts'
import { bikeChains, chainById } from './store.ts'
import { chainPage } from './timeline.ts'
import { held } from '../db/facts.ts'
import { BIKES } from '../bikes/models.ts'
import { CHAINS, FITTINGS } from './models.ts'

/** Adds a chain to a bike's rotation; it waits there until it is put on. */
export async function addChain(
  work: Work,
  bikeId: string,
  { id, name, pitches, care }: Output<typeof endpoints.addChain.body>,
): Promise<BikeChains> {
  const { of, transaction } = work
  if (!(await of(BIKES).findByPk(bikeId, { transaction }))) throw new ProblemError(404, 'bike-unknown')
  await of(CHAINS).create(
    { id, name, pitches, care, partId: null, fate: 'rotation', homeBikeId: bikeId, version: 1 },
    { transaction },
  )
  await audited(work, 'added', 'chain', id, { bikeId, name, pitches, care })
  return bikeChains(work, bikeId)
}

/**
 * Puts another chain on a bike. The one that was on goes into the bike's rotation with its wear and its distance; the one that
 * goes on brings its own, and its joint is closed once more.
 *
 * @throws ProblemError 409 where the chain is on a bike already or was scrapped, 422 at `click` or `byFeel` for a joint that
 *   does not hold or was closed as often as its maker says
 */
export async function swapChain(
  asked: Work,
  bikeId: string,
  { id, chainId, ...closing }: Output<typeof endpoints.swapChain.body>,
): Promise<BikeChains> {
  await lockPresentBike(asked, bikeId)
  await lockBikeState(asked, bikeId)
  const work = await afterAll(asked, bikeId)
  const { of, transaction } = work
  const [open] = await work.select(`SELECT id FROM jobs WHERE bike_id = :bikeId AND state = 'open'`, { bikeId })
  if (open) throw new ProblemError(409, 'job-open-already')
  // Two bikes that want one chain at once wait for each other here.
  const row = await of(CHAINS).findByPk(chainId, { transaction, lock: transaction.LOCK.UPDATE })
  const chain = row && (await chainById(work, chainId))
  if (!chain) throw new ProblemError(404, 'chain-missing')
  if (chain.state === 'on')
    throw new ProblemError(409, chain.bike?.id === bikeId ? 'chain-on-already' : 'chain-elsewhere')
  if (chain.state === 'scrapped') throw new ProblemError(409, 'chain-scrapped')
  if (!(await chainFits(work, bikeId))(row.partId)) throw new ProblemError(409, 'chain-misfit')
  const before = await presentFitting(work, bikeId)
  if (before) {
    await work.execute(
      `UPDATE fittings SET during = tstzrange(lower(during), :now, '[)'), end_reason = 'swapped' WHERE id = :id`,
      { now: work.now, id: before.id },
    )
    await setAside(work, before.chainId, { fate: 'rotation', homeBikeId: bikeId })
  }
  const { fate, homeBikeId } = row.get({ plain: true })
  await row.update({ fate: null, homeBikeId: null, version: row.version + 1 }, { transaction })
  await of(FITTINGS).create(
    {
      id,
      bikeId,
      chainId,
      during: [
        { value: work.now, inclusive: true },
        { value: null, inclusive: false },
      ],
      // One that ran here before goes on from where it was; one nobody saw run is new.
      start: await startOf(work, chainId),
      endReason: null,
      cameFrom: { fate, homeBikeId },
      personId: authorOf(work).personId,
      recordedAt: work.now,
    },
    { transaction },
  )
  await closeAgain(work, { chainId, bikeId, closing, at: work.now, becauseId: id })
  await audited(work, 'swapped', 'fitting', id, {
    bikeId,
    chainId,
    before: before?.chainId ?? null,
    ...closing,
  })
  await judgeBike(work, bikeId, { readingId: null, occurredAt: work.now })
  return bikeChains(work, bikeId)
}

async function startOf(work: Work, chainId: string): Promise<'fitted' | 'stated' | 'unknown'> {
  const [first] = await work.select<{ start: 'fitted' | 'stated' | 'unknown' }>(
    `SELECT start FROM fittings WHERE chain_id = :chainId AND NOT isempty(during) ORDER BY lower(during) LIMIT 1`,
    { chainId },
  )
  return first?.start ?? 'fitted'
}

/** Changes what is said of a chain. @throws ProblemError 412 with the newer, 409 for the fate of one that is on */
export async function changeChain(
  work: Work,
  id: string,
  version: number,
  change: Output<typeof endpoints.changeChain.body>,
): Promise<ChainPage> {
  const { of, transaction } = work
  const row = await of(CHAINS).findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
  if (!row) throw new ProblemError(404, 'chain-missing')
  const page = await chainPage(work, id)
  await held(row, version, () => page)
  if (change.fate !== undefined && page.chain.state === 'on') throw new ProblemError(409, 'chain-still-on')
  const [last] = await work.select<{ bikeId: string }>(
    `SELECT bike_id AS "bikeId" FROM fittings WHERE chain_id = :id AND NOT isempty(during) ORDER BY lower(during) DESC LIMIT 1`,
    { id },
  )
  await row.update(
    {
      ...change,
      version: version + 1,
      // In rotation it waits for the bike it ran on.
      ...(change.fate === undefined
        ? {}
        : { homeBikeId: change.fate === 'rotation' ? (row.homeBikeId ?? last?.bikeId ?? null) : null }),
    },
    { transaction },
  )
  await audited(work, 'changed', 'chain', id, change)
  if (change.care !== undefined && page.chain.state === 'on' && last)
    await judgeBike(work, last.bikeId, { readingId: null, occurredAt: work.now })
  return chainPage(work, id)
}
