import { v7 } from 'uuid'
import { endpoints, type BikeRecord, type CorrectReading, type Problem, type TakeReading } from '@pelrin/contract'
import { outbox } from '../../outbox/outbox.ts'
import type { Draft } from './draft.ts'
import type { SpotReading } from './evaluate.ts'

export type SaveEnd =
  | { readonly end: 'saved'; readonly record: BikeRecord }
  | { readonly end: 'refused'; readonly problem: Problem }
  /** The server is away: it is kept here and sent later. */
  | { readonly end: 'kept' }

/** How long somebody is kept waiting for the server before they may go on. */
const PATIENCE_MS = 4_000

/** Sends a draft, through the outbox: from here on it cannot be lost. */
export async function saveDraft(parts: {
  draft: Draft
  spots: readonly SpotReading[]
  instrumentId: string
  unit: 'km' | 'mi'
  bikeId: string
  corrects: string | null
  personId: string
  title: string
}): Promise<SaveEnd> {
  const { draft, spots, instrumentId, unit, bikeId, corrects, personId, title } = parts
  const at = new Date().toISOString()
  const odometer = draft.odometer.typed.trim()
  const common = {
    id: draft.readingId,
    occurredAt: at,
    instrumentId,
    spots: draft.spots.flatMap((spot, i) => {
      const read = spots[i]
      return read?.state === 'ready' ? [{ id: spot.id, typed: spot.typed.trim(), pitches: read.pitches }] : []
    }),
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
  const endpoint = corrects === null ? endpoints.takeReading : endpoints.correctReading
  const body: TakeReading | CorrectReading =
    corrects === null ? { ...common, bikeId } : { ...common, reason: draft.reason.trim() }
  const key = v7()
  const { settled } = await outbox.put({
    key,
    method: endpoint.method,
    path: endpoint.path,
    params: corrects === null ? {} : { id: corrects },
    body,
    personId,
    at,
    title,
    bikeId,
  })
  const patience = new Promise<'kept'>((done) => setTimeout(() => done('kept'), PATIENCE_MS))
  const first = await Promise.race([settled, patience])
  if (first === 'kept') return { end: 'kept' }
  if (first.ok) return { end: 'saved', record: first.result as BikeRecord }
  // The person is looking: what was refused goes back into the fields, not into the list of what waits.
  await outbox.drop(key)
  return { end: 'refused', problem: first.problem }
}
