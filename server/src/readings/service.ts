import { DEFAULTS, parseLength, parseOdometer, spanObservation } from '@pelrin/core'
import { UniqueConstraintError } from 'sequelize'
import type { BikeRecord, CorrectReading, FieldProblem, TakeReading } from '@pelrin/contract'
import { bikeRecord } from '../bikes/record.ts'
import { audited, authorOf, factBy, type Work } from '../db/work.ts'
import { appendEntry, standingEntries } from '../distance/store.ts'
import { atField, ProblemError, refuseField } from '../http/problem.ts'
import { instrumentsInUse, type InstrumentInUse } from '../limits/instrumentsStore.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { presentFitting, type PresentFitting } from '../state/presentFitting.ts'
import { readingById, type ReadingFact } from './store.ts'

/** A device's clock may be a little ahead of ours. */
const CLOCK_LEEWAY_MS = 5 * 60_000

type Entered = Pick<TakeReading, 'id' | 'occurredAt' | 'instrumentId' | 'spots' | 'odometer' | 'note'>

/** Saves a reading of the chain on a bike, judges it, and answers with the bike's record. */
export async function takeReading(work: Work, taken: TakeReading): Promise<BikeRecord> {
  await lockBikeState(work, taken.bikeId)
  const bike = await work.models.Bike.findByPk(taken.bikeId, { transaction: work.transaction })
  if (!bike) throw refuseField('bikeId', 'bike-unknown')
  const fitting = await presentFitting(work, taken.bikeId)
  if (!fitting) throw refuseField('bikeId', 'bike-without-chain')
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
  await write(work, corrected, { bikeId: old.bikeId, fitting, corrects: old, reason: correction.reason })
  return bikeRecord(work, old.bikeId)
}

async function write(
  work: Work,
  entered: Entered,
  on: { bikeId: string; fitting: PresentFitting; corrects: ReadingFact | null; reason: string | null },
): Promise<void> {
  const { models, transaction } = work
  const occurredAt = new Date(entered.occurredAt)
  const instrument = (await instrumentsInUse(work)).find((one) => one.id === entered.instrumentId)
  const wrong: FieldProblem[] = []
  if (occurredAt.getTime() > work.now.getTime() + CLOCK_LEEWAY_MS) wrong.push(atField('occurredAt', 'date-in-future'))
  else if (occurredAt < on.fitting.from) wrong.push(atField('occurredAt', 'chain-not-fitted-then'))
  if (!instrument) wrong.push(atField('instrumentId', 'instrument-unknown'))
  else if (instrument.kind !== 'steel-rule') wrong.push(atField('instrumentId', 'instrument-reads-no-length'))
  const spots = entered.spots.map((spot, i) => observed(spot, i, instrument, wrong))
  if (wrong.length > 0 || !instrument) throw new ProblemError(422, 'request-invalid', { fields: wrong })

  try {
    const distanceEntryId = await writeOdometer(work, entered, occurredAt, on)
    await models.Reading.create(
      {
        id: entered.id,
        occurredAt,
        ...factBy(work),
        supersedesId: on.corrects?.id ?? null,
        reason: on.reason,
        deleted: false,
        bikeId: on.bikeId,
        chainId: on.fitting.chainId,
        fittingId: on.fitting.id,
        instrumentId: instrument.id,
        instrumentVersionId: instrument.versionId,
        distanceEntryId,
        source: on.corrects?.source ?? 'shop',
        note: entered.note ?? null,
      },
      { transaction },
    )
    await models.Spot.bulkCreate(
      spots.map((spot) => ({ ...spot, readingId: entered.id, readingOccurredAt: occurredAt })),
      { transaction },
    )
  } catch (error) {
    if (error instanceof UniqueConstraintError)
      throw new ProblemError(409, 'supersedes_id' in error.fields ? 'reading-corrected-already' : 'id-taken')
    throw error
  }
  await judgeBike(work, on.bikeId, { readingId: entered.id, occurredAt })
  await audited(work, on.corrects ? 'corrected' : 'took', 'reading', entered.id, {
    bikeId: on.bikeId,
    typed: entered.spots.map(({ typed, pitches }) => ({ typed, pitches })),
    ...(on.corrects ? { supersedes: on.corrects.id, reason: on.reason } : {}),
  })
}

/** What a spot says, from its text and count; what is wrong with it goes to its fields. */
function observed(
  spot: Entered['spots'][number],
  position: number,
  instrument: InstrumentInUse | undefined,
  wrong: FieldProblem[],
) {
  const at = `spots.${position}`
  const parsed = parseLength(spot.typed)
  const raw = { id: spot.id, position, place: spot.place ?? null, typed: spot.typed, pitches: spot.pitches }
  if (!parsed.ok) {
    wrong.push(atField(`${at}.typed`, parsed.problem))
    return { ...raw, u: 1 }
  }
  const { lengthMm, unit, pastMarkMm } = parsed.length
  const { pitches } = spot
  const { value, u } = spanObservation({
    lengthMm,
    pitches,
    uMm: instrument?.uMm ?? DEFAULTS.measuring.steelRuleUMm,
    bias: instrument?.bias ?? 0,
  })
  const { countLowest, countHighest } = DEFAULTS.measuring
  if (value < countLowest || value > countHighest)
    wrong.push(atField(`${at}.pitches`, 'count-impossible', { pitches, elongation: value.toFixed(1) }))
  return { ...raw, lengthMm, unit, pastMarkMm, value, u }
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
  const parsed = parseOdometer(given.typed, given.unit)
  if (!parsed.ok) throw refuseField('odometer.typed', parsed.problem)
  const before = (await standingEntries(work, on.bikeId)).filter(
    (entry) => entry.at <= occurredAt && entry.id !== old?.id,
  )
  const last = before.at(-1)
  const lower = last !== undefined && parsed.km < last.km - 0.05
  if (lower && given.lower === undefined) throw refuseField('odometer.typed', 'odometer-lower')
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
    restarted: lower && given.lower === 'restarted',
    ...(on.reason === null ? {} : { reason: on.reason }),
  })
  return given.id
}
