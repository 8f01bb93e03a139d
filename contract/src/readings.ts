import * as v from 'valibot'
import { DistanceUnit, Id, line, Moment } from './common.ts'
import { BikeRecord, ById, CaliperMode, Conditions, HandSign, PinPicture } from './bikes.ts'
import { endpoint } from './endpoint.ts'

/** A spot as typed. The server works out what it says from the text and the instrument's record. */
export const SpotEntry = v.object({
  id: Id,
  /** A length, marks or what a scale shows. */
  typed: line(40),
  /** Pitches counted, for lengths. */
  pitches: v.exactOptional(
    v.pipe(
      v.number('count-missing'),
      v.integer('count-malformed'),
      v.minValue(2, 'count-malformed'),
      v.maxValue(300, 'count-malformed'),
    ),
  ),
  mode: v.exactOptional(CaliperMode),
  picture: v.exactOptional(PinPicture),
  linkIncluded: v.exactOptional(v.boolean()),
  place: v.exactOptional(
    v.pipe(
      v.number('place-malformed'),
      v.integer('place-malformed'),
      v.minValue(1, 'place-malformed'),
      v.maxValue(8, 'place-malformed'),
    ),
  ),
})

export const OdometerEntry = v.object({
  id: Id,
  typed: line(20),
  unit: DistanceUnit,
  /** Said when the value is lower than the one before, or more than a bike is ridden since: the meter began again, or it is right as it is. */
  lower: v.exactOptional(v.picklist(['restarted', 'as-it-is'])),
})

const readingEntries = {
  id: Id,
  occurredAt: Moment,
  instrumentId: Id,
  /** Empty only for a check by hand. */
  spots: v.pipe(v.array(SpotEntry), v.maxLength(8, 'spots-too-many')),
  /** What a check by hand noticed. */
  signs: v.exactOptional(v.array(HandSign)),
  conditions: v.optional(Conditions, { run: 'lower' }),
  source: v.optional(v.picklist(['shop', 'customer'], 'field-invalid'), 'shop'),
  /** Who held the instrument, where it is not who writes. */
  readerId: v.exactOptional(Id),
  /** The chain's first reading, fitted new. */
  baseline: v.optional(v.boolean(), false),
  odometer: v.exactOptional(OdometerEntry),
  note: v.exactOptional(v.pipe(v.string('text-missing'), v.maxLength(500, 'text-too-long'))),
}

export const TakeReading = v.object({
  ...readingEntries,
  bikeId: Id,
  /** The fitting whose chain was measured: another may be on the bike by the time this arrives. */
  fittingId: Id,
})
export type TakeReading = v.InferOutput<typeof TakeReading>

export const CorrectReading = v.object({ ...readingEntries, reason: line(200) })
export type CorrectReading = v.InferOutput<typeof CorrectReading>

export const readingsEndpoints = {
  takeReading: endpoint({
    name: 'takeReading',
    method: 'POST',
    path: '/readings',
    summary: 'Save a reading of the chain on a bike, judge it, and answer with the bike’s record.',
    access: 'record',
    queued: true,
    body: TakeReading,
    result: BikeRecord,
    creates: true,
  }),
  correctReading: endpoint({
    name: 'correctReading',
    method: 'POST',
    path: '/readings/:id/corrections',
    summary: 'Correct a reading. The old one stays readable beneath; only the latest can be corrected.',
    access: 'record',
    queued: true,
    params: ById,
    body: CorrectReading,
    result: BikeRecord,
    creates: true,
  }),
}
