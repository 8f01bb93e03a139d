import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import {
  assumptionsWith,
  differsFromKept,
  keptForOtherChain,
  missingOf,
  shoppingList,
  steppedPitches,
  type ChainOf,
  type JobLine,
} from '@pelrin/core'
import type { BikeMatch, BikeParts, BikeRecord } from '@pelrin/contract'
import { useMatching } from '../../api/queries.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { usePartsMatch } from '../../workers/usePartsMatch.ts'
import { useKeeping } from './useKeeping.ts'
import { jobLines } from './jobLines.ts'
import { jointKey } from './partLook.ts'

/** What lies open over the place. */
export type PartsSheet = 'drive' | 'joint' | 'compare' | 'order'

/** What is chosen at a bike. */
interface Choice {
  readonly of: ChainOf
  /** For which chain joints are chosen: one that goes on, or the one that is on. */
  readonly jointsFor: 'new' | 'on'
  readonly school: 'strict' | 'by-feel'
  readonly pitches: number | null
  readonly halfLink: boolean
  readonly chainId: string | null
  readonly joint: string | null
  readonly asked: string
}
const NOTHING_CHOSEN: Choice = {
  of: 'drive',
  jointsFor: 'new',
  school: 'strict',
  pitches: null,
  halfLink: false,
  chainId: null,
  joint: null,
  asked: '',
}

const stepped = (keys: readonly string[], from: string | null | undefined, by: number): string | null =>
  keys[Math.min(keys.length - 1, Math.max(0, keys.indexOf(from ?? '') + by))] ?? null

/** What fits a bike, what of it is chosen, what is put aside, and what the keys do. */
export function usePartsPlace(bike: BikeRecord, facts: BikeParts) {
  const bikeId = bike.summary.id
  const navigate = useNavigate()
  const matching = useMatching()
  const [choice, setChoice] = useState(NOTHING_CHOSEN)
  const [sheet, setSheet] = useState<PartsSheet | null>(null)
  const askField = useRef<HTMLInputElement>(null)
  const keeping = useKeeping(bikeId)
  const { of, jointsFor, school, halfLink } = choice
  const choose = (changes: Partial<Choice>): void => setChoice((before) => ({ ...before, ...changes }))
  const chooseChain = (chainId: string | null): void => choose({ chainId, jointsFor: 'new', joint: null })
  const turn = (next: ChainOf): void =>
    choose({ of: next, pitches: null, chainId: null, joint: null, jointsFor: 'new' })
  const answered = usePartsMatch(
    facts,
    {
      of,
      joints: jointsFor,
      school,
      ...(choice.pitches === null ? {} : { pitches: choice.pitches }),
      ...(choice.chainId === null ? {} : { chainId: choice.chainId }),
      ...(choice.asked.trim() === '' ? {} : { ask: choice.asked.trim() }),
    },
    matching.data,
    bike.assumptions,
  )
  const match: BikeMatch = answered ?? facts
  const chain =
    match.chains.find(({ part }) => part.id === match.chainId) ?? (jointsFor === 'on' ? undefined : match.chains[0])
  const joint = match.joints.find((one) => jointKey(one) === choice.joint) ?? match.joints[0]
  const pitches = choice.pitches ?? match.pitches
  const chosenLines =
    chain && joint && pitches !== null && jointsFor === 'new'
      ? jobLines(shoppingList(chain.part, joint.part, pitches), chain, joint)
      : []
  const kept = facts.kept
  const keptLines: JobLine[] | null =
    kept?.lines.map((line) => ({ ...line, name: `${line.maker} ${line.name}` })) ?? null
  const lines = keptLines ?? chosenLines
  const hasTiming = facts.drive.timing !== null
  const fixed = of === 'timing' || facts.drive.type !== 'derailleur'
  const keep = (): void => {
    if (chosenLines.length === 0) return
    const others = hasTiming ? keptForOtherChain(keptLines ?? [], fitting(match)) : []
    void keeping.keep(pitches, [...others, ...chosenLines])
  }
  const letGo = kept && ((): void => void keeping.letGo(kept))
  const stepPitches = (by: number): void => {
    if (pitches !== null) choose({ pitches: steppedPitches(pitches, by) })
  }
  const stepChain = (by: number): void =>
    chooseChain(
      stepped(
        match.chains.map(({ part }) => part.id),
        match.chainId,
        by,
      ),
    )
  const stepJoint = (by: number): void =>
    choose({ joint: stepped(match.joints.map(jointKey), joint && jointKey(joint), by) })
  const closeAgain = (): void => choose({ jointsFor: jointsFor === 'on' ? 'new' : 'on' })
  const toOrder = lines
    .map((line) => ({ partId: line.partId, name: line.name, quantity: missingOf(line) }))
    .filter(({ quantity }) => quantity > 0)
  const toBike = (): unknown => navigate(`/bikes/${bikeId}`)

  useCommands('parts', {
    chainUp: () => stepChain(-1),
    chainDown: () => stepChain(1),
    jointUp: () => stepJoint(-1),
    jointDown: () => stepJoint(1),
    fewer: () => stepPitches(halfLink ? -1 : -2),
    more: () => stepPitches(halfLink ? 1 : 2),
    ask: () => askField.current?.focus(),
    drive: () => setSheet('drive'),
    joint: () => setSheet('joint'),
    compare: match.chains.length > 1 ? () => setSheet('compare') : null,
    closeAgain: facts.presentChainId === null ? null : closeAgain,
    keep,
    letGo,
    order: toOrder.length > 0 ? () => setSheet('order') : null,
    catalogue: () => navigate(`/catalogue?bike=${bikeId}`),
    otherChain: hasTiming ? () => turn(of === 'drive' ? 'timing' : 'drive') : null,
    halfLink: fixed ? () => choose({ halfLink: !halfLink }) : null,
    record: toBike,
    back: toBike,
  })
  return {
    bike,
    facts,
    matching: matching.data,
    assumed: assumptionsWith(bike.assumptions),
    choice,
    choose,
    chooseChain,
    turn,
    closeAgain,
    match,
    chain,
    joint,
    pitches,
    lines,
    differs: kept !== null && differsFromKept({ ...kept, lines: keptLines ?? [] }, chosenLines, pitches),
    toOrder,
    keeping,
    keep,
    letGo,
    hasTiming,
    askField,
    sheet,
    setSheet,
  }
}
export type PartsView = ReturnType<typeof usePartsPlace>

/** Every part that fits the chain parts are chosen for now. */
const fitting = ({ chains, joints }: BikeMatch): Set<string> =>
  new Set([
    ...chains.filter(({ outcome }) => outcome !== 'does-not-fit').map(({ part }) => part.id),
    ...joints.flatMap(({ part, outcome }) =>
      part.model === 're-press' || outcome === 'does-not-fit' ? [] : [part.model.id],
    ),
  ])
