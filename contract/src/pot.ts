import { BATH_CONDITIONS, LEARNED_STEPS, POT_NEEDS, POT_RECIPES, POT_VESSELS, WAX_CASES } from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Id, line, Moment } from './common.ts'
import { ChainJoint } from './chains.ts'
import { Closing } from './closing.ts'
import { endpoint } from './endpoint.ts'
import { WaxSchools } from './jobs.ts'

export const PotNeedField = v.picklist(POT_NEEDS, 'field-invalid')
export const PotRecipeField = v.picklist(POT_RECIPES, 'field-invalid')
export const BathConditionField = v.picklist(BATH_CONDITIONS, 'field-invalid')
/** Where a chain is on its way. `left` is one that was taken out of the session. */
export const PotState = v.picklist(
  ['waiting', 'stripping', 'drying', 'in-pot', 'hanging', 'done', 'left'],
  'field-invalid',
)
export type PotState = v.InferOutput<typeof PotState>

const Capacity = v.pipe(
  v.number('pot-capacity-range'),
  v.integer('pot-capacity-range'),
  v.minValue(1, 'pot-capacity-range'),
  v.maxValue(40, 'pot-capacity-range'),
)

const HeatMinutes = v.pipe(
  v.number('pot-heat-range'),
  v.integer('pot-heat-range'),
  v.minValue(0, 'pot-heat-range'),
  v.maxValue(240, 'pot-heat-range'),
)
const AlarmCelsius = v.pipe(
  v.number('pot-alarm-range'),
  v.minValue(60, 'pot-alarm-range'),
  v.maxValue(150, 'pot-alarm-range'),
)

/** A wax pot as it stands. */
export const PotNow = v.object({
  id: Id,
  name: v.string(),
  capacity: v.number(),
  /** When it was switched on; null: off and cold. */
  onSince: v.nullable(Moment),
  /** Whether a thermometer is in it. */
  thermometer: v.boolean(),
  vessel: v.picklist(POT_VESSELS),
  /** From cold to molten, and where it rings, °C: its own, else as the house has it. */
  heatMinutes: v.number(),
  alarmCelsius: v.number(),
  /** Where they are its own; null: the house's. */
  own: v.object({ heatMinutes: v.nullable(v.number()), alarmCelsius: v.nullable(v.number()) }),
  /** Chains its bath has had, wet and gritty ones counted more, of how many it takes. */
  bath: v.object({ load: v.number(), most: v.number(), change: v.boolean(), since: v.nullable(Moment) }),
  version: v.number(),
})
export type PotNow = v.InferOutput<typeof PotNow>

const ChainOfBike = {
  chainId: Id,
  chain: v.string(),
  bike: v.nullable(v.object({ id: Id, label: v.string(), customer: v.string() })),
}

/** A chain that waits for the pot, or is on its way through. */
export const PotChainNow = v.object({
  id: Id,
  ...ChainOfBike,
  readyBy: v.nullable(Moment),
  needs: PotNeedField,
  recipe: PotRecipeField,
  condition: BathConditionField,
  notBefore: v.nullable(Moment),
  state: PotState,
  potId: v.nullable(Id),
  /** Since when it is in this state. */
  since: Moment,
  addedAt: Moment,
  /** It is due to be measured before it is treated. */
  measureFirst: v.boolean(),
  version: v.number(),
})
export type PotChainNow = v.InferOutput<typeof PotChainNow>

/** A chain that could go in: due, or a twin that waits while the other rides. */
export const PotCandidate = v.object({
  ...ChainOfBike,
  because: v.picklist(['in-today', 'rotation', 'due']),
  /** When the bike was promised, where it is in today. */
  promisedAt: v.nullable(Moment),
  /** What it is as it goes into the wax, and what it wants before it does. */
  waxCase: v.picklist(WAX_CASES),
  needs: PotNeedField,
  condition: BathConditionField,
  /** The bike's own recipe, else the house's. */
  recipe: PotRecipeField,
  measureFirst: v.boolean(),
})
export type PotCandidate = v.InferOutput<typeof PotCandidate>

/** A chain that hangs, and what closes it when it goes back on. */
export const HungChain = v.object({ ...PotChainNow.entries, joint: v.nullable(ChainJoint) })
export type HungChain = v.InferOutput<typeof HungChain>

export const PotBoard = v.object({
  pots: v.array(PotNow),
  /** Still on their way, in the order they came. */
  chains: v.array(PotChainNow),
  /** Waxed, and waiting to go back on the bike they came off, longest first. */
  hung: v.array(HungChain),
  /** How the house waxes. */
  waxing: WaxSchools,
  /** What its steps take here, by what was done. */
  learned: v.array(
    v.object({
      step: v.picklist(LEARNED_STEPS),
      minutes: v.number(),
      from: v.number(),
      to: v.number(),
      stays: v.number(),
      assumed: v.number(),
    }),
  ),
  /** Done today, newest first. */
  done: v.array(PotChainNow),
  candidates: v.array(PotCandidate),
  /** The shop's own values where they differ from those shipped. */
  assumptions: v.record(v.string(), v.number()),
})
export type PotBoard = v.InferOutput<typeof PotBoard>

export const PotTemperature = v.object({
  /** The server's clock. */
  now: v.number(),
  /** What the thermometer sent, oldest first: every one of the last minutes, thinned out before. */
  readings: v.array(v.object({ at: v.number(), celsius: v.number() })),
})
export type PotTemperature = v.InferOutput<typeof PotTemperature>

export const potEndpoints = {
  potBoard: endpoint({
    name: 'potBoard',
    method: 'GET',
    path: '/pot',
    summary: 'The wax pots, the chains on their way through them, and those that could go in.',
    access: 'signed-in',
    result: PotBoard,
  }),
  addToPot: endpoint({
    name: 'addToPot',
    method: 'POST',
    path: '/pot/chains',
    summary: 'Let chains wait for the pot.',
    access: 'record',
    creates: true,
    body: v.object({
      chains: v.pipe(
        v.array(
          v.object({
            id: Id,
            chainId: Id,
            readyBy: v.nullable(Moment),
            needs: PotNeedField,
            recipe: PotRecipeField,
            condition: BathConditionField,
          }),
        ),
        v.minLength(1, 'pot-none'),
        v.maxLength(40, 'pot-many'),
      ),
    }),
    result: PotBoard,
  }),
  changePotChain: endpoint({
    name: 'changePotChain',
    method: 'PATCH',
    path: '/pot/chains/:id',
    summary: 'Say by when a chain is wanted, by which recipe, what it needs before, or from when it may go in.',
    access: 'record',
    versioned: true,
    params: ById,
    body: v.object({
      readyBy: v.exactOptional(v.nullable(Moment)),
      needs: v.exactOptional(PotNeedField),
      recipe: v.exactOptional(PotRecipeField),
      condition: v.exactOptional(BathConditionField),
      notBefore: v.exactOptional(v.nullable(Moment)),
    }),
    result: PotBoard,
  }),
  movePotChains: endpoint({
    name: 'movePotChains',
    method: 'POST',
    path: '/pot/moves',
    summary: 'Chains went on together: into the bath, the pot, on to the rail, or are done.',
    access: 'record',
    creates: true,
    body: v.object({
      chains: v.pipe(
        v.array(v.object({ id: Id, from: PotState })),
        v.minLength(1, 'pot-none'),
        v.maxLength(40, 'pot-many'),
      ),
      to: PotState,
      /** Which pot, for chains that go into one. */
      potId: v.optional(v.nullable(Id), null),
      occurredAt: Moment,
    }),
    result: PotBoard,
  }),
  backOn: endpoint({
    name: 'backOn',
    method: 'POST',
    path: '/pot/chains/:id/back-on',
    summary: 'A waxed chain went back on the bike it came off: its joint was closed once more.',
    access: 'record',
    creates: true,
    params: ById,
    body: Closing,
    result: PotBoard,
  }),
  switchPot: endpoint({
    name: 'switchPot',
    method: 'PATCH',
    path: '/pots/:id',
    summary: 'Switch a pot on or off, or say what it takes.',
    access: 'work',
    versioned: true,
    params: ById,
    body: v.object({
      on: v.exactOptional(v.boolean('field-invalid')),
      name: v.exactOptional(line(40)),
      capacity: v.exactOptional(Capacity),
      vessel: v.exactOptional(v.picklist(POT_VESSELS, 'field-invalid')),
      heatMinutes: v.exactOptional(v.nullable(HeatMinutes)),
      alarmCelsius: v.exactOptional(v.nullable(AlarmCelsius)),
    }),
    result: PotBoard,
  }),
  addPot: endpoint({
    name: 'addPot',
    method: 'POST',
    path: '/pots',
    summary: 'Add a pot.',
    access: 'work',
    creates: true,
    body: v.object({
      id: Id,
      name: line(40),
      capacity: Capacity,
      vessel: v.optional(v.picklist(POT_VESSELS, 'field-invalid'), 'thermostat'),
      heatMinutes: v.optional(v.nullable(HeatMinutes), null),
      alarmCelsius: v.optional(v.nullable(AlarmCelsius), null),
    }),
    result: PotBoard,
  }),
  changeBath: endpoint({
    name: 'changeBath',
    method: 'POST',
    path: '/pots/:id/bath',
    summary: 'The wax of a pot was changed.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({ id: Id }),
    result: PotBoard,
  }),
  potTemperature: endpoint({
    name: 'potTemperature',
    method: 'GET',
    path: '/pots/:id/temperature',
    summary: 'What the thermometer in a pot sent.',
    access: 'signed-in',
    params: ById,
    result: PotTemperature,
  }),
}
