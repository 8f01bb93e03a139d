import type { BikeCare, CareHabit, endpoints, Output } from '@pelrin/contract'
import { takesOff, type CareKind, type Cleaning, type Treatment } from '@pelrin/core'
import { closeAgain, closedElsewhere, reopen } from '../chains/closeAgain.ts'
import { bikesOf, refreshBikes } from '../customers/service.ts'
import { lockPresentBike } from '../bikes/lockPresentBike.ts'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { lockBikeState, refreshBikeState } from '../state/bikeState.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { dayIn } from '../days/days.ts'
import { fittingMeant, type FittingMeant } from '../fittings/moments.ts'
import { standingCare } from './standingStore.ts'
import { careOf } from './store.ts'
import { factBy, newFact, withdraw, held } from '../db/facts.ts'
import { BIKES, CUSTOMERS } from '../bikes/models.ts'
import { CHAINS } from '../chains/models.ts'
import { CARE_EVENTS } from './models.ts'

type Recording = Output<typeof endpoints.recordCare.body>

/**
 * Writes down what happened to the chain on a bike: a treatment, a wash, a squeak. A treatment of another kind makes that its
 * care from now on, and is judged by it.
 *
 * @throws ProblemError 409 with no chain on the bike, 422 at the field a treatment lacks
 */
export async function recordCare(work: Work, bikeId: string, recording: Recording): Promise<BikeCare> {
  await lockBikeState(work, bikeId)
  await lockPresentBike(work, bikeId)
  const fitting = await fittingMeant(work, bikeId, recording)
  const { kind, care, cleaning } = recording
  if (kind === 'treated' && care === null) throw refuseField('care', 'care-missing')
  if (kind === 'treated' && cleaning === null) throw refuseField('cleaning', 'cleaning-missing')
  // What is sent late happened when it happened: never after now, never before this chain hung here.
  const at = Math.max(fitting.from.getTime(), Math.min(work.now.getTime(), Date.parse(recording.occurredAt)))
  await writeCare(work, {
    ...recording,
    ...(kind === 'treated' ? {} : { care: null, cleaning: null }),
    chainId: fitting.chainId,
    bikeId,
    at: new Date(at),
  })
  if (kind === 'treated' && care !== null && cleaning !== null)
    await closedAfter(work, bikeId, fitting, { ...recording, care, cleaning, at: new Date(at) })
  if (kind === 'treated' && care !== null && fitting.present) await caredFor(work, bikeId, fitting.chainId, care)
  else await refreshBikeState(work, bikeId)
  await audited(work, kind, 'chain', fitting.chainId, { bikeId, care, cleaning })
  return careOf(work, bikeId)
}

/**
 * A chain that was taken off for its care went back on: its joint was closed once more. At home nobody of the shop heard how it clicked.
 *
 * @throws ProblemError as closing does; 422 at `click` where it was done here and nobody said
 */
async function closedAfter(
  work: Work,
  bikeId: string,
  { chainId }: Pick<FittingMeant, 'chainId'>,
  { id, care, cleaning, closing, atHome, at }: Recording & { care: Treatment; cleaning: Cleaning; at: Date },
): Promise<void> {
  const chain = await work.of(CHAINS).findByPk(chainId, { transaction: work.transaction })
  if (!takesOff({ care, cleaning, before: (chain?.care ?? 'unknown') as CareKind })) return
  const closed = { chainId, bikeId, at, becauseId: id, toLink: care === 'immersion-wax' && !atHome }
  if (atHome) return closedElsewhere(work, closed)
  await closeAgain(work, { ...closed, closing: closing ?? { click: null, byFeel: false, linkPartId: null } })
}

/** A chain on a bike has a care from now on: judged by it where that is another one. */
async function caredFor(work: Work, bikeId: string, id: string, care: Treatment): Promise<void> {
  const changed = await work.select(
    'UPDATE chains SET care = :care, version = version + 1 WHERE id = :id AND care <> :care RETURNING id',
    { care, id },
  )
  if (changed.length > 0) await judgeBike(work, bikeId, { readingId: null, occurredAt: work.now })
  else await refreshBikeState(work, bikeId)
}

/** A chain on a bike is cared for as it was treated last. */
export async function followCare(work: Work, bikeId: string, chainId: string): Promise<void> {
  const last = (await standingCare(work, chainId)).find(({ kind, care }) => kind === 'treated' && care !== null)
  if (last?.care) await caredFor(work, bikeId, chainId, last.care)
  else await refreshBikeState(work, bikeId)
}

/** Writes a line of a chain's care, in whoever's transaction; states are theirs to refresh. */
export async function writeCare(
  work: Work,
  event: {
    id: string
    chainId: string
    bikeId: string | null
    kind: 'treated' | 'wash' | 'squeak'
    care: Treatment | null
    cleaning: Cleaning | null
    atHome?: boolean
    note?: string | null
    at: Date
  },
): Promise<void> {
  const { id, chainId, bikeId, kind, care, cleaning, atHome = false, note = null, at } = event
  await work.of(CARE_EVENTS).create(
    {
      id,
      chainId,
      bikeId,
      kind,
      care,
      cleaning,
      atHome,
      note,
      occurredAt: at,
      ...newFact(work),
    },
    { transaction: work.transaction },
  )
}

/** Takes a line back: it stays readable in the audit, and counts no more. @throws ProblemError 404, 409 */
export async function withdrawCare(
  work: Work,
  eventId: string,
  { id, reason }: Output<typeof endpoints.withdrawCare.body>,
): Promise<BikeCare> {
  const gone = { unknown: 'care-unknown', already: 'care-gone' } as const
  const event = await withdraw(work, CARE_EVENTS, eventId, { id, reason }, gone)
  await reopen(work, eventId, reason)
  await audited(work, 'withdrew', 'care', eventId, { reason })
  const [on] = await work.select<{ bikeId: string }>(
    'SELECT bike_id AS "bikeId" FROM fittings WHERE chain_id = :chainId AND upper_inf(during)',
    { chainId: event.chainId },
  )
  if (on) {
    await lockBikeState(work, on.bikeId)
    // What it was treated with before is its care again.
    if (event.kind === 'treated') await followCare(work, on.bikeId, event.chainId)
    else await refreshBikeState(work, on.bikeId)
  }
  const shown = on?.bikeId ?? event.bikeId
  if (shown === null) throw new ProblemError(404, 'bike-unknown')
  return careOf(work, shown)
}

/** Says how long a treatment lasts on this bike. @throws ProblemError 404; 412 when somebody was faster */
export async function setCareInterval(
  work: Work,
  bikeId: string,
  version: number,
  { own, recipe, washDays }: Output<typeof endpoints.setCareInterval.body>,
): Promise<BikeCare> {
  await lockBikeState(work, bikeId)
  const bike = await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  await held(bike, version, () => careOf(work, bikeId))
  const before = { km: bike.careKm, days: bike.careDays }
  await bike.update(
    {
      careKm: own?.km ?? null,
      careDays: own?.days ?? null,
      ...(recipe === undefined ? {} : { waxRecipe: recipe }),
      ...(washDays === undefined ? {} : { washDays }),
      version: version + 1,
    },
    { transaction: work.transaction },
  )
  await refreshBikeState(work, bikeId)
  await audited(work, 'set-care-interval', 'bike', bikeId, { before, own, recipe, washDays })
  return careOf(work, bikeId)
}

/** Says who treats a customer's chains, and which weekday suits them. @throws ProblemError 404; 412 when somebody was faster */
export async function setCareHabit(work: Work, bikeId: string, version: number, habit: CareHabit): Promise<BikeCare> {
  const { of, transaction } = work
  const bike = await of(BIKES).findByPk(bikeId, { transaction })
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  const customer = await of(CUSTOMERS).findByPk(bike.customerId, { transaction, lock: transaction.LOCK.UPDATE })
  await held(customer!, version, () => careOf(work, bikeId))
  await customer!.update({ ...habit, version: version + 1 }, { transaction })
  // What is treated at home is booked by nobody: of every bike of theirs.
  await refreshBikes(work, await bikesOf(work, bike.customerId))
  await audited(work, 'set-care-habit', 'customer', bike.customerId, { ...habit })
  return careOf(work, bikeId)
}

/** Says that a bike is wanted on a day. @throws ProblemError 404; 409 for a bike that is gone, or an id that is taken; 422 for a day that is over */
export async function addEventDate(
  work: Work,
  zone: string,
  bikeId: string,
  { id, day, name }: Output<typeof endpoints.addEventDate.body>,
): Promise<BikeCare> {
  await lockPresentBike(work, bikeId)
  if (day < dayIn(zone, work.now)) throw refuseField('day', 'day-past')
  const [written] = await work.select(
    `INSERT INTO event_dates (id, bike_id, day, name, recorded_at, person_id, device_id)
     VALUES (:id, :bikeId, :day, :name, :recordedAt, :personId, :deviceId) ON CONFLICT DO NOTHING RETURNING id`,
    { id, bikeId, day, name, ...factBy(work) },
  )
  if (!written) throw new ProblemError(409, 'id-taken')
  await audited(work, 'added', 'event-date', id, { bikeId, day, name })
  return careOf(work, bikeId)
}

/** Takes a day a bike was wanted for away again. @throws ProblemError 404 */
export async function dropEventDate(work: Work, id: string): Promise<BikeCare> {
  const [dropped] = await work.select<{ bikeId: string }>(
    'UPDATE event_dates SET dropped_at = coalesce(dropped_at, :now) WHERE id = :id RETURNING bike_id AS "bikeId"',
    { id, now: work.now },
  )
  if (!dropped) throw new ProblemError(404, 'event-date-unknown')
  await audited(work, 'dropped', 'event-date', id)
  return careOf(work, dropped.bikeId)
}
