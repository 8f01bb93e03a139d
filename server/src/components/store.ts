import { type ComponentEnd, type WearItemId } from '@pelrin/core'
import type { BikeComponents, Component } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { dayIn } from '../days/days.ts'
import { shopZone } from '../days/shopZone.ts'

interface Row {
  id: string
  item: WearItemId
  partId: string | null
  name: string | null
  price: number | null
  /** Of a rotor, stamped on it. */
  minimumMm: number | null
  from: Date
  to: Date | null
  endReason: ComponentEnd | null
  person: string
}

/** What was and is on a bike beside its chains, newest first. */
export const componentRows = (work: Work, bikeId: string): Promise<Row[]> =>
  work.prepared<Row>(
    `SELECT c.id, c.item, c.part_id AS "partId", coalesce(c.name, p.maker || ' ' || p.name) AS name,
       coalesce(c.price, p.price) AS price, (p.facts ->> 'minimumMm')::float AS "minimumMm", lower(c.during) AS "from", upper(c.during) AS "to",
       c.end_reason AS "endReason", w.name AS person
     FROM components c LEFT JOIN parts p ON p.id = c.part_id JOIN people w ON w.id = c.person_id
     WHERE c.bike_id = :bikeId AND NOT isempty(c.during) ORDER BY lower(c.during) DESC, c.id DESC`,
    { bikeId },
  )

/**
 * The same as the contract has it.
 *
 * @param run what the bike has run up to a moment, km; null where nothing says
 */
export async function componentsOf(
  work: Work,
  bikeId: string,
  run: (at: Date) => number | null,
): Promise<BikeComponents> {
  const zone = await shopZone(work)
  const today = dayIn(zone, work.now)
  const rows = await componentRows(work, bikeId)
  return {
    components: rows.map(({ from, to, minimumMm: _, ...row }): Component => {
      const [at, until] = [run(from), run(to ?? work.now)]
      return {
        ...row,
        from: from.toISOString(),
        to: to?.toISOString() ?? null,
        km: at === null || until === null ? null : Math.max(0, until - at),
        canUndo: to === null && dayIn(zone, from) === today,
      }
    }),
  }
}
