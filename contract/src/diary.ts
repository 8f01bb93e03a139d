import { DUE_KINDS } from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Day, Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { CareKind } from './forecast.ts'
import { VerdictWord } from './limits.ts'

export const DueKindField = v.picklist(DUE_KINDS, 'field-invalid')

/** A bike as the diary names it. */
/** A bike with what it shows today. */
export const DiaryBike = v.object({ id: Id, label: v.string(), tag: v.string(), word: VerdictWord })
export type DiaryBike = v.InferOutput<typeof DiaryBike>

/** A visit that is due, on the day it would suit. */
export const DueVisit = v.object({
  customer: v.object({ id: Id, name: v.string(), goodWeekday: v.nullable(v.number()) }),
  day: Day,
  because: v.picklist(['overdue', 'due', 'good-weekday', 'full', 'closed']),
  minutes: v.number(),
  bikes: v.array(
    v.object({
      bike: DiaryBike,
      /** What it takes, by the shop's own values. */
      minutes: v.number(),
      items: v.array(v.object({ kind: DueKindField, on: Day, pulledForwardDays: v.number() })),
    }),
  ),
})
export type DueVisit = v.InferOutput<typeof DueVisit>

/** A visit that is booked. */
export const Booking = v.object({
  id: Id,
  day: Day,
  promisedAt: v.nullable(Moment),
  minutes: v.number(),
  reason: v.string(),
  state: v.picklist(['waiting', 'on-stand', 'done']),
  bike: DiaryBike,
  customer: v.object({ id: Id, name: v.string() }),
  version: v.number(),
})
export type Booking = v.InferOutput<typeof Booking>

export const DiaryDay = v.object({
  day: Day,
  /** Minutes of work it takes; 0 is closed. */
  capacity: v.number(),
  booked: v.number(),
  /** Minutes of what is due and not booked yet, where it would suit. */
  due: v.number(),
  /** Why it is closed, beside its weekday. */
  closed: v.nullable(v.string()),
})
export type DiaryDay = v.InferOutput<typeof DiaryDay>

/** Something of the shop's own that falls due. */
export const ShopDue = v.object({
  kind: v.picklist(['instrument', 'bath']),
  /** The instrument, or the pot. */
  id: Id,
  name: v.string(),
  /** Null: now. */
  on: v.nullable(Day),
  overdue: v.boolean(),
})
export type ShopDue = v.InferOutput<typeof ShopDue>

/** A bike that whoever rides it treats at home: nobody is booked in for that. */
export const DueAtHome = v.object({
  customer: v.object({ id: Id, name: v.string() }),
  bike: v.object({ id: Id, label: v.string() }),
  on: Day,
  care: CareKind,
  /** When they were reminded of it; null: not yet. */
  remindedAt: v.nullable(Moment),
})
export type DueAtHome = v.InferOutput<typeof DueAtHome>

export const Diary = v.object({
  today: Day,
  days: v.array(DiaryDay),
  visits: v.array(DueVisit),
  bookings: v.array(Booking),
  ofShop: v.array(ShopDue),
  atHome: v.array(DueAtHome),
  /** Bikes due within these days beyond those that are listed. */
  more: v.number(),
})
export type Diary = v.InferOutput<typeof Diary>

/** Bikes that fall due in each month ahead. */
export const DiaryYear = v.object({ months: v.array(v.object({ month: v.string(), bikes: v.number() })) })
export type DiaryYear = v.InferOutput<typeof DiaryYear>

export const CalendarFeed = v.object({ id: Id, name: v.string(), madeAt: Moment, person: v.string() })
export type CalendarFeed = v.InferOutput<typeof CalendarFeed>

const Minutes = v.pipe(
  v.number('minutes-range'),
  v.integer('minutes-range'),
  v.minValue(1, 'minutes-range'),
  v.maxValue(1440, 'minutes-range'),
)
const Feeds = v.array(CalendarFeed)

export const diaryEndpoints = {
  diary: endpoint({
    name: 'diary',
    method: 'GET',
    path: '/diary',
    summary: 'What is due in the weeks ahead, grouped into visits; what is booked; how full each day is.',
    access: 'signed-in',
    query: v.object({
      days: v.optional(
        v.pipe(
          v.string(),
          v.digits('number-malformed'),
          v.toNumber(),
          v.minValue(1, 'number-malformed'),
          v.maxValue(366, 'number-malformed'),
        ),
        '35',
      ),
    }),
    result: Diary,
  }),
  diaryYear: endpoint({
    name: 'diaryYear',
    method: 'GET',
    path: '/diary/year',
    summary: 'How many bikes fall due in each of the twelve months ahead.',
    access: 'signed-in',
    result: DiaryYear,
  }),
  book: endpoint({
    name: 'book',
    method: 'POST',
    path: '/diary/bookings',
    summary: 'Book a customer’s bikes in for a day.',
    access: 'diary',
    creates: true,
    body: v.object({
      day: Day,
      promisedAt: v.optional(v.nullable(Moment), null),
      bikes: v.pipe(
        v.array(v.object({ id: Id, bikeId: Id, reason: line(80), minutes: Minutes })),
        v.minLength(1, 'booking-none'),
        v.maxLength(40, 'booking-many'),
      ),
    }),
    result: v.object({ bookings: v.array(Booking) }),
  }),
  moveBooking: endpoint({
    name: 'moveBooking',
    method: 'PATCH',
    path: '/diary/bookings/:id',
    summary: 'Move a booking to another day or time, or call it off.',
    access: 'diary',
    versioned: true,
    params: ById,
    body: v.object({
      day: v.exactOptional(Day),
      promisedAt: v.exactOptional(v.nullable(Moment)),
      minutes: v.exactOptional(Minutes),
      calledOff: v.exactOptional(v.literal(true, 'field-invalid')),
    }),
    result: v.object({ bookings: v.array(Booking) }),
  }),
  setClosed: endpoint({
    name: 'setClosed',
    method: 'POST',
    path: '/diary/closed',
    summary: 'Say that the shop is closed on some days, or open after all.',
    access: 'diary',
    creates: true,
    body: v.object({
      days: v.pipe(v.array(Day), v.minLength(1, 'closed-none'), v.maxLength(62, 'closed-many')),
      /** Null: open after all. */
      reason: v.nullable(line(60)),
    }),
    result: v.object({ days: v.array(Day) }),
  }),
  calendarFeeds: endpoint({
    name: 'calendarFeeds',
    method: 'GET',
    path: '/diary/feeds',
    summary: 'The addresses calendar programs may ask by.',
    access: 'signed-in',
    result: Feeds,
  }),
  makeFeed: endpoint({
    name: 'makeFeed',
    method: 'POST',
    path: '/diary/feeds',
    summary: 'Make an address a calendar program may ask by. It is told once.',
    access: 'diary',
    body: v.object({ id: Id, name: line(40) }),
    result: v.object({ path: v.string(), feeds: Feeds }),
  }),
  revokeFeed: endpoint({
    name: 'revokeFeed',
    method: 'POST',
    path: '/diary/feeds/:id/revoke',
    summary: 'Let an address lead nowhere from now on.',
    access: 'diary',
    creates: true,
    params: ById,
    result: Feeds,
  }),
}
