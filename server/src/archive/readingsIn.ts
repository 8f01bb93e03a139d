import { TakeReading } from '@pelrin/contract'
import { v7 } from 'uuid'
import * as v from 'valibot'
import { refuseField } from '../problems/problem.ts'
import { takeReading } from '../readings/service.ts'
import { fittingAt } from '../fittings/moments.ts'
import { bikeOf, momentOf, onlyOne, type InTable } from './inTable.ts'
import { stands } from '../db/facts.ts'

/** Readings of the chain that was on a bike then, a row a spot: by their id, else by bike, time and instrument. */
export const readingsIn: InTable<'readings'> = {
  together: ({ reading_id: id, bike_id: bikeId, tag, at, instrument }) =>
    id ?? [bikeId ?? tag ?? '', at, instrument].join('\n'),
  columnAt: { occurredAt: 'at', instrumentId: 'instrument', bikeId: 'tag' },
  compared: [],
  async find(work, row, timeZone) {
    const bikeId = await bikeOf(work, row)
    return onlyOne(
      work,
      `SELECT r.id FROM readings r JOIN instruments i ON i.id = r.instrument_id
       WHERE ${stands('readings', 'r')}
         AND (r.id = CAST(:id AS uuid) OR r.bike_id = :bikeId AND r.occurred_at = :at AND i.name = :instrument)`,
      { id: row.reading_id ?? null, bikeId, at: momentOf(row.at, timeZone, 'at'), instrument: row.instrument },
      'at',
    )
  },
  async write(work, rows, timeZone) {
    const [first] = rows
    const bikeId = await bikeOf(work, first!)
    const instrumentId = await onlyOne(
      work,
      'SELECT id FROM instruments WHERE lower(name) = lower(:instrument) AND retired_at IS NULL',
      { instrument: first!.instrument },
      'instrument',
    )
    if (instrumentId === null) throw refuseField('instrument', 'instrument-unknown')
    const at = momentOf(first!.at, timeZone, 'at')
    const fittingId = await fittingAt(work, bikeId, at)
    if (fittingId === null) throw refuseField('tag', 'bike-without-chain')
    await takeReading(
      work,
      v.parse(TakeReading, {
        id: first!.reading_id ?? v7(),
        bikeId,
        fittingId,
        occurredAt: at.toISOString(),
        instrumentId,
        spots: rows.map(({ typed, pitches, place }) => ({
          id: v7(),
          typed,
          ...(pitches === undefined ? {} : { pitches }),
          ...(place === undefined ? {} : { place }),
        })),
      }),
    )
    return null
  },
}
