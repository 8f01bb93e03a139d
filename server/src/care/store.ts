import type { BikeCare } from '@pelrin/contract'
import { TREATMENTS, type CareKind } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { eventDatesOf } from './eventDates.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { unlooked } from '../looks/store.ts'
import { jointOfChain } from '../parts/jointStore.ts'
import type { CareNext } from '@pelrin/contract'
import { stands } from '../db/facts.ts'
import type { CareEventRow } from './models.ts'

interface Row extends Pick<CareEventRow, 'id' | 'kind' | 'care' | 'cleaning' | 'atHome' | 'note'> {
  at: Date
  person: string
  unlooked: boolean
  bike: { id: string; label: string } | null
}

/** What stands of a chain's care, newest first. */
export const standingCare = (work: Work, chainId: string): Promise<Row[]> =>
  work.prepared<Row>(
    `SELECT e.id, e.kind, e.care, e.cleaning, e.at_home AS "atHome", e.note, e.occurred_at AS at, p.name AS person,
       ${unlooked('care', 'p', 'e')} AS unlooked,
       CASE WHEN b.id IS NULL THEN NULL ELSE json_build_object('id', b.id, 'label', b.label) END AS bike
     FROM care_events e JOIN people p ON p.id = e.person_id LEFT JOIN bikes b ON b.id = e.bike_id
     WHERE e.chain_id = :chainId AND ${stands('care_events', 'e')}
     ORDER BY e.occurred_at DESC, e.id DESC`,
    { chainId },
  )

/** The care of the chain on a bike. @throws ProblemError 404 */
export async function careOf(work: Work, bikeId: string): Promise<BikeCare> {
  const [bike] = await work.select<{
    next: CareNext | null
    chain: { id: string; fittingId: string; name: string; care: CareKind } | null
    km: number | null
    days: number | null
    bikeVersion: number
    motor: boolean
    discBrake: boolean | null
    timeZone: string
    customer: BikeCare['customer']
  }>(
    `SELECT s.care AS next, b.care_km AS km, b.care_days AS days, b.version AS "bikeVersion", d.motor,
       d.disc_brake AS "discBrake", (SELECT time_zone FROM shops WHERE id = pelrin_shop()) AS "timeZone",
       (SELECT json_build_object('id', h.id, 'fittingId', f.id, 'name', h.name, 'care', h.care) FROM fittings f JOIN chains h ON h.id = f.chain_id
        WHERE f.bike_id = b.id AND upper_inf(f.during)) AS chain,
       json_build_object('id', c.id, 'version', c.version, 'careAt', c.care_at, 'goodWeekday', c.good_weekday,
         'language', c.language, 'optedOut', c.opted_out_at IS NOT NULL) AS customer
     FROM bikes b JOIN customers c ON c.id = b.customer_id JOIN drives d ON d.bike_id = b.id
     JOIN bike_state s ON s.bike_id = b.id WHERE b.id = :bikeId`,
    { bikeId },
  )
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  const { km, days, chain, timeZone, ...rest } = bike
  const { assumed } = await assumptionsInForce(work)
  const events = chain ? await standingCare(work, chain.id) : []
  return {
    ...rest,
    chain: chain && { ...chain, joint: (await jointOfChain(work, chain.id))?.kind ?? null },
    events: events.map(({ at, ...event }) => ({ ...event, at: at.toISOString() })),
    intervals: Object.fromEntries(TREATMENTS.map((care) => [care, { ...assumed.care[care] }])) as BikeCare['intervals'],
    firstRideKm: assumed.care.firstRideKm,
    eventDates: await eventDatesOf(work, bikeId, timeZone, assumed),
    own: km === null || days === null ? null : { km, days },
  }
}
