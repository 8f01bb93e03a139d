import { dayAfter, weekdayOf } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { Chance } from './random.ts'
import type { BikeRow } from '../bikes/models.ts'

/** Bikes that are wanted on a Sunday ahead, so many days from now at least. */
const WANTED = [
  { label: 'Sand racer', name: 'Sand race at Pell Spit', daysAhead: 3 },
  { label: 'Causeway', name: 'Causeway hundred', daysAhead: 10 },
]

/** Loads the days some of the demo's riders want their bikes for. */
export async function loadEventDates(
  work: Work,
  seed: number,
  bikes: readonly Partial<BikeRow>[],
  personId: string,
): Promise<void> {
  const { now } = work
  const chance = new Chance(seed)
  for (const { label, name, daysAhead } of WANTED) {
    const bike = bikes.find((one) => one.label === label)
    const first = dayAfter(now.toISOString().slice(0, 10), daysAhead)
    await work.execute(
      `INSERT INTO event_dates (id, bike_id, day, name, recorded_at, person_id)
       VALUES (:id, :bikeId, :day, :name, :now, :personId)`,
      { id: chance.id(now), bikeId: bike!.id, day: dayAfter(first, 7 - weekdayOf(first)), name, now, personId },
    )
  }
}
