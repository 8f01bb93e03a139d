import type { Assumptions } from '../assumptions.ts'
import type { Round } from './round.ts'
import type { AsOf } from './verdictTypes.ts'

const DAY_MS = 86_400_000

/**
 * Whether a round still describes the chain: its latest reading is at most 14 days and 150 estimated km old (defaults).
 *
 * @param asOf left out: as of the latest reading itself
 */
export function isPresent({ readings }: Round, asOf: AsOf | undefined, { verdict }: Assumptions): boolean {
  const latest = readings.at(-1)
  if (!latest) return false
  if (!asOf) return true
  const days = (asOf.at - latest.occurredAt) / DAY_MS
  const km = asOf.chainKm === null || latest.chainKm === null ? 0 : asOf.chainKm - latest.chainKm
  return days <= verdict.presentDays && km <= verdict.presentKm
}
