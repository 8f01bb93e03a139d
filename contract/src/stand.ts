import * as v from 'valibot'
import { BikeSummary, ById } from './bikes.ts'
import { Day, Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

/** A bike in for a day. */
export const Visit = v.object({
  id: Id,
  version: v.number(),
  day: Day,
  position: v.number(),
  promisedAt: v.nullable(Moment),
  reason: v.string(),
  state: v.picklist(['waiting', 'on-stand', 'done']),
  onStandSince: v.nullable(Moment),
  /** Whether it is on the stand this device stands at. */
  here: v.boolean(),
  bike: BikeSummary,
})
export type Visit = v.InferOutput<typeof Visit>

export const LineUp = v.object({ day: Day, visits: v.array(Visit) })
export type LineUp = v.InferOutput<typeof LineUp>

export const standEndpoints = {
  lineUp: endpoint({
    name: 'lineUp',
    method: 'GET',
    path: '/stand',
    summary: 'Today’s line-up.',
    access: 'signed-in',
    result: LineUp,
  }),
  putOnStand: endpoint({
    name: 'putOnStand',
    method: 'POST',
    path: '/stand',
    summary: 'Put a bike on this device’s stand, adding it to today’s line-up if it is not in it.',
    access: 'stand',
    body: v.object({ visitId: Id, bikeId: Id, reason: v.exactOptional(line(80)) }),
    result: LineUp,
    creates: true,
  }),
  moveVisit: endpoint({
    name: 'moveVisit',
    method: 'PATCH',
    path: '/visits/:id',
    summary: 'Move a visit in the line-up, or say that it is done.',
    access: 'stand',
    params: ById,
    body: v.object({
      /** The visit it is to stand before; null for the end. */
      before: v.exactOptional(v.nullable(Id)),
      state: v.exactOptional(v.picklist(['waiting', 'done'])),
    }),
    result: LineUp,
    versioned: true,
  }),
}
