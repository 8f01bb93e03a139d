import { mendOptions, type MendOption } from '@pelrin/core'
import type { BikeMends, MendChain } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { closeFirst, refuseClick, takeLink } from '../chains/closeAgain.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { afterAll } from '../fittings/moments.ts'
import { dayIn, daysLater } from '../days/days.ts'
import { shopZone } from '../days/shopZone.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { bikeMends, chainNow, type ChainNow } from './store.ts'
import { newFact } from '../db/facts.ts'
import { CHAIN_EVENTS } from '../chains/models.ts'
import { OFFCUTS } from '../jobs/models.ts'
import { MENDS } from './models.ts'

/**
 * Writes down that a chain broke. One that is mended has a new count and new joints from now on: its earlier readings say
 * nothing of it any more, and it is looked at again soon. One that is to be replaced stays as it is until its job is closed.
 *
 * @throws ProblemError 409 without a chain; 422 for what cannot be mended so, or a joint that does not hold
 */
export async function mendChain(asked: Work, bikeId: string, said: MendChain): Promise<BikeMends> {
  await lockBikeState(asked, bikeId)
  const work = await afterAll(asked, bikeId)
  const { of, transaction } = work
  const { rePress } = await bikeMends(work, bikeId)
  const chain = await chainNow(work, bikeId)
  if (!chain) throw new ProblemError(409, 'no-chain-on')
  // A chain that is off by now is mended by nobody on this bike.
  if (chain.fittingId !== said.fittingId) throw new ProblemError(409, 'chain-changed-since')
  const option = said.choice === 'mended' ? chosen(said, chain, rePress) : null
  const { id, pitches, broken, damaged, cause, choice, advised } = said
  await of(MENDS).create(
    {
      id,
      bikeId,
      chainId: chain.id,
      pitches,
      broken,
      damaged: [...damaged].sort((a, b) => a - b),
      option,
      cause,
      choice,
      advised,
      followUpOn: option && (await followUp(work)),
      occurredAt: work.now,
      ...newFact(work),
    },
    { transaction },
  )
  if (option) await rejoin(work, id, chain, option, pitches, said)
  await audited(work, 'mended', 'chain', chain.id, { bikeId, choice, lost: option?.lost ?? null })
  if (option) await judgeBike(work, bikeId, { readingId: null, occurredAt: work.now })
  return bikeMends(work, bikeId)
}

/** The way of mending that was chosen, worked out anew from what was found. */
function chosen(
  { pitches, broken, damaged, mend, click }: MendChain,
  { offcut }: ChainNow,
  rePress: BikeMends['rePress'],
): MendOption {
  if (mend === null) throw refuseField('mend', 'mend-missing')
  if (pitches % 2 !== 0) throw refuseField('pitches', 'count-odd')
  if (damaged.some((pitch) => pitch >= pitches) || !damaged.includes(0))
    throw refuseField('damaged', 'damaged-elsewhere')
  if (mend.joint === 're-press' && rePress === 'excluded') throw refuseField('mend', 're-press-excluded')
  const option = mendOptions({ pitches, broken, damaged, spare: offcut }, [mend.joint]).find(
    ({ way, inserted }) => way === mend.way && inserted.length > 0 === mend.inserted,
  )
  if (!option) throw refuseField('mend', 'mend-missing')
  if (mend.joint === 'link') refuseClick(click)
  return option
}

async function followUp(work: Work): Promise<string> {
  const { assumed } = await assumptionsInForce(work)
  return daysLater(dayIn(await shopZone(work), work.now), assumed.verdict.decidedCheckDays)
}

/** The chain's new count, its joints, and the piece that went into it. */
async function rejoin(
  work: Work,
  mendId: string,
  { id: chainId }: ChainNow,
  option: MendOption,
  before: number,
  { click, linkPartId }: Pick<MendChain, 'click' | 'linkPartId'>,
): Promise<void> {
  const { of, transaction } = work
  const fact = { occurredAt: work.now, ...newFact(work), reason: 'broken' }
  await of(CHAIN_EVENTS).create(
    { id: v7(), chainId, kind: option.left < before ? 'shortened' : 'rejoined', pitchesAfter: option.left, ...fact },
    { transaction },
  )
  // A link is the thing it is, out of stock where it came from there.
  const partId = option.joint === 'link' ? linkPartId : null
  for (let i = 0; i < option.joints; i++) {
    if (partId !== null) await takeLink(work, partId)
    await closeFirst(work, {
      chainId,
      kind: option.joint === 're-press' ? 'riveted' : option.joint,
      partId,
      click: option.joint === 'link' ? click : null,
      at: work.now,
      becauseId: mendId,
      reason: 'broken',
    })
  }
  if (option.inserted.length > 0)
    await of(OFFCUTS).update({ goneAt: work.now }, { where: { chainId, goneAt: null }, transaction })
}
