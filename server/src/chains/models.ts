import type { ChainHangs, OldFate } from '@pelrin/core'
import { fact, integer, json, key, maybe, moment, range, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const CHAINS = table('chains', {
  id: key(uuid()),
  name: text(),
  pitches: maybe(integer()),
  care: usually(text(), null),
  partId: maybe(uuid()),
  fate: maybe(text<OldFate>()),
  /** How it hung before it came off, on the two smallest and the two largest. */
  hungSmall: maybe(text<ChainHangs>()),
  hungLarge: maybe(text<ChainHangs>()),
  /** The bike in whose rotation it waits. */
  homeBikeId: maybe(uuid()),
  version: usually(integer(), null),
})
export type ChainRow = RowOf<typeof CHAINS>

export const CHAIN_EVENTS = table('chain_events', {
  ...fact,
  chainId: uuid(),
  kind: text<'cut' | 'shortened' | 'rejoined' | 'lengthened'>(),
  pitchesAfter: maybe(integer()),
  becauseId: maybe(uuid()),
})
export type ChainEventRow = RowOf<typeof CHAIN_EVENTS>

export const FITTINGS = table('fittings', {
  id: key(uuid()),
  bikeId: uuid(),
  chainId: uuid(),
  during: range(),
  start: text<'fitted' | 'stated' | 'unknown'>(),
  endReason: maybe(text()),
  /** What its chain had been before, where it was kept by somebody; null where it was new. */
  cameFrom: maybe(json<{ fate: OldFate | null; homeBikeId: string | null }>()),
  personId: uuid(),
  recordedAt: usually(moment(), null),
})
export type FittingRow = RowOf<typeof FITTINGS>
