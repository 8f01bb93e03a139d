import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { v7 } from 'uuid'
import { assumptionsWith, bikeReach, isWholeChain, keepOff, MEND_JOINTS, mendOptions, lastPitch } from '@pelrin/core'
import { endpoints, type BikeMends, type Closing, type PartsFacts } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { day } from '../../messages/format.ts'
import { useAdvice } from './useAdvice.ts'
import { SECTION, useMendDraft } from './useMendDraft.ts'
import { wayKey } from './WayList.tsx'

/** The bike whose chain broke. */
export interface MendProps {
  readonly bikeId: string
  readonly known: BikeMends
  readonly chain: NonNullable<BikeMends['chain']>
  readonly drive: PartsFacts['drive']
}

const countTyped = (typed: string): number | null => (/^\d{2,3}$/.test(typed.trim()) ? Number(typed.trim()) : null)

/** How far the chain was looked over, what was found, which ways there are to close it, and what the keys do. */
export function useMendBench({ bikeId, known, chain, drive }: MendProps) {
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
    () =>
      counted
        ? mendOptions(
            { pitches, broken: draft.broken, damaged, spare: chain.offcut },
            MEND_JOINTS.filter((joint) => joint !== 're-press' || known.rePress !== 'excluded'),
          )
        : [],
    [counted, pitches, draft.broken, damaged, chain.offcut, known.rePress],
  )
  const chosen = options.find((option) => wayKey(option) === draft.way) ?? options[0]
  const assumed = assumptionsWith(known.assumptions)
  const before = pitches === null ? null : bikeReach(drive, pitches, assumed)
  const after = chosen ? bikeReach(drive, chosen.left, assumed) : null
  const advice = useAdvice(after ? keepOff(after) : [], draft.cause)
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
          ? { joint: chosen.joint, way: chosen.way, inserted: chosen.inserted.length > 0 }
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
  useCommands('mend', {
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
  }
}
export type Mending = ReturnType<typeof useMendBench>
