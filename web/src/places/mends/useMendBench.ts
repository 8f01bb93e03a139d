import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { v7 } from 'uuid'
import {
  assumptionsWith,
  bikeReach,
  isWholeChain,
  keepOff,
  lastPitch,
  mendOptions,
  mendSteps,
  type MendOption,
  type MendStep,
} from '@pelrin/core'
import { endpoints, type BikeMends, type BikeSummary, type Closing, type Mend, type PartsFacts } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { day } from '../../messages/format.ts'
import { useAdvice } from './useAdvice.ts'
import { SECTION, useMendDraft, type MendDraft } from './useMendDraft.ts'
import { wayKey } from './WayList.tsx'

/** The bike whose chain broke. */
export interface MendProps {
  readonly bikeId: string
  readonly known: BikeMends
  readonly summary: BikeSummary
  readonly chain: NonNullable<BikeMends['chain']>
  readonly drive: PartsFacts['drive']
}

const countTyped = (typed: string): number | null => (/^\d{2,3}$/.test(typed.trim()) ? Number(typed.trim()) : null)

/** The steps of mending it in one way, for the bike as it stands or lies; null where too little is known of it. */
export const mendStepsOf = (
  { known, draft }: { readonly known: BikeMends; readonly draft: MendDraft },
  option: MendOption,
): readonly MendStep[] | null =>
  known.handling &&
  mendSteps({
    ...{ handling: known.handling, care: known.care, position: draft.position, option, added: null },
    roadside: isForTheWayHome(known, draft, option),
  })

/** A pin that must not be pressed in again is pressed in for the way home, and for nothing else. */
export const isForTheWayHome = (
  { rePress }: Pick<BikeMends, 'rePress'>,
  { roadside }: Pick<MendDraft, 'roadside'>,
  { joint }: Pick<MendOption, 'joint'>,
): boolean => roadside || (joint === 're-press' && rePress === 'excluded')

/** How far the chain was looked over, what was found, which ways there are to close it, and what the keys do. */
export function useMendBench({ bikeId, known, summary, chain, drive }: MendProps) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const { wrong, setWrong, busy, write } = useBikeWrite(bikeId, endpoints.mendChain.access)
  const { draft, change, anew } = useMendDraft(chain.id, chain.pitches)
  const [closing, setClosing] = useState(false)
  const [cursor, setCursor] = useState(draft.seen)
  const pitches = countTyped(draft.pitches)
  const counted = pitches !== null && isWholeChain(pitches)
  const damaged = useMemo(
    () => draft.damaged.filter((one) => pitches !== null && one < pitches),
    [draft.damaged, pitches],
  )
  const inspected = counted && draft.seen >= pitches
  const options = useMemo(
    () => (counted ? mendOptions({ pitches, broken: draft.broken, damaged, spare: chain.offcut }) : []),
    [counted, pitches, draft.broken, damaged, chain.offcut],
  )
  const chosen = options.find((option) => wayKey(option) === draft.way) ?? options[0]
  const assumed = assumptionsWith(known.assumptions)
  const before = pitches === null ? null : bikeReach(drive, pitches, assumed)
  const after = chosen ? bikeReach(drive, chosen.left, assumed) : null
  const roadside = chosen !== undefined && isForTheWayHome(known, draft, chosen)
  const advice = useAdvice(after ? keepOff(after) : [], draft.cause, roadside)
  const [adding, setAdding] = useState<Mend | null>(null)
  // What was taken out when it was mended last, and is not back yet.
  const short = known.mends.find(
    ({ chain: { id }, option, addedBackAt }) =>
      id === chain.id && option !== null && option.lost > 0 && addedBackAt === null,
  )
  const section = counted && !inspected ? { from: draft.seen, to: Math.min(pitches, draft.seen + SECTION) - 1 } : null

  const mark = (pitch: number): void => {
    // The place it broke stays marked.
    if (pitch === 0) return
    change({
      damaged: damaged.includes(pitch) ? damaged.filter((one) => one !== pitch) : [...damaged, pitch],
      way: null,
    })
  }
  const passed = (): void => {
    if (!section) return
    change({ seen: section.to + 1 })
    setCursor(Math.min(section.to + 1, lastPitch(pitches ?? 1)))
  }
  const move = (by: number): void => {
    if (pitches !== null) setCursor(Math.min(lastPitch(pitches), Math.max(0, cursor + by)))
  }
  const save = async (choice: 'mended' | 'replace', how: Closing | null = null): Promise<void> => {
    if (busy || pitches === null) return
    if (draft.cause === null) {
      const sentence = t('problems.cause-missing')
      setWrong({ code: 'cause-missing', sentence, fields: { cause: sentence } })
      return
    }
    // A link says how it clicked, and which one it is.
    if (choice === 'mended' && chosen?.joint === 'link' && how === null) {
      setWrong(null)
      setClosing(true)
      return
    }
    const id = v7()
    const body = {
      id,
      fittingId: chain.fittingId,
      pitches,
      broken: draft.broken,
      damaged: [...damaged],
      cause: draft.cause,
      choice,
      mend:
        choice === 'mended' && chosen
          ? { joint: chosen.joint, way: chosen.way, inserted: chosen.inserted.length > 0, roadside }
          : null,
      ...(how ?? { click: null, byFeel: false, linkPartId: null }),
      advised: choice === 'mended' ? (draft.advised ?? advice) : '',
    }
    const written = await write(() => ask(endpoints.mendChain, { params: { id: bikeId }, key: id, body }))
    if (!written) return
    setClosing(false)
    anew(written.chain?.pitches ?? null)
    if (choice === 'replace') void navigate(`/bikes/${bikeId}/job?reason=broken`)
    else tell(t('mends.written', { date: day(written.mends[0]?.followUpOn ?? '') }))
  }
  const measureIt = (): void => void navigate(`/bikes/${bikeId}/measure`)
  useCommands('mend', {
    measure: measureIt,
    addBack: short ? () => setAdding(short) : null,
    left: () => move(-1),
    right: () => move(1),
    mark: section ? () => mark(cursor) : null,
    seen: passed,
    way: (digit) => {
      const option = options[digit - 1]
      if (option && inspected) change({ way: wayKey(option) })
    },
    record: () => navigate(`/bikes/${bikeId}`),
    back: () => navigate(`/bikes/${bikeId}`),
  })
  return {
    bikeId,
    known,
    summary,
    chain,
    drive,
    draft,
    change,
    wrong,
    busy,
    pitches,
    counted,
    inspected,
    damaged,
    section,
    cursor,
    setCursor,
    mark,
    passed,
    options,
    chosen,
    assumed,
    before,
    after,
    advice,
    save,
    closing,
    setClosing,
    roadside,
    measureIt,
    short,
    adding,
    setAdding,
  }
}
export type Mending = ReturnType<typeof useMendBench>
