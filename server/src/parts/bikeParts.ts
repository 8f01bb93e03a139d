import {
  chainSpeeds,
  factsWanted,
  fixedLengths,
  judgeChain,
  judgeJoint,
  lengthSchools,
  matchChains,
  matchJoints,
  newJoint,
  removalsAYear,
  type Assumptions,
  type ChainModel,
  type JointQuery,
  type PartsDrive,
} from '@pelrin/core'
import type { BikeParts, DriveDescription, JudgedChain, JudgedJoint } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../http/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { presentFitting } from '../state/presentFitting.ts'
import { catalogue, systems } from './catalogue.ts'
import { driveOf } from './drive.ts'

/** As many as a screen shows; what is asked about by name comes beside them. */
const SHOWN = 12
const ASKED = 8

/** What fits a bike, by the rules of the core; the drive as it is known, the whole catalogue. */
export async function bikeParts(
  work: Work,
  bikeId: string,
  asked: { pitches?: number | undefined; chain?: string | undefined; ask?: string | undefined },
): Promise<BikeParts> {
  const bike = await work.models.Bike.findByPk(bikeId, { transaction: work.transaction })
  const drive = await driveOf(work, bikeId)
  if (!bike || !drive) throw new ProblemError(404, 'bike-unknown')
  const { assumed } = await assumptionsInForce(work)
  const fitting = await presentFitting(work, bikeId)
  const state = await work.models.BikeState.findByPk(bikeId, { transaction: work.transaction })
  const care = fitting?.care ?? 'unknown'
  const oldPitches = fitting?.pitches ?? null
  const pitches = asked.pitches ?? recommended(drive, oldPitches, assumed)
  const sprocketsSuspect = state?.advice != null
  const wants: PartsDrive = {
    ...drive,
    pitches,
    sprocketsSuspect,
    care,
  }
  const { chains, joints } = await catalogue(work)
  const ranked = matchChains(wants, chains)
  const shownChains = ranked.slice(0, SHOWN)
  const named = namedLike(asked.ask)
  const best = ranked.find(({ outcome }) => outcome !== 'does-not-fit')
  const chosen = asked.chain === undefined ? best?.part : chains.find(({ id }) => id === asked.chain)
  if (asked.chain !== undefined && !chosen) throw refuseField('chain', 'part-unknown')
  const query = chosen && jointQuery(wants, chosen, assumed)
  const rankedJoints = query ? matchJoints(query, [...joints.map(newJoint), { model: 're-press' as const }]) : []
  const shownJoints = rankedJoints.slice(0, SHOWN)
  const notExcluded = ranked.filter(({ outcome }) => outcome !== 'does-not-fit')
  return {
    version: bike.version,
    drive,
    care,
    sprocketsSuspect,
    oldPitches,
    pitches,
    chains: askedFirst(
      shownChains,
      named(chains),
      ({ part }) => part.id,
      (chain) => judgeChain(wants, chain),
    ) as unknown as JudgedChain[],
    chainsInAll: ranked.length,
    chainsExcluded: ranked.length - notExcluded.length,
    chainId: chosen?.id ?? null,
    joints: (query
      ? askedFirst(
          shownJoints,
          named(joints),
          ({ part }) => (part.model === 're-press' ? '' : part.model.id),
          (joint) => judgeJoint(query, newJoint(joint)),
        )
      : []) as unknown as JudgedJoint[],
    jointsInAll: joints.length,
    wanted: factsWanted(notExcluded) as unknown as BikeParts['wanted'],
    systems: await systems(work),
  }
}

function jointQuery(wants: PartsDrive, chain: ChainModel, assumed: Assumptions): JointQuery {
  return {
    chain,
    newChain: true,
    speeds: chainSpeeds(wants),
    school: 'strict',
    care: wants.care,
    assumed,
    removalsAYear: removalsAYear(wants, assumed),
  }
}

/** The best of a list, after those somebody asked about by name. */
function askedFirst<Part extends { id: string }, Judgement>(
  shown: readonly Judgement[],
  asked: readonly Part[],
  idOf: (judged: Judgement) => string,
  judge: (part: Part) => Judgement,
): Judgement[] {
  const ids = new Set(asked.map(({ id }) => id))
  return [...asked.map(judge), ...shown.filter((one) => !ids.has(idOf(one)))]
}

/** Parts whose maker and name have every word of what was asked. */
function namedLike(ask = ''): <Part extends { maker: string; name: string }>(parts: readonly Part[]) => Part[] {
  const words = ask.toLowerCase().split(/\s+/).filter(Boolean)
  return (parts) =>
    words.length === 0
      ? []
      : parts
          .filter(({ maker, name }) => words.every((word) => `${maker} ${name}`.toLowerCase().includes(word)))
          .slice(0, ASKED)
}

/** The count a bike's chain should have: by its derailleur, or the shortest its axle takes; else that of the old one. */
function recommended(drive: DriveDescription, oldPitches: number | null, assumed: Assumptions): number | null {
  if (drive.type === 'derailleur') return lengthSchools(drive, oldPitches, assumed)[0]?.pitches ?? oldPitches
  const [frontTeeth] = drive.fronts
  const [rearTeeth] = drive.sprockets
  if (drive.axleMm === null || frontTeeth === undefined || rearTeeth === undefined) return oldPitches
  const found = fixedLengths(
    { frontTeeth, rearTeeth, fromMm: drive.axleMm.from, toMm: drive.axleMm.to, halfLink: false },
    assumed,
  )
  return found[0]?.pitches ?? oldPitches
}
