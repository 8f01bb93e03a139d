import { disagreements, type Assumptions } from '@pelrin/core'
import type { InstrumentHistory } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { readingsTogether } from '../readings/store.ts'
import { asAttributed } from '../readings/attributedStore.ts'

/** Readings further apart than this are of a chain that has worn on meanwhile. */
const TOGETHER_MS = 14 * 86_400_000
/** How far back evidence is looked for. */
const DAYS = 400

/**
 * Where an instrument lay further from a surer one on the same chain than both can be wrong: the readings of other
 * instruments taken within a fortnight of its own.
 */
export async function evidenceAgainst(
  work: Work,
  instrumentId: string,
  assumed: Assumptions,
): Promise<InstrumentHistory['evidence']> {
  const groups = await readingsTogether(work, instrumentId, DAYS)
  return groups.flatMap(({ bikeId, bike, readings }) =>
    disagreements(readings.map((reading) => asAttributed(reading, assumed))).flatMap(({ evidence, a, b }) => {
      if (evidence?.instrumentId !== instrumentId) return []
      const own = readings.find(({ id, instrumentId: of }) => of === instrumentId && (id === a || id === b))
      const other = readings.find(({ id }) => id === (own?.id === a ? b : a))
      if (!own || !other) return []
      if (Math.abs(own.occurredAt.getTime() - other.occurredAt.getTime()) > TOGETHER_MS) return []
      return [
        {
          bikeId,
          bike,
          at: own.occurredAt.toISOString(),
          against: other.instrumentName,
          bias: evidence.bias,
          u: evidence.u,
        },
      ]
    }),
  )
}
