import { SaxesParser } from 'saxes'
import { TrackAdder, type TrackBounds, type TrackPoint } from '@pelrin/core'
import { decoded, encodingOf } from './encoding.ts'
import { isCycling, isIndoors } from './sport.ts'
import { ImportError, riddenIndoors, RIDES_A_FILE, rideOfTrack, TrackKeeper, type ParsedRide } from './parsedRide.ts'

/** Text of one element that is believed: longer is no time, name or number. */
const LONGEST_TEXT = 400

/** A ride being read: what has been seen of it so far. */
class RideReading {
  readonly adder: TrackAdder
  readonly keeper = new TrackKeeper()
  title: string | null = null
  /** Distance the file states, m, summed over its laps. */
  statedM = 0
  stated = false
  points = 0
  timeless = 0
  /** As the file calls it; null where it does not say. */
  sport: string | null = null
  /** Of its laps, ms: where there is no track, they say when it was. */
  private from = Infinity
  private to = -Infinity
  private lap = NaN

  constructor(bounds: TrackBounds) {
    this.adder = new TrackAdder(bounds)
  }

  add(point: Partial<TrackPoint>): void {
    const { at, latitude, longitude } = point
    if (latitude === undefined || longitude === undefined) return
    this.points++
    if (at === undefined || !Number.isFinite(at)) {
      this.timeless++
      return
    }
    const whole = { at, latitude, longitude }
    this.adder.add(whole)
    this.keeper.add(whole)
  }

  lapAt(at: number): void {
    this.lap = at
    if (Number.isFinite(at)) this.from = Math.min(this.from, at)
  }

  lapLasts(seconds: number): void {
    if (Number.isFinite(this.lap) && seconds > 0) this.to = Math.max(this.to, this.lap + seconds * 1000)
  }

  /** @returns what keeps it out where it is no ride; null where there is nothing of it */
  finish(): ParsedRide | 'other-sport' | 'timeless' | null {
    if (this.sport !== null && !isCycling(this.sport)) return 'other-sport'
    if (this.points === 0) return this.indoors()
    if (this.timeless === this.points) return 'timeless'
    const ride = rideOfTrack(this.adder.sum(), {
      km: this.stated && this.statedM > 0 ? this.statedM / 1000 : null,
      title: this.title,
      points: this.keeper.pack(),
    })
    return this.sport !== null && isIndoors(this.sport) ? riddenIndoors(ride) : ride
  }

  /** Ridden on a trainer: no positions. What its laps state is all there is. */
  private indoors(): ParsedRide | null {
    if (!this.stated || this.statedM <= 0 || !(this.to > this.from)) return null
    return {
      ...{ from: this.from, to: this.to, km: this.statedM / 1000, title: this.title, surface: 'indoor' },
      ...{ profile: [], gaps: 0, jumps: 0, points: null },
    }
  }
}

const inRange = (value: number, most: number): number | undefined =>
  Number.isFinite(value) && Math.abs(value) <= most ? value : undefined

/**
 * Reads the rides of a GPX or TCX file as a stream: a file of any size needs little memory. Names of elements are taken
 * without their prefixes. Entities of the file's own are not opened.
 *
 * @throws ImportError saying what is wrong with the file
 */
export async function xmlRides(path: string, bounds: TrackBounds, signal?: AbortSignal): Promise<ParsedRide[]> {
  const parser = new SaxesParser({ xmlns: false, position: false })
  const rides: ParsedRide[] = []
  const open: string[] = []
  let ride: RideReading | null = null
  let point: { at?: number; latitude?: number; longitude?: number } | null = null
  let text = ''
  /** Set by the parser's events as they come. */
  const seen: { known: boolean; failed: Error | null; others: number; timeless: number } = {
    ...{ known: false, failed: null },
    ...{ others: 0, timeless: 0 },
  }
  const parent = (): string => open.at(-2) ?? ''

  parser.on('doctype', (declared) => {
    // No ride file needs entities; one that has them wants to grow in memory or to read other files.
    if (/<!ENTITY/i.test(declared)) seen.failed = new ImportError('file-entities')
  })
  parser.on('error', () => (seen.failed ??= new ImportError(seen.known ? 'file-broken' : 'file-unreadable')))
  parser.on('opentag', ({ name, attributes }) => {
    const local = name.replace(/^.*:/, '')
    open.push(local)
    text = ''
    if (local === 'gpx' || local === 'TrainingCenterDatabase') seen.known = true
    if (local === 'trk' || local === 'Activity') ride = new RideReading(bounds)
    if (local === 'Activity' && ride) ride.sport = attributes['Sport'] ?? null
    if (local === 'Lap' && ride) ride.lapAt(Date.parse(attributes['StartTime'] ?? ''))
    if (local === 'trkpt')
      point = defined({
        latitude: inRange(Number(attributes['lat']), 90),
        longitude: inRange(Number(attributes['lon']), 180),
      })
    if (local === 'Trackpoint') point = {}
  })
  const more = (part: string): void => {
    if (text.length < LONGEST_TEXT) text += part.slice(0, LONGEST_TEXT)
  }
  parser.on('text', more)
  parser.on('cdata', more)
  parser.on('closetag', ({ name }) => {
    const local = name.replace(/^.*:/, '')
    if (point) {
      // One further in, as of an extension, is something else's.
      if ((local === 'time' || local === 'Time') && /^(trkpt|Trackpoint)$/.test(parent())) {
        const at = Date.parse(text.trim())
        if (Number.isFinite(at)) point.at = at
      }
      const degrees = Number(text)
      if (local === 'LatitudeDegrees') Object.assign(point, defined({ latitude: inRange(degrees, 90) }))
      if (local === 'LongitudeDegrees') Object.assign(point, defined({ longitude: inRange(degrees, 180) }))
      if (local === 'trkpt' || local === 'Trackpoint') {
        ride?.add(point)
        point = null
      }
    } else if (ride) {
      if (local === 'name' && parent() === 'trk') ride.title = text.trim().slice(0, 80) || null
      if (local === 'Notes' && ride.title === null) ride.title = text.trim().slice(0, 80) || null
      if (local === 'type' && parent() === 'trk') ride.sport = text.trim()
      if (local === 'TotalTimeSeconds' && parent() === 'Lap') ride.lapLasts(Number(text))
      if (local === 'DistanceMeters' && parent() === 'Lap' && Number.isFinite(Number(text))) {
        ride.stated = true
        ride.statedM += Number(text)
      }
    }
    if ((local === 'trk' || local === 'Activity') && ride) {
      try {
        const finished = ride.finish()
        if (finished === 'other-sport') seen.others++
        else if (finished === 'timeless') seen.timeless++
        else if (finished) rides.push(finished)
        if (rides.length > RIDES_A_FILE) throw new ImportError('file-too-many-rides')
      } catch (error) {
        seen.failed ??= error as Error
      }
      ride = null
    }
    open.pop()
    text = ''
  })

  for await (const chunk of decoded(path, await encodingOf(path, declaredIn), signal)) {
    parser.write(chunk)
    if (seen.failed) break
  }
  if (!seen.failed) parser.close()
  if (seen.failed) throw seen.failed
  if (!seen.known) throw new ImportError('file-unreadable')
  if (rides.length === 0)
    throw new ImportError(
      seen.timeless > 0 ? 'file-without-times' : seen.others > 0 ? 'file-other-sport' : 'file-without-ride',
    )
  return rides
}

/** What a file of XML says of its own letters in its first line. */
const declaredIn = (line: string): string | null => /^\s*<\?xml[^>]*encoding=["']([\w.:-]+)["']/.exec(line)?.[1] ?? null

/** An object without the keys that have no value. */
const defined = <T extends object>(of: T): { [K in keyof T]: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(of).filter(([, value]) => value !== undefined)) as {
    [K in keyof T]: Exclude<T[K], undefined>
  }
