const EARTH_RADIUS_KM = 6371.0088
const RADIANS = Math.PI / 180
const HOUR_MS = 3_600_000
/** Breakpoints a profile keeps: enough to tell which chain a stretch was ridden on. */
const PROFILE_POINTS = 48

/** A point of a ride's track. */
export interface TrackPoint {
  /** ms since 1970 UTC. */
  readonly at: number
  /** Degrees, −90…90 and −180…180. */
  readonly latitude: number
  readonly longitude: number
}

/** Great-circle distance, km: haversine, which holds at the poles and across 180°. */
export function greatCircleKm(a: Omit<TrackPoint, 'at'>, b: Omit<TrackPoint, 'at'>): number {
  const latitude = Math.sin(((b.latitude - a.latitude) * RADIANS) / 2)
  const longitude = Math.sin(((b.longitude - a.longitude) * RADIANS) / 2)
  const h =
    latitude * latitude + Math.cos(a.latitude * RADIANS) * Math.cos(b.latitude * RADIANS) * longitude * longitude
  return 2 * EARTH_RADIUS_KM * Math.asin(Math.min(1, Math.sqrt(h)))
}

/** What a track adds up to. */
export interface TrackSum {
  readonly from: number
  readonly to: number
  readonly km: number
  /** Moments and the share ridden by then, for attributing parts of it. */
  readonly profile: { readonly at: number; readonly share: number }[]
  /** Pauses in the record and jumps that were left out. */
  readonly gaps: number
  readonly jumps: number
  /** Points whose time went backwards, left out. */
  readonly backwards: number
}

/** Parts of a track that are left out: pauses in the record longer than this, s, and jumps faster than this, km/h. */
export interface TrackBounds {
  readonly trackGapSeconds: number
  readonly trackJumpKmh: number
}

/**
 * Adds up a track point by point, so that a file of any size needs no more memory than its profile.
 *
 * Left out: what lies across a pause in the record of more than 2 minutes, and jumps faster than 120 km/h (the point
 * after a jump is not believed until the next one agrees with it).
 */
export class TrackAdder {
  private readonly gapMs: number
  private readonly jumpKmh: number
  private first: TrackPoint | null = null
  private last: TrackPoint | null = null
  /** A point a jump led to, kept until another tells whether the track goes on there. */
  private doubted: TrackPoint | null = null
  private km = 0
  private gaps = 0
  private jumps = 0
  private backwards = 0
  private marks: { at: number; km: number }[] = []
  private every = 1
  private seen = 0

  constructor({ trackGapSeconds, trackJumpKmh }: TrackBounds) {
    this.gapMs = trackGapSeconds * 1000
    this.jumpKmh = trackJumpKmh
  }

  add(point: TrackPoint): void {
    if (!this.last) {
      this.first = this.last = point
      return
    }
    if (point.at < this.last.at) {
      this.backwards++
      return
    }
    if (point.at - this.last.at > this.gapMs) {
      this.gaps++
      this.doubted = null
    } else {
      const step = greatCircleKm(this.last, point)
      if (this.tooFast(step, point.at - this.last.at)) {
        const agrees =
          this.doubted !== null && !this.tooFast(greatCircleKm(this.doubted, point), point.at - this.doubted.at)
        if (!agrees) {
          if (this.doubted === null) this.jumps++
          this.doubted = point
          return
        }
        this.km += greatCircleKm(this.doubted!, point)
      } else this.km += step
      this.doubted = null
    }
    this.last = point
    this.mark()
  }

  /** @returns null for a track of fewer than two moments */
  sum(): TrackSum | null {
    const { first, last, km } = this
    if (!first || !last || last.at <= first.at) return null
    return {
      from: first.at,
      to: last.at,
      km,
      profile: km > 0 ? this.marks.map((mark) => ({ at: mark.at, share: mark.km / km })) : [],
      gaps: this.gaps,
      jumps: this.jumps,
      backwards: this.backwards,
    }
  }

  private tooFast(km: number, ms: number): boolean {
    return ms === 0 ? km > 0.05 : (km / ms) * HOUR_MS > this.jumpKmh
  }

  /** Keeps every so many points; when there are too many, every second of them. */
  private mark(): void {
    if (this.seen++ % this.every !== 0) return
    this.marks.push({ at: this.last!.at, km: this.km })
    if (this.marks.length <= 2 * PROFILE_POINTS) return
    this.marks = this.marks.filter((_, i) => i % 2 === 0)
    this.every *= 2
  }
}

/** {@link TrackAdder} over points that are all there. */
export function trackDistance(points: Iterable<TrackPoint>, assumed: TrackBounds): TrackSum | null {
  const adder = new TrackAdder(assumed)
  for (const point of points) adder.add(point)
  return adder.sum()
}
