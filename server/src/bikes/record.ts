import {
  distanceBetween,
  disagreements,
  explainedOdometerDistance,
  explainedSurfaceKm,
  observeSpot,
  recordedBefore,
  recordFor,
  totalKm,
  type Assumptions,
} from '@pelrin/core'
import type { BikeRecord, CorrectedReading, Reading, Spot } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import {
  assumedAt,
  assumptionsInForce,
  assumptionVersions,
  type AssumptionVersion,
} from '../limits/assumptionsStore.ts'
import { decisionsOf } from '../limits/decisionsStore.ts'
import { asLedgerRide } from '../distance/store.ts'
import { asAttributed } from '../readings/attributedStore.ts'
import { conditionsOf, type ReadingFact, type SpotFact } from '../readings/store.ts'
import { bikeFacts, shownOf, type BikeFacts } from '../state/verdictInput.ts'
import { componentRows } from '../components/store.ts'
import { earlierChains } from './earlierChains.ts'
import { ownPrices } from './ownPrices.ts'
import { summaries } from './summaries.ts'
import { BIKES, CUSTOMERS, type BikeRow } from './models.ts'
import { pictureOf } from './picture.ts'
import { BIKE_STATE } from '../state/models.ts'

/** One bike's whole record. */
export async function bikeRecord(work: Work, bikeId: string): Promise<BikeRecord> {
  const [summary] = await summaries(work, 'WHERE b.id = :bikeId', { bikeId })
  const bike = await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })
  if (!summary || !bike) throw new ProblemError(404, 'bike-unknown')
  const customer = await work.of(CUSTOMERS).findByPk(bike.customerId, { transaction: work.transaction })
  const facts = await bikeFacts(work, bikeId, work.now)
  const [verdict] = await work.select<{
    id: string
    occurredAt: Date
    readingId: string | null
    ruleVersion: number
    outcome: NonNullable<BikeRecord['verdict']>['outcome']
  }>(
    `SELECT v.id, v.occurred_at AS "occurredAt", v.reading_id AS "readingId", w.version AS "ruleVersion", v.outcome
     FROM bike_state s JOIN verdicts v ON v.id = s.verdict_id
     JOIN house_rule_versions w ON w.id = v.house_rule_version_id WHERE s.bike_id = :bikeId`,
    { bikeId },
  )
  const { fitting, distance } = facts
  const parts = await componentRows(work, bikeId)
  const cassette = parts.find(({ item, to }) => item === 'cassette' && to === null)
  const { assumed, overrides } = await assumptionsInForce(work)
  const lastEntry = distance.entries.at(-1)
  const state = await work.of(BIKE_STATE).findByPk(bikeId, { transaction: work.transaction })
  return {
    summary,
    version: bike.version,
    maker: bike.maker,
    model: bike.model,
    kind: bike.kind,
    weightKg: bike.weightKg,
    notes: bike.notes,
    goneOn: bike.goneOn,
    ...(await twinsOf(work, bike)),
    picture: await pictureOf(work, bikeId),
    customer: { id: bike.customerId, name: customer?.name ?? '', phone: customer?.phone ?? null },
    chain: fitting && {
      id: fitting.chainId,
      fittingId: fitting.id,
      name: fitting.chainName,
      pitches: fitting.pitches,
      fittedAt: fitting.from.toISOString(),
      start: fitting.start,
      care: fitting.care,
      ...baselineOf(facts, assumed),
    },
    lastOdometer: lastEntry ? { km: lastEntry.km, at: lastEntry.at.toISOString(), unit: bike.odometerUnit } : null,
    distanceTail: tailOf(facts, assumed),
    distanceExplanation: distanceExplained(facts),
    verdict: verdict ? { ...verdict, occurredAt: verdict.occurredAt.toISOString() } : null,
    readings: standingReadings(facts, await assumptionVersions(work)),
    events: await eventsOf(work, bikeId, facts, parts),
    verdictInput: fitting ? { ...withoutMoment(facts.input), forecast: shownOf(state?.forecast ?? null) } : null,
    assumptions: { ...overrides },
    forecast: (state?.forecast ?? null) as BikeRecord['forecast'],
    ownPrices: await ownPrices(work, bikeId, fitting?.chainId ?? null, parts),
    sprocketsFrom:
      cassette === undefined || fitting === null || cassette.from <= fitting.from
        ? 0
        : (facts.chainDistance?.sAt(cassette.from) ?? 0),
    earlierChains: await earlierChains(
      work,
      { id: bikeId, presentId: fitting?.chainId ?? null, since: cassette?.from ?? null },
      distance,
      assumed,
    ),
    decisions: await decisionsOf(work, bikeId, fitting?.id ?? null, summary.decision === null ? null : summary.verdict),
    disagreements: disagreementsOf(facts, verdict?.outcome.countedReadingIds ?? [], assumed),
    ruleChoice: {
      ownRuleId: bike.houseRuleId,
      customerRuleId: customer?.houseRuleId ?? null,
      markedInstrumentId: bike.markedInstrumentId,
      customerMarkedInstrumentId: customer?.markedInstrumentId ?? null,
    },
    rhythm: facts.input.rhythm ?? null,
  }
}

/** What it was entered as a second time, and what was made one with it today. */
async function twinsOf(work: Work, bike: BikeRow): Promise<Pick<BikeRecord, 'mergedInto' | 'merged'>> {
  const [into] = await work.select<{ id: string; label: string }>('SELECT id, label FROM bikes WHERE id = :id', {
    id: bike.mergedIntoId,
  })
  return {
    mergedInto: into ?? null,
    merged: await work.select<BikeRecord['merged'][number]>(
      `SELECT id, label, tag FROM bikes WHERE merged_into_id = :id AND merged_at > CAST(:now AS timestamptz) - interval '1 day'
       ORDER BY merged_at DESC`,
      { id: bike.id, now: work.now },
    ),
  }
}

/** Whoever judges on from here does it as of their own moment. */
function withoutMoment({ asOf: _, ...input }: BikeFacts['input']): Omit<BikeFacts['input'], 'asOf'> {
  return input
}

/** The end of a bike's ledger, from the last value its odometer showed. */
function tailOf(
  { fitting, chainDistance, distance, input }: BikeFacts,
  assumed: Assumptions,
): BikeRecord['distanceTail'] {
  if (!fitting || !chainDistance) return null
  const chainAt = (at: Date): { at: number; km: number | null; s: number | null } => ({
    at: at.getTime(),
    km: chainDistance.kmAt(at),
    s: chainDistance.sAt(at),
  })
  const last = distance.entries.at(-1)
  return {
    recorded: chainAt(chainDistance.lastAt),
    odometer: last ? { ...chainAt(last.at), shownKm: last.km } : null,
    rides: distance.rides
      .filter(({ to }) => last !== undefined && to > last.at)
      .map((ride) => {
        const { profile, ...rest } = asLedgerRide(ride)
        return { ...rest, ...(profile ? { profile: [...profile] } : {}) }
      }),
    before: recordedBefore(distance.view.segments, (last?.at ?? chainDistance.lastAt).getTime(), assumed.distance),
    mixBefore: distanceBetween(distance.view.segments, -Infinity, last?.at.getTime() ?? Infinity),
    unsaidKm: {
      atOdometer: last ? chainDistance.surfacesAt(last.at).unknown : 0,
      atReadings: Object.fromEntries(
        input.readings.map(({ id, occurredAt }) => [id, chainDistance.surfacesAt(new Date(occurredAt)).unknown]),
      ),
    },
    fittedFrom: fitting.from.getTime(),
    usualFactor: distance.usual.factor,
  }
}

/** Whether a new chain still waits for its first reading, and how long it was whole when new. */
function baselineOf(
  { fitting, readings, chainKm }: BikeFacts,
  assumed: Assumptions,
): Pick<NonNullable<BikeRecord['chain']>, 'baselineWanted' | 'whenNew'> {
  const own = readings.filter(
    (reading) => reading.supersededBy === null && !reading.deleted && reading.chainId === fitting?.chainId,
  )
  const isNew = fitting?.start === 'fitted' && (chainKm ?? 0) < assumed.verdict.newChainKm
  const whole = own.find((reading) => reading.baseline && reading.instrumentKind === 'full-length')
  const spot = whole?.spots[0]
  return {
    baselineWanted: isNew && !own.some((reading) => reading.spots.length > 0 && reading.fittingId === fitting.id),
    whenNew:
      whole && spot?.lengthMm != null && spot.pitches !== null
        ? {
            lengthMm: spot.lengthMm,
            pitches: spot.linkIncluded === false ? spot.pitches - 1 : spot.pitches,
            preloadKg: whole.preloadKg ?? assumed.measuring.preloadKg,
            ...(whole.ruleCelsius === null ? {} : { ruleCelsius: whole.ruleCelsius }),
            ...(whole.chainCelsius === null ? {} : { chainCelsius: whole.chainCelsius }),
          }
        : null,
  }
}

/** Readings of the present chain near the latest that differ in instrument or person, where they do not agree. */
function disagreementsOf(
  { readings, fitting }: BikeFacts,
  counted: readonly string[],
  assumed: Assumptions,
): BikeRecord['disagreements'] {
  const latest = Math.max(
    ...readings.filter(({ id }) => counted.includes(id)).map(({ occurredAt }) => occurredAt.getTime()),
  )
  const near = readings.filter(
    (reading) =>
      reading.supersededBy === null &&
      !reading.deleted &&
      reading.fittingId === fitting?.id &&
      reading.spots.length > 0 &&
      Math.abs(latest - reading.occurredAt.getTime()) <= assumed.verdict.roundDays * 86_400_000,
  )
  return disagreements(near.map((reading) => asAttributed(reading, assumed)))
    .filter(({ beyond }) => beyond)
    .map(({ places, settle, ...rest }) => ({ ...rest, places: [...places], settle: [...settle] }))
}

/** Why the chain's distance is what it is, from the function that gives it. */
function distanceExplained({ fitting, distance, chainDistance }: BikeFacts): BikeRecord['distanceExplanation'] {
  if (!fitting || !chainDistance) return null
  if (distance.rides.length > 0 || chainDistance.fittings > 1) {
    const km = chainDistance.surfacesAt(chainDistance.lastAt)
    return totalKm(km) > 0 ? (explainedSurfaceKm(km) as BikeRecord['distanceExplanation']) : null
  }
  const { entries } = distance
  const last = entries.at(-1)
  if (!last) return null
  const values = entries.map(({ at, km, restarted }) => ({ at: at.getTime(), km, restarted }))
  const explained = explainedOdometerDistance(values, fitting.from.getTime(), last.at.getTime())
  return explained && (explained.explanation as BikeRecord['distanceExplanation'])
}

/** Readings that stand, newest first, each with those it corrected beneath. */
function standingReadings(
  { readings, fitting, chainDistance }: BikeFacts,
  versions: readonly AssumptionVersion[],
): Reading[] {
  const byId = new Map(readings.map((reading) => [reading.id, reading]))
  const shown = (reading: ReadingFact): CorrectedReading => ({
    id: reading.id,
    occurredAt: reading.occurredAt.toISOString(),
    recordedAt: reading.recordedAt.toISOString(),
    person: reading.person,
    source: reading.source,
    instrument: {
      id: reading.instrumentId,
      name: reading.instrumentName,
      kind: reading.instrumentKind,
      recordVersion: reading.recordVersion,
    },
    hint: reading.hint,
    signs: [...reading.signs],
    reader: reading.reader,
    baseline: reading.baseline,
    conditions: conditionsOf(reading),
    note: reading.note,
    spots: reading.spots.map((spot) => explainedSpot(spot, reading, assumedAt(versions, reading.recordedAt))),
    odometer: reading.odometer,
    chainKm: fitting?.chainId === reading.chainId ? (chainDistance?.kmAt(reading.occurredAt) ?? null) : null,
    reason: reading.reason,
  })
  return readings
    .filter((reading) => reading.supersededBy === null && !reading.deleted)
    .map((reading) => {
      const corrected: CorrectedReading[] = []
      for (let id = reading.supersedesId; id !== null;) {
        const older = byId.get(id)
        if (!older) break
        corrected.push(shown(older))
        id = older.supersedesId
      }
      return { ...shown(reading), corrected, unlooked: reading.unlooked }
    })
}

/** A spot with the explanation of its numbers, made again from what was typed and the record it was judged with. */
function explainedSpot(spot: SpotFact, reading: ReadingFact, assumed: Assumptions): Spot {
  const { mode, picture, linkIncluded, pitches } = spot
  const seen =
    spot.typed === null
      ? null
      : observeSpot({
          record: recordFor({ ...reading.record, kind: reading.instrumentKind }, reading.source),
          entry: {
            typed: spot.typed,
            pitches,
            ...(mode === null ? {} : { mode }),
            ...(picture === null ? {} : { picture }),
            ...(linkIncluded === null ? {} : { linkIncluded }),
          },
          taken: conditionsOf(reading),
          assumed,
        })
  return {
    ...spot,
    oddCount: seen?.ok === true && seen.observed.oddCount,
    explanations: seen?.ok === true ? ([...seen.observed.explanations] as Spot['explanations']) : [],
  }
}

async function eventsOf(
  work: Work,
  bikeId: string,
  { distance: { entries }, readings }: BikeFacts,
  parts: Awaited<ReturnType<typeof componentRows>>,
): Promise<BikeRecord['events']> {
  const withReading = new Set(readings.map((reading) => reading.odometer?.id))
  const fittings = await work.select<{
    id: string
    chain: string
    from: Date
    to: Date | null
    start: 'fitted' | 'stated' | 'unknown'
    reason: string | null
    person: string
  }>(
    `SELECT f.id, c.name AS chain, lower(f.during) AS "from", upper(f.during) AS "to", f.start, f.end_reason AS reason, p.name AS person
     FROM fittings f JOIN chains c ON c.id = f.chain_id JOIN people p ON p.id = f.person_id
     WHERE f.bike_id = :bikeId AND NOT isempty(f.during)`,
    { bikeId },
  )
  const chainEvents = await work.select<{
    id: string
    at: Date
    kind: 'cut' | 'shortened' | 'rejoined' | 'lengthened'
    pitches: number | null
    person: string
  }>(
    `SELECT e.id, e.occurred_at AS at, e.kind, e.pitches_after AS pitches, p.name AS person
     FROM chain_events e JOIN fittings f ON f.chain_id = e.chain_id JOIN people p ON p.id = e.person_id
     WHERE f.bike_id = :bikeId AND NOT e.deleted AND e.occurred_at <@ f.during`,
    { bikeId },
  )
  const events: BikeRecord['events'] = [
    ...fittings.map((f) => ({
      id: f.id,
      at: f.from.toISOString(),
      kind: f.start === 'unknown' ? ('came-with' as const) : ('fitted' as const),
      value: null,
      text: f.chain,
      item: null,
      person: f.person,
    })),
    ...fittings.flatMap((f) =>
      f.to === null
        ? []
        : [
            {
              id: f.id,
              at: f.to.toISOString(),
              kind: 'taken-off' as const,
              value: null,
              text: f.reason,
              item: null,
              person: f.person,
            },
          ],
    ),
    ...chainEvents.map((e) => ({
      id: e.id,
      at: e.at.toISOString(),
      kind: e.kind,
      value: e.pitches,
      item: null,
      text: null,
      person: e.person,
    })),
    ...entries
      .filter((entry) => !withReading.has(entry.id))
      .map((entry) => ({
        id: entry.id,
        at: entry.at.toISOString(),
        kind: 'odometer' as const,
        value: entry.km,
        item: null,
        text: null,
        person: entry.person,
      })),
  ]
  for (const { id, item, name, from, to, endReason, person } of parts) {
    const of = { id, item, value: null, person }
    events.push({ ...of, at: from.toISOString(), kind: 'part-on', text: name })
    if (to) events.push({ ...of, at: to.toISOString(), kind: 'part-off', text: endReason })
  }
  return events.sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : a.kind < b.kind ? -1 : 1))
}
