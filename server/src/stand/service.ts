import type { BikeSummary, LineUp, Visit } from '@pelrin/contract'
import { audited, authorOf, type Work } from '../db/work.ts'
import { summaries } from '../bikes/summaries.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { dayIn } from '../days/days.ts'
import { held } from '../db/facts.ts'
import { BIKES } from '../bikes/models.ts'
import { VISITS } from './models.ts'

/** Today's line-up, in its order; the visit on this device's stand is marked. */
export async function lineUp(work: Work, timeZone: string, deviceId: string): Promise<LineUp> {
  const day = dayIn(timeZone, work.now)
  const rows = await summaries<{ visit: Omit<Visit, 'bike' | 'day'> & { promisedAt: string | null } }>(
    work,
    `JOIN visits t ON t.bike_id = b.id WHERE t.day = :day AND t.state <> 'called-off' ORDER BY t.position, t.id`,
    { day, deviceId },
    `json_build_object('id', t.id, 'version', t.version, 'position', t.position, 'promisedAt', t.promised_at,
       'reason', t.reason, 'state', t.state, 'onStandSince', t.on_stand_since,
       'here', t.device_id IS NOT NULL AND t.device_id = :deviceId) AS visit`,
  )
  const visits = rows.map(({ visit, ...bike }): Visit => {
    const iso = (moment: string | null): string | null => (moment === null ? null : new Date(moment).toISOString())
    return {
      ...visit,
      day,
      promisedAt: iso(visit.promisedAt),
      onStandSince: iso(visit.onStandSince),
      bike: dueThisVisit(bike, day, timeZone),
    }
  })
  return { day, visits }
}

/** A bike that is looked at whenever it is in is due today, unless it was measured today. */
function dueThisVisit<Bike extends BikeSummary>(bike: Bike, day: string, timeZone: string): Bike {
  const { eachVisit, checkOn, measuredAt } = bike
  const measured = measuredAt !== null && dayIn(timeZone, new Date(measuredAt)) === day
  return eachVisit && !measured && checkOn !== null && checkOn > day ? { ...bike, checkOn: day } : bike
}

/**
 * Puts a bike on this device's stand. A bike that is not in for today is added at the end of the line-up; the one
 * that was on the stand goes back to waiting.
 */
export async function putOnStand(
  work: Work,
  timeZone: string,
  { visitId, bikeId, reason }: { visitId: string; bikeId: string; reason?: string },
): Promise<LineUp> {
  const { of, transaction } = work
  const deviceId = deviceOf(work)
  const day = dayIn(timeZone, work.now)
  const bike = await of(BIKES).findByPk(bikeId, { transaction })
  if (!bike) throw refuseField('bikeId', 'bike-unknown')
  if (bike.goneOn !== null) throw new ProblemError(409, 'bike-gone')
  await work.execute(
    `UPDATE visits SET state = 'waiting', device_id = NULL, on_stand_since = NULL, version = version + 1
     WHERE device_id = :deviceId AND state = 'on-stand' AND NOT (bike_id = :bikeId AND day = :day)`,
    { deviceId, bikeId, day },
  )
  await work.execute(
    `INSERT INTO visits (id, bike_id, day, position, reason, state, device_id, on_stand_since)
     VALUES (:visitId, :bikeId, :day, (SELECT coalesce(max(position), 0) + 1 FROM visits WHERE day = :day),
       :reason, 'on-stand', :deviceId, :now)
     ON CONFLICT (shop_id, day, bike_id) DO UPDATE
       SET state = 'on-stand', device_id = EXCLUDED.device_id, version = visits.version + 1,
         on_stand_since = CASE WHEN visits.device_id = EXCLUDED.device_id THEN visits.on_stand_since ELSE EXCLUDED.on_stand_since END`,
    { visitId, bikeId, day, deviceId, reason: reason ?? '', now: work.now },
  )
  await audited(work, 'put-on-stand', 'bike', bikeId)
  return lineUp(work, timeZone, deviceId)
}

/**
 * Moves a visit in the line-up, or says that it is done.
 *
 * @throws ProblemError 412 with the line-up as it is now when the visit changed meanwhile
 */
export async function moveVisit(
  work: Work,
  timeZone: string,
  id: string,
  version: number,
  change: { before?: string | null; state?: 'waiting' | 'done' },
): Promise<LineUp> {
  const { of, transaction } = work
  const deviceId = deviceOf(work)
  const visit = await of(VISITS).findByPk(id, { transaction, lock: true })
  if (!visit) throw new ProblemError(404, 'visit-unknown')
  await held(visit, version, () => lineUp(work, timeZone, deviceId))
  if (change.before !== undefined) visit.position = await positionBefore(work, visit.day, id, change.before)
  if (change.state !== undefined) {
    visit.state = change.state
    visit.deviceId = null
    visit.onStandSince = null
  }
  visit.version = version + 1
  await visit.save({ transaction })
  await audited(work, 'moved', 'visit', id, change)
  return lineUp(work, timeZone, deviceId)
}

/** A position half-way between a visit and the one above it, or after the last. */
async function positionBefore(work: Work, day: string, moving: string, before: string | null): Promise<number> {
  const others = await work.select<{ id: string; position: number }>(
    'SELECT id, position FROM visits WHERE day = :day AND id <> :moving ORDER BY position, id',
    { day, moving },
  )
  const i = before === null ? others.length : others.findIndex((other) => other.id === before)
  if (i < 0) throw refuseField('before', 'visit-unknown')
  const above = others[i - 1]?.position
  const below = others[i]?.position
  if (below === undefined) return (above ?? 0) + 1
  return above === undefined ? below - 1 : (above + below) / 2
}

function deviceOf(work: Work): string {
  const { deviceId } = authorOf(work)
  if (deviceId === null) throw new Error('a stand belongs to a device')
  return deviceId
}
