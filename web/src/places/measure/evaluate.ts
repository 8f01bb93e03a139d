import {
  type ChainLife,
  assumptionsWith,
  chainVerdict,
  countsWithin,
  elongationFromSpan,
  entryForm,
  estimatedS,
  hintOf,
  neighbouringCounts,
  observeSpot,
  odometerDoubt,
  parseOdometer,
  pinSpanTyped,
  recordFor,
  withOdometer,
  type Assumptions,
  type ChainForecast,
  type ChainVerdict,
  type LengthUnit,
  type Observed,
  type OdometerDoubt,
  type OdometerProblem,
  type PitchCandidate,
  type SpotProblem,
  type VerdictReading,
  type VerdictSpot,
  hangsWholeChain,
  measuresNothing,
} from '@pelrin/core'
import type { BikeRecord, Instrument, SpotMark, VerdictInput } from '@pelrin/contract'
import { conditionsOf, type Draft, type DraftSpot } from './draft.ts'

const DAY_MS = 86_400_000

/** A length as read between pin centres, before its count is known. */
export interface TypedSpan {
  readonly lengthMm: number
  readonly unit: LengthUnit
  readonly pastMarkMm: number | null
  readonly denominator: number | null
}

/** What a spot's text says so far. */
export type SpotReading =
  | { readonly state: 'empty' }
  | {
      readonly state: 'problem'
      readonly problem: SpotProblem
      readonly values?: Readonly<Record<string, string | number>>
    }
  /** A length, but of no count it can be; what it lies between. */
  | {
      readonly state: 'no-count'
      readonly span: TypedSpan
      readonly below: PitchCandidate | null
      readonly above: PitchCandidate
    }
  /** Several counts are possible, or only odd ones, or it is a whole chain: somebody has to say. */
  | { readonly state: 'choose'; readonly span: TypedSpan; readonly candidates: readonly PitchCandidate[] }
  | {
      readonly state: 'ready'
      readonly observed: Observed
      /** The count as it was told: of a whole chain with its connecting link. */
      readonly pitches: number | null
      readonly span: TypedSpan | null
    }

/** What every spot of a reading shares. */
export type Shared = Pick<
  Draft,
  'mode' | 'linkIncluded' | 'run' | 'load' | 'ruleCelsius' | 'chainCelsius' | 'preloadKg'
>

const SHARED: Shared = {
  mode: 'pin-to-pin',
  linkIncluded: true,
  run: 'lower',
  load: 'tensioned',
  ruleCelsius: '',
  chainCelsius: '',
  preloadKg: '',
}

/**
 * Reads a spot: its length, the counts it can be, and with a count what it says of the chain; or what a gauge shows.
 *
 * @param limit elongation at which the chain is to be changed, %: a run one pitch out must not condemn it
 * @param likeCount the count of the spot before: where several fit, this one was meant again
 */
export function readSpot(
  spot: DraftSpot,
  instrument: Instrument | undefined,
  shared: Shared = SHARED,
  assumed: Assumptions,
  limit: number,
  likeCount: number | null = null,
): SpotReading {
  if (spot.typed.trim() === '' || !instrument) return { state: 'empty' }
  const entry = {
    typed: spot.typed,
    mode: shared.mode,
    linkIncluded: shared.linkIncluded,
    ...(spot.picture === null ? {} : { picture: spot.picture }),
  }
  const observed = (pitches: number | null, span: TypedSpan | null): SpotReading => {
    const seen = observeSpot({
      record: instrument,
      entry: { ...entry, pitches },
      taken: conditionsOf({ ...shared } as Draft),
      assumed,
    })
    if (!seen.ok)
      return { state: 'problem', problem: seen.problem, ...(seen.values === undefined ? {} : { values: seen.values }) }
    return { state: 'ready', observed: seen.observed, pitches, span }
  }
  if (entryForm(instrument.kind) !== 'length') return observed(null, null)
  const span = pinSpanTyped(instrument, entry, assumed)
  if (!span.ok) return { state: 'problem', problem: span.problem }
  if (hangsWholeChain(instrument.kind))
    return spot.pitches === null ? { state: 'choose', span, candidates: [] } : observed(spot.pitches, span)
  const fits = (pitches: number): boolean => {
    const elongation = elongationFromSpan({ lengthMm: span.lengthMm, pitches })
    return elongation >= assumed.measuring.countLowest && elongation <= assumed.measuring.countHighest
  }
  // A count picked for another length is forgotten by itself: it no longer fits.
  if (spot.pitches !== null && fits(spot.pitches)) return observed(spot.pitches, span)
  const even = countsWithin({ lengthMm: span.lengthMm, wholeLinks: true }, assumed.measuring)
  const [only] = even
  if (only && even.length === 1) {
    const out = only.elongation > limit ? onePitchOut(span.lengthMm, assumed) : undefined
    // The unsuspicious one first, and nothing is judged until one is picked.
    return out ? { state: 'choose', span, candidates: [out, only] } : observed(only.pitches, span)
  }
  if (likeCount !== null && even.some(({ pitches }) => pitches === likeCount)) return observed(likeCount, span)
  if (even.length > 1) return { state: 'choose', span, candidates: even }
  const odd = countsWithin({ lengthMm: span.lengthMm, wholeLinks: false }, assumed.measuring)
  if (odd.length > 0) return { state: 'choose', span, candidates: odd }
  return { state: 'no-count', span, ...neighbouringCounts(span.lengthMm) }
}

/** An odd count that would make a healthy chain of a length: most likely the run began or ended a pitch beside where it was meant to. */
function onePitchOut(lengthMm: number, { measuring }: Assumptions): PitchCandidate | undefined {
  const bounds = { candidateLowest: measuring.oddLowest, candidateHighest: measuring.oddHighest }
  return countsWithin({ lengthMm, wholeLinks: false }, bounds).find(({ pitches }) => pitches % 2 === 1)
}

/** Every count a length can be at all, for saying another than was taken. */
export const countsOf = ({ lengthMm }: TypedSpan, { measuring }: Assumptions): PitchCandidate[] =>
  countsWithin(
    { lengthMm, wholeLinks: false },
    { candidateLowest: measuring.countLowest, candidateHighest: measuring.countHighest },
  )

/** Reads every spot of a draft, each count left out taken from the spot before where it fits. */
export function readRound(
  draft: Draft,
  instrument: Instrument | undefined,
  assumed: Assumptions,
  limit: number,
): SpotReading[] {
  let likeCount: number | null = null
  const used = instrument && recordFor(instrument, draft.source)
  return draft.spots.map((spot) => {
    const reading = readSpot(spot, used, draft, assumed, limit, likeCount)
    if (reading.state === 'ready' && reading.pitches !== null) likeCount = reading.pitches
    return reading
  })
}

export type OdometerReading =
  | { readonly state: 'empty' }
  | { readonly state: 'problem'; readonly problem: OdometerProblem }
  | { readonly state: 'ready'; readonly km: number; readonly unit: 'km' | 'mi'; readonly doubt: OdometerDoubt | null }

/** Reads the odometer field against the bike's last value, at a moment (ms). */
export function readOdometer(
  typed: string,
  unit: 'km' | 'mi',
  last: { readonly km: number; readonly at: string } | null,
  now: number,
  assumed: Assumptions,
): OdometerReading {
  if (typed.trim() === '') return { state: 'empty' }
  const parsed = parseOdometer(typed, unit, assumed.distance)
  if (!parsed.ok) return { state: 'problem', problem: parsed.problem }
  return {
    state: 'ready',
    km: parsed.km,
    unit: parsed.unit,
    doubt: odometerDoubt(
      { km: parsed.km, at: now },
      last && { km: last.km, at: Date.parse(last.at) },
      assumed.distance,
    ),
  }
}

/** What the shop assumes, as this bike's verdict is given by it. */
export const assumedFor = (record: BikeRecord): Assumptions => assumptionsWith(record.assumptions)

export interface Live {
  readonly verdict: ChainVerdict
  /** Marks of every spot that counts. */
  readonly marks: SpotMark[]
  /** Position of the worst spot among those typed; null when the worst is of another reading. */
  readonly worstTyped: number | null
}

/**
 * The verdict as it would be if the draft were saved now, with the marks of every spot that counts; as things
 * stand without it when nothing is typed yet.
 *
 * @param now ms since 1970 UTC, when the reading is taken
 * @param corrects id of the reading the draft would take the place of
 * @param forecast worked out beside from {@link liveInput}; null while it is on its way
 */
export function liveVerdict(
  record: BikeRecord,
  draft: Draft,
  spots: readonly SpotReading[],
  instrument: Instrument | undefined,
  odometer: OdometerReading,
  now: number,
  corrects: string | null,
  forecast: ChainForecast | null = null,
): Live | null {
  const input = liveInput(record, draft, spots, instrument, odometer, now, corrects)
  if (!input) return null
  const verdict = chainVerdict({
    ...input,
    assumptions: input.assumptions ?? {},
    forecast: forecast?.withheld === null ? forecast : null,
  })
  const counted = input.readings.filter((reading) => verdict.countedReadingIds.includes(reading.id))
  return {
    verdict,
    marks: counted.flatMap((reading) => marksOfReading(reading, verdict)),
    worstTyped: verdict.worst?.readingId === draft.readingId ? verdict.worst.spot : null,
  }
}

const marksOfReading = (reading: VerdictReading, { worst }: ChainVerdict): SpotMark[] =>
  reading.spots.map(({ value = null, over = null, under = null, u }, spot) => ({
    value,
    over,
    under,
    u,
    worst: worst?.readingId === reading.id && worst.spot === spot,
  }))

/** What the live verdict and forecast rest on: what stands, and the draft as one more reading. */
export function liveInput(
  record: BikeRecord,
  draft: Draft,
  spots: readonly SpotReading[],
  instrument: Instrument | undefined,
  odometer: OdometerReading,
  now: number,
  corrects: string | null,
): VerdictInput | null {
  const input = record.verdictInput
  if (!input) return null
  const standing = input.readings.filter((reading) => reading.id !== corrects)
  const typed = verdictSpots(draft, spots)
  const byHand = instrument !== undefined && measuresNothing(instrument.kind) && draft.signs !== null
  const { life } = input
  const asItStands = { at: now, chainKm: estimatedKm(record, now) }
  if ((typed.length === 0 && !byHand) || !instrument) return { ...input, asOf: asItStands, readings: standing }
  const corrected = input.readings.find((reading) => reading.id === corrects)
  const { chainAt, then, life: lived } = distanceWith(record, odometer, now)
  const { km, s } = chainAt(now)
  return {
    ...input,
    ...(life === undefined || corrected ? {} : { life: { ...life, ...lived, sNow: s, at: Math.max(now, life.at) } }),
    asOf: corrected ? asItStands : { at: now, chainKm: km },
    chain:
      corrected || km === null
        ? input.chain
        : { ...input.chain, km, ...(input.chain.kmSinceFittedNew === null ? {} : { kmSinceFittedNew: km }) },
    readings: [
      ...(corrected ? standing : standing.map((reading) => ({ ...reading, ...then(reading) }))),
      {
        id: draft.readingId,
        occurredAt: corrected?.occurredAt ?? now,
        chainKm: corrected ? corrected.chainKm : km,
        s: corrected ? (corrected.s ?? null) : s,
        ...(draft.baseline ? { baseline: true } : {}),
        source: draft.source,
        instrument: {
          id: instrument.id,
          kind: instrument.kind,
          biasU: instrument.biasU,
          ...(instrument.checkLapsed ? { lapsed: true } : {}),
        },
        spots: typed,
        ...(byHand ? { hint: hintOf(draft.signs) } : {}),
      },
    ],
  }
}

/**
 * Where the chain is at any moment since the last odometer value: by the value typed, as the server reads its ledger with
 * it, else what is recorded and, in wear, what is ridden as usual since.
 */
function distanceWith(
  record: BikeRecord,
  odometer: OdometerReading,
  now: number,
): {
  chainAt: (at: number) => { km: number | null; s: number | null }
  /** Where an earlier reading lies. */
  then: (reading: VerdictInput['readings'][number]) => { chainKm: number | null; s: number | null }
  /** What else of the chain's life goes by the value typed. */
  life: Partial<Pick<ChainLife, 'rate' | 'usualFactor'>>
} {
  const tail = record.distanceTail
  const life = record.verdictInput?.life
  const last = tail?.odometer ?? null
  if (tail && odometer.state === 'ready') {
    const typed = { at: now, km: odometer.km, restarted: odometer.doubt === 'odometer-lower' }
    const { chainAt, sOfReading, usualFactor, rate } = withOdometer(tail, typed, assumedFor(record).distance)
    return {
      chainAt,
      // Readings since the last value of the odometer lie where the new one puts them.
      then: ({ id, occurredAt, chainKm, s }) => {
        if (last === null || occurredAt <= last.at) return { chainKm, s: sOfReading(id, s ?? null) }
        const at = chainAt(occurredAt)
        return { chainKm: at.km, s: at.s }
      },
      life: { usualFactor, ...(rate === null ? {} : { rate }) },
    }
  }
  return {
    chainAt: (at) => ({ km: tail?.recorded.km ?? null, s: life ? estimatedS(life, at) : null }),
    then: ({ chainKm, s }) => ({ chainKm, s: s ?? null }),
    life: {},
  }
}

/** What a chain has run by now, as recorded and as usual since; null where it is not known. */
function estimatedKm({ distanceTail, verdictInput }: BikeRecord, now: number): number | null {
  const km = distanceTail?.recorded.km ?? null
  const life = verdictInput?.life
  return km === null || !life ? null : km + (Math.max(0, now - life.at) / DAY_MS) * life.rate.kmPerDay
}

/** The spots that can be read, as the verdict takes them. */
function verdictSpots(draft: Draft, spots: readonly SpotReading[]): VerdictSpot[] {
  return spots.flatMap((reading, i) => {
    if (reading.state !== 'ready') return []
    const { value, over, under, u, borderline } = reading.observed
    return [
      {
        u,
        ...(value === undefined ? {} : { value }),
        ...(over === undefined ? {} : { over }),
        ...(under === undefined ? {} : { under }),
        ...(reading.pitches === null ? {} : { pitches: reading.pitches }),
        ...(borderline ? { borderline } : {}),
        ...(draft.named ? { place: i + 1 } : {}),
      },
    ]
  })
}
