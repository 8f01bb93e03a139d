import * as v from 'valibot'
import { BikeRecord, ById } from './bikes.ts'
import { Id } from './common.ts'
import { endpoint } from './endpoint.ts'

/** A bike that was entered twice. */
export const twinsEndpoints = {
  mergeBike: endpoint({
    name: 'mergeBike',
    method: 'POST',
    path: '/bikes/:id/merges',
    summary: 'This bike was entered twice: everything recorded of the other is this one’s.',
    access: 'customers',
    creates: true,
    params: ById,
    body: v.object({ otherId: Id }),
    result: BikeRecord,
  }),
  unmergeBike: endpoint({
    name: 'unmergeBike',
    method: 'POST',
    path: '/bikes/:id/merges/undo',
    summary: 'They are two after all: takes a merge back, within the day and while nothing was done on the bike since.',
    access: 'customers',
    creates: true,
    params: ById,
    body: v.object({ otherId: Id }),
    result: BikeRecord,
  }),
}
