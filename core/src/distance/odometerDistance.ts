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
