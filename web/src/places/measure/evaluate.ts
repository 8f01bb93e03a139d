import {
  chainVerdict,
  DEFAULTS,
  elongationFromSpan,
  neighbouringCounts,
  parseLength,
  parseOdometer,
  pitchCandidates,
  spanObservation,
  type ChainVerdict,
  type ChainVerdictInput,
  type LengthProblem,
  type OdometerProblem,
  type ParsedLength,
  type PitchCandidate,
  type SpanObservation,
  type VerdictReading,
} from '@pelrin/core'
import type { BikeRecord, Instrument, SpotMark } from '@pelrin/contract'
import type { Draft, DraftSpot } from './draft.ts'

/** What a spot's text says so far. */
export type SpotReading =
  | { readonly state: 'empty' }
  | { readonly state: 'problem'; readonly problem: LengthProblem }
  /** A length, but of no count it can be; what it lies between. */
  | {
      readonly state: 'no-count'
      readonly length: ParsedLength
      readonly below: PitchCandidate | null
      readonly above: PitchCandidate
    }
  /** Several counts are possible, or only odd ones: somebody has to say. */
  | { readonly state: 'choose'; readonly length: ParsedLength; readonly candidates: readonly PitchCandidate[] }
  | {
      readonly state: 'ready'
      readonly length: ParsedLength
      readonly pitches: number
      readonly observation: SpanObservation
    }

const plausible = ({ elongation }: PitchCandidate): boolean =>
  elongation >= DEFAULTS.measuring.countLowest && elongation <= DEFAULTS.measuring.countHighest

/** Reads a spot: its length, the counts it can be, and with a count what it says of the chain. */
export function readSpot(spot: DraftSpot, instrument: Instrument | undefined): SpotReading {
  if (spot.typed.trim() === '') return { state: 'empty' }
  const parsed = parseLength(spot.typed)
  if (!parsed.ok) return { state: 'problem', problem: parsed.problem }
  const { length } = parsed
  const { lengthMm } = length
  const ready = (pitches: number): SpotReading => ({
    state: 'ready',
    length,
    pitches,
    observation: spanObservation({
      lengthMm,
      pitches,
      uMm: instrument?.uMm ?? DEFAULTS.measuring.steelRuleUMm,
      bias: instrument?.bias ?? 0,
    }),
  })
  // A count picked for another length is forgotten by itself: it no longer fits.
  if (spot.pitches !== null) {
    const elongation = elongationFromSpan({ lengthMm, pitches: spot.pitches })
    if (plausible({ pitches: spot.pitches, elongation })) return ready(spot.pitches)
  }
  const even = pitchCandidates({ lengthMm, wholeLinks: true })
  if (even.length === 1) return ready(even[0]!.pitches)
  if (even.length > 1) return { state: 'choose', length, candidates: even }
  const odd = pitchCandidates({ lengthMm, wholeLinks: false })
  if (odd.length > 0) return { state: 'choose', length, candidates: odd }
  return { state: 'no-count', length, ...neighbouringCounts(lengthMm) }
}

export type OdometerReading =
  | { readonly state: 'empty' }
  | { readonly state: 'problem'; readonly problem: OdometerProblem }
  | { readonly state: 'ready'; readonly km: number; readonly unit: 'km' | 'mi'; readonly lower: boolean }

/** Reads the odometer field against the bike's last value. */
export function readOdometer(typed: string, unit: 'km' | 'mi', lastKm: number | null): OdometerReading {
  if (typed.trim() === '') return { state: 'empty' }
  const parsed = parseOdometer(typed, unit)
  if (!parsed.ok) return { state: 'problem', problem: parsed.problem }
  return { state: 'ready', km: parsed.km, unit: parsed.unit, lower: lastKm !== null && parsed.km < lastKm - 0.05 }
}

/**
 * The verdict as it would be if the draft were saved now, with the marks of every spot that counts; as things
 * stand without it when nothing is typed yet.
 *
 * @param now ms since 1970 UTC, when the reading is taken
 * @param corrects id of the reading the draft would take the place of
 */
export function liveVerdict(
  record: BikeRecord,
  draft: Draft,
  spots: readonly SpotReading[],
  instrument: Instrument | undefined,
  odometer: OdometerReading,
  now: number,
  corrects: string | null,
): { verdict: ChainVerdict; marks: SpotMark[] } | null {
  const input = liveInput(record, draft, spots, instrument, odometer, now, corrects)
  if (!input) return null
  const verdict = chainVerdict(input)
  const counted = input.readings.filter((reading) => verdict.countedReadingIds.includes(reading.id))
  return { verdict, marks: counted.flatMap((reading) => marksOfReading(reading, verdict)) }
}

const marksOfReading = (reading: VerdictReading, { worst }: ChainVerdict): SpotMark[] =>
  reading.spots.map(({ value = null, over = null, under = null, u }, spot) => ({
    value,
    over,
    under,
    u,
    worst: worst?.readingId === reading.id && worst.spot === spot,
  }))

/** What the live verdict rests on: what stands, and the draft as one more reading. */
function liveInput(
  record: BikeRecord,
  draft: Draft,
  spots: readonly SpotReading[],
  instrument: Instrument | undefined,
  odometer: OdometerReading,
  now: number,
  corrects: string | null,
): ChainVerdictInput | null {
  const input = record.verdictInput
  if (!input) return null
  const standing = input.readings.filter((reading) => reading.id !== corrects)
  const ready = spots.flatMap((spot) => (spot.state === 'ready' ? [spot] : []))
  if (ready.length === 0 || !instrument) return { ...input, readings: standing }
  const { chainKm } = record.summary
  const sinceLast =
    odometer.state === 'ready' && !odometer.lower && record.lastOdometer ? odometer.km - record.lastOdometer.km : 0
  const corrected = input.readings.find((reading) => reading.id === corrects)
  return {
    ...input,
    readings: [
      ...standing,
      {
        id: draft.readingId,
        occurredAt: corrected?.occurredAt ?? now,
        chainKm: corrected ? corrected.chainKm : chainKm === null ? null : chainKm + sinceLast,
        source: 'shop',
        instrument: { id: instrument.id, kind: instrument.kind, biasU: instrument.biasU },
        spots: ready.map(({ observation, pitches }) => ({ value: observation.value, u: observation.u, pitches })),
      },
    ],
  }
}
