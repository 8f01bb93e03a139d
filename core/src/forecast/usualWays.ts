import type { WearObservation } from './wearModel.ts'

/** A point reading at a distance; marks stand half-way between them. */
const middleOf = (observation: WearObservation): number | null => {
  if ('value' in observation) return observation.value
  const { over, under } = observation
  if (over !== undefined && under !== undefined) return (over + under) / 2
  return null
}

/** The straight line the usual way draws: through the last two readings, or through what a new chain shows and the only one. */
function lineThrough(
  observations: readonly WearObservation[],
  zero: number,
): { s: number; value: number; slope: number } | null {
  const points = [
    { s: 0, value: zero },
    ...observations.flatMap((observation) => {
      const value = middleOf(observation)
      return value === null ? [] : [{ s: observation.s, value }]
    }),
  ]
  const last = points.at(-1)!
  const before = points.at(-2)
  if (!before || last.s <= before.s) return null
  return { ...last, slope: (last.value - before.value) / (last.s - before.s) }
}

/**
 * Where a straight line through the last two readings meets the limit.
 *
 * @param zero elongation when new, %
 * @returns thousand weighted km; null when it never does
 */
export function straightLineCrossing(
  observations: readonly WearObservation[],
  limit: number,
  zero: number,
): number | null {
  const line = lineThrough(observations, zero)
  return line && line.slope > 0 ? line.s + (limit - line.value) / line.slope : null
}

/** What the same line says of the wear at a distance, %; null when none can be drawn. */
export function straightLineAt(observations: readonly WearObservation[], s: number, zero: number): number | null {
  const line = lineThrough(observations, zero)
  return line === null ? null : line.value + line.slope * (s - line.s)
}

/** The usual way by distance alone: a chain of a care lasts so long, whatever was read. Thousand weighted km. */
export const distanceAloneCrossing = (life: number, gamma: number, limit: number): number =>
  life * Math.pow(limit / 0.5, 1 / gamma)
