import * as v from 'valibot'
import { Explanation, Id, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

export const VerdictWord = v.picklist([
  'measure-it',
  'not-measured-yet',
  'measure-again',
  'keep-riding',
  'closing-in',
  'change',
])
export const SprocketAdvice = v.picklist(['try-the-sprockets', 'check-everything'])
export const VerdictFlag = v.picklist([
  'lower-than-before',
  'wide-spread',
  'odd-count',
  'watch-mark-unseen',
  'by-hand-suspicion',
  'customer-reading-apart',
  'instruments-at-odds',
])
export const InstrumentKind = v.picklist([
  'steel-rule',
  'caliper',
  'drop-in',
  'swing-arm',
  'graduated',
  'digital',
  'full-length',
  'by-hand',
])
export const DriveType = v.picklist(['derailleur', 'hub-gear', 'single-speed'])
const School = v.picklist(['by-speeds', 'early-change', 'plan-and-change', 'as-marked', 'custom'])
const Limits = v.object({ change: v.number(), plan: v.exactOptional(v.number()) })

/** A house rule in one of its versions. */
export const HouseRule = v.object({
  id: Id,
  version: v.number(),
  school: School,
  limits: v.object({ 'derailleur-11-up': Limits, 'derailleur-to-10': Limits, 'single-or-hub': Limits }),
  watchShare: v.number(),
})

const Settle = v.variant('kind', [
  v.object({ kind: v.literal('more-spots'), spots: v.number() }),
  v.object({ kind: v.literal('better-instrument'), instrumentId: Id }),
  v.object({ kind: v.literal('instrument-that-can'), instrumentId: v.nullable(Id) }),
  v.object({ kind: v.literal('same-spot-with-both') }),
])

const DecidedBy = v.picklist(['D0', 'D1', 'D2', 'D3', 'D4', 'D5', 'D6', 'D7'])

/** The core's verdict with all it rests on. Elongations in %. */
export const ChainVerdict = v.object({
  word: VerdictWord,
  advice: v.nullable(SprocketAdvice),
  flags: v.array(VerdictFlag),
  decidedBy: DecidedBy,
  probabilityOver: v.nullable(v.number()),
  median: v.nullable(v.number()),
  halfWidth: v.nullable(v.number()),
  worst: v.nullable(
    v.object({
      readingId: Id,
      spot: v.number(),
      value: v.exactOptional(v.number()),
      over: v.exactOptional(v.number()),
      under: v.exactOptional(v.number()),
      u: v.number(),
    }),
  ),
  limit: v.number(),
  plan: v.nullable(v.number()),
  watch: v.number(),
  spotsMeasured: v.number(),
  spotsWanted: v.number(),
  spread: v.nullable(v.number()),
  otherwise: v.nullable(VerdictWord),
  settle: v.array(Settle),
  checkInDays: v.nullable(v.number()),
  steps: v.array(Explanation),
  countedReadingIds: v.array(Id),
  schools: v.array(
    v.object({
      ruleId: Id,
      school: School,
      word: VerdictWord,
      limit: v.number(),
      plan: v.nullable(v.number()),
      probabilityOver: v.nullable(v.number()),
    }),
  ),
})

const VerdictReading = v.object({
  id: Id,
  occurredAt: v.number(),
  chainKm: v.nullable(v.number()),
  source: v.picklist(['shop', 'customer']),
  instrument: v.object({ id: Id, kind: InstrumentKind, biasU: v.number() }),
  spots: v.array(
    v.object({
      place: v.exactOptional(v.number()),
      value: v.exactOptional(v.number()),
      over: v.exactOptional(v.number()),
      under: v.exactOptional(v.number()),
      u: v.number(),
      pitches: v.exactOptional(v.number()),
    }),
  ),
  hint: v.exactOptional(v.picklist(['worn', 'nothing'])),
})

/** All the core needs to judge a chain; the screen judges with it while somebody types. */
export const VerdictInput = v.object({
  readings: v.array(VerdictReading),
  drive: v.object({ type: DriveType, speeds: v.number() }),
  rule: HouseRule,
  chain: v.object({
    kmSinceFittedNew: v.nullable(v.number()),
    countChangedAt: v.exactOptional(v.number()),
  }),
  instruments: v.array(
    v.object({
      id: Id,
      kind: InstrumentKind,
      u: v.number(),
      inDate: v.boolean(),
      marks: v.exactOptional(v.array(v.number())),
    }),
  ),
  otherRules: v.array(HouseRule),
})
export type VerdictInput = v.InferOutput<typeof VerdictInput>

/** A verdict as it was given and stored. */
export const StoredVerdict = v.object({
  id: Id,
  occurredAt: Moment,
  readingId: v.nullable(Id),
  ruleVersion: v.number(),
  outcome: ChainVerdict,
})
export type StoredVerdict = v.InferOutput<typeof StoredVerdict>

/** A physical instrument of the shop, with its record in force. */
export const Instrument = v.object({
  id: Id,
  kind: InstrumentKind,
  name: v.string(),
  recordVersion: v.number(),
  /** Standard uncertainty of a length, mm, for instruments that read lengths. */
  uMm: v.nullable(v.number()),
  /** Standard uncertainty, %, for instruments that read elongation. */
  u: v.nullable(v.number()),
  bias: v.number(),
  biasU: v.number(),
  marks: v.nullable(v.array(v.number())),
  checkedOn: v.nullable(v.string()),
  checkLapsed: v.boolean(),
})
export type Instrument = v.InferOutput<typeof Instrument>

export const limitsEndpoints = {
  instruments: endpoint({
    name: 'instruments',
    method: 'GET',
    path: '/instruments',
    summary: 'The instruments in use, each with its record in force.',
    access: 'signed-in',
    result: v.array(Instrument),
  }),
}
