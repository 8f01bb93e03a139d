import { useCallback, useState } from 'react'
import { v7 } from 'uuid'
import type { CorrectReading, Reading, TakeReading } from '@pelrin/contract'
import type { Waiting } from '../../outbox/outbox.ts'

export interface DraftSpot {
  readonly id: string
  readonly typed: string
  /** The count picked, where there was a choice. */
  readonly pitches: number | null
}

/** A reading being typed. Its ids are made when it is begun, so that sending it twice is sending it once. */
export interface Draft {
  readonly readingId: string
  readonly instrumentId: string | null
  readonly spots: readonly DraftSpot[]
  readonly odometer: { readonly id: string; readonly typed: string; readonly lower: 'restarted' | 'as-it-is' | null }
  readonly reason: string
}

const keyOf = (bikeId: string, corrects: string | null): string => `pelrin-draft ${bikeId} ${corrects ?? ''}`

export const emptySpot = (): DraftSpot => ({ id: v7(), typed: '', pitches: null })

function begin(corrects: Reading | null): Draft {
  return {
    readingId: v7(),
    instrumentId: corrects?.instrument.id ?? null,
    spots: corrects
      ? corrects.spots.map((spot) => ({ id: v7(), typed: spot.typed ?? '', pitches: spot.pitches }))
      : [emptySpot()],
    odometer: { id: v7(), typed: corrects?.odometer?.typed ?? '', lower: null },
    reason: '',
  }
}

/** Whether anything was typed that would be missed. */
export const isTyped = (draft: Draft): boolean =>
  draft.spots.some((spot) => spot.typed.trim() !== '') || draft.odometer.typed.trim() !== ''

function stored(key: string): Draft | null {
  try {
    const text = localStorage.getItem(key)
    return text === null ? null : (JSON.parse(text) as Draft)
  } catch {
    return null
  }
}

/**
 * The draft of a bike's reading (or of the correction of one). Every key press is written down on the device, so
 * that neither a reload nor a dead battery takes anything that was typed.
 */
export function useDraft(
  bikeId: string,
  corrects: Reading | null,
): {
  draft: Draft
  restored: boolean
  change: (part: Partial<Draft>) => void
  clear: () => void
} {
  const key = keyOf(bikeId, corrects?.id ?? null)
  const [{ draft, restored }, setState] = useState(() => {
    const kept = stored(key)
    return { draft: kept ?? begin(corrects), restored: kept !== null }
  })
  const change = useCallback(
    (part: Partial<Draft>) => {
      setState((before) => {
        const next = { ...before.draft, ...part }
        if (isTyped(next)) localStorage.setItem(key, JSON.stringify(next))
        else localStorage.removeItem(key)
        return { ...before, draft: next }
      })
    },
    [key],
  )
  const clear = useCallback(() => {
    localStorage.removeItem(key)
    setState({ draft: begin(corrects), restored: false })
  }, [key, corrects])
  return { draft, restored, change, clear }
}

/** Makes a draft again of a write the server refused. */
export function restoreDraft(write: Waiting): void {
  const body = write.body as TakeReading | CorrectReading
  const draft: Draft = {
    readingId: v7(),
    instrumentId: body.instrumentId,
    spots: body.spots.map(({ typed, pitches }) => ({ id: v7(), typed, pitches })),
    odometer: { id: v7(), typed: body.odometer?.typed ?? '', lower: body.odometer?.lower ?? null },
    reason: 'reason' in body ? body.reason : '',
  }
  localStorage.setItem(keyOf(write.bikeId, write.params['id'] ?? null), JSON.stringify(draft))
}
