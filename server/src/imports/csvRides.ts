import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone.js'
import utc from 'dayjs/plugin/utc.js'
import { parseOdometer, type Assumptions, SURFACES, type Surface } from '@pelrin/core'
import type { CsvMapping } from '@pelrin/contract'
import { ImportError, type ImportProblem, type ParsedRide } from './parsedRide.ts'
import { rowsOf, type TableHead } from './table.ts'
import { plainMoment } from './tableDays.ts'

dayjs.extend(utc)
dayjs.extend(timezone)

/** Rows read; a table of more rides than anybody rides in a lifetime is no table of rides. */
const ROWS = 100_000

/** A row that is no ride, and why. */
export interface RefusedRow {
  readonly row: number
  readonly code: ImportProblem
}

/** Reads a table's rides by what its columns were told to mean. */
export async function csvRides(
  path: string,
  { header, delimiter, encoding, skip }: TableHead,
  mapping: CsvMapping,
  timeZone: string,
  assumed: Pick<Assumptions['distance'], 'odometerHighestKm'>,
): Promise<{ rides: ParsedRide[]; refused: RefusedRow[] }> {
  const column = (name: string | undefined): number => (name === undefined ? -1 : header.indexOf(name))
  const at = {
    start: column(mapping.start),
    duration: column(mapping.duration),
    distance: column(mapping.distance),
    surface: column(mapping.surface),
    title: column(mapping.title),
  }
  const rides: ParsedRide[] = []
  const refused: RefusedRow[] = []
  let row = -1
  for await (const cells of rowsOf(path, { delimiter, encoding, skip })) {
    row++
    if (row === 0) continue
    if (row > ROWS) throw new ImportError('file-too-large')
    const cell = (index: number): string => (index < 0 ? '' : (cells[index] ?? ''))
    const refuse = (code: ImportProblem): void => void refused.push({ row, code })
    // A cell that a spreadsheet would compute is not taken for a value.
    if ([at.start, at.duration, at.distance, at.title].some((index) => /^[=@+]|^-(?!\d)/.test(cell(index)))) {
      refuse('row-formula')
      continue
    }
    const from = momentOf(cell(at.start), mapping.dayFirst, timeZone)
    if (from === null) {
      refuse('row-time-unreadable')
      continue
    }
    const distance = parseOdometer(cell(at.distance), mapping.unit, assumed)
    if (!distance.ok || distance.km <= 0) {
      refuse('row-distance-unreadable')
      continue
    }
    const to = endOf(cell(at.duration), from, mapping.dayFirst, timeZone)
    if (to === null || to <= from) {
      refuse('row-time-unreadable')
      continue
    }
    rides.push({
      from,
      to,
      km: distance.km,
      title: cell(at.title).slice(0, 80) || null,
      surface: surfaceOf(cell(at.surface)),
      profile: [],
      gaps: 0,
      jumps: 0,
      points: null,
      row,
    })
  }
  return { rides, refused }
}

/** A moment as tables write it, in the shop's zone unless it names its own; null when it cannot be read. */
function momentOf(text: string, dayFirst: boolean, timeZone: string): number | null {
  // A zone stands behind a clock: the year of 05-06-2026 is none.
  if (/\d:\d\d(:\d\d(\.\d+)?)?\s?(Z|[+-]\d\d:?\d\d)$/.test(text)) {
    const at = Date.parse(text)
    return Number.isFinite(at) ? at : null
  }
  const plain = plainMoment(text, dayFirst)
  return plain === null ? null : dayjs.tz(plain, timeZone).valueOf()
}

const HOUR_MS = 3_600_000

/** When a ride ended: by minutes, h:mm:ss, or a moment; an hour after it began where the table does not say. */
function endOf(text: string, from: number, dayFirst: boolean, timeZone: string): number | null {
  if (text === '') return from + HOUR_MS
  const clock = /^(\d{1,3}):(\d{2})(?::(\d{2}))?$/.exec(text)
  if (clock) return from + (Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number(clock[3] ?? 0)) * 1000
  const minutes = Number(text.replace(',', '.'))
  if (Number.isFinite(minutes)) return from + minutes * 60_000
  return momentOf(text, dayFirst, timeZone)
}

const SURFACE_WORDS: Record<Surface, RegExp> = {
  gritty: /grit|sand|mud|salt/i,
  wet: /wet|rain/i,
  damp: /damp|moist/i,
  dry: /dry/i,
  indoor: /indoor|trainer|turbo|rollers|virtual/i,
}

function surfaceOf(text: string): Surface | null {
  return [...SURFACES].reverse().find((surface) => SURFACE_WORDS[surface].test(text)) ?? null
}
