import type { VerdictFlag, VerdictWord, SprocketAdvice, ChainForecast, SurfaceKm } from '@pelrin/core'
import type { CareNext, SpotMark } from '@pelrin/contract'
import {
  day,
  flag,
  integer,
  integers,
  json,
  key,
  maybe,
  moment,
  real,
  table,
  text,
  texts,
  usually,
  uuid,
  type RowOf,
} from '../db/table.ts'
import type { DecisionRow } from '../limits/models.ts'

export const BIKE_STATE = table('bike_state', {
  bikeId: key(uuid()),
  chainId: maybe(uuid()),
  fittingId: maybe(uuid()),
  verdictId: maybe(uuid()),
  houseRuleVersionId: uuid(),
  word: text<VerdictWord>(),
  advice: maybe(text<SprocketAdvice>()),
  flags: texts<VerdictFlag>(),
  probability: maybe(real()),
  median: maybe(real()),
  limitAt: real(),
  marks: json<SpotMark[]>(),
  measuredAt: maybe(moment()),
  checkOn: maybe(day()),
  /** Whether it is looked at whenever it is in. */
  eachVisit: usually(flag(), null),
  chainKm: maybe(real()),
  /** The last day on which the verdict's round still describes the chain; null where nothing was measured. */
  presentUntil: maybe(day()),
  /** The first day on which it is to be measured whatever its verdict said; null where none comes. */
  measureFrom: maybe(day()),
  /** The forecast by days: from the last recorded moment, the days after it that reach each chance kept; null where none is shown. */
  outlookFrom: maybe(day()),
  outlookReached: maybe(integers()),
  /** The day a change that stands was measured; null where none does, or it was decided otherwise. */
  changeOn: maybe(day()),
  searchText: text(),
  lastFactId: maybe(uuid()),
  /** The decision that stands beside the verdict, if a mechanic decided otherwise. */
  decisionId: maybe(uuid()),
  decision: maybe(text<DecisionRow['decision']>()),
  /** When the chain will be over its limit, as of the last recorded moment; null with no forecast at all. */
  forecast: maybe(json<ChainForecast>()),
  /** The day by which it is over with an even chance; null when no forecast is shown or it lies too far. */
  overOn: maybe(day()),
  /** Kilometres by surface over everything recorded. */
  mix: maybe(json<SurfaceKm>()),
  /** What the bike is ridden, where that is recorded and not assumed. */
  kmPerDay: maybe(real()),
  /** When the chain is treated next, as of the last fact; null where its care is not known. */
  care: maybe(json<CareNext>()),
  careOn: maybe(day()),
  /** The day it is washed by its rhythm; null without one, or where that is done at home. */
  washOn: maybe(day()),
  /** The day whoever rides it treats it at home; null where that is done here. */
  homeOn: maybe(day()),
  /** The first day anything else that wears is looked at again. */
  wearOn: maybe(day()),
})
export type BikeStateRow = RowOf<typeof BIKE_STATE>

/** How far the state of a shop's bikes has been derived anew, after what is stored became outdated. */
export const STATE_REBUILDS = table('state_rebuilds', {
  askedAt: moment(),
  afterBike: maybe(uuid()),
  done: usually(integer(), null),
  finishedAt: maybe(moment()),
})
export type StateRebuildRow = RowOf<typeof STATE_REBUILDS>
