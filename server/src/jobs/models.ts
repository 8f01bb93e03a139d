import type { JobPlan, JobEvent } from '@pelrin/core'
import type { JobParts, JobWritten } from '@pelrin/contract'
import { integer, json, key, maybe, moment, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const JOBS = table('jobs', {
  id: key(uuid()),
  bikeId: uuid(),
  state: text<'open' | 'closed' | 'stopped' | 'undone'>(),
  plan: json<JobPlan>(),
  parts: json<JobParts>(),
  keptId: maybe(uuid()),
  openedAt: moment(),
  closedAt: maybe(moment()),
  written: maybe(json<JobWritten>()),
  personId: uuid(),
  version: usually(integer(), null),
})
export type JobRow = RowOf<typeof JOBS>

export const JOB_EVENTS = table('job_events', {
  id: key(uuid()),
  jobId: uuid(),
  kind: text<JobEvent['kind']>(),
  detail: usually(json<object>(), null),
  occurredAt: moment(),
  recordedAt: usually(moment(), null),
  personId: uuid(),
  deviceId: maybe(uuid()),
})
export type JobEventRow = RowOf<typeof JOB_EVENTS>

export const OFFCUTS = table('offcuts', {
  id: key(uuid()),
  chainId: uuid(),
  jobId: uuid(),
  pitches: integer(),
  keptAt: moment(),
  goneAt: maybe(moment()),
})
export type OffcutRow = RowOf<typeof OFFCUTS>

/** How this shop does what is done one way or another. */
export const JOB_SCHOOLS = table('job_schools', {
  version: key(integer()),
  schools: json<object>(),
  personId: uuid(),
  recordedAt: usually(moment(), null),
})
export type JobSchoolRow = RowOf<typeof JOB_SCHOOLS>
