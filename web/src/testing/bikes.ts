import type { BikeSummary, Visit } from '@pelrin/contract'

/** A bike of the shop, in no trouble. */
export const bikeOf = (id: string, customer: string, more: Partial<BikeSummary> = {}): BikeSummary => ({
  id,
  label: 'Causeway',
  tag: '0400',
  frameMark: null,
  customer: { id: `customer ${customer}`, name: customer },
  drive: { type: 'derailleur', speeds: 11, fronts: [50, 34], sprockets: [11, 32] },
  verdict: 'keep-riding',
  standing: { word: 'keep-riding', because: 'verdict', chance: null },
  advice: null,
  flags: [],
  probabilityOver: 0.02,
  median: 0.31,
  limit: 0.5,
  marks: [],
  decision: null,
  measuredAt: '2026-11-01T10:00:00.000Z',
  checkOn: null,
  eachVisit: false,
  chainKm: 1200,
  overOn: null,
  care: null,
  ...more,
})

/** A bike in today's line-up. */
export const visitOf = (bike: BikeSummary, more: Partial<Visit> = {}): Visit => ({
  id: `visit ${bike.id}`,
  version: 1,
  day: '2026-11-26',
  position: 1,
  promisedAt: null,
  reason: 'noisy under load',
  state: 'waiting',
  onStandSince: null,
  here: false,
  bike,
  ...more,
})
