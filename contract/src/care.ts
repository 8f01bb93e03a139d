import { CLEANINGS, TREATMENTS, CARE_REASONS } from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Day, Id, line, Moment } from './common.ts'
import { Closing } from './closing.ts'
import { endpoint } from './endpoint.ts'
import { CareKind } from './forecast.ts'
import { ChainJoint } from './chains.ts'
import { Handling } from './handling.ts'
import { WaxSchools } from './jobs.ts'
import { REMINDER_LANGUAGES } from './messages/reminders.ts'

export const TreatmentField = v.picklist(TREATMENTS, 'field-invalid')
export const CleaningField = v.picklist(CLEANINGS, 'field-invalid')
const positive = (code: 'care-km-range' | 'care-days-range', most: number) =>
  v.pipe(v.number(code), v.minValue(1, code), v.maxValue(most, code))

const WashDays = v.pipe(
  v.number('wash-days-range'),
  v.integer('wash-days-range'),
  v.minValue(0, 'wash-days-range'),
  v.maxValue(365, 'wash-days-range'),
)

/** How long a treatment lasts: dry km, and days at most. */
export const CareIntervalField = v.object({
  km: positive('care-km-range', 5000),
  days: v.pipe(positive('care-days-range', 730), v.integer('care-days-range')),
})
export type CareIntervalField = v.InferOutput<typeof CareIntervalField>

/** When the chain on a bike is treated next, as of the last fact. */
export const CareNext = v.object({
  because: v.picklist(CARE_REASONS),
  /** Real km left in the bike's usual mix, negative where that is past; counted from `asOf`. */
  kmLeft: v.number(),
  /** Days left from `asOf` at 5, 50 and 95 in 100; null where beyond telling. */
  daysLeft: v.tuple([v.nullable(v.number()), v.nullable(v.number()), v.nullable(v.number())]),
  /** The day it is due with an even chance. */
  dueOn: Day,
  checkFirst: v.boolean(),
  asOf: Moment,
  /** What is used up of the interval: dry km, and days fitted; days null where it was never treated here. */
  usedKm: v.number(),
  usedDays: v.nullable(v.number()),
  interval: v.object({ km: v.number(), days: v.number(), own: v.boolean() }),
  /** Ridden wet and gritty since it was treated, km; absent of what was worked out before that was told apart. */
  /** Days between treatments as it is ridden; absent of what was worked out before that was. */
  rhythmDays: v.optional(v.number()),
  ridden: v.optional(v.object({ wet: v.number(), gritty: v.number() })),
})
export type CareNext = v.InferOutput<typeof CareNext>

/** What happened to a chain: a treatment, or what makes one due. */
export const CareEvent = v.object({
  id: Id,
  at: Moment,
  kind: v.picklist(['treated', 'wash', 'squeak']),
  care: v.nullable(TreatmentField),
  cleaning: v.nullable(CleaningField),
  /** Done by whoever rides it, and told. */
  atHome: v.boolean(),
  note: v.nullable(v.string()),
  person: v.string(),
  /** An apprentice's, and no mechanic has looked at it yet. */
  unlooked: v.boolean(),
  bike: v.nullable(v.object({ id: Id, label: v.string() })),
})
export type CareEvent = v.InferOutput<typeof CareEvent>

const Weekday = v.pipe(
  v.number('field-invalid'),
  v.integer('field-invalid'),
  v.minValue(1, 'field-invalid'),
  v.maxValue(7, 'field-invalid'),
)
/** Who treats a customer's chains between visits, and the weekday that suits them, 1 Monday to 7 Sunday. */
export const CareHabit = v.object({
  careAt: v.nullable(v.picklist(['home', 'workshop'], 'field-invalid')),
  goodWeekday: v.nullable(Weekday),
})
export type CareHabit = v.InferOutput<typeof CareHabit>

const Lasts = v.object({ km: v.number(), days: v.number() })

/** A day a bike is wanted for, and what its chain needs before. */
export const EventDate = v.object({
  id: Id,
  day: Day,
  name: v.string(),
  /** Null where nobody knows how the chain is cared for, or none is on. */
  care: v.nullable(v.object({ word: v.picklist(['treat', 'ride-in', 'ready']), by: Day })),
})
export type EventDate = v.InferOutput<typeof EventDate>

/** The care of the chain on a bike. */
export const BikeCare = v.object({
  chain: v.nullable(
    v.object({
      id: Id,
      fittingId: Id,
      name: v.string(),
      care: CareKind,
      /** Its box's own wax is its first coat. */
      readyWaxed: v.boolean(),
      /** What it is closed with; null where nobody looked. */
      joint: v.nullable(ChainJoint),
    }),
  ),
  next: v.nullable(CareNext),
  /** Of the chain now on, newest first. */
  events: v.array(CareEvent),
  /** The shop's interval for each treatment. */
  intervals: v.object({
    'immersion-wax': Lasts,
    'drip-wax': Lasts,
    'dry-oil': Lasts,
    'wet-oil': Lasts,
  }),
  own: v.nullable(Lasts),
  /** By days: the bike's own, the shop's, and when that is; null where it is washed when it is dirty. */
  wash: v.object({ ownDays: v.nullable(v.number()), shopDays: v.number(), on: v.nullable(Day) }),
  /** The days between two treatments, two looks and two washes as this bike is ridden; null where they are not known. */
  rhythm: v.object({
    care: v.nullable(v.number()),
    look: v.nullable(v.number()),
    wash: v.nullable(v.number()),
  }),
  /** From today on, soonest first. */
  eventDates: v.array(EventDate),
  /** What a waxed chain is ridden in before those, km. */
  firstRideKm: v.number(),
  /** What taking it off and putting it on follows from; null with none on. */
  handling: v.nullable(Handling),
  /** How it is waxed: as the house does, by this bike's own recipe where it has one. */
  waxing: WaxSchools,
  /** The bike's own recipe; null: the house's. */
  ownRecipe: v.nullable(WaxSchools.entries.recipe),
  /** Washed since it was treated last, and not treated since. */
  wet: v.boolean(),
  bikeVersion: v.number(),
  motor: v.nullable(v.boolean()),
  discBrake: v.nullable(v.boolean()),
  customer: v.object({
    id: Id,
    version: v.number(),
    ...CareHabit.entries,
    /** In which they are written to; and whether they do not want to be. */
    language: v.picklist(REMINDER_LANGUAGES),
    optedOut: v.boolean(),
  }),
})
export type BikeCare = v.InferOutput<typeof BikeCare>

export const careEndpoints = {
  bikeCare: endpoint({
    name: 'bikeCare',
    method: 'GET',
    path: '/bikes/:id/care',
    summary: 'When the chain on a bike is treated next and why, and what was done so far.',
    access: 'signed-in',
    params: ById,
    result: BikeCare,
  }),
  recordCare: endpoint({
    name: 'recordCare',
    method: 'POST',
    path: '/bikes/:id/care',
    summary: 'Write down a treatment of the chain on a bike, a wash, or a squeak that was heard.',
    access: 'record',
    creates: true,
    params: ById,
    body: v.object({
      id: Id,
      kind: v.picklist(['treated', 'wash', 'squeak'], 'field-invalid'),
      care: v.optional(v.nullable(TreatmentField), null),
      cleaning: v.optional(v.nullable(CleaningField), null),
      atHome: v.optional(v.boolean('field-invalid'), false),
      note: v.optional(v.nullable(line(200)), null),
      occurredAt: Moment,
      /** The fitting whose chain it was done to. */
      fittingId: Id,
      /** How it was closed as it went back on; null where it stayed on, or nobody can say. */
      closing: v.optional(v.nullable(Closing), null),
    }),
    result: BikeCare,
  }),
  withdrawCare: endpoint({
    name: 'withdrawCare',
    method: 'POST',
    path: '/care/:id/withdraw',
    summary: 'Take back a treatment, a wash or a squeak that was written down wrongly.',
    access: 'record',
    creates: true,
    params: ById,
    body: v.object({ id: Id, reason: line(200) }),
    result: BikeCare,
  }),
  addEventDate: endpoint({
    name: 'addEventDate',
    method: 'POST',
    path: '/bikes/:id/event-dates',
    summary: 'Say that a bike is wanted on a day: its chain is treated and ridden in before.',
    access: 'customers',
    creates: true,
    params: ById,
    body: v.object({ id: Id, day: Day, name: line(60) }),
    result: BikeCare,
  }),
  dropEventDate: endpoint({
    name: 'dropEventDate',
    method: 'POST',
    path: '/event-dates/:id/drop',
    summary: 'Take a day a bike was wanted for away again.',
    access: 'customers',
    creates: true,
    params: ById,
    result: BikeCare,
  }),
  setCareInterval: endpoint({
    name: 'setCareInterval',
    method: 'PATCH',
    path: '/bikes/:id/care-interval',
    summary: 'Say how long a treatment lasts on this bike; null: as the shop has it.',
    access: 'work',
    versioned: true,
    params: ById,
    body: v.object({
      own: v.nullable(CareIntervalField),
      recipe: v.exactOptional(v.nullable(WaxSchools.entries.recipe)),
      /** Days between washes; 0: when it is dirty, null: as the shop has it. */
      washDays: v.exactOptional(v.nullable(WashDays)),
    }),
    result: BikeCare,
  }),
  setCareHabit: endpoint({
    name: 'setCareHabit',
    method: 'PATCH',
    path: '/bikes/:id/care-habit',
    summary: 'Say who treats a customer’s chains between visits, and which weekday suits them.',
    access: 'customers',
    versioned: true,
    params: ById,
    body: CareHabit,
    result: BikeCare,
  }),
}
