import { TakeReading } from '@pelrin/contract'
import { v7 } from 'uuid'
import * as v from 'valibot'
import { takeReading } from '../readings/service.ts'
import { chainThen } from './chainThen.ts'
import { instrumentThen } from './instrumentThen.ts'
import { bikeOf, byId, momentOf, onlyOne, type InTable } from './inTable.ts'
import { stands } from '../db/facts.ts'

/** Readings of the chain that was on a bike then, a row a spot: by their id, else by bike, time and instrument. */
export const readingsIn: InTable<'readings'> = {
  together: ({ reading_id: id, bike_id: bikeId, tag, at, instrument }) =>
    id ?? [bikeId ?? tag ?? '', at, instrument].join('\n'),
  columnAt: { occurredAt: 'at', instrumentId: 'instrument', bikeId: 'tag' },
  inOrder: ({ at }, timeZone) => momentOf(at, timeZone, 'at').getTime(),
  compared: [],
  async find(work, row, timeZone) {
    const bikeId = await bikeOf(work, row)
    const standing = `SELECT r.id FROM readings r JOIN instruments i ON i.id = r.instrument_id WHERE ${stands('readings', 'r')}`
    const at = momentOf(row.at, timeZone, 'at')
    const then = `${standing} AND r.bike_id = :bikeId AND r.occurred_at = :at AND i.name = :instrument`
    return (
      (await byId(work, standing, row.reading_id, 'r.id')) ??
      onlyOne(work, then, { bikeId, at, instrument: row.instrument }, 'at')
    )
  },
  async write(work, rows, timeZone) {
    const [first] = rows
    const bikeId = await bikeOf(work, first!)
    const at = momentOf(first!.at, timeZone, 'at')
    const instrumentId = await instrumentThen(work, first!.instrument, {
      kind: first!.instrument_kind,
      marks: first!.instrument_marks,
    })
    const { fittingId } = await chainThen(work, { bikeId, at, chain: first!.chain })
    await takeReading(
      work,
      v.parse(TakeReading, {
        id: first!.reading_id ?? v7(),
        bikeId,
        fittingId,
        occurredAt: at.toISOString(),
        instrumentId,
        spots: rows.map(({ typed, pitches, place, mode, link_included: linkIncluded, picture }) => ({
          id: v7(),
          typed,
          ...(pitches === undefined ? {} : { pitches }),
          ...(place === undefined ? {} : { place }),
          ...(mode === undefined ? {} : { mode }),
          ...(linkIncluded === undefined ? {} : { linkIncluded }),
          ...(picture === undefined ? {} : { picture }),
        })),
      }),
    )
    return null
  },
}
