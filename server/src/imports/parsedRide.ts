import { gunzipSync, gzipSync } from 'node:zlib'
import type { Surface, TrackPoint, TrackSum } from '@pelrin/core'

/** A ride as a file tells it. Distances in km, moments in ms. */
export interface ParsedRide {
  readonly from: number
  readonly to: number
  readonly km: number
  readonly title: string | null
  /** As the file says it; null where it does not. */
  readonly surface: Surface | null
  readonly profile: { at: number; share: number }[]
  readonly gaps: number
  readonly jumps: number
  /** Where it went, compressed; null without a track. */
  readonly points: Buffer | null
  /** Row of a table, from 1 below its header. */
  readonly row?: number
}

/** Why a file, or a row of one, is left out. Keys of the message catalogue. */
export type ImportProblem =
  | 'file-unreadable'
  | 'file-broken'
  | 'file-too-large'
  | 'file-expands'
  | 'file-too-many-rides'
  | 'file-without-times'
  | 'file-without-ride'
  | 'file-other-sport'
  | 'file-entities'
  | 'row-time-unreadable'
  | 'row-distance-unreadable'
  | 'row-formula'
  | 'ride-too-fast'
  | 'ride-too-long'
  | 'ride-in-future'

/** A file that cannot be taken, and why. */
export class ImportError extends Error {
  constructor(
    readonly code: ImportProblem,
    readonly row?: number,
  ) {
    super(code)
  }
}

/** Rides one file may hold; more is no diary of anybody's. */
export const RIDES_A_FILE = 5_000

/** Points of a track that are kept: enough to draw and give out again. */
const POINTS_KEPT = 4000

/** Gathers a track's points, thinned as it grows, so that a file of any size needs no more room. */
export class TrackKeeper {
  private points: TrackPoint[] = []
  private every = 1
  private seen = 0

  add(point: TrackPoint): void {
    if (this.seen++ % this.every !== 0) return
    this.points.push(point)
    if (this.points.length <= POINTS_KEPT) return
    this.points = this.points.filter((_, i) => i % 2 === 0)
    this.every *= 2
  }

  pack(): Buffer | null {
    return this.points.length < 2 ? null : packTrack(this.points)
  }
}

export const packTrack = (points: readonly TrackPoint[]): Buffer =>
  gzipSync(JSON.stringify(points.map(({ at, latitude, longitude }) => [at, round(latitude), round(longitude)])))

export const unpackTrack = (packed: Buffer): TrackPoint[] =>
  (JSON.parse(gunzipSync(packed).toString()) as [number, number, number][]).map(([at, latitude, longitude]) => ({
    at,
    latitude,
    longitude,
  }))

/** A tenth of a metre. */
const round = (degrees: number): number => Math.round(degrees * 1e6) / 1e6

const FASTEST_KMH = 120
const LONGEST_MS = 72 * 3_600_000

/** A ride from what its track adds up to, unless the file states a distance of its own. */
export function rideOfTrack(
  sum: TrackSum | null,
  told: { km: number | null; title: string | null; points: Buffer | null },
): ParsedRide {
  if (!sum) throw new ImportError('file-without-times')
  return {
    from: sum.from,
    to: sum.to,
    km: told.km ?? sum.km,
    title: told.title,
    surface: null,
    profile: sum.profile,
    gaps: sum.gaps,
    jumps: sum.jumps,
    points: told.points,
  }
}

/** What keeps a parsed ride out of the ledger; null when nothing does. */
export function rideProblem({ from, to, km }: ParsedRide, now: number): ImportProblem | null {
  if (to > now + 300_000) return 'ride-in-future'
  if (to - from > LONGEST_MS) return 'ride-too-long'
  if (!(km > 0)) return 'file-without-ride'
  return (km / (to - from)) * 3_600_000 > FASTEST_KMH ? 'ride-too-fast' : null
}

/** A ride that turned wheels and went nowhere: where its track says it was, nobody was. */
export const riddenIndoors = (ride: ParsedRide): ParsedRide => ({ ...ride, surface: 'indoor', points: null })
