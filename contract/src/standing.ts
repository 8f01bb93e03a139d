import * as v from 'valibot'
import { VerdictWord } from './limits.ts'

/** What a bike shows today: worked out from its verdict, its forecast and the day. */
export const Standing = v.object({
  word: VerdictWord,
  /** The verdict as it was given, somebody's decision, the day of the next look, or the forecast. */
  because: v.picklist(['verdict', 'decided', 'check-passed', 'chance']),
  /** The chance of being over the limit by now, 0…1; null with no forecast. */
  chance: v.nullable(v.number()),
})
export type Standing = v.InferOutput<typeof Standing>
