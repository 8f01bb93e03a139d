import type { DueVisit, endpoints, Input } from '@pelrin/contract'

export type VisitToRemind = NonNullable<Input<typeof endpoints.sendReminders.body>>['visits'][number]

/** A due visit as a reminder of it is asked for. */
export const remindable = ({ customer, day, bikes }: DueVisit): VisitToRemind => ({
  customerId: customer.id,
  day,
  bikes: bikes.map(({ bike, items }) => ({ bikeId: bike.id, kinds: items.map(({ kind }) => kind) })),
})
