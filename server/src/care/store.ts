import type { BikeCare } from '@pelrin/contract'
import { daysBetween, isWet, TREATMENTS, type CareKind, type PotRecipe } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { eventDatesOf } from './eventDates.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { asChainJoint } from '../chains/joints.ts'
import { handlingOf } from '../jobs/handling.ts'
import { houseSchools } from '../jobs/schools.ts'
import { partsFacts } from '../parts/bikeParts.ts'
import { jointOfChain } from '../parts/jointStore.ts'
import type { CareNext } from '@pelrin/contract'
import { standingCare } from './standingStore.ts'

/** The care of the chain on a bike. @throws ProblemError 404 */
export async function careOf(work: Work, bikeId: string): Promise<BikeCare> {
  const [bike] = await work.select<{
    next: CareNext | null
    chain: { id: string; fittingId: string; name: string; care: CareKind; readyWaxed: boolean } | null
    km: number | null
    days: number | null
    bikeVersion: number
    motor: boolean
    discBrake: boolean | null
    timeZone: string
    ownRecipe: PotRecipe | null
    washDays: number | null
    washOn: string | null
    checkOn: string | null
    measuredOn: string | null
    customer: BikeCare['customer']
  }>(
    `SELECT s.care AS next, b.care_km AS km, b.care_days AS days, b.wax_recipe AS "ownRecipe", b.wash_days AS "washDays",
       s.wash_on::text AS "washOn", s.check_on::text AS "checkOn",
       (s.measured_at AT TIME ZONE (SELECT time_zone FROM shops WHERE id = pelrin_shop()))::date::text AS "measuredOn", b.version AS "bikeVersion", d.motor,
       d.disc_brake AS "discBrake", (SELECT time_zone FROM shops WHERE id = pelrin_shop()) AS "timeZone",
       (SELECT json_build_object('id', h.id, 'fittingId', f.id, 'name', h.name, 'care', h.care,
          'readyWaxed', coalesce(p.facts ->> 'coating' = 'waxed', false))
        FROM fittings f JOIN chains h ON h.id = f.chain_id LEFT JOIN parts p ON p.id = h.part_id
        WHERE f.bike_id = b.id AND upper_inf(f.during)) AS chain,
       json_build_object('id', c.id, 'version', c.version, 'careAt', c.care_at, 'goodWeekday', c.good_weekday,
         'language', c.language, 'optedOut', c.opted_out_at IS NOT NULL) AS customer
     FROM bikes b JOIN customers c ON c.id = b.customer_id JOIN drives d ON d.bike_id = b.id
     JOIN bike_state s ON s.bike_id = b.id WHERE b.id = :bikeId`,
    { bikeId },
  )
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  const { km, days, chain, timeZone, washDays, washOn, checkOn, measuredOn, ...rest } = bike
  const { assumed } = await assumptionsInForce(work)
  const events = chain ? await standingCare(work, chain.id) : []
  const joint = chain && (await jointOfChain(work, chain.id))
  const { waxing } = await houseSchools(work)
  return {
    ...rest,
    chain: chain && { ...chain, joint: joint && asChainJoint(joint) },
    handling: chain && (await handlingOf(work, await partsFacts(work, bikeId))),
    waxing: { ...waxing, recipe: rest.ownRecipe ?? waxing.recipe },
    wet: isWet(events),
    events: events.map(({ at, ...event }) => ({ ...event, at: at.toISOString() })),
    intervals: Object.fromEntries(
      TREATMENTS.map((care) => [care, { km: assumed.care[care].km, days: assumed.care[care].days }]),
    ) as BikeCare['intervals'],
    firstRideKm: assumed.care.firstRideKm,
    eventDates: await eventDatesOf(work, bikeId, timeZone, assumed),
    own: km === null || days === null ? null : { km, days },
    wash: { ownDays: washDays, shopDays: assumed.care.washDays, on: washOn },
    rhythm: {
      care: rest.next?.rhythmDays ?? null,
      look: checkOn === null || measuredOn === null ? null : Math.max(7, daysBetween(measuredOn, checkOn)),
      wash: (washDays ?? assumed.care.washDays) || null,
    },
  }
}
