import type { TableHead } from './table.ts'
import { stat } from 'node:fs/promises'
import type { MessagePort } from 'node:worker_threads'
import type { Assumptions } from '@pelrin/core'
import type { CsvMapping, ImportLine } from '@pelrin/contract'
import { headerKey } from './headerKey.ts'
import { kindOf, readRideFile } from './readFile.ts'
import { ImportError, rideProblem, type ParsedRide } from './parsedRide.ts'
import type { ReceivedFile } from '../transfers/receive.ts'
import { unzip } from './unzip.ts'

const LARGEST_BYTES = 600 * 1024 * 1024
/** Files of an upload once they are unpacked, and rides in all of them. */
const FILES = 400
const RIDES = 10_000

export interface ReadAsked {
  readonly folder: string
  readonly files: readonly ReceivedFile[]
  /** What its zips may unpack to, bytes. */
  readonly bytesLeft: number
  readonly timeZone: string
  /** What the shop assumes of distances. */
  readonly assumed: Assumptions['distance']
  readonly mappings: readonly { readonly header: string; readonly mapping: CsvMapping }[]
  readonly now: number
  readonly port: MessagePort
}

/** What the thread tells as it goes: each file with what is in it, and at last that it is through. */
export type ReadTold =
  | { readonly kind: 'files'; readonly files: number }
  | {
      readonly kind: 'file'
      readonly file: string
      readonly rides: ParsedRide[]
      readonly lines: ImportLine[]
      readonly table: TableHead | null
      readonly mapping: CsvMapping | null
    }
  /** All is told: nothing comes after. */
  | { readonly kind: 'end' }

/** Reads received files one after the other, in a thread of its own. One that cannot be read does not stop the rest. */
export default async function readFiles({
  folder,
  files,
  bytesLeft,
  timeZone,
  assumed,
  mappings,
  now,
  port,
}: ReadAsked): Promise<void> {
  const tell = (told: ReadTold): void => port.postMessage(told)
  const mappingFor = (header: readonly string[]): CsvMapping | null =>
    mappings.find((one) => one.header === headerKey(header))?.mapping ?? null
  const unpacked: ReceivedFile[] = []
  let bytes = bytesLeft
  let ridesLeft = RIDES
  const refuse = (file: string, code: string): void =>
    tell({ kind: 'file', file, rides: [], lines: [{ file, outcome: 'refused', code }], table: null, mapping: null })
  for (const [i, file] of files.entries()) {
    try {
      if ((await kindOf(file.path)) !== 'zip') {
        unpacked.push(file)
        continue
      }
      const room = { bytes, files: Math.max(0, FILES - unpacked.length) }
      const { files: inside, refused, bytes: taken } = await unzip(file.path, folder, `z${i}`, room)
      bytes -= taken
      unpacked.push(...inside)
      for (const { name, code } of refused) refuse(name, code)
    } catch (error) {
      refuse(file.name, codeOf(error))
    }
  }
  tell({ kind: 'files', files: unpacked.length })
  for (const { path, name } of unpacked) {
    try {
      if ((await stat(path)).size > LARGEST_BYTES) throw new ImportError('file-too-large')
      const { rides, refused, table } = await readRideFile(path, timeZone, assumed, mappingFor)
      if (rides.length > ridesLeft) throw new ImportError('file-too-many-rides')
      ridesLeft -= rides.length
      const good = rides.filter((ride) => rideProblem(ride, now) === null)
      const lines: ImportLine[] = [
        ...refused.map(({ row, code }): ImportLine => ({ file: name, row, outcome: 'refused', code })),
        ...rides.flatMap((ride): ImportLine[] => {
          const code = rideProblem(ride, now)
          return code === null
            ? []
            : [{ file: name, outcome: 'refused', code, ...(ride.row === undefined ? {} : { row: ride.row }) }]
        }),
      ]
      const mapping = table && mappingFor(table.header)
      if (table && !mapping) lines.push({ file: name, outcome: 'refused', code: 'columns-wanted' })
      tell({
        kind: 'file',
        file: name,
        rides: good,
        lines,
        table,
        mapping,
      })
    } catch (error) {
      refuse(name, codeOf(error))
    }
  }
  tell({ kind: 'end' })
}

const codeOf = (error: unknown): string => (error instanceof ImportError ? error.code : 'file-broken')
