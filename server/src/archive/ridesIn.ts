import { v7 } from 'uuid'
import { writeRide } from '../distance/service.ts'
import { bikeOf, byId, momentOf, onlyOne, type InTable } from './inTable.ts'
import { stands } from '../db/facts.ts'

/** Rides: by their id, else by their bike and when they began. */
export const ridesIn: InTable<'rides'> = {
  columnAt: { typed: 'km', startedAt: 'start', endedAt: 'end' },
  compared: ['km', 'surface'],
  async find(work, row, timeZone) {
    const bikeId = await bikeOf(work, row)
    const start = momentOf(row.start, timeZone, 'start')
    const standing = `SELECT id FROM rides r WHERE ${stands('rides', 'r')}`
    return (
      (await byId(work, standing, row.id)) ??
      onlyOne(work, `${standing} AND bike_id = :bikeId AND occurred_at = :start`, { bikeId, start }, 'start')
    )
  },
  async write(work, [row], timeZone) {
    const bikeId = await bikeOf(work, row!)
    await writeRide(work, bikeId, {
      id: row!.id ?? v7(),
      startedAt: momentOf(row!.start, timeZone, 'start').toISOString(),
      endedAt: momentOf(row!.end, timeZone, 'end').toISOString(),
      typed: row!.km,
      unit: 'km',
      surface: row!.surface ?? null,
      title: row!.title ?? null,
    })
    return bikeId
  },
}
