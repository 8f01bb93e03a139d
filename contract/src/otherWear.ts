import { TOOTH_GRADES, WEAR_ITEM_IDS, WEAR_RESULTS } from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Day, Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { FittedPart } from './fittedPart.ts'

export const WearItem = v.picklist(WEAR_ITEM_IDS, 'wear-item-unknown')
export const ToothGradeField = v.picklist(TOOTH_GRADES, 'field-invalid')
export const WearResultField = v.picklist(WEAR_RESULTS, 'field-invalid')

/** One item looked at in a pass. Which of grade, result or thickness it has follows from the item. */
export const TakeWearCheck = v.object({
  id: Id,
  item: WearItem,
  grade: v.optional(v.nullable(ToothGradeField), null),
  result: v.optional(v.nullable(WearResultField), null),
  /** A rotor's thickness in its worn track, as the caliper showed it. */
  typed: v.optional(v.nullable(line(20)), null),
  /** The minimum stamped on it, as it was read; left out: the one known before. */
  minimumTyped: v.optional(v.nullable(line(20)), null),
  /** Whether the part was changed for a new one at this look. */
  renewed: v.optional(v.boolean('field-invalid'), false),
  /** Which part that is; null: nobody says. */
  fitted: v.optional(v.nullable(FittedPart), null),
  note: v.optional(v.nullable(line(200)), null),
})
export type TakeWearCheck = v.InferOutput<typeof TakeWearCheck>

/** A look as it was written down. */
export const WearCheck = v.object({
  id: Id,
  at: Moment,
  person: v.string(),
  grade: v.nullable(ToothGradeField),
  result: WearResultField,
  typed: v.nullable(v.string()),
  mm: v.nullable(v.number()),
  minimumMm: v.nullable(v.number()),
  u: v.nullable(v.number()),
  renewed: v.boolean(),
  note: v.nullable(v.string()),
  /** What the bike had run since it is known here, km; null where nothing recorded says. */
  km: v.nullable(v.number()),
})
export type WearCheck = v.InferOutput<typeof WearCheck>

const Three = v.tuple([v.number(), v.number(), v.number()])
export const RotorForecast = v.object({
  now: v.object({ mm: v.number(), u: v.number() }),
  rate: Three,
  probabilityUnder: v.number(),
  left: Three,
})
export type RotorForecast = v.InferOutput<typeof RotorForecast>

/** One item of a bike, as it stands now. */
export const ItemNow = v.object({
  item: WearItem,
  /** Looks that stand, newest first. */
  checks: v.array(WearCheck),
  /** By the last look, or for a rotor by what it has worn to since; null where nobody looked yet. */
  result: v.nullable(WearResultField),
  /** A rotor's; null without a minimum. */
  rotor: v.nullable(RotorForecast),
  minimumMm: v.nullable(v.number()),
  /** The one that is on, as far as anybody said; null: it came with the bike. */
  on: v.nullable(v.object({ name: v.nullable(v.string()), from: Moment, km: v.nullable(v.number()) })),
  /** Distance until it is looked at again, km; negative where that is past. Null where nobody looked. */
  dueKm: v.nullable(v.number()),
  /** The day that comes to at the bike's ride rate. */
  dueOn: v.nullable(Day),
})
export type ItemNow = v.InferOutput<typeof ItemNow>

export const OtherWear = v.object({ items: v.array(ItemNow) })
export type OtherWear = v.InferOutput<typeof OtherWear>

export const otherWearEndpoints = {
  otherWear: endpoint({
    name: 'otherWear',
    method: 'GET',
    path: '/bikes/:id/other-wear',
    summary: 'What else wears on a bike: what was seen, what a rotor has left, when each is due again.',
    access: 'signed-in',
    params: ById,
    result: OtherWear,
  }),
  checkWear: endpoint({
    name: 'checkWear',
    method: 'POST',
    path: '/bikes/:id/other-wear',
    summary: 'Write down what one pass over a bike saw.',
    access: 'record',
    creates: true,
    params: ById,
    body: v.object({
      occurredAt: Moment,
      checks: v.pipe(v.array(TakeWearCheck), v.minLength(1, 'checks-none'), v.maxLength(20, 'checks-many')),
    }),
    result: OtherWear,
  }),
  withdrawWearCheck: endpoint({
    name: 'withdrawWearCheck',
    method: 'POST',
    path: '/other-wear/:id/withdraw',
    summary: 'Take back a look that was written down wrongly.',
    access: 'record',
    creates: true,
    params: ById,
    body: v.object({ id: Id, reason: line(200) }),
    result: OtherWear,
  }),
}
