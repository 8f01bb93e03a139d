import type { WearObservation } from './fitWear.ts'

/** A point reading at a distance; marks stand half-way between them. */
const middleOf = (observation: WearObservation): number | null => {
  if ('value' in observation) return observation.value
  const { over, under } = observation
  if (over !== undefined && under !== undefined) return (over + under) / 2
  return null
}

/**
 * The usual way by two readings: a straight line through the last two, or through the origin and the only one.
 *
 * @param zero elongation when new, %
 * @returns where it meets the limit, thousand weighted km; null when it never does
 */
export function straightLineCrossing(
  observations: readonly WearObservation[],
  limit: number,
  zero: number,
): number | null {
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
  const slope = (last.value - before.value) / (last.s - before.s)
  return slope > 0 ? last.s + (limit - last.value) / slope : null
}

/** The usual way by distance alone: a chain of a care lasts so long, whatever was read. Thousand weighted km. */
export const distanceAloneCrossing = (life: number, gamma: number, limit: number): number =>
  life * Math.pow(limit / 0.5, 1 / gamma)
