import * as v from 'valibot'
import { Id } from './common.ts'

export const Click = v.picklist(['firm', 'weak', 'none'], 'click-missing')
export type Click = v.InferOutput<typeof Click>

/** How a chain is closed as it goes back on, whatever it came off for. */
export const Closing = v.object({
  /** How its joint clicked; null where nothing clicks. */
  click: v.nullable(Click),
  /** Closed once more although its maker does not count that far. */
  byFeel: v.optional(v.boolean('field-invalid'), false),
  /** A new link out of stock, in the place of what closed it before; null: the same again. */
  linkPartId: v.optional(v.nullable(Id), null),
})
export type Closing = v.InferOutput<typeof Closing>
