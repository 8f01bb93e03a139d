import type { LearnedGroup, LearnedUnsaid } from '@pelrin/contract'
import { integer, json, key, maybe, moment, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const FORECAST_RUNS = table('forecast_runs', {
  id: key(uuid()),
  personId: uuid(),
  state: text<'waiting' | 'running' | 'done' | 'cancelled' | 'failed'>(),
  done: usually(integer(), null),
  of: integer(),
  lastBikeId: maybe(uuid()),
  askedAt: moment(),
  startedAt: maybe(moment()),
  finishedAt: maybe(moment()),
})
export type ForecastRunRow = RowOf<typeof FORECAST_RUNS>

export const PRIOR_VERSIONS = table('prior_versions', {
  id: key(uuid()),
  version: integer(),
  learnedAt: moment(),
  personId: uuid(),
  groups: json<LearnedGroup[]>(),
  unsaid: maybe(json<LearnedUnsaid>()),
  undoneAt: maybe(moment()),
})
export type PriorVersionRow = RowOf<typeof PRIOR_VERSIONS>
