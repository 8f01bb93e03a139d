import type { OdometerValue } from './odometerDistance.ts'
import { NO_KM, plusKm, type Surface, type SurfaceKm } from './surface.ts'

/** A ride of a bike. */
export interface LedgerRide {
  readonly id: string
  /** ms since 1970 UTC; `to` is later than `from`. */
  readonly from: number
  readonly to: number
  readonly km: number
  /** Null when nobody said. */
  readonly surface: Surface | null
  /**
   * How the distance grew, where a track says: moments between `from` and `to` and the share ridden by then, both
   * rising. Left out: evenly.
   */
  readonly profile?: readonly { readonly at: number; readonly share: number }[]
}

/** What is known of a bike's distance: none of it superseded, in any order. */
export interface Ledger {
  readonly odometer: readonly OdometerValue[]
  readonly rides: readonly LedgerRide[]
}

/** A stretch of time in which a bike was ridden evenly. */
export interface Segment {
  readonly from: number
  readonly to: number
  readonly km: number
  readonly surface: Surface | null
  /** The ride it is part of; null for what only the odometer tells. */
  readonly rideId: string | null
}

/** Between two odometer values: what they say and what the rides in between add up to. */
export interface LedgerStretch {
  readonly from: number
  readonly to: number
  readonly odometerKm: number
  readonly ridesKm: number
  /** The rides add up to more than the odometer allows. It wins, and they count less. */
  readonly ridesExceed: boolean
}

export interface LedgerView {
  /** In order of time. Rides may overlap the even spread of what the odometer adds. */
  readonly segments: readonly Segment[]
  readonly stretches: readonly LedgerStretch[]
  /** The last moment anything is recorded for; null with nothing. */
  readonly lastAt: number | null
}

/**
 * Reads a ledger without counting anything twice.
 *
 * Between two odometer values their difference is the total: rides in between say when and on what it was ridden, the
 * rest is spread evenly. Rides adding up to more are scaled down, and flagged when it is more than a little. Where the
 * odometer tells nothing (outside its values, across a reset, or where it fell), rides are the total.
 */
export function readLedger(
  { odometer, rides }: Ledger,
  { ridesOverOdometer }: { readonly ridesOverOdometer: number },
): LedgerView {
  const values = [...odometer].sort((a, b) => a.at - b.at)
  const pieces = rides.flatMap(piecesOf)
  const counted: Segment[] = []
  const stretches: LedgerStretch[] = []
  const told: { from: number; to: number }[] = []
  for (let i = 1; i < values.length; i++) {
    const before = values[i - 1]!
    const after = values[i]!
    if (after.restarted || after.km < before.km) continue
    const { at: from } = before
    const { at: to } = after
    const odometerKm = after.km - before.km
    const within = from < to ? pieces.flatMap((piece) => clip(piece, from, to)) : []
    const ridesKm = within.reduce((sum, piece) => sum + piece.km, 0)
    const scale = ridesKm > odometerKm ? (ridesKm === 0 ? 0 : odometerKm / ridesKm) : 1
    for (const piece of within) counted.push({ ...piece, km: piece.km * scale })
    const rest = odometerKm - Math.min(ridesKm, odometerKm)
    if (rest > 0) counted.push({ from, to, km: rest, surface: null, rideId: null })
    stretches.push({ from, to, odometerKm, ridesKm, ridesExceed: ridesKm > odometerKm * (1 + ridesOverOdometer) })
    told.push({ from, to })
  }
  for (const piece of pieces) counted.push(...outside(piece, told))
  const ends = [...values.map(({ at }) => at), ...rides.map(({ to }) => to)]
  return {
    segments: counted.sort((a, b) => a.from - b.from || a.to - b.to),
    stretches,
    lastAt: ends.length === 0 ? null : Math.max(...ends),
  }
}

/** A ride as even stretches. */
function piecesOf({ id, from, to, km, surface, profile = [] }: LedgerRide): Segment[] {
  const marks = [{ at: from, share: 0 }, ...profile.filter(({ at }) => at > from && at < to), { at: to, share: 1 }]
  return marks.slice(1).map((mark, i) => ({
    from: marks[i]!.at,
    to: mark.at,
    km: km * (mark.share - marks[i]!.share),
    surface,
    rideId: id,
  }))
}

/** The part of a segment within two moments. */
function clip(segment: Segment, from: number, to: number): Segment[] {
  const start = Math.max(segment.from, from)
  const end = Math.min(segment.to, to)
  // A ride recorded at one moment belongs where that moment lies; the end of a stretch belongs to the next.
  if (segment.from === segment.to) return segment.from >= from && segment.from < to ? [segment] : []
  if (end <= start) return []
  return [{ ...segment, from: start, to: end, km: (segment.km * (end - start)) / (segment.to - segment.from) }]
}

/** The parts of a segment that none of some ordered stretches of time cover. */
function outside(segment: Segment, told: readonly { from: number; to: number }[]): Segment[] {
  let rest = [segment]
  for (const { from, to } of told)
    if (from < to) rest = rest.flatMap((piece) => [...clip(piece, -Infinity, from), ...clip(piece, to, Infinity)])
  return rest
}

/** What was ridden between two moments, km by surface. */
export function distanceBetween(segments: readonly Segment[], from: number, to: number): SurfaceKm {
  const km = { ...NO_KM }
  for (const segment of segments) {
    if (segment.from === segment.to && segment.rideId === null) {
      // Two odometer values of one moment: a correction of the meter, ridden then.
      if (segment.from >= from && segment.from <= to) km.unknown += segment.km
      continue
    }
    for (const piece of clip(segment, from, to)) km[piece.surface ?? 'unknown'] += piece.km
  }
  return km
}

/** A chain on a bike over a stretch of time; `to` is null while it is fitted. */
export interface FittedOver {
  readonly bikeId: string
  readonly from: number
  readonly to: number | null
}

/**
 * What a chain was ridden up to a moment: the distance of each bike it was fitted to while it was fitted, km by surface.
 *
 * @param segmentsOf a bike's segments
 */
export function chainDistance(
  fittings: readonly FittedOver[],
  segmentsOf: (bikeId: string) => readonly Segment[],
  upTo: number,
): SurfaceKm {
  return fittings
    .filter(({ from }) => from <= upTo)
    .map(({ bikeId, from, to }) => distanceBetween(segmentsOf(bikeId), from, Math.min(to ?? Infinity, upTo)))
    .reduce(plusKm, NO_KM)
}
