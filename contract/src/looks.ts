import * as v from 'valibot'
import { Id, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

export const looksEndpoints = {
  lookOver: endpoint({
    name: 'lookOver',
    method: 'POST',
    path: '/looks',
    summary: 'Says that a mechanic has looked at what an apprentice wrote down.',
    access: 'decide',
    creates: true,
    body: v.object({ kind: v.picklist(['reading', 'care'], 'field-invalid'), id: Id }),
    result: v.object({ at: Moment }),
  }),
}
