import { stringify } from 'csv-stringify/sync'
import { create } from 'xmlbuilder2'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { standingRides, type StandingRide } from '../distance/store.ts'
import { unpackTrack } from './parsedRide.ts'
import { BIKES } from '../bikes/models.ts'
import { RIDE_TRACKS } from '../distance/models.ts'

async function ridesOf(work: Work, bikeId: string): Promise<StandingRide[]> {
  if (!(await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })))
    throw new ProblemError(404, 'bike-unknown')
  return standingRides(work, bikeId)
}

/** A bike's rides as a table that comes in again as it went out. A spreadsheet computes nothing in it. */
export async function ridesAsCsv(work: Work, bikeId: string): Promise<string> {
  const rides = await ridesOf(work, bikeId)
  return stringify(
    rides.map(({ from, to, km, surface, title, source }) => [
      from.toISOString(),
      to.toISOString(),
      km.toFixed(3),
      surface ?? '',
      title ?? '',
      source,
    ]),
    { header: true, columns: ['start', 'end', 'km', 'surface', 'title', 'source'], bom: true, escape_formulas: true },
  )
}

/** The rides of a bike whose tracks are kept, as GPX 1.1. */
export async function ridesAsGpx(work: Work, bikeId: string): Promise<string> {
  const rides = await ridesOf(work, bikeId)
  const document = create({ version: '1.0', encoding: 'UTF-8' }).ele('gpx', {
    version: '1.1',
    creator: 'Pelrin',
    xmlns: 'http://www.topografix.com/GPX/1/1',
  })
  for (const { id, title, hasTrack } of rides) {
    if (!hasTrack) continue
    const kept = await work.of(RIDE_TRACKS).findByPk(id, { transaction: work.transaction })
    if (!kept) continue
    const track = document.ele('trk')
    if (title !== null) track.ele('name').txt(title)
    const segment = track.ele('trkseg')
    for (const { at, latitude, longitude } of unpackTrack(kept.points))
      segment
        .ele('trkpt', { lat: String(latitude), lon: String(longitude) })
        .ele('time')
        .txt(new Date(at).toISOString())
  }
  return document.end({ prettyPrint: false })
}
