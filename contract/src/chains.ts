import { OLD_FATES } from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Id, line, Moment } from './common.ts'
import { Closing } from './closing.ts'
import { endpoint } from './endpoint.ts'
import { VerdictWord } from './limits.ts'
import { CareKind } from './forecast.ts'
import { PresentJointSeen } from './parts.ts'

export const Pitches = v.pipe(
  v.number('number-malformed'),
  v.integer('number-whole'),
  v.minValue(20, 'box-range'),
  v.maxValue(400, 'box-range'),
)

/** A bike as a chain's or a joint's page names it. */
export const OfBike = v.object({ id: Id, label: v.string(), customer: v.string() })
export type OfBike = v.InferOutput<typeof OfBike>

/** What a chain is closed with, as a thing. */
export const ChainJoint = v.object({
  id: Id,
  kind: PresentJointSeen.entries.kind,
  name: v.nullable(v.string()),
  /** Closings so far; null where nobody counted, or nothing is counted. */
  closings: v.nullable(v.number()),
  /** How often its maker lets it be closed; null: for as long as it clicks firmly, or not known. */
  most: v.nullable(v.number()),
  firm: v.nullable(v.boolean()),
  /** Whether its maker lets it be closed once more. */
  mayClose: v.picklist(['yes', 'by-feel', 'no', 'not-known']),
})
export type ChainJoint = v.InferOutput<typeof ChainJoint>

/** A chain as a thing with a life of its own, wherever it is. */
/** A value, or what a gauge's marks leave open, %. */
const Seen = { value: v.nullable(v.number()), over: v.nullable(v.number()), under: v.nullable(v.number()) }

/** The spot that governs a verdict: never merely the last that was read. */
export const Governing = v.object({ ...Seen, u: v.number(), at: Moment, verdict: VerdictWord })
export type Governing = v.InferOutput<typeof Governing>

export const ChainThing = v.object({
  id: Id,
  version: v.number(),
  name: v.string(),
  pitches: v.nullable(v.number()),
  care: CareKind,
  /** On a bike, or what became of it since it came off; `off` where nobody said. */
  state: v.picklist(['on', 'off', ...OLD_FATES]),
  /** The bike it is on, else the one whose rotation it waits in. */
  bike: v.nullable(OfBike),
  /** What it has run, over all its fittings; null where nothing recorded says. */
  km: v.nullable(v.number()),
  /** The spot that governs its latest verdict, and what that said; null where nothing was measured. */
  governing: v.nullable(Governing),
  joint: v.nullable(ChainJoint),
})
export type ChainThing = v.InferOutput<typeof ChainThing>

/** One thing that happened to a chain or a joint. */
export const ThingEvent = v.object({
  id: Id,
  at: Moment,
  kind: v.picklist([
    'fitted',
    'came-with',
    'taken-off',
    'cut',
    'shortened',
    'rejoined',
    'lengthened',
    'joint-closed',
    'joint-seen',
    'read',
    'offcut',
  ]),
  bike: v.nullable(OfBike),
  value: v.nullable(v.number()),
  /** Of a reading by marks: what they leave open, %. */
  over: v.nullable(v.number()),
  under: v.nullable(v.number()),
  text: v.nullable(v.string()),
  person: v.string(),
})
export type ThingEvent = v.InferOutput<typeof ThingEvent>

export const ChainPage = v.object({ chain: ChainThing, events: v.array(ThingEvent) })
export type ChainPage = v.InferOutput<typeof ChainPage>
export const JointPage = v.object({
  joint: ChainJoint,
  chain: v.nullable(v.object({ id: Id, name: v.string() })),
  events: v.array(ThingEvent),
})
export type JointPage = v.InferOutput<typeof JointPage>

/** The chains of one bike. */
export const BikeChains = v.object({
  on: v.nullable(ChainThing),
  /** Those in its rotation, by name. */
  rotation: v.array(ChainThing),
  /** Chains of the shop that lie about and could go on: spares, and those for practice. */
  loose: v.array(ChainThing),
  /** The fitting a swap began today and that can still be taken back. */
  undo: v.nullable(Id),
})
export type BikeChains = v.InferOutput<typeof BikeChains>

export const chainsEndpoints = {
  bikeChains: endpoint({
    name: 'bikeChains',
    method: 'GET',
    path: '/bikes/:id/chains',
    summary: 'The chain on a bike, those in its rotation, and those of the shop that lie about.',
    access: 'signed-in',
    params: ById,
    result: BikeChains,
  }),
  chain: endpoint({
    name: 'chain',
    method: 'GET',
    path: '/chains/:id',
    summary: 'A chain with everything that happened to it, on every bike.',
    access: 'signed-in',
    params: ById,
    result: ChainPage,
  }),
  joint: endpoint({
    name: 'joint',
    method: 'GET',
    path: '/joints/:id',
    summary: 'A link, pin or clip with its closings.',
    access: 'signed-in',
    params: ById,
    result: JointPage,
  }),
  addChain: endpoint({
    name: 'addChain',
    method: 'POST',
    path: '/bikes/:id/chains',
    summary: 'Add a chain to a bike’s rotation. It is not on yet.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({ id: Id, name: line(80), pitches: v.nullable(Pitches), care: CareKind }),
    result: BikeChains,
  }),
  swapChain: endpoint({
    name: 'swapChain',
    method: 'POST',
    path: '/bikes/:id/swap',
    summary: 'Take the chain off a bike into its rotation and put another one on; its joint is closed once more.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({
      /** Id of the new fitting. */
      id: Id,
      chainId: Id,
      ...Closing.entries,
    }),
    result: BikeChains,
  }),
  undoSwap: endpoint({
    name: 'undoSwap',
    method: 'POST',
    path: '/fittings/:id/undo',
    summary: 'Take back a swap, within the day and while nothing rests on it.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({ reason: line(200) }),
    result: BikeChains,
  }),
  changeChain: endpoint({
    name: 'changeChain',
    method: 'PATCH',
    path: '/chains/:id',
    summary: 'Say what a chain is called, how it is cared for, or what became of it.',
    access: 'work',
    versioned: true,
    params: ById,
    body: v.object({
      name: v.exactOptional(line(80)),
      care: v.exactOptional(CareKind),
      fate: v.exactOptional(v.picklist(OLD_FATES, 'field-invalid')),
    }),
    result: ChainPage,
  }),
}
