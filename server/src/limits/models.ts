import type { School, HouseRule as CoreHouseRule, VerdictWord } from '@pelrin/core'
import {
  fact,
  flag,
  integer,
  json,
  key,
  maybe,
  moment,
  real,
  table,
  text,
  usually,
  uuid,
  type RowOf,
} from '../db/table.ts'

export const HOUSE_RULES = table('house_rules', {
  id: key(uuid()),
  school: text<School>(),
  name: maybe(text()),
  isDefault: usually(flag(), null),
  markedInstrumentId: maybe(uuid()),
  retiredAt: maybe(moment()),
})
export type HouseRuleRow = RowOf<typeof HOUSE_RULES>

export const HOUSE_RULE_VERSIONS = table('house_rule_versions', {
  id: key(uuid()),
  houseRuleId: uuid(),
  version: integer(),
  limits: json<CoreHouseRule['limits']>(),
  watchShare: real(),
  sprocketMarks: maybe(json<CoreHouseRule['sprocketMarks']>()),
  validFrom: usually(moment(), null),
  personId: maybe(uuid()),
  reason: maybe(text()),
})
export type HouseRuleVersionRow = RowOf<typeof HOUSE_RULE_VERSIONS>

export const ASSUMPTION_VERSIONS = table('assumption_versions', {
  id: key(uuid()),
  version: integer(),
  overrides: json<Record<string, number>>(),
  validFrom: moment(),
  personId: uuid(),
  reason: text(),
})
export type AssumptionVersionRow = RowOf<typeof ASSUMPTION_VERSIONS>

export const DECISIONS = table('decisions', {
  ...fact,
  bikeId: uuid(),
  chainId: maybe(uuid()),
  fittingId: maybe(uuid()),
  verdictId: uuid(),
  overruled: text<VerdictWord>(),
  decision: text<'ride-on' | 'spare' | 'change-early'>(),
})
export type DecisionRow = RowOf<typeof DECISIONS>
