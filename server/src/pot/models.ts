import type { BathCondition, PotNeed, PotRecipe, PotVessel } from '@pelrin/core'
import type { PotState } from '@pelrin/contract'
import { integer, key, maybe, moment, real, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const POTS = table('pots', {
  id: key(uuid()),
  name: text(),
  capacity: integer(),
  onSince: maybe(moment()),
  /** Where its thermometer answers, `host:port`, or the stand-in. */
  thermometer: maybe(text()),
  vessel: usually(text<PotVessel>(), null),
  /** Minutes from cold to molten; null: as the house has it. */
  heatMinutes: maybe(integer()),
  /** Where it rings, °C; null: as the house has it. */
  alarmCelsius: maybe(real()),
  version: usually(integer(), null),
})
export type PotRow = RowOf<typeof POTS>

export const POT_CHAINS = table('pot_chains', {
  id: key(uuid()),
  chainId: uuid(),
  bikeId: maybe(uuid()),
  readyBy: maybe(moment()),
  needs: text<PotNeed>(),
  recipe: text<PotRecipe>(),
  condition: text<BathCondition>(),
  notBefore: maybe(moment()),
  state: usually(text<PotState>(), null),
  potId: maybe(uuid()),
  since: moment(),
  addedAt: moment(),
  /** When it went back on its bike; null: it hangs and waits. */
  backOnAt: maybe(moment()),
  version: usually(integer(), null),
})
export type PotChainRow = RowOf<typeof POT_CHAINS>

export const POT_EVENTS = table('pot_events', {
  id: key(uuid()),
  potChainId: uuid(),
  potId: maybe(uuid()),
  cameFrom: text<PotState>(),
  wentTo: text<PotState>(),
  occurredAt: moment(),
  recordedAt: usually(moment(), null),
  personId: uuid(),
  deviceId: maybe(uuid()),
})
export type PotEventRow = RowOf<typeof POT_EVENTS>

export const BATH_CHANGES = table('bath_changes', {
  id: key(uuid()),
  potId: uuid(),
  occurredAt: moment(),
  personId: uuid(),
})
export type BathChangeRow = RowOf<typeof BATH_CHANGES>
