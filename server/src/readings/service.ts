import {
  entryForm,
  hintOf,
  observeSpot,
  odometerDoubt,
  parseOdometer,
  recordFor,
  type Assumptions,
  measuresNothing,
} from '@pelrin/core'
import type { BikeRecord, CorrectReading, FieldProblem, TakeReading } from '@pelrin/contract'
import { bikeRecord } from '../bikes/record.ts'
import { brokenBy } from '../db/refused.ts'
import { audited, authorOf, type Work } from '../db/work.ts'
import { appendEntry, standingEntries } from '../distance/store.ts'
import { atField, ProblemError, refuseField } from '../problems/problem.ts'
import { asRecord, instrumentById, type InstrumentInUse } from '../instruments/store.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { fittingMeant, type FittingMeant } from '../fittings/moments.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { readingById, type ReadingFact } from './store.ts'
import { inPlaceOf } from '../db/facts.ts'
import { PEOPLE } from '../auth/models.ts'
import { BIKES } from '../bikes/models.ts'
import { READINGS, SPOTS, type SpotRow } from './models.ts'

/** A device's clock may be a little ahead of ours. */
const CLOCK_LEEWAY_MS = 5 * 60_000

type Entered = Omit<TakeReading, 'bikeId' | 'fittingId'>

/** Saves a reading of the chain on a bike, judges it, and answers with the bike's record. */
export async function takeReading(work: Work, taken: TakeReading): Promise<BikeRecord> {
  await lockBikeState(work, taken.bikeId)
  const bike = await work.of(BIKES).findByPk(taken.bikeId, { transaction: work.transaction })
  if (!bike) throw refuseField('bikeId', 'bike-unknown')
  const fitting = await fittingMeant(work, taken.bikeId, taken)
  await write(work, taken, { bikeId: taken.bikeId, fitting, corrects: null, reason: null })
  return bikeRecord(work, taken.bikeId)
}

/**
 * Corrects a reading: a new one that supersedes it. The old one stays, readable beneath.
 *
 * @throws ProblemError 409 with the newer reading when it was corrected meanwhile
 */
export async function correctReading(work: Work, id: string, correction: CorrectReading): Promise<BikeRecord> {
  const found = await readingById(work, id)
  if (!found) throw new ProblemError(404, 'reading-unknown')
  await lockBikeState(work, found.bikeId)
  const old = await readingById(work, id)
  if (!old) throw new ProblemError(404, 'reading-unknown')
  if (old.supersededBy !== null)
    throw new ProblemError(409, 'reading-corrected-already', { current: await readingById(work, old.supersededBy) })
  const fitting = await presentFitting(work, old.bikeId)
  if (fitting?.id !== old.fittingId) throw refuseField('spots.0.typed', 'chain-not-fitted-then')
  // When it happened is not what is being corrected: it keeps its place in time.
  const corrected = { ...correction, occurredAt: old.occurredAt.toISOString() }
  await write(work, corrected, {
    bikeId: old.bikeId,
    fitting: { ...fitting, present: true },
    corrects: old,
    reason: correction.reason,
  })
  return bikeRecord(work, old.bikeId)
}

async function write(
  work: Work,
  entered: Entered,
  on: { bikeId: string; fitting: FittingMeant; corrects: ReadingFact | null; reason: string | null },
): Promise<void> {
  const { of, transaction } = work
  const occurredAt = new Date(entered.occurredAt)
  const { assumed } = await assumptionsInForce(work)
  const instrument = await instrumentById(work, entered.instrumentId)
  const wrong: FieldProblem[] = []
  if (occurredAt.getTime() > work.now.getTime() + CLOCK_LEEWAY_MS) wrong.push(atField('occurredAt', 'date-in-future'))
  else if (occurredAt < on.fitting.from) wrong.push(atField('occurredAt', 'chain-not-fitted-then'))
  wrong.push(...instrumentProblems(instrument, on.corrects))
  if (entered.readerId !== undefined && !(await of(PEOPLE).findByPk(entered.readerId, { transaction })))
    wrong.push(atField('readerId', 'person-unknown'))
  const byHand = instrument !== null && measuresNothing(instrument.kind)
  if (byHand && entered.signs === undefined) wrong.push(atField('signs', 'signs-missing'))
  if (byHand && entered.spots.length > 0) wrong.push(atField('spots.0.typed', 'instrument-reads-signs'))
  if (!byHand && entered.spots.length === 0) wrong.push(atField('spots', 'spots-missing'))
  const spots = instrument && !byHand ? observedSpots(entered, instrument, assumed, wrong) : []
  if (wrong.length > 0 || !instrument) throw new ProblemError(422, 'request-invalid', { fields: wrong })

  try {
    const distanceEntryId = await writeOdometer(work, entered, occurredAt, on)
    await of(READINGS).create(
      {
        id: entered.id,
        occurredAt,
        ...inPlaceOf(work, on.corrects?.id ?? null, on.reason),
        bikeId: on.bikeId,
        chainId: on.fitting.chainId,
        fittingId: on.fitting.id,
        instrumentId: instrument.id,
        instrumentVersionId: instrument.versionId,
        distanceEntryId,
        source: entered.source,
        run: entered.conditions.run,
        load: entered.conditions.load ?? null,
        ruleCelsius: entered.conditions.ruleCelsius ?? null,
        chainCelsius: entered.conditions.chainCelsius ?? null,
        preloadKg: entered.conditions.preloadKg ?? null,
        readerId: entered.readerId ?? null,
        baseline: entered.baseline,
        signs: [...(entered.signs ?? [])],
        hint: byHand ? hintOf(entered.signs ?? []) : null,
        note: entered.note ?? null,
      },
      { transaction },
    )
    await of(SPOTS).bulkCreate(
      spots.map((spot) => ({ ...spot, readingId: entered.id, readingOccurredAt: occurredAt })),
      { transaction },
    )
  } catch (error) {
    const broken = brokenBy(error)
    if (broken?.rule !== 'unique') throw error
    throw new ProblemError(409, broken.columns.includes('supersedes_id') ? 'reading-corrected-already' : 'id-taken')
  }
  // One of a chain that is off by now is kept with that chain; the bike is judged by the one that is on.
  await judgeBike(work, on.bikeId, { readingId: on.fitting.present ? entered.id : null, occurredAt })
  await audited(work, on.corrects ? 'corrected' : 'took', 'reading', entered.id, {
    bikeId: on.bikeId,
    typed: entered.spots.map(({ typed, pitches = null }) => ({ typed, pitches })),
    ...(on.corrects ? { supersedes: on.corrects.id, reason: on.reason } : {}),
  })
}

/** What keeps a reading from being taken with an instrument. What a correction was read with stays as it is. */
function instrumentProblems(instrument: InstrumentInUse | null, corrects: ReadingFact | null): FieldProblem[] {
  if (!instrument) return [atField('instrumentId', 'instrument-unknown')]
  if (corrects?.instrumentId === instrument.id) return []
  if (instrument.retiredAt !== null) return [atField('instrumentId', 'instrument-retired')]
  return instrument.standing === 'out-of-use' ? [atField('instrumentId', 'instrument-out-of-use')] : []
}

/** What each spot says, from its text and the instrument's record; what is wrong with one goes to its fields. */
function observedSpots(
  { spots, conditions, source }: Entered,
  instrument: InstrumentInUse,
  assumed: Assumptions,
  wrong: FieldProblem[],
): Omit<SpotRow, 'readingId' | 'readingOccurredAt'>[] {
  const record = recordFor(asRecord(instrument), source)
  return spots.flatMap(({ id, place = null, typed, pitches = null, ...told }, position) => {
    const { mode, picture, linkIncluded } = told
    const seen = observeSpot({
      record,
      entry: { typed, pitches, ...told },
      taken: conditions,
      assumed,
    })
    if (!seen.ok) {
      wrong.push(atField(`spots.${position}.${seen.field}`, seen.problem, seen.values))
      return []
    }
    const { observed } = seen
    return [
      {
        id,
        position,
        place,
        typed,
        mode: mode ?? null,
        picture: picture ?? null,
        linkIncluded: linkIncluded ?? null,
        unit: observed.unit ?? null,
        pastMarkMm: observed.pastMarkMm ?? null,
        lengthMm: observed.lengthMm ?? null,
        pitches: entryForm(instrument.kind) === 'length' ? pitches : null,
        value: observed.value ?? null,
        over: observed.over ?? null,
        under: observed.under ?? null,
        u: observed.u,
        borderline: observed.borderline,
      },
    ]
  })
}

/**
 * Writes the odometer value of a reading, or leaves the one it corrects where it was typed the same.
 *
 * @returns the entry the reading refers to; null when no odometer was given
 */
async function writeOdometer(
  work: Work,
  entered: Entered,
  occurredAt: Date,
  on: { bikeId: string; corrects: ReadingFact | null; reason: string | null },
): Promise<string | null> {
  const old = on.corrects?.odometer ?? null
  const given = entered.odometer
  if (!given) return old?.id ?? null
  if (old?.typed === given.typed && old.unit === given.unit) return old.id
  const { assumed } = await assumptionsInForce(work)
  const parsed = parseOdometer(given.typed, given.unit, assumed.distance)
  if (!parsed.ok) throw refuseField('odometer.typed', parsed.problem)
  const before = (await standingEntries(work, on.bikeId)).filter(
    (entry) => entry.at <= occurredAt && entry.id !== old?.id,
  )
  const last = before.at(-1)
  const doubt = odometerDoubt(
    { km: parsed.km, at: occurredAt.getTime() },
    last && { km: last.km, at: last.at.getTime() },
    assumed.distance,
  )
  if (doubt !== null && given.lower === undefined) throw refuseField('odometer.typed', doubt)
  await appendEntry(work, {
    id: given.id,
    occurredAt,
    personId: authorOf(work).personId,
    deviceId: authorOf(work).deviceId,
    supersedesId: old?.id ?? null,
    bikeId: on.bikeId,
    typed: given.typed,
    unit: given.unit,
    km: parsed.km,
    restarted: doubt === 'odometer-lower' && given.lower === 'restarted',
    ...(on.reason === null ? {} : { reason: on.reason }),
  })
  return given.id
}
