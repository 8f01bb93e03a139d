import type { BikeRecord } from '@pelrin/contract'
import { bikeOf } from './bikes.ts'

/** As much of a bike's record as a place that is about its bike begins with. */
export const recordOf = (id: string, customer: string, more: object = {}): BikeRecord =>
  ({
    customer: { id: `customer ${customer}`, name: customer, phone: null },
    summary: bikeOf(id, customer),
    chain: null,
    readings: [],
    lastOdometer: { km: 8000, typed: '8000', unit: 'km', at: '2026-11-01T10:00:00.000Z' },
    distanceTail: null,
    assumptions: {},
    ...more,
  }) as unknown as BikeRecord
