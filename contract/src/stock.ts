import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Id, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { PartKind } from './partModels.ts'

/** One part of a bike's list. */
export const KeptLine = v.object({
  id: Id,
  partId: Id,
  kind: PartKind,
  maker: v.string(),
  name: v.string(),
  quantity: v.number(),
  /** In another line's box: neither paid for nor taken from stock. */
  included: v.boolean(),
  price: v.nullable(v.number()),
  /** How many of them lie here for this bike; those kept earlier come first. */
  here: v.number(),
  onOrder: v.number(),
})
export type KeptLine = v.InferOutput<typeof KeptLine>

/** Parts chosen for a bike and held back from stock. */
export const KeptParts = v.object({
  id: Id,
  version: v.number(),
  pitches: v.nullable(v.number()),
  keptAt: Moment,
  by: v.string(),
  lines: v.array(KeptLine),
  /** What it all costs, minor units; null where a price is not known. */
  cost: v.nullable(v.number()),
})
export type KeptParts = v.InferOutput<typeof KeptParts>

export const stockEndpoints = {
  keepParts: endpoint({
    name: 'keepParts',
    method: 'POST',
    path: '/bikes/:id/kept-parts',
    summary: 'Keep parts for a bike: held back from stock. What was kept for it before is let go.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({
      id: Id,
      pitches: v.nullable(v.pipe(v.number('number-malformed'), v.integer('number-malformed'))),
      lines: v.pipe(
        v.array(
          v.object({
            id: Id,
            partId: Id,
            quantity: v.pipe(
              v.number('number-malformed'),
              v.integer('number-whole'),
              v.minValue(1, 'quantity-range'),
              v.maxValue(50, 'quantity-range'),
            ),
            included: v.boolean('field-invalid'),
          }),
        ),
        v.minLength(1, 'parts-none'),
        v.maxLength(20, 'parts-many'),
      ),
    }),
    result: KeptParts,
  }),
  dropParts: endpoint({
    name: 'dropParts',
    method: 'DELETE',
    path: '/kept-parts/:id',
    summary: 'Let kept parts go: they are free again.',
    access: 'work',
    versioned: true,
    params: ById,
  }),
}
