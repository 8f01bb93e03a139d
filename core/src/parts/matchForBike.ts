import type { Assumptions } from '../assumptions.ts'
import type { ChainModel, JointModel, PartsDrive } from './describe.ts'
import type { JointCandidate } from './jointRules.ts'
import type { ReuseSchool } from './reuse.ts'
import {
  factsWanted,
  judgeChain,
  judgeJoint,
  matchJoints,
  newJoint,
  siftChains,
  removalsAYear,
  type FactWanted,
  type JointQuery,
  type JudgedChain,
  type JudgedJoint,
} from './matchParts.ts'
import { chainSpeeds } from './speeds.ts'

/** Chains and joints that can be had; their stock is what is held back for nobody. */
export interface Catalogue {
  readonly chains: readonly ChainModel[]
  readonly joints: readonly JointModel[]
}

/** The catalogue as one bike sees it: what is held back for it is there for it. */
export function withOwn(
  catalogue: Catalogue,
  kept: readonly { readonly partId: string; readonly quantity: number; readonly included: boolean }[],
): Catalogue {
  const own = new Map(kept.filter(({ included }) => !included).map(({ partId, quantity }) => [partId, quantity]))
  if (own.size === 0) return catalogue
  const seen = <Part extends { readonly id: string; readonly stock: number }>(part: Part): Part =>
    own.has(part.id) ? { ...part, stock: part.stock + own.get(part.id)! } : part
  return { chains: catalogue.chains.map(seen), joints: catalogue.joints.map(seen) }
}

/** What is asked for one chain of one bike. */
export interface MatchQuestion {
  readonly wants: PartsDrive
  /** The chain joints are wanted for; the best unless given. */
  readonly chainId?: string | undefined
  /** Parts to be judged by name, whether they fit or not. */
  readonly ask?: string | undefined
  /** Joints are for a chain that was closed before, with what it is closed with now; left out: for a new one. */
  readonly closedBefore?: { readonly present: JointCandidate | null } | undefined
  readonly school?: ReuseSchool
  readonly assumed: Assumptions
}

/** What fits one chain of one bike. */
export interface BikeMatch {
  /** Those asked about by name, then the best first, as many as a screen shows. */
  readonly chains: readonly JudgedChain[]
  readonly chainsInAll: number
  readonly chainsExcluded: number
  /** The chain joints were matched for; null where there is none. */
  readonly chainId: string | null
  readonly joints: readonly JudgedJoint[]
  readonly jointsInAll: number
  readonly wanted: readonly FactWanted[]
}

const SHOWN = 12
const ASKED = 8

/**
 * What fits a chain's place on a bike, out of a whole catalogue: chains ranked, joints ranked for the chosen or the best
 * of them, and the facts that are wanted. The browser and the server both ask here.
 */
export function matchForBike(
  { wants, chainId, ask, closedBefore, school = 'strict', assumed }: MatchQuestion,
  { chains, joints }: Catalogue,
): BikeMatch {
  const { standing, excluded, best } = siftChains(wants, chains)
  const named = namedLike(ask)
  const chosen = chainId === undefined ? standing[0]?.part : chains.find(({ id }) => id === chainId)
  const query: JointQuery | undefined = chosen && {
    chain: chosen,
    newChain: closedBefore === undefined,
    speeds: chainSpeeds(wants),
    school,
    care: wants.care,
    assumed,
    removalsAYear: removalsAYear(wants, assumed),
  }
  const present = closedBefore?.present
  const candidates: JointCandidate[] = [
    ...(present && present.model !== 're-press' ? [present] : []),
    ...joints.map(newJoint),
    { model: 're-press' as const },
  ]
  return {
    chains: askedFirst(
      best(SHOWN).map((chain) => judgeChain(wants, chain)),
      named(chains).map((chain) => judgeChain(wants, chain)),
      ({ part }) => part.id,
    ),
    chainsInAll: chains.length,
    chainsExcluded: excluded,
    chainId: chosen?.id ?? null,
    joints: query
      ? askedFirst(
          matchJoints(query, candidates, SHOWN),
          [
            // What is on it now is judged before anything new.
            ...(present && present.model !== 're-press' ? [judgeJoint(query, present)] : []),
            ...named(joints).map((joint) => judgeJoint(query, newJoint(joint))),
          ],
          jointCandidateId,
        )
      : [],
    jointsInAll: joints.length,
    // Nothing else waits for a fact.
    wanted: factsWanted(
      standing.filter(({ outcome }) => outcome === 'not-known').map(({ part }) => judgeChain(wants, part)),
    ),
  }
}

/** Tells candidates apart: the one that is on from new ones of its model. */
export const jointCandidateId = ({ part }: { readonly part: JointCandidate }): string =>
  part.model === 're-press' ? 're-press' : part.closings === 0 ? part.model.id : `${part.model.id} used`

/** The best of a list, after those somebody asked about. */
function askedFirst<Judgement>(
  shown: readonly Judgement[],
  asked: readonly Judgement[],
  idOf: (judged: Judgement) => string,
): Judgement[] {
  const ids = new Set(asked.map(idOf))
  return [...asked, ...shown.filter((one) => !ids.has(idOf(one)))]
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
