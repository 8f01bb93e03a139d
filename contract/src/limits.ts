import * as v from 'valibot'
import { SCHOOLS, DRIVE_TYPES, SPROCKET_ADVICES, VERDICT_STEPS, VERDICT_WORDS } from '@pelrin/core'
import { Explanation, Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { ChainLife, SurfaceKm } from './forecast.ts'
import { InstrumentKind } from './instruments.ts'

export const VerdictWord = v.picklist(VERDICT_WORDS)
export const SprocketAdvice = v.picklist(SPROCKET_ADVICES)
export const VerdictFlag = v.picklist([
  'lower-than-before',
  'wide-spread',
  'odd-count',
  'borderline-mark',
  'watch-mark-unseen',
  'check-lapsed',
  'by-hand-suspicion',
  'customer-reading-apart',
  'instruments-at-odds',
  'teeth-unseen',
])
export const DriveType = v.picklist(DRIVE_TYPES)
const School = v.picklist(SCHOOLS)
const SprocketMarks = v.object({ sprockets: v.number('number-malformed'), everything: v.number('number-malformed') })
const MarksByClass = v.object({
  'derailleur-11-up': SprocketMarks,
  'derailleur-to-10': SprocketMarks,
  'single-or-hub': SprocketMarks,
})
const Limits = v.object({ change: v.number(), plan: v.exactOptional(v.number()) })

/** A house rule in one of its versions. */
export const HouseRule = v.object({
  id: Id,
  version: v.number(),
  school: School,
  limits: v.object({ 'derailleur-11-up': Limits, 'derailleur-to-10': Limits, 'single-or-hub': Limits }),
  watchShare: v.number(),
  /** Where sprockets are suspect by this rule; left out: by the physics of the drive. */
  sprocketMarks: v.exactOptional(MarksByClass),
})

const Settle = v.variant('kind', [
  v.object({ kind: v.literal('more-spots'), spots: v.number() }),
  v.object({ kind: v.literal('better-instrument'), instrumentId: Id }),
  v.object({ kind: v.literal('instrument-that-can'), instrumentId: v.nullable(Id) }),
  v.object({ kind: v.literal('same-spot-with-both') }),
])

const DecidedBy = v.picklist(VERDICT_STEPS)

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

export const VerdictReading = v.object({
  id: Id,
  occurredAt: v.number(),
  chainKm: v.nullable(v.number()),
  source: v.picklist(['shop', 'customer']),
  instrument: v.object({ id: Id, kind: InstrumentKind, biasU: v.number(), lapsed: v.exactOptional(v.boolean()) }),
  spots: v.array(
    v.object({
      place: v.exactOptional(v.number()),
      value: v.exactOptional(v.number()),
      over: v.exactOptional(v.number()),
      under: v.exactOptional(v.number()),
      u: v.number(),
      pitches: v.exactOptional(v.number()),
      borderline: v.exactOptional(v.boolean()),
    }),
  ),
  hint: v.exactOptional(v.picklist(['worn', 'nothing'])),
  /** Wear-weighted distance of the chain by then, thousand km; null when not known. */
  s: v.exactOptional(v.nullable(v.number())),
  baseline: v.exactOptional(v.boolean()),
})

/** All the core needs to judge a chain; the screen judges with it while somebody types. */
export const VerdictInput = v.object({
  readings: v.array(VerdictReading),
  drive: v.object({ type: DriveType, speeds: v.number() }),
  rule: HouseRule,
  chain: v.object({
    kmSinceFittedNew: v.nullable(v.number()),
    /** Real km the chain had run at the last recorded moment. */
    km: v.exactOptional(v.nullable(v.number())),
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
  /** The shop's own values for what is assumed; verdicts of early versions have none. */
  assumptions: v.exactOptional(v.record(v.string(), v.number())),
  /** When it was judged, and what the chain was estimated to have run by then. */
  asOf: v.exactOptional(v.object({ at: v.number(), chainKm: v.nullable(v.number()) })),
  otherRules: v.array(HouseRule),
  /** What the forecast rests on beside the readings; absent where no chain is fitted. */
  life: v.exactOptional(ChainLife),
  /** What the bike was ridden on, over everything recorded. */
  mix: v.exactOptional(SurfaceKm),
  /** What a kilometre of its usual mix uses up of a treatment, against a dry one. */
  careFactor: v.exactOptional(v.number()),
  /** The customer's own rhythm of looks, where there is one. */
  rhythm: v.exactOptional(v.object({ days: v.nullable(v.number()), eachVisit: v.boolean() })),
  /** What the forecast said of being over; null when it was withheld. */
  forecast: v.exactOptional(v.nullable(v.object({ overNow: v.number(), overAhead: v.number() }))),
})
export type VerdictInput = v.InferOutput<typeof VerdictInput>

/** A chain that ran on a bike's sprockets before, or in turn, as it was when it came off. */
export const EarlierChain = v.object({
  readings: v.array(VerdictReading),
  life: ChainLife,
  countChangedAt: v.exactOptional(v.number()),
  /** Where it was when the cassette that is on was fitted, thousand weighted km. */
  sFrom: v.number(),
})
export type EarlierChain = v.InferOutput<typeof EarlierChain>

/** A verdict as it was given and stored. */
export const StoredVerdict = v.object({
  id: Id,
  occurredAt: Moment,
  readingId: v.nullable(Id),
  ruleVersion: v.number(),
  outcome: ChainVerdict,
})
export type StoredVerdict = v.InferOutput<typeof StoredVerdict>

export const DecisionKind = v.picklist(['ride-on', 'spare', 'change-early'], 'field-invalid')
export type DecisionKind = v.InferOutput<typeof DecisionKind>

/** What a mechanic decided otherwise than the verdict said. */
export const Decision = v.object({
  id: Id,
  occurredAt: Moment,
  verdictId: Id,
  overruled: VerdictWord,
  decision: DecisionKind,
  reason: v.string(),
  person: v.string(),
  /** False once a newer verdict said something else, or it was withdrawn. */
  stands: v.boolean(),
  withdrawn: v.boolean(),
})
export type Decision = v.InferOutput<typeof Decision>

export const Decide = v.object({
  id: Id,
  /** The verdict decided about: a newer one has to be looked at first. */
  verdictId: Id,
  decision: DecisionKind,
  reason: line(200),
})
export type Decide = v.InferOutput<typeof Decide>

const typedLimits = v.object({
  change: v.number('number-malformed'),
  plan: v.exactOptional(v.number('number-malformed')),
})
const LimitsByClass = v.object({
  'derailleur-11-up': typedLimits,
  'derailleur-to-10': typedLimits,
  'single-or-hub': typedLimits,
})
const watchShare = v.pipe(v.number('number-malformed'), v.minValue(0.3, 'watch-range'), v.maxValue(1, 'watch-range'))

/** A change of what bikes are judged by. */
export const RuleChange = v.variant('kind', [
  /** A rule of the shop's own, or a new version of any. `fromVersion` is 0 for one there is not yet. */
  v.object({
    kind: v.literal('rule'),
    ruleId: Id,
    fromVersion: v.number(),
    name: v.nullable(line(60)),
    limits: LimitsByClass,
    watchShare,
    /** Of a rule of the shop's own; null: by the physics of the drive. */
    sprocketMarks: v.exactOptional(v.nullable(MarksByClass)),
  }),
  v.object({ kind: v.literal('retire'), ruleId: Id }),
  /** The shop's own rule; "as marked" names the instrument whose mark decides. */
  v.object({ kind: v.literal('default'), ruleId: Id, markedInstrumentId: v.exactOptional(v.nullable(Id)) }),
  /** A rule for one customer; null: the shop's. */
  v.object({
    kind: v.literal('customer'),
    customerId: Id,
    ruleId: v.nullable(Id),
    markedInstrumentId: v.exactOptional(v.nullable(Id)),
  }),
  /** A fixed rhythm of looks at one customer's chains: every so many days, or whenever they are in, or as the shop's. */
  v.object({
    kind: v.literal('rhythm'),
    customerId: Id,
    days: v.nullable(
      v.pipe(
        v.number('number-malformed'),
        v.integer('rhythm-range'),
        v.minValue(1, 'rhythm-range'),
        v.maxValue(365, 'rhythm-range'),
      ),
    ),
    eachVisit: v.boolean('field-invalid'),
  }),
  /** A rule for one bike; null: its customer's. The instrument is the one whose mark decides, "as marked". */
  v.object({ kind: v.literal('bike'), bikeId: Id, ruleId: v.nullable(Id), markedInstrumentId: v.nullable(Id) }),
  /** The shop's own values for what is assumed: all of them, those left out are the shipped ones. */
  v.object({
    kind: v.literal('assumptions'),
    fromVersion: v.number(),
    overrides: v.pipe(
      v.record(v.string(), v.number('number-malformed')),
      v.description('Values by key, as #/components/schemas/Assumptions declares them.'),
    ),
  }),
])
export type RuleChange = v.InferOutput<typeof RuleChange>

/** What a change does to verdicts. */
export const Moved = v.object({
  /** Bikes judged anew. */
  judged: v.number(),
  moved: v.array(v.object({ bikeId: Id, bike: v.string(), customer: v.string(), from: VerdictWord, to: VerdictWord })),
})
export type Moved = v.InferOutput<typeof Moved>

const RuleInForce = v.object({
  ...HouseRule.entries,
  name: v.nullable(v.string()),
  isDefault: v.boolean(),
  /** Whose change mark counts, where "as marked" is the shop's rule. */
  markedInstrumentId: v.nullable(Id),
  retired: v.boolean(),
  /** Bikes judged by it now. */
  bikes: v.number(),
  versions: v.array(
    v.object({
      version: v.number(),
      limits: HouseRule.entries.limits,
      watchShare: v.number(),
      validFrom: Moment,
      person: v.nullable(v.string()),
      reason: v.nullable(v.string()),
    }),
  ),
})

export const HouseRules = v.object({
  rules: v.array(RuleInForce),
  assumptions: v.object({
    version: v.number(),
    overrides: v.record(v.string(), v.number()),
    versions: v.array(
      v.object({
        version: v.number(),
        overrides: v.record(v.string(), v.number()),
        validFrom: Moment,
        person: v.string(),
        reason: v.string(),
      }),
    ),
  }),
  /** Customers with a rhythm of their own. */
  rhythms: v.array(
    v.object({ customerId: Id, customer: v.string(), days: v.nullable(v.number()), eachVisit: v.boolean() }),
  ),
  /** Customers and bikes with a rule of their own. */
  exceptions: v.array(
    v.object({
      customerId: Id,
      customer: v.string(),
      bikeId: v.nullable(Id),
      bike: v.nullable(v.string()),
      ruleId: Id,
      markedInstrument: v.nullable(v.string()),
    }),
  ),
})
export type HouseRules = v.InferOutput<typeof HouseRules>

export const limitsEndpoints = {
  houseRules: endpoint({
    name: 'houseRules',
    method: 'GET',
    path: '/house-rules',
    summary: 'The house rules with their versions, what is assumed, and who has a rule of their own.',
    access: 'signed-in',
    result: HouseRules,
  }),
  previewRules: endpoint({
    name: 'previewRules',
    method: 'POST',
    path: '/house-rules/preview',
    summary: 'What a change would do to the verdicts, without making it.',
    access: 'owner',
    body: v.object({ change: RuleChange }),
    result: Moved,
  }),
  changeRules: endpoint({
    name: 'changeRules',
    method: 'POST',
    path: '/house-rules/changes',
    summary: 'Make a change, and judge anew every bike it concerns.',
    access: 'owner',
    body: v.object({ id: Id, change: RuleChange, reason: line(200) }),
    result: Moved,
    creates: true,
  }),
}
