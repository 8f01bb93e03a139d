import * as v from 'valibot'
import { Id, line } from './common.ts'

/** What is fitted: a part of the catalogue out of stock, or a thing by its name. */
export const FittedPart = v.object({
  partId: v.optional(v.nullable(Id), null),
  name: v.optional(v.nullable(line(80)), null),
  /** In minor units of the shop's money; null: the catalogue's, or not known. */
  price: v.optional(
    v.nullable(v.pipe(v.number('number-malformed'), v.integer('number-whole'), v.minValue(0, 'number-malformed'))),
    null,
  ),
})
export type FittedPart = v.InferOutput<typeof FittedPart>
