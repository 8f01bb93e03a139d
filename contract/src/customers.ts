import * as v from 'valibot'
import { changeOf, Day, Email, Id, line, Moment, PageLimit, SortWay } from './common.ts'
import { endpoint } from './endpoint.ts'
import { ChannelField, Language } from './reminders.ts'

const Notes = v.pipe(v.string('text-missing'), v.trim(), v.maxLength(2000, 'text-too-long'))
const Rhythm = v.pipe(
  v.number('number-malformed'),
  v.integer('rhythm-range'),
  v.minValue(1, 'rhythm-range'),
  v.maxValue(365, 'rhythm-range'),
)

/** What is known of how to reach a customer and what suits them. */
const details = {
  name: line(80),
  phone: v.nullable(line(40)),
  email: v.nullable(Email),
  language: Language,
  notes: Notes,
  /** The weekday that suits them, 1 Monday to 7 Sunday. */
  goodWeekday: v.nullable(
    v.pipe(
      v.number('number-malformed'),
      v.integer('number-malformed'),
      v.minValue(1, 'number-malformed'),
      v.maxValue(7, 'number-malformed'),
    ),
  ),
  /** Days between looks at each of their bikes; null: as the shop has it. */
  rhythmDays: v.nullable(Rhythm),
  /** They do not want to be written to. */
  optedOut: v.boolean('field-invalid'),
  /** By which they want to be; null: by mail where there is an address. */
  reachedBy: v.nullable(ChannelField),
}

const OwnBike = v.object({
  id: Id,
  label: v.string(),
  kind: v.string(),
  tag: v.string(),
  /** It is theirs now; else it was before it went to somebody else. */
  now: v.boolean(),
  /** When it came to them from somebody else, and went on; null where it did not. */
  cameAt: v.nullable(Moment),
  wentAt: v.nullable(Moment),
  goneOn: v.nullable(Day),
})

/** All there is of a customer. */
export const CustomerPage = v.object({
  id: Id,
  version: v.number(),
  name: v.string(),
  phone: v.nullable(v.string()),
  email: v.nullable(v.string()),
  language: Language,
  notes: v.string(),
  goodWeekday: v.nullable(v.number()),
  rhythmDays: v.nullable(v.number()),
  optedOut: v.boolean(),
  reachedBy: v.nullable(ChannelField),
  /** Mail to the address came back: none goes there until it is another. */
  emailRefused: v.boolean(),
  /** Nobody knows who they were any more. */
  erasedAt: v.nullable(Moment),
  /** Who they were entered as a second time, and whose everything is since; null where they were not. */
  mergedInto: v.nullable(v.object({ id: Id, name: v.string() })),
  bikes: v.array(OwnBike),
  visits: v.array(v.object({ day: Day, bike: v.string(), bikeId: Id, reason: v.string(), state: v.string() })),
  messages: v.array(v.object({ at: Moment, text: v.string(), state: v.string(), theirs: v.boolean() })),
  /** What their jobs came to, in minor units; the newest first. */
  spent: v.object({
    total: v.number(),
    jobs: v.array(v.object({ at: Moment, bike: v.string(), amount: v.number() })),
  }),
  /** Entered twice, and made one within the day: still to be taken back. */
  merged: v.array(v.object({ id: Id, name: v.string(), at: Moment })),
})
export type CustomerPage = v.InferOutput<typeof CustomerPage>

/** Columns the list of customers can be put in order by. */
export const CUSTOMER_SORTS = ['name', 'bikes', 'last', 'next'] as const
export type CustomerSort = (typeof CUSTOMER_SORTS)[number]

/** A customer in the list of all. */
const ListedCustomer = v.object({
  id: Id,
  name: v.string(),
  phone: v.nullable(v.string()),
  email: v.nullable(v.string()),
  optedOut: v.boolean(),
  /** How many bikes of theirs are here. */
  bikes: v.number(),
  /** The last day a bike of theirs was here, as a visit or a reading tells. */
  lastOn: v.nullable(Day),
  /** The first day anything is due on a bike of theirs. */
  nextOn: v.nullable(Day),
})
export type ListedCustomer = v.InferOutput<typeof ListedCustomer>

/** What erasing a customer takes away, and what stays said without them. */
export const Erasure = v.object({
  bikes: v.number(),
  messages: v.number(),
  rides: v.number(),
  notes: v.number(),
  /** Of their jobs, in minor units: it stays in the shop's sums. */
  spent: v.number(),
  readings: v.number(),
})
export type Erasure = v.InferOutput<typeof Erasure>

const byId = v.object({ id: Id })

export const customersEndpoints = {
  customerList: endpoint({
    name: 'customerList',
    method: 'GET',
    path: '/customer-list',
    summary: 'Every customer, by name or a column, a page at a time.',
    access: 'signed-in',
    query: v.object({
      q: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(80, 'text-too-long'))),
      sort: v.optional(v.picklist(CUSTOMER_SORTS, 'field-invalid'), 'name'),
      way: v.optional(SortWay, 'up'),
      cursor: v.optional(v.pipe(v.string(), v.maxLength(400, 'cursor-malformed'))),
      limit: v.optional(PageLimit, '60'),
    }),
    result: v.object({ customers: v.array(ListedCustomer), next: v.nullable(v.string()), total: v.number() }),
  }),
  customer: endpoint({
    name: 'customer',
    method: 'GET',
    path: '/customers/:id',
    summary: 'All there is of a customer: how to reach them, bikes now and before, visits, messages, what they spent.',
    access: 'signed-in',
    params: byId,
    result: CustomerPage,
  }),
  changeCustomer: endpoint({
    name: 'changeCustomer',
    method: 'PATCH',
    path: '/customers/:id',
    summary: 'Correct what is known of a customer.',
    access: 'customers',
    versioned: true,
    params: byId,
    body: changeOf(details),
    result: CustomerPage,
  }),
  mergeCustomer: endpoint({
    name: 'mergeCustomer',
    method: 'POST',
    path: '/customers/:id/merges',
    summary:
      'This customer was entered twice: everything of the other is theirs, and what is not known of them is taken from there.',
    access: 'customers',
    creates: true,
    params: byId,
    body: v.object({ otherId: Id }),
    result: CustomerPage,
  }),
  unmergeCustomer: endpoint({
    name: 'unmergeCustomer',
    method: 'POST',
    path: '/customers/:id/merges/undo',
    summary: 'They are two after all: takes a merge back, within the day.',
    access: 'customers',
    creates: true,
    params: byId,
    body: v.object({ otherId: Id }),
    result: CustomerPage,
  }),
  erasure: endpoint({
    name: 'erasure',
    method: 'GET',
    path: '/customers/:id/erasure',
    summary: 'What erasing a customer would take away, and what stays.',
    access: 'owner',
    params: byId,
    result: Erasure,
  }),
  eraseCustomer: endpoint({
    name: 'eraseCustomer',
    method: 'POST',
    path: '/customers/:id/erasure',
    summary: 'Erase who a customer was. Their chains, readings and sums stay, nobody’s. It is not taken back.',
    access: 'owner',
    params: byId,
    result: CustomerPage,
  }),
  passBike: endpoint({
    name: 'passBike',
    method: 'POST',
    path: '/bikes/:id/passing',
    summary: 'A bike goes to another customer, with its whole record.',
    access: 'customers',
    creates: true,
    params: byId,
    body: v.object({
      id: Id,
      customerId: Id,
      new: v.exactOptional(v.object({ name: line(80), phone: v.nullable(line(40)) })),
    }),
    result: CustomerPage,
  }),
}
