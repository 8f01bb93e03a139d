import type { VerdictReading, VerdictSpot } from './verdictTypes.ts'

/** A reading with who took it. */
export interface AttributedReading extends VerdictReading {
  readonly person: string
}

export const APART = ['instruments', 'people'] as const
export type Apart = (typeof APART)[number]
/** What would settle a disagreement, most telling first. */
export const DISAGREEMENT_SETTLES = ['same-spot-with-both', 'check-on-strip', 'study'] as const
export type SettleDisagreement = (typeof DISAGREEMENT_SETTLES)[number]
/** Two readings of one chain set side by side. */
export interface Disagreement {
  readonly a: string
  readonly b: string
  /** What differs between them. */
  readonly apart: Apart
  /** Named places both looked at; empty when they looked at different ones. */
  readonly places: readonly number[]
  /** How much a shows more than b, %; 0 where an interval leaves it open. */
  readonly gap: number
  /** Standard uncertainty of the gap, %. */
  readonly u: number
  /** The gap is more than both can be wrong. */
  readonly beyond: boolean
  /** Which reading to go by until it is settled; null where nothing speaks for one. */
  readonly trust: string | null
  readonly because: 'in-date' | 'smaller-u' | 'neither'
  /** What the less trusted instrument seems to read too much: evidence for its record. */
  readonly evidence: { readonly instrumentId: string; readonly bias: number; readonly u: number } | null
  readonly settle: readonly SettleDisagreement[]
}

/** How unevenly the spots of a chain wear, %: the spread expected over all kinds of chains. */
const UNEVEN = 0.068
/** Beyond this many u a gap is no chance. */
const BEYOND = 2

/**
 * Sets every two readings side by side that differ in instrument or person: how far apart, whether that is more
 * than both can be wrong, which to go by, and what would settle it. The widest gap in its own u comes first.
 *
 * @param readings of one chain at one time, with values or marks
 */
export function disagreements(readings: readonly AttributedReading[]): Disagreement[] {
  const measured = readings.filter((reading) => reading.spots.length > 0)
  const found: Disagreement[] = []
  for (const [i, a] of measured.entries())
    for (const b of measured.slice(i + 1)) {
      const apart: Apart | null =
        a.instrument.id !== b.instrument.id ? 'instruments' : a.person !== b.person ? 'people' : null
      if (apart !== null) found.push(compared(a, b, apart))
    }
  return found.sort((one, other) => Math.abs(other.gap) / other.u - Math.abs(one.gap) / one.u)
}

function compared(a: AttributedReading, b: AttributedReading, apart: Apart): Disagreement {
  const places = a.spots.flatMap(({ place }) =>
    place !== undefined && b.spots.some((other) => other.place === place) ? [place] : [],
  )
  const pairs =
    places.length > 0
      ? places.map(
          (place) => [a.spots.find((s) => s.place === place)!, b.spots.find((s) => s.place === place)!] as const,
        )
      : [[middleOf(a.spots), middleOf(b.spots)] as const]
  const gaps = pairs.map(([mine, theirs]) => gapOf(mine, theirs))
  const gap = gaps.reduce((sum, one) => sum + one, 0) / gaps.length
  const readU = Math.hypot(...pairs.flatMap(([mine, theirs]) => [mine.u, theirs.u])) / pairs.length
  // One instrument in two hands has one bias, which cancels.
  const biasU = apart === 'instruments' ? Math.hypot(a.instrument.biasU, b.instrument.biasU) : 0
  const spotsU =
    places.length > 0 ? 0 : UNEVEN * Math.hypot(1 / Math.sqrt(a.spots.length), 1 / Math.sqrt(b.spots.length))
  const u = Math.hypot(readU, biasU, spotsU)
  const beyond = Math.abs(gap) > BEYOND * u
  const { trust, because } = trusted(a, b)
  const other = trust === null ? null : trust === a.id ? b : a
  return {
    a: a.id,
    b: b.id,
    apart,
    places,
    gap,
    u,
    beyond,
    trust,
    because,
    evidence:
      beyond && apart === 'instruments' && other !== null
        ? { instrumentId: other.instrument.id, bias: other.id === a.id ? gap : -gap, u }
        : null,
    settle: [
      ...(places.length === 0 ? (['same-spot-with-both'] as const) : []),
      ...(apart === 'instruments' ? (['check-on-strip'] as const) : (['study'] as const)),
    ],
  }
}

interface Middle {
  readonly value?: number
  readonly over?: number
  readonly under?: number
  readonly u: number
}

/** The mean of point spots; of marks the narrowest that all of them leave. */
function middleOf(spots: readonly VerdictSpot[]): Middle {
  const points = spots.flatMap(({ value, u }) => (value === undefined ? [] : [{ value, u }]))
  if (points.length > 0)
    return {
      value: points.reduce((sum, { value }) => sum + value, 0) / points.length,
      u: Math.hypot(...points.map(({ u }) => u)) / points.length,
    }
  const overs = spots.flatMap(({ over }) => (over === undefined ? [] : [over]))
  const unders = spots.flatMap(({ under }) => (under === undefined ? [] : [under]))
  return {
    ...(overs.length === 0 ? {} : { over: Math.max(...overs) }),
    ...(unders.length === 0 ? {} : { under: Math.max(...unders) }),
    u: Math.max(...spots.map(({ u }) => u)),
  }
}

/** How far one shows above the other; 0 where they can both be right. */
function gapOf(a: Middle, b: Middle): number {
  const lowA = a.value ?? a.over ?? -Infinity
  const highA = a.value ?? a.under ?? Infinity
  const lowB = b.value ?? b.over ?? -Infinity
  const highB = b.value ?? b.under ?? Infinity
  if (lowA > highB) return lowA - highB
  return lowB > highA ? highA - lowB : 0
}

function trusted(a: AttributedReading, b: AttributedReading): Pick<Disagreement, 'trust' | 'because'> {
  const lapsedA = a.instrument.lapsed === true
  const lapsedB = b.instrument.lapsed === true
  if (lapsedA !== lapsedB) return { trust: lapsedA ? b.id : a.id, because: 'in-date' }
  const uOf = ({ spots, instrument }: AttributedReading): number => Math.hypot(middleOf(spots).u, instrument.biasU)
  const [uA, uB] = [uOf(a), uOf(b)]
  if (Math.abs(uA - uB) < 1e-9) return { trust: null, because: 'neither' }
  return { trust: uA < uB ? a.id : b.id, because: 'smaller-u' }
}
