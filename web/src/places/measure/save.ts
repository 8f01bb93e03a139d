import { KINDS, hangsWholeChain, measuresNothing } from '@pelrin/core'
import { v7 } from 'uuid'
import {
  endpoints,
  type BikeRecord,
  type CorrectReading,
  type Instrument,
  type Problem,
  type TakeReading,
} from '@pelrin/contract'
import { outbox } from '../../outbox/outbox.ts'
import { conditionsOf, type Draft } from './draft.ts'
import type { SpotReading } from './evaluate.ts'

export type SaveEnd =
  | { readonly end: 'saved'; readonly record: BikeRecord }
  | { readonly end: 'refused'; readonly problem: Problem }
  /** It had arrived before. */
  | { readonly end: 'arrived' }
  /** The server is away: it is kept here and sent later. */
  | { readonly end: 'kept' }

/** How long somebody is kept waiting for the server before they may go on. */
const PATIENCE_MS = 4_000

/** Which place round the chain each spot that is sent was typed at, so that a refusal finds its field. */
export const sentPlaces = (spots: readonly SpotReading[]): number[] =>
  spots.flatMap((reading, i) => (reading.state === 'ready' ? [i] : []))

/** A draft as the server takes it. */
function bodyOf(draft: Draft, spots: readonly SpotReading[], instrument: Instrument, unit: 'km' | 'mi') {
  const { kind } = instrument
  const odometer = draft.odometer.typed.trim()
  return {
    id: draft.readingId,
    occurredAt: draft.takenAt ?? new Date().toISOString(),
    instrumentId: instrument.id,
    spots: sentPlaces(spots).map((i) => {
      const spot = draft.spots[i]!
      const reading = spots[i]!
      const pitches = reading.state === 'ready' ? reading.pitches : null
      return {
        id: spot.id,
        typed: spot.typed.trim(),
        ...(pitches === null ? {} : { pitches }),
        ...(KINDS[kind].jaws === true ? { mode: draft.mode } : {}),
        ...(hangsWholeChain(kind) ? { linkIncluded: draft.linkIncluded } : {}),
        ...(KINDS[kind].pictures === true && spot.picture !== null ? { picture: spot.picture } : {}),
        ...(draft.named ? { place: i + 1 } : {}),
      }
    }),
    ...(measuresNothing(kind) ? { signs: [...(draft.signs ?? [])] } : {}),
    conditions: conditionsOf(draft),
    source: draft.source,
    ...(draft.note.trim() === '' ? {} : { note: draft.note.trim() }),
    baseline: draft.baseline,
    ...(draft.readerId === null ? {} : { readerId: draft.readerId }),
    ...(odometer === ''
      ? {}
      : {
          odometer: {
            id: draft.odometer.id,
            typed: odometer,
            unit,
            ...(draft.odometer.lower === null ? {} : { lower: draft.odometer.lower }),
          },
        }),
  }
}

/** Sends a draft, through the outbox: from here on it cannot be lost. */
export async function saveDraft(parts: {
  draft: Draft
  spots: readonly SpotReading[]
  instrument: Instrument
  unit: 'km' | 'mi'
  bikeId: string
  corrects: string | null
  personId: string
  title: string
}): Promise<SaveEnd> {
  const { draft, spots, instrument, unit, bikeId, corrects, personId, title } = parts
  const common = bodyOf(draft, spots, instrument, unit)
  const endpoint = corrects === null ? endpoints.takeReading : endpoints.correctReading
  const body: TakeReading | CorrectReading =
    corrects === null ? { ...common, bikeId, fittingId: draft.fittingId } : { ...common, reason: draft.reason.trim() }
  const key = v7()
  const { settled } = await outbox.put({
    key,
    method: endpoint.method,
    path: endpoint.path,
    params: corrects === null ? {} : { id: corrects },
    body,
    personId,
    at: new Date().toISOString(),
    title,
    bikeId,
  })
  const patience = new Promise<'kept'>((done) => setTimeout(() => done('kept'), PATIENCE_MS))
  const first = await Promise.race([settled, patience])
  if (first === 'kept') return { end: 'kept' }
  if (first.ok) return { end: 'saved', record: first.result as BikeRecord }
  // The person is looking: what was refused goes back into the fields, not into the list of what waits.
  await outbox.drop(key)
  // It arrived before, and nobody heard the answer: what was typed is safe.
  if (first.problem.code === 'id-taken') return { end: 'arrived' }
  return { end: 'refused', problem: first.problem }
}
