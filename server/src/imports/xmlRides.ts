import { createReadStream } from 'node:fs'
import { SaxesParser } from 'saxes'
import { TrackAdder, type TrackBounds, type TrackPoint } from '@pelrin/core'
import { ImportError, RIDES_A_FILE, rideOfTrack, TrackKeeper, type ParsedRide } from './parsedRide.ts'

const CHUNK = 256 * 1024
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

  finish(): ParsedRide | null {
    if (this.points === 0) return null
    if (this.timeless === this.points) throw new ImportError('file-without-times')
    return rideOfTrack(this.adder.sum(), {
      km: this.stated && this.statedM > 0 ? this.statedM / 1000 : null,
      title: this.title,
      points: this.keeper.pack(),
    })
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
  const seen: { known: boolean; failed: Error | null } = { known: false, failed: null }
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
    if (local === 'trkpt')
      point = defined({
        latitude: inRange(Number(attributes['lat']), 90),
        longitude: inRange(Number(attributes['lon']), 180),
      })
    if (local === 'Trackpoint') point = {}
  })
  parser.on('text', (part) => {
    if (text.length < LONGEST_TEXT) text += part.slice(0, LONGEST_TEXT)
  })
  parser.on('closetag', ({ name }) => {
    const local = name.replace(/^.*:/, '')
    if (point) {
      if (local === 'time' || local === 'Time') {
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
      if (local === 'DistanceMeters' && parent() === 'Lap' && Number.isFinite(Number(text))) {
        ride.stated = true
        ride.statedM += Number(text)
      }
    }
    if ((local === 'trk' || local === 'Activity') && ride) {
      try {
        const finished = ride.finish()
        if (finished) rides.push(finished)
        if (rides.length > RIDES_A_FILE) throw new ImportError('file-too-many-rides')
      } catch (error) {
        seen.failed ??= error as Error
      }
      ride = null
    }
    open.pop()
    text = ''
  })

  // Node names encodings as the browser does; a byte order mark says which.
  const stream = createReadStream(path, { highWaterMark: CHUNK, ...(signal ? { signal } : {}) })
  const decoder = new TextDecoder(await encodingOf(path))
  for await (const chunk of stream) {
    parser.write(decoder.decode(chunk as Buffer, { stream: true }))
    if (seen.failed) break
  }
  stream.destroy()
  if (!seen.failed) parser.close()
  if (seen.failed) throw seen.failed
  if (!seen.known) throw new ImportError('file-unreadable')
  if (rides.length === 0) throw new ImportError('file-without-ride')
  return rides
}

async function encodingOf(path: string): Promise<string> {
  const stream = createReadStream(path, { end: 1 })
  for await (const chunk of stream) {
    const [first, second] = chunk as Buffer
    if (first === 0xff && second === 0xfe) return 'utf-16le'
    if (first === 0xfe && second === 0xff) return 'utf-16be'
  }
  return 'utf-8'
}

/** An object without the keys that have no value. */
const defined = <T extends object>(of: T): { [K in keyof T]: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(of).filter(([, value]) => value !== undefined)) as {
    [K in keyof T]: Exclude<T[K], undefined>
  }
