import * as v from 'valibot'
import { BikeSummary, BikeTag } from './bikes.ts'
import { Pitches } from './chains.ts'
import { DistanceUnit, Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { CareKind } from './forecast.ts'
import { DriveType } from './limits.ts'
import { Rings, Speeds, Sprockets } from './parts.ts'

/** A customer as one is chosen from. */
export const CustomerLine = v.object({
  id: Id,
  name: v.string(),
  phone: v.nullable(v.string()),
  /** What their bikes are called. */
  bikes: v.array(v.string()),
})
export type CustomerLine = v.InferOutput<typeof CustomerLine>

const orNone = <S extends v.GenericSchema>(schema: S) => v.optional(v.nullable(schema), null)

/** A bike as it comes in for the first time. */
export const AddBike = v.object({
  id: Id,
  /** Whose it is; with `new` a customer that was never here, under the id given. */
  customer: v.object({ id: Id, new: orNone(v.object({ name: line(80), phone: orNone(line(40)) })) }),
  label: line(60),
  /** What kind of bike it is, in the shop's own words. */
  kind: line(30),
  maker: orNone(line(60)),
  model: orNone(line(60)),
  /** Null: the next number that is free. */
  tag: orNone(BikeTag),
  frameMark: orNone(line(40)),
  odometerUnit: v.optional(DistanceUnit, 'km'),
  drive: v.object({
    type: DriveType,
    speeds: Speeds,
    fronts: Rings,
    sprockets: Sprockets,
    motor: v.optional(v.boolean('field-invalid'), false),
  }),
  /** The chain that is on it; null where none is. */
  chain: orNone(
    v.object({
      id: Id,
      fittingId: Id,
      name: line(80),
      pitches: orNone(Pitches),
      care: v.optional(CareKind, 'unknown'),
      /** Since when it is on, where that is known; null: since now. */
      since: orNone(Moment),
      /** Whether it went on new; else it came with the bike, and nobody knows what it had run. */
      fittedNew: v.optional(v.boolean('field-invalid'), false),
    }),
  ),
  /** What its odometer shows, as typed; null where nobody looked. */
  odometer: orNone(v.object({ id: Id, typed: line(20) })),
})
export type AddBike = v.InferOutput<typeof AddBike>

export const newBikeEndpoints = {
  customers: endpoint({
    name: 'customers',
    method: 'GET',
    path: '/customers',
    summary: 'Customers whose name or phone number holds what was typed, at most eight.',
    access: 'signed-in',
    query: v.object({ q: v.pipe(v.string('text-missing'), v.trim(), v.maxLength(80, 'text-too-long')) }),
    result: v.array(CustomerLine),
  }),
  addBike: endpoint({
    name: 'addBike',
    method: 'POST',
    path: '/bikes',
    summary: 'Take a bike in that was never here, with its customer, its drive and the chain that is on it.',
    access: 'customers',
    creates: true,
    body: AddBike,
    result: BikeSummary,
  }),
}
