import { readFile, stat } from 'node:fs/promises'
import FitParser from 'fit-file-parser'
import { TrackAdder, type TrackBounds } from '@pelrin/core'
import { isCycling, isIndoors } from './sport.ts'
import { ImportError, riddenIndoors, rideOfTrack, TrackKeeper, type ParsedRide } from './parsedRide.ts'

/** FIT is read as a whole; a day's ride is far smaller. */
const LARGEST_BYTES = 40 * 1024 * 1024

interface FitRecord {
  timestamp?: Date | string
  position_lat?: number
  position_long?: number
}
interface FitSession {
  start_time?: Date | string
  total_distance?: number
  total_elapsed_time?: number
  sport?: string | number
  sub_sport?: string | number
}

/** Reads the ride of a FIT file: its distance as it states it, its track where it has one. */
export async function fitRides(path: string, bounds: TrackBounds): Promise<ParsedRide[]> {
  if ((await stat(path)).size > LARGEST_BYTES) throw new ImportError('file-too-large')
  const parser = new FitParser({ force: false, mode: 'list', lengthUnit: 'km' })
  let data: { sessions?: FitSession[]; records?: FitRecord[] }
  try {
    data = await parser.parseAsync(await readFile(path))
  } catch {
    throw new ImportError('file-broken')
  }
  const { sessions: parts = [], records: all = [] } = data
  // Of several sports in one file, those that turn a chain.
  const sessions = parts.filter(({ sport }) => sport === undefined || isCycling(String(sport)))
  if (parts.length > 0 && sessions.length === 0) throw new ImportError('file-other-sport')
  const within = (at: number): boolean =>
    sessions.length === parts.length ||
    sessions.some(({ start_time: from, total_elapsed_time: seconds = 0 }) => {
      const began = from === undefined ? NaN : new Date(from).getTime()
      return at >= began && at <= began + seconds * 1000
    })
  const records = all.filter(({ timestamp }) => timestamp !== undefined && within(new Date(timestamp).getTime()))
  const adder = new TrackAdder(bounds)
  const keeper = new TrackKeeper()
  for (const { timestamp, position_lat: latitude, position_long: longitude } of records) {
    if (timestamp === undefined || latitude === undefined || longitude === undefined) continue
    const point = { at: new Date(timestamp).getTime(), latitude, longitude }
    adder.add(point)
    keeper.add(point)
  }
  const sum = adder.sum()
  const [session] = sessions
  const km = sessions.reduce((total, one) => total + (one.total_distance ?? 0), 0)
  // A virtual ride has a track of somewhere nobody was.
  const indoors = session !== undefined && sessions.every(({ sub_sport: part }) => isIndoors(String(part ?? '')))
  if (sum) {
    const ride = rideOfTrack(sum, { km: km > 0 ? km : null, title: null, points: keeper.pack() })
    return [indoors ? riddenIndoors(ride) : ride]
  }
  // Ridden indoors or without a fix: what the session states is all there is.
  if (!session?.start_time || !session.total_elapsed_time || km <= 0) throw new ImportError('file-without-ride')
  const from = new Date(session.start_time).getTime()
  return [
    {
      from,
      to: from + sessions.reduce((total, one) => total + (one.total_elapsed_time ?? 0), 0) * 1000,
      km,
      title: null,
      surface: 'indoor',
      profile: [],
      gaps: 0,
      jumps: 0,
      points: null,
    },
  ]
}
