import type { Assumptions, AttributedReading, VerdictReading } from '@pelrin/core'
import { checkLapsed } from '../instruments/store.ts'
import type { ReadingFact } from './store.ts'

/** A reading as the core judges it. Its instrument is in date or not by the record it was taken with. */
export function asVerdictReading(reading: ReadingFact, chainKm: number | null, assumed: Assumptions): VerdictReading {
  const lapsed = checkLapsed(
    { kind: reading.instrumentKind, checkedOn: reading.checkedOn },
    reading.occurredAt,
    assumed,
  )
  return {
    id: reading.id,
    occurredAt: reading.occurredAt.getTime(),
    chainKm,
    source: reading.source,
    instrument: {
      id: reading.instrumentId,
      kind: reading.instrumentKind,
      biasU: reading.biasU,
      ...(lapsed ? { lapsed } : {}),
    },
    spots: reading.spots.map(({ place, value, over, under, u, pitches, borderline }) => ({
      u,
      ...(place === null ? {} : { place }),
      ...(value === null ? {} : { value }),
      ...(over === null ? {} : { over }),
      ...(under === null ? {} : { under }),
      ...(pitches === null ? {} : { pitches }),
      ...(borderline ? { borderline } : {}),
    })),
    ...(reading.hint === null ? {} : { hint: reading.hint }),
  }
}

/** A reading with who took it, for setting readings side by side. */
export const asAttributed = (reading: ReadingFact, assumed: Assumptions): AttributedReading => ({
  ...asVerdictReading(reading, null, assumed),
  person: reading.reader ?? reading.person,
})
