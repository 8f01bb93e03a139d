import type { Closing, endpoints, Output, PotBoard, PotState } from '@pelrin/contract'
import { keptFromWax, needsBefore, type Cleaning } from '@pelrin/core'
import { v7 } from 'uuid'
import { writeCare } from '../care/service.ts'
import { brokenBy } from '../db/refused.ts'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { lockBikeState, refreshBikeState } from '../state/bikeState.ts'
import { potBoard } from './store.ts'
import { factBy, held, stands } from '../db/facts.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { closeAgain } from '../chains/closeAgain.ts'
import { BATH_CHANGES, POTS, POT_CHAINS, POT_EVENTS, type PotChainRow } from './models.ts'

/** Lets chains wait for the pot. @throws ProblemError 422 for an unknown chain, 409 for one that is on its way already */
export async function addToPot(work: Work, { chains }: Output<typeof endpoints.addToPot.body>): Promise<PotBoard> {
  for (const [i, one] of chains.entries()) {
    const [chain] = await work.select<{ bikeId: string | null; washed: boolean }>(
      `SELECT coalesce(f.bike_id, h.home_bike_id) AS "bikeId",
         coalesce((SELECT e.kind = 'wash' FROM care_events e WHERE e.chain_id = h.id AND e.kind <> 'squeak'
           AND ${stands('care_events', 'e')} ORDER BY e.occurred_at DESC, e.id DESC LIMIT 1), false) AS washed
       FROM chains h
       LEFT JOIN fittings f ON f.chain_id = h.id AND upper_inf(f.during) WHERE h.id = :id`,
      { id: one.chainId },
    )
    if (!chain) throw refuseField(`chains.${i}.chainId`, 'chain-missing')
    try {
      await work.of(POT_CHAINS).create(
        {
          ...one,
          needs: needsBefore(one.needs, chain.washed ? 'wet' : one.condition),
          condition: chain.washed && one.condition === 'clean' ? 'wet' : one.condition,
          readyBy: one.readyBy === null ? null : new Date(one.readyBy),
          bikeId: chain.bikeId,
          notBefore: null,
          state: 'waiting',
          potId: null,
          since: work.now,
          addedAt: new Date(work.now.getTime() + i),
          version: 1,
        },
        { transaction: work.transaction },
      )
    } catch (error) {
      if (brokenBy(error)?.rule === 'unique') throw new ProblemError(409, 'pot-there')
      throw error
    }
  }
  await audited(work, 'added', 'pot', work.shopId, { chains: chains.map(({ chainId }) => chainId) })
  return potBoard(work)
}

/** @throws ProblemError 404; 412 with the board when somebody was faster */
export async function changePotChain(
  work: Work,
  id: string,
  version: number,
  change: Output<typeof endpoints.changePotChain.body>,
): Promise<PotBoard> {
  const { transaction } = work
  const row = await work.of(POT_CHAINS).findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
  if (!row) throw new ProblemError(404, 'pot-chain-unknown')
  await held(row, version, () => potBoard(work))
  const { readyBy, notBefore, ...rest } = change
  await row.update(
    {
      ...rest,
      ...(readyBy === undefined ? {} : { readyBy: readyBy === null ? null : new Date(readyBy) }),
      ...(notBefore === undefined ? {} : { notBefore: notBefore === null ? null : new Date(notBefore) }),
      version: version + 1,
    },
    { transaction },
  )
  return potBoard(work)
}

/** What may follow what. One that was moved by mistake goes back to waiting; a session lets go of a chain at any time. */
const FOLLOWS: Readonly<Record<PotState, readonly PotState[]>> = {
  waiting: ['stripping', 'drying', 'in-pot', 'left'],
  stripping: ['drying', 'waiting', 'left'],
  drying: ['in-pot', 'waiting', 'left'],
  'in-pot': ['hanging', 'waiting', 'left'],
  hanging: ['done', 'waiting', 'left'],
  done: [],
  left: [],
}

/**
 * Chains go on together, in one transaction: a dip is in the pot with all its chains or with none. Done is written to each chain's
 * care.
 *
 * @throws ProblemError 422 for one that has to be stripped before it is waxed; 409 with the board where one is elsewhere by now, or a pot has not room for all of them
 */
export async function movePotChains(
  work: Work,
  { chains, to, potId, occurredAt }: Output<typeof endpoints.movePotChains.body>,
): Promise<PotBoard> {
  const { of, transaction } = work
  const at = new Date(Math.min(work.now.getTime(), Date.parse(occurredAt)))
  const rows = await of(POT_CHAINS).findAll({
    where: { id: chains.map(({ id }) => id) },
    order: ['id'],
    transaction,
    lock: transaction.LOCK.UPDATE,
  })
  const elsewhere = chains.some(({ id, from }) => {
    const row = rows.find((one) => one.id === id)
    return row?.state !== from || !FOLLOWS[from].includes(to)
  })
  if (elsewhere) throw new ProblemError(409, 'pot-moved', { current: await potBoard(work) })
  if (to === 'in-pot') {
    const { assumed } = await assumptionsInForce(work)
    for (const row of rows) {
      const lowered = { ...row.get({ plain: true }), since: row.since.getTime(), addedAt: row.addedAt.getTime() }
      const kept = keptFromWax(lowered, at.getTime(), assumed.pot)
      if (kept) throw refuseField('chains', `pot-${kept}`)
    }
    await roomFor(work, potId, chains.length)
  }
  for (const row of rows) {
    const from = row.state
    await of(POT_EVENTS).create(
      {
        id: v7(),
        potChainId: row.id,
        potId: to === 'in-pot' ? potId : row.potId,
        cameFrom: from,
        wentTo: to,
        occurredAt: at,
        ...factBy(work),
      },
      { transaction },
    )
    await row.update(
      {
        state: to,
        since: at,
        version: row.version + 1,
        ...(to === 'in-pot' ? { potId } : to === 'waiting' ? { potId: null } : {}),
        // Stripped once, dry once: it does not want it again.
        ...(from === 'stripping' && to === 'drying' ? { needs: 'dry' as const } : {}),
        ...(from === 'drying' && to === 'in-pot' ? { needs: 'nothing' as const } : {}),
      },
      { transaction },
    )
    if (to === 'done') await waxed(work, row, at)
  }
  await audited(work, to, 'pot', work.shopId, { chains: chains.map(({ id }) => id), potId })
  return potBoard(work)
}

async function roomFor(work: Work, potId: string | null, count: number): Promise<void> {
  const pot =
    potId === null
      ? null
      : await work.of(POTS).findByPk(potId, { transaction: work.transaction, lock: work.transaction.LOCK.UPDATE })
  if (!pot) throw refuseField('potId', 'pot-unknown')
  const there = await work.of(POT_CHAINS).count({
    where: { potId: pot.id, state: 'in-pot' },
    transaction: work.transaction,
  })
  if (there > 0) throw new ProblemError(409, 'pot-taken', { current: await potBoard(work) })
  if (count > pot.capacity) throw refuseField('chains', 'pot-full')
}

/** What was done to a chain stands in its care, however the session goes on. */
async function waxed(work: Work, row: PotChainRow, at: Date): Promise<void> {
  const stripped = await work.of(POT_EVENTS).count({
    where: { potChainId: row.id, wentTo: 'stripping' },
    transaction: work.transaction,
  })
  const cleaning: Cleaning = stripped > 0 ? 'strip' : 'wipe'
  const [on] = await work.select<{ bikeId: string }>(
    'SELECT bike_id AS "bikeId" FROM fittings WHERE chain_id = :chainId AND upper_inf(during)',
    { chainId: row.chainId },
  )
  await writeCare(work, {
    id: v7(),
    chainId: row.chainId,
    bikeId: on?.bikeId ?? null,
    kind: 'treated',
    care: 'immersion-wax',
    cleaning,
    at,
  })
  await work.execute(`UPDATE chains SET care = 'immersion-wax' WHERE id = :id`, { id: row.chainId })
  if (!on) return
  await lockBikeState(work, on.bikeId)
  await refreshBikeState(work, on.bikeId)
}

/**
 * A waxed chain went back on the bike it came off: its joint was closed once more, and it waits no longer.
 *
 * @throws ProblemError 404; 409 where it does not hang, or is on no bike; as closing does
 */
export async function backOn(work: Work, id: string, closing: Closing): Promise<PotBoard> {
  const { of, transaction } = work
  const row = await of(POT_CHAINS).findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
  if (!row) throw new ProblemError(404, 'pot-chain-unknown')
  const [on] = await work.select<{ bikeId: string }>(
    'SELECT bike_id AS "bikeId" FROM fittings WHERE chain_id = :chainId AND upper_inf(during)',
    { chainId: row.chainId },
  )
  if (row.state !== 'done' || row.backOnAt !== null || !on)
    throw new ProblemError(409, 'pot-hung-not', { current: await potBoard(work) })
  const closed = { chainId: row.chainId, bikeId: on.bikeId, closing, at: work.now, becauseId: id, toLink: true }
  await closeAgain(work, closed)
  await row.update({ backOnAt: work.now, version: row.version + 1 }, { transaction })
  await audited(work, 'back-on', 'chain', row.chainId, { bikeId: on.bikeId, ...closing })
  return potBoard(work)
}

/** @throws ProblemError 404; 412 with the board when somebody was faster */
export async function switchPot(
  work: Work,
  id: string,
  version: number,
  { on, ...change }: Output<typeof endpoints.switchPot.body>,
): Promise<PotBoard> {
  const { transaction } = work
  const pot = await work.of(POTS).findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
  if (!pot) throw new ProblemError(404, 'pot-unknown')
  await held(pot, version, () => potBoard(work))
  await pot.update(
    { ...change, ...(on === undefined ? {} : { onSince: on ? work.now : null }), version: version + 1 },
    { transaction },
  )
  await audited(work, 'changed', 'pot', id, { on, ...change })
  return potBoard(work)
}

export async function addPot(work: Work, pot: Output<typeof endpoints.addPot.body>): Promise<PotBoard> {
  await work
    .of(POTS)
    .create({ ...pot, onSince: null, thermometer: null, version: 1 }, { transaction: work.transaction })
  await audited(work, 'added', 'pot', pot.id, { name: pot.name, capacity: pot.capacity })
  return potBoard(work)
}

/** The wax of a pot was changed: it counts from nothing again. @throws ProblemError 404 */
export async function changeBath(work: Work, potId: string, id: string): Promise<PotBoard> {
  const { of, transaction } = work
  if (!(await of(POTS).findByPk(potId, { transaction }))) throw new ProblemError(404, 'pot-unknown')
  const { personId } = factBy(work)
  await of(BATH_CHANGES).create({ id, potId, occurredAt: work.now, personId }, { transaction })
  await audited(work, 'changed-bath', 'pot', potId)
  return potBoard(work)
}
