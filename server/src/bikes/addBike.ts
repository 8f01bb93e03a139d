import { driveProblems, parseOdometer } from '@pelrin/core'
import type { AddBike, BikeSummary } from '@pelrin/contract'
import { brokenBy } from '../db/refused.ts'
import { audited, authorOf, type Work } from '../db/work.ts'
import { appendEntry } from '../distance/store.ts'
import { atField, ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { summaries } from './summaries.ts'
import { factBy } from '../db/facts.ts'
import { BIKES, CUSTOMERS, type CustomerRow } from './models.ts'
import { CHAINS, FITTINGS } from '../chains/models.ts'
import { DRIVES, type DriveRow } from '../parts/models.ts'

/** What nobody has said of a drive yet. */
const UNSAID: Omit<DriveRow, 'id' | 'bikeId' | keyof AddBike['drive']> = {
  systemId: null,
  level: null,
  ringWidth: null,
  chainstayMm: null,
  suspension: 'rigid',
  growthMm: null,
  statedAdd: null,
  pulleys: null,
  pulleysCounted: false,
  capacityTeeth: null,
  largestSprocketTeeth: null,
  axleFromMm: null,
  axleToMm: null,
  ownPitches: null,
  ownPitchesBy: null,
  takenOff: false,
  timingTeeth: null,
  timingFromMm: null,
  timingToMm: null,
  guide: null,
  wideNarrow: null,
  clutch: null,
  cageLock: null,
  discBrake: null,
}

/**
 * Takes a bike in that was never here: its customer where they are new, its drive, the chain that is on it and what its odometer
 * shows; and judges it, so that it stands where every other bike stands.
 *
 * @throws ProblemError 422 at the field that cannot be: a tag that is another bike's, a customer that is not there, teeth, odometer
 */
export async function addBike(work: Work, added: AddBike): Promise<BikeSummary> {
  const { of, transaction } = work
  const { id, customer, label, kind, maker, model, frameMark, odometerUnit, drive, chain, odometer } = added
  const wrong = driveProblems({ ...UNSAID, ...drive }).map(({ at, problem }) => atField(`drive.${at}`, problem))
  const { assumed } = await assumptionsInForce(work)
  const shown = odometer && parseOdometer(odometer.typed, odometerUnit, assumed.distance)
  if (shown && !shown.ok) wrong.push(atField('odometer.typed', shown.problem))
  if (chain?.since != null && new Date(chain.since) > work.now) wrong.push(atField('chain.since', 'date-in-future'))
  if (wrong.length > 0) throw new ProblemError(422, 'request-invalid', { fields: wrong })
  // Two bikes that are added at once get two numbers.
  await work.select('SELECT id FROM shops WHERE id = :id FOR NO KEY UPDATE', { id: work.shopId })
  if (customer.new) await addCustomer(work, { id: customer.id, ...customer.new })
  const tag = added.tag ?? (await nextTag(work))
  try {
    await of(BIKES).create(
      {
        id,
        customerId: customer.id,
        label,
        maker,
        model,
        kind,
        tag,
        frameMark,
        notes: '',
        odometerUnit,
        houseRuleId: null,
        markedInstrumentId: null,
        goneOn: null,
        careKm: null,
        careDays: null,
        washDays: null,
        version: 1,
      },
      { transaction },
    )
  } catch (error) {
    const broken = brokenBy(error)
    if (broken?.rule === 'unique') throw refuseField('tag', 'tag-taken')
    if (broken?.rule === 'reference') throw refuseField('customer.id', 'customer-unknown')
    throw error
  }
  await of(DRIVES).create({ ...UNSAID, ...drive, id: added.id, bikeId: id }, { transaction })
  if (chain) await putOn(work, id, chain)
  if (odometer && shown?.ok)
    await appendEntry(work, {
      ...factBy(work),
      id: odometer.id,
      bikeId: id,
      occurredAt: work.now,
      typed: odometer.typed,
      unit: odometerUnit,
      km: shown.km,
      restarted: false,
      supersedesId: null,
    })
  await judgeBike(work, id, { readingId: null, occurredAt: work.now })
  await audited(work, 'added', 'bike', id, { customerId: customer.id, label, tag })
  const [summary] = await summaries(work, 'WHERE b.id = :id', { id })
  return summary!
}

/** A customer, of whom nothing has to be known but the name. */
export async function addCustomer(
  work: Work,
  { id, name, ...more }: Pick<CustomerRow, 'id' | 'name'> & Partial<CustomerRow>,
): Promise<void> {
  await work.of(CUSTOMERS).create(
    {
      id,
      name,
      phone: null,
      houseRuleId: null,
      rhythmDays: null,
      eachVisit: false,
      careAt: null,
      goodWeekday: null,
      language: 'en',
      optedOutAt: null,
      version: 1,
      ...more,
    },
    { transaction: work.transaction },
  )
  await audited(work, 'added', 'customer', id, { name })
}

/** The number after the highest any bike has, of at least four digits. */
async function nextTag(work: Work): Promise<string> {
  const [{ highest } = { highest: 0 }] = await work.select<{ highest: number }>(
    `SELECT coalesce(max(tag::bigint), 0)::int AS highest FROM bikes WHERE tag ~ '^[0-9]{1,8}$'`,
  )
  return String(highest + 1).padStart(4, '0')
}

async function putOn(work: Work, bikeId: string, chain: NonNullable<AddBike['chain']>): Promise<void> {
  const { of, transaction, now } = work
  const { id, fittingId, name, pitches, care, since, fittedNew } = chain
  const from = since === null ? now : new Date(since)
  await of(CHAINS).create(
    { id, name, pitches, care, partId: null, fate: null, homeBikeId: null, version: 1 },
    { transaction },
  )
  await of(FITTINGS).create(
    {
      id: fittingId,
      bikeId,
      chainId: id,
      during: [
        { value: from, inclusive: true },
        { value: null, inclusive: false },
      ],
      start: fittedNew ? 'fitted' : 'unknown',
      endReason: null,
      cameFrom: null,
      personId: authorOf(work).personId,
      recordedAt: now,
    },
    { transaction },
  )
}
