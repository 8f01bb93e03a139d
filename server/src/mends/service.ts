import { addingBack, mendOptions, type AddedBack, type MendOption } from '@pelrin/core'
import type { AddPitchesBack, BikeMends, MendChain } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { closeAgain, closeFirst, refuseClick, takeLink } from '../chains/closeAgain.ts'
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
  const roadside = option !== null && said.mend?.roadside === true
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
      roadside,
      followUpOn: option && (await followUp(work, roadside)),
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
  if (mend.joint === 're-press' && rePress === 'excluded' && !mend.roadside)
    throw refuseField('mend', 're-press-excluded')
  const option = mendOptions({ pitches, broken, damaged, spare: offcut }, [mend.joint]).find(
    ({ way, inserted }) => way === mend.way && inserted.length > 0 === mend.inserted,
  )
  if (!option) throw refuseField('mend', 'mend-missing')
  if (mend.joint === 'link') refuseClick(click)
  return option
}

/** The day a mended chain is looked at again at the latest; one mended for the way home is changed by then. */
async function followUp(work: Work, roadside: boolean): Promise<string> {
  const { verdict } = (await assumptionsInForce(work)).assumed
  return daysLater(
    dayIn(await shopZone(work), work.now),
    roadside ? verdict.roadsideCheckDays : verdict.decidedCheckDays,
  )
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
    {
      id: v7(),
      chainId,
      kind: option.left < before ? 'shortened' : 'rejoined',
      pitchesAfter: option.left,
      becauseId: mendId,
      ...fact,
    },
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
  if (option.inserted.length > 0) await offcutGone(work, chainId)
}

/**
 * Puts pitches back into a chain that was shortened when it was mended: its count grows, its joints are written as the things they are. Its
 * readings so far are of another chain.
 *
 * @throws ProblemError 404 for a mend that took nothing off the chain that is on; 409 where that changed; 422 at what is wrong
 */
export async function addPitchesBack(
  asked: Work,
  { id: bikeId, mendId }: { readonly id: string; readonly mendId: string },
  said: AddPitchesBack,
): Promise<BikeMends> {
  await lockBikeState(asked, bikeId)
  const work = await afterAll(asked, bikeId)
  const chain = await chainNow(work, bikeId)
  if (!chain) throw new ProblemError(409, 'no-chain-on')
  if (chain.fittingId !== said.fittingId || chain.pitches === null) throw new ProblemError(409, 'chain-changed-since')
  const mend = (await bikeMends(work, bikeId)).mends.find(({ id }) => id === mendId)
  if (mend?.chain.id !== chain.id || mend.option === null || mend.option.lost <= 0 || mend.addedBackAt !== null)
    throw new ProblemError(404, 'mend-unknown')
  if (said.add % 2 !== 0) throw refuseField('add', 'add-back-odd')
  const added = addingBack({
    pitches: chain.pitches,
    add: said.add,
    by: said.by,
    linked: chain.joint?.kind === 'link',
    ownLink: chain.ownLink,
  })
  if (said.from === 'offcut' && chain.offcut < added.piece)
    throw refuseField('from', 'offcut-short', { offcut: chain.offcut })
  await work.of(CHAIN_EVENTS).create(
    {
      id: said.id,
      chainId: chain.id,
      kind: 'lengthened',
      pitchesAfter: added.left,
      becauseId: mendId,
      occurredAt: work.now,
      ...newFact(work),
      reason: said.from,
    },
    { transaction: work.transaction },
  )
  await joinBack(work, { bikeId, chainId: chain.id, added, said })
  if (said.from === 'offcut') await offcutGone(work, chain.id)
  await audited(work, 'lengthened', 'chain', chain.id, { bikeId, mendId, add: said.add, pitches: added.left })
  await judgeBike(work, bikeId, { readingId: null, occurredAt: work.now })
  return bikeMends(work, bikeId)
}

/** The joints of a piece that goes in: the chain's own link once more where that may be, then what is new. */
async function joinBack(
  work: Work,
  {
    bikeId,
    chainId,
    added: { by, newJoints, ownAgain },
    said: { id: becauseId, click, byFeel, linkPartId },
  }: { readonly bikeId: string; readonly chainId: string; readonly added: AddedBack; readonly said: AddPitchesBack },
): Promise<void> {
  if (by === 'link') refuseClick(click)
  if (ownAgain)
    await closeAgain(work, {
      ...{ chainId, bikeId, at: work.now, becauseId },
      closing: { click, byFeel, linkPartId: null },
    })
  const partId = by === 'link' ? linkPartId : null
  for (let i = 0; i < newJoints; i++) {
    if (partId !== null) await takeLink(work, partId)
    await closeFirst(work, {
      ...{ chainId, kind: by, partId, at: work.now, becauseId },
      click: by === 'link' ? click : null,
      reason: 'added-back',
    })
  }
}

const offcutGone = (work: Work, chainId: string): Promise<unknown> =>
  work.of(OFFCUTS).update({ goneAt: work.now }, { where: { chainId, goneAt: null }, transaction: work.transaction })
