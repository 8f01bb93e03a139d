export interface RideSpan {
  /** ms since 1970 UTC. */
  readonly from: number
  readonly to: number
  readonly km: number
}

/**
 * Whether two records are of one ride: they overlap over more than 80 % of the shorter one's time, and differ by less than
 * 5 % in distance.
 */
export function isSameRide(
  a: RideSpan,
  b: RideSpan,
  assumed: { readonly sameRideOverlap: number; readonly sameRideDistance: number },
): boolean {
  const overlap = Math.min(a.to, b.to) - Math.max(a.from, b.from)
  const shorter = Math.min(a.to - a.from, b.to - b.from)
  const longer = Math.max(a.to - a.from, b.to - b.from)
  const overlaps = shorter <= 0 ? overlap >= 0 && longer <= 0 : overlap > assumed.sameRideOverlap * longer
  return overlaps && Math.abs(a.km - b.km) <= assumed.sameRideDistance * Math.max(a.km, b.km)
}
