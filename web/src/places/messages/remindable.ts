import type { DueAtHome, DueVisit, endpoints, Input } from '@pelrin/contract'

export type VisitToRemind = NonNullable<Input<typeof endpoints.sendReminders.body>>['visits'][number]

/** A due visit as a reminder of it is asked for. */
export const remindable = ({ customer, day, bikes }: DueVisit): VisitToRemind => ({
  purpose: 'visit',
  customerId: customer.id,
  day,
  bikes: bikes.map(({ bike, items }) => ({ bikeId: bike.id, kinds: items.map(({ kind }) => kind) })),
})

/** Bikes that are treated at home, as reminders of it are asked for: one a customer and day. Who was reminded of it already is left out. */
export function remindableAtHome(atHome: readonly DueAtHome[]): VisitToRemind[] {
  const asked = new Map<string, VisitToRemind>()
  for (const { customer, bike, on, remindedAt } of atHome) {
    if (remindedAt !== null) continue
    const key = `${customer.id} ${on}`
    const there = asked.get(key)
    const bikes = [...(there?.bikes ?? []), { bikeId: bike.id, kinds: ['care' as const] }]
    asked.set(key, { purpose: 'home', customerId: customer.id, day: on, bikes })
  }
  return [...asked.values()]
}
