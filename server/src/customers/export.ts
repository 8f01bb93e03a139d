import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { isId } from '../http/id.ts'
import { customerShown } from './service.ts'

/** What is said of each bike of theirs, by what leads to it. Rows as they are, without the shop's own numbers. */
const OF_BIKE = {
  drive: 'SELECT * FROM drives WHERE bike_id IN (:bikes)',
  fittings:
    'SELECT f.*, h.name AS chain FROM fittings f JOIN chains h ON h.id = f.chain_id WHERE f.bike_id IN (:bikes)',
  readings: 'SELECT * FROM readings WHERE bike_id IN (:bikes)',
  spots: 'SELECT s.* FROM spots s JOIN readings r ON r.id = s.reading_id WHERE r.bike_id IN (:bikes)',
  distance: 'SELECT * FROM distance_entries WHERE bike_id IN (:bikes)',
  rides: 'SELECT * FROM rides WHERE bike_id IN (:bikes)',
  care: 'SELECT * FROM care_events WHERE bike_id IN (:bikes)',
  components: 'SELECT * FROM components WHERE bike_id IN (:bikes)',
  otherWear: 'SELECT * FROM wear_checks WHERE bike_id IN (:bikes)',
  visits: 'SELECT * FROM visits WHERE bike_id IN (:bikes)',
  jobs: 'SELECT id, bike_id, state, opened_at, closed_at, written FROM jobs WHERE bike_id IN (:bikes)',
} as const

/** All that is known of a customer, in words and numbers anybody's program reads. @throws ProblemError 404 */
export async function allOfCustomer(work: Work, id: string): Promise<object> {
  if (!isId(id)) throw new ProblemError(404, 'customer-unknown')
  const customer = await customerShown(work, id)
  const bikes = await work.select<{ id: string }>('SELECT * FROM bikes WHERE customer_id = :id', { id })
  const ids = bikes.map((bike) => bike.id)
  const of: Record<string, object[]> = {}
  for (const [name, sql] of Object.entries(OF_BIKE))
    of[name] = ids.length === 0 ? [] : await work.select(sql, { bikes: ids })
  const strip = (row: object): object => Object.fromEntries(Object.entries(row).filter(([name]) => name !== 'shop_id'))
  return {
    madeAt: work.now.toISOString(),
    customer,
    bikes: bikes.map(strip),
    ...Object.fromEntries(Object.entries(of).map(([name, rows]) => [name, rows.map(strip)])),
  }
}
