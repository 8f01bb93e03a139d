import type { Explanation } from '../explanation.ts'

/** One odometer value of a bike, as the ledger holds it. */
export interface OdometerValue {
  /** When it was read, ms since 1970 UTC. */
  readonly at: number
  /** What it showed, km. */
  readonly km: number
  /** True when the meter was reset or replaced before this value: what it showed before no longer counts. */
  readonly restarted: boolean
}

/**
 * What a bike was ridden between two moments by its odometer, km.
 *
 * Between two values their difference is the distance, spread evenly over the time between them. A value lower
 * than the one before adds nothing, whether the meter restarted or the value was mistyped and let stand.
 * Outside the first and last value nothing is known, and nothing is counted.
 *
 * @param values in any order of time; those of one moment in the order they were written down
 * @returns km; null when no two values give any
 */
export function odometerDistance(values: readonly OdometerValue[], from: number, to: number): number | null {
  const ordered = [...values].sort((a, b) => a.at - b.at)
  let km = 0
  let known = false
  for (let i = 1; i < ordered.length; i++) {
    const before = ordered[i - 1]!
    const after = ordered[i]!
    const start = Math.max(before.at, from)
    const end = Math.min(after.at, to)
    if (end < start || (end === start && after.at !== before.at)) continue
    known = true
    if (after.restarted || after.km < before.km) continue
    const share = after.at === before.at ? 1 : (end - start) / (after.at - before.at)
    km += (after.km - before.km) * share
  }
  return known ? km : null
}

/** What the odometer would have shown at a moment between two values, evenly between them; null outside of all. */
function odometerAt(ordered: readonly OdometerValue[], at: number): number | null {
  const after = ordered.findIndex((value) => value.at >= at)
  const upper = ordered[after]
  if (!upper) return null
  if (upper.at === at) return upper.km
  const lower = ordered[after - 1]
  if (!lower) return null
  if (upper.restarted || upper.km < lower.km) return lower.km
  return lower.km + ((upper.km - lower.km) * (at - lower.at)) / (upper.at - lower.at)
}

/**
 * {@link odometerDistance} with why it is so: what the odometer showed at both ends (between two values, what it
 * must have shown), and how often it began again in between.
 *
 * @returns null when the distance is not known
 */
export function explainedOdometerDistance(
  values: readonly OdometerValue[],
  from: number,
  to: number,
): { km: number; explanation: Explanation } | null {
  const km = odometerDistance(values, from, to)
  if (km === null) return null
  const ordered = [...values].sort((a, b) => a.at - b.at)
  const within = ordered.filter((value) => value.at > from && value.at <= to)
  const restarts = within.filter((value) => value.restarted).length
  const startKm = odometerAt(ordered, from) ?? within[0]?.km ?? 0
  const endKm = odometerAt(ordered, to) ?? within.at(-1)?.km ?? startKm
  // What a lower value took away, begun again or let stand, was ridden all the same.
  const fell = km - (endKm - startKm)
  return {
    km,
    explanation: {
      rule: 'distance-by-odometer',
      inputs: [
        { symbol: 'o₁', meaning: 'odometer-at-fitting', value: startKm, unit: 'km' },
        { symbol: 'o₂', meaning: 'odometer-latest', value: endKm, unit: 'km' },
        ...(Math.abs(fell) < 1e-9 ? [] : [{ symbol: 'f', meaning: 'odometer-fell', value: fell, unit: 'km' } as const]),
        ...(restarts === 0
          ? []
          : [{ symbol: 'r', meaning: 'odometer-restarts', value: restarts, unit: 'text' } as const]),
      ],
      formula: Math.abs(fell) < 1e-9 ? 's = o₂ − o₁' : 's = o₂ − o₁ + f',
      result: { value: km, unit: 'km' },
    },
  }
}
