import { COMPONENT_ENDS } from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { FittedPart } from './fittedPart.ts'
import { WearItem } from './otherWear.ts'

/** A cassette, a rotor, a set of pads: a thing on a bike over a time. */
export const Component = v.object({
  id: Id,
  item: WearItem,
  partId: v.nullable(Id),
  /** Of the catalogue, or as somebody called it; null where nobody said. */
  name: v.nullable(v.string()),
  price: v.nullable(v.number()),
  from: Moment,
  to: v.nullable(Moment),
  endReason: v.nullable(v.picklist(COMPONENT_ENDS)),
  /** What it has run, km; null where nothing recorded says. */
  km: v.nullable(v.number()),
  person: v.string(),
  /** Fitted today, and on still. */
  canUndo: v.boolean(),
})
export type Component = v.InferOutput<typeof Component>

export const BikeComponents = v.object({
  /** Newest first. */
  components: v.array(Component),
})
export type BikeComponents = v.InferOutput<typeof BikeComponents>

export const componentsEndpoints = {
  bikeComponents: endpoint({
    name: 'bikeComponents',
    method: 'GET',
    path: '/bikes/:id/components',
    summary: 'What else wears on a bike, as things with lives: fitted, run, taken off.',
    access: 'signed-in',
    params: ById,
    result: BikeComponents,
  }),
  fitComponent: endpoint({
    name: 'fitComponent',
    method: 'POST',
    path: '/bikes/:id/components',
    summary: 'Fit a new cassette, rotor, set of pads: the one before ends, its part leaves the stock.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({
      id: Id,
      item: WearItem,
      ...FittedPart.entries,
      /** Why the one before came off. */
      endReason: v.optional(v.picklist(COMPONENT_ENDS, 'field-invalid'), 'worn'),
      occurredAt: Moment,
    }),
    result: BikeComponents,
  }),
  undoComponent: endpoint({
    name: 'undoComponent',
    method: 'POST',
    path: '/components/:id/undo',
    summary:
      'Take back that a part was fitted, within the day: the one before is on again, and the part lies in stock.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({ reason: line(200) }),
    result: BikeComponents,
  }),
}
