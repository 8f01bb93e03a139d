import type { CaliperMode, HandSign, PinPicture } from '@pelrin/core'
import { useCallback, useState } from 'react'
import * as v from 'valibot'
import { v7 } from 'uuid'
import type { Conditions, CorrectReading, Reading, TakeReading } from '@pelrin/contract'
import { drafts } from '../../drafts/drafts.ts'
import { typedNumber } from '../../messages/typedNumber.ts'
import type { Waiting } from '../../outbox/outbox.ts'
import { celsiusTyped, typedCelsius } from '../../messages/typedTemperature.ts'

/** Places round the chain a reading has room for. */
export const PLACES_ROUND = 8

export interface DraftSpot {
  readonly id: string
  readonly typed: string
  /** The count picked, where there was a choice. */
  readonly pitches: number | null
  /** Where the typed mark lies on the pin, when no length was read. */
  readonly picture: PinPicture | null
}

/** A reading being typed. Its ids are made when it is begun, so that sending it twice is sending it once. */
export interface Draft {
  readonly readingId: string
  /** The fitting whose chain is measured: the one that was on the bike when it was begun. */
  readonly fittingId: string
  /** When the last spot was read, ISO; null before the first. One that was refused and opened again keeps its own. */
  readonly takenAt: string | null
  readonly keepsTime: boolean
  readonly instrumentId: string | null
  /** One for each place round the chain, empty where nothing was read. */
  readonly spots: readonly DraftSpot[]
  /** Places are counted from the connecting link, so that one can be found again. */
  readonly named: boolean
  /** What a caliper's jaws touch. */
  readonly mode: CaliperMode
  /** A whole chain was hung with its connecting link. */
  readonly linkIncluded: boolean
  /** What a check by hand noticed; null before anything was said. */
  readonly signs: readonly HandSign[] | null
  readonly run: 'lower' | 'upper'
  readonly load: 'tensioned' | 'slack'
  /** °C and kg as typed; empty where not told. */
  readonly ruleCelsius: string
  readonly chainCelsius: string
  readonly preloadKg: string
  readonly source: 'shop' | 'customer'
  /** In words: a customer's own tool, how far a tip catches, or anything else worth keeping. */
  readonly note: string
  /** Who held the instrument; null: who writes. */
  readonly readerId: string | null
  readonly baseline: boolean
  readonly odometer: { readonly id: string; readonly typed: string; readonly lower: 'restarted' | 'as-it-is' | null }
  readonly reason: string
}

const keyOf = (bikeId: string, corrects: string | null): string => `reading ${bikeId} ${corrects ?? ''}`

const emptySpot = (): DraftSpot => ({ id: v7(), typed: '', pitches: null, picture: null })

/** A spot for every place, those given in their places. */
const round = (spots: readonly DraftSpot[]): DraftSpot[] =>
  Array.from({ length: PLACES_ROUND }, (_, i) => spots[i] ?? emptySpot())

const text = (value: number | undefined): string => (value === undefined ? '' : String(value))
const warm = (celsius: number | undefined): string => (celsius === undefined ? '' : celsiusTyped(celsius))
/** What a draft begins from. */
interface Beginning {
  readonly corrects: Reading | null
  /** The latest of the shop's readings at this bike: where and under what tension it was taken is offered again. */
  readonly latest: Reading | undefined
  readonly baseline: boolean
  readonly fittingId: string
}

function begin({ corrects, latest, baseline, fittingId }: Beginning): Draft {
  const { ruleCelsius, chainCelsius, preloadKg } = corrects?.conditions ?? {}
  const { run = 'lower', load } = (corrects ?? latest)?.conditions ?? {}
  const named = corrects?.spots.some((spot) => spot.place !== null) ?? false
  const spots: DraftSpot[] = []
  for (const spot of corrects?.spots ?? [])
    spots[named && spot.place !== null ? spot.place - 1 : spot.position] = {
      id: v7(),
      typed: spot.typed ?? '',
      pitches: spot.pitches,
      picture: spot.picture,
    }
  return {
    readingId: v7(),
    fittingId,
    takenAt: null,
    keepsTime: false,
    instrumentId: corrects?.instrument.id ?? null,
    spots: round(spots),
    named,
    mode: corrects?.spots[0]?.mode ?? 'pin-to-pin',
    linkIncluded: corrects?.spots[0]?.linkIncluded ?? true,
    signs: corrects?.hint ? corrects.signs : null,
    run,
    load: load ?? 'tensioned',
    ruleCelsius: warm(ruleCelsius),
    chainCelsius: warm(chainCelsius),
    preloadKg: text(preloadKg),
    source: corrects?.source ?? 'shop',
    note: corrects?.note ?? '',
    readerId: null,
    baseline: corrects?.baseline ?? baseline,
    odometer: { id: v7(), typed: corrects?.odometer?.typed ?? '', lower: null },
    reason: '',
  }
}

/** Whether anything was typed that would be missed. */
export const isTyped = (draft: Draft): boolean =>
  draft.spots.some((spot) => spot.typed.trim() !== '') ||
  draft.odometer.typed.trim() !== '' ||
  draft.note.trim() !== '' ||
  draft.signs !== null

/** What is looked at before a kept draft is believed: it may be of another version, or torn. */
const Kept = v.looseObject({
  readingId: v.string(),
  fittingId: v.string(),
  spots: v.pipe(v.array(v.looseObject({ id: v.string(), typed: v.string() })), v.length(PLACES_ROUND)),
  odometer: v.looseObject({ id: v.string(), typed: v.string() }),
})

function stored(key: string, arrived: (readingId: string) => boolean): Draft | null {
  const kept = drafts.read(key, Kept)
  if (!kept) return null
  // What was sent does not come back to be sent again.
  if (arrived(kept.readingId)) {
    drafts.remove(key)
    return null
  }
  // A draft kept before notes were has none.
  return { note: '', ...kept } as unknown as Draft
}

/**
 * The draft of a bike's reading (or of the correction of one). Every key press is written down on the device, so
 * that neither a reload nor a dead battery takes anything that was typed.
 *
 * @param on `latest` reading of the shop's at this bike; `baseline` whether the chain is new and its first reading is the baseline; `fittingId` of the chain that is on; `arrived` tells whether a
 *   reading was sent already
 */
export function useDraft(
  bikeId: string,
  corrects: Reading | null,
  {
    latest,
    baseline,
    fittingId,
    arrived,
  }: Omit<Beginning, 'corrects'> & { readonly arrived: (readingId: string) => boolean },
): {
  draft: Draft
  restored: boolean
  change: (part: Partial<Draft> | ((before: Draft) => Partial<Draft>)) => void
  clear: () => void
} {
  const key = keyOf(bikeId, corrects?.id ?? null)
  const [{ draft, restored }, setState] = useState(() => {
    const kept = stored(key, arrived)
    return { draft: kept ?? begin({ corrects, latest, baseline, fittingId }), restored: kept !== null }
  })
  const change = useCallback(
    (part: Partial<Draft> | ((before: Draft) => Partial<Draft>)) => {
      setState((before) => {
        const changed = typeof part === 'function' ? part(before.draft) : part
        const read = changed.spots !== undefined || changed.signs !== undefined
        const takenAt = read && !before.draft.keepsTime ? new Date().toISOString() : before.draft.takenAt
        const next = { ...before.draft, takenAt, ...changed }
        if (isTyped(next)) drafts.put(key, next)
        else drafts.remove(key)
        return { ...before, draft: next }
      })
    },
    [key],
  )
  const clear = useCallback(() => {
    drafts.remove(key)
    setState({ draft: begin({ corrects, latest, baseline, fittingId }), restored: false })
  }, [key, corrects, latest, baseline, fittingId])
  return { draft, restored, change, clear }
}

/** Where and how the reading was taken, as far as told. */
export function conditionsOf(draft: Draft): Conditions {
  const ruleCelsius = typedCelsius(draft.ruleCelsius)
  const chainCelsius = typedCelsius(draft.chainCelsius)
  const preloadKg = typedNumber(draft.preloadKg)
  return {
    run: draft.run,
    load: draft.load,
    ...(ruleCelsius === undefined ? {} : { ruleCelsius }),
    ...(chainCelsius === undefined ? {} : { chainCelsius }),
    ...(preloadKg === undefined ? {} : { preloadKg }),
  }
}

/** Makes a draft again of a write the server refused. */
export function restoreDraft(write: Waiting): void {
  const body = write.body as TakeReading | CorrectReading
  const named = body.spots.some((spot) => spot.place !== undefined)
  const spots: DraftSpot[] = []
  for (const [i, { typed, pitches = null, picture = null, place }] of body.spots.entries())
    spots[place === undefined ? i : place - 1] = { id: v7(), typed, pitches, picture }
  const draft: Draft = {
    ...begin({
      corrects: null,
      latest: undefined,
      baseline: body.baseline,
      fittingId: 'fittingId' in body ? body.fittingId : '',
    }),
    takenAt: body.occurredAt,
    keepsTime: true,
    instrumentId: body.instrumentId,
    spots: round(spots),
    named,
    mode: body.spots[0]?.mode ?? 'pin-to-pin',
    linkIncluded: body.spots[0]?.linkIncluded ?? true,
    signs: body.signs ?? null,
    run: body.conditions.run,
    load: body.conditions.load ?? 'tensioned',
    ruleCelsius: warm(body.conditions.ruleCelsius),
    chainCelsius: warm(body.conditions.chainCelsius),
    preloadKg: text(body.conditions.preloadKg),
    source: body.source,
    note: body.note ?? '',
    readerId: body.readerId ?? null,
    odometer: { id: v7(), typed: body.odometer?.typed ?? '', lower: body.odometer?.lower ?? null },
    reason: 'reason' in body ? body.reason : '',
  }
  drafts.put(keyOf(write.bikeId, write.params['id'] ?? null), draft)
}
