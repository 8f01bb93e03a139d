import type { Cleaning, Treatment } from '@pelrin/core'
import { day, fact, flag, key, maybe, moment, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const CARE_EVENTS = table('care_events', {
  ...fact,
  chainId: uuid(),
  bikeId: maybe(uuid()),
  kind: text<'treated' | 'wash' | 'squeak'>(),
  care: maybe(text<Treatment>()),
  cleaning: maybe(text<Cleaning>()),
  atHome: usually(flag(), null),
  note: maybe(text()),
})
export type CareEventRow = RowOf<typeof CARE_EVENTS>

/** A day a bike is wanted for, so that its chain is cared for before. */
export const EVENT_DATES = table('event_dates', {
  id: key(uuid()),
  bikeId: uuid(),
  day: day(),
  name: text(),
  recordedAt: usually(moment(), null),
  personId: uuid(),
  deviceId: maybe(uuid()),
  droppedAt: maybe(moment()),
})
export type EventDateRow = RowOf<typeof EVENT_DATES>
