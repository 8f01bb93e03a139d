import * as v from 'valibot'
import {
  CARE_KINDS,
  CELSIUS_RANGE,
  HAND_SIGNS,
  PIN_PICTURES,
  APART,
  CALIPER_MODES,
  CARE_REASONS,
  DISAGREEMENT_SETTLES,
  WEAR_ITEM_IDS,
} from '@pelrin/core'
import { Day, DistanceUnit, Explanation, Id, line, Moment, PageLimit, SortWay } from './common.ts'
import { endpoint } from './endpoint.ts'
import { ChainForecast, DistanceTail } from './forecast.ts'
import { InstrumentKind } from './instruments.ts'
import { Standing } from './standing.ts'
import {
  Decide,
  Decision,
  DecisionKind,
  DriveType,
  EarlierChain,
  SprocketAdvice,
  StoredVerdict,
  VerdictFlag,
  VerdictInput,
  VerdictWord,
} from './limits.ts'

/** A spot as small wear rules draw it, %. */
export const SpotMark = v.object({
  value: v.nullable(v.number()),
  over: v.nullable(v.number()),
  under: v.nullable(v.number()),
  u: v.number(),
  worst: v.boolean(),
})
export type SpotMark = v.InferOutput<typeof SpotMark>

/** What lists show of a bike: facts as of the last one taken in, and how it stands today. */
export const BikeSummary = v.object({
  id: Id,
  label: v.string(),
  tag: v.string(),
  frameMark: v.nullable(v.string()),
  customer: v.object({ id: Id, name: v.string() }),
  drive: v.object({
    type: DriveType,
    speeds: v.number(),
    fronts: v.array(v.number()),
    sprockets: v.array(v.number()),
  }),
  /** What its latest verdict said, as a fact of its day. */
  verdict: VerdictWord,
  /** What it shows today. */
  standing: Standing,
  advice: v.nullable(SprocketAdvice),
  flags: v.array(VerdictFlag),
  /** The chance of being over the limit when it was measured. */
  probabilityOver: v.nullable(v.number()),
  median: v.nullable(v.number()),
  limit: v.number(),
  marks: v.array(SpotMark),
  /** What a mechanic decided otherwise; null where the verdict stands alone. */
  decision: v.nullable(DecisionKind),
  /** When the chain was last measured; null if never. */
  measuredAt: v.nullable(Moment),
  /** The day the next look is due; null when the chain is to come off. */
  checkOn: v.nullable(Day),
  /** Whether it is looked at whenever it is in. */
  eachVisit: v.boolean(),
  chainKm: v.nullable(v.number()),
  /** The day by which the chain is over its limit with an even chance; null when no forecast is shown. */
  overOn: v.nullable(Day),
  /** When its chain is treated next; null where its care is not known. */
  care: v.nullable(
    v.object({
      dueOn: Day,
      /** Whoever rides it treats it. */
      atHome: v.boolean(),
      because: v.picklist(CARE_REASONS),
      checkFirst: v.boolean(),
    }),
  ),
})
export type BikeSummary = v.InferOutput<typeof BikeSummary>

export const RackState = v.picklist(['change', 'measure', 'closing-in', 'overdue', 'keep-riding'])
export type RackState = v.InferOutput<typeof RackState>

/** Columns the rack can be put in order by; without one: soonest trouble first. */
export const RACK_SORTS = ['bike', 'drive', 'wear', 'chance', 'ran', 'measured', 'next'] as const
export type RackSort = (typeof RACK_SORTS)[number]

const RackQuery = v.object({
  q: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(80, 'text-too-long'))),
  state: v.optional(RackState),
  drive: v.optional(DriveType),
  sort: v.optional(v.picklist(RACK_SORTS, 'field-invalid')),
  /** Which way round: `up` has the least first. */
  way: v.optional(SortWay, 'up'),
  cursor: v.optional(v.pipe(v.string(), v.maxLength(200, 'cursor-malformed'))),
  limit: v.optional(PageLimit, '60'),
})

export const CaliperMode = v.picklist(CALIPER_MODES, 'field-invalid')
export const PinPicture = v.picklist(PIN_PICTURES, 'field-invalid')
export const HandSign = v.picklist(HAND_SIGNS, 'field-invalid')

const celsius = v.pipe(
  v.number('celsius-range'),
  v.minValue(CELSIUS_RANGE.lowest, 'celsius-range'),
  v.maxValue(CELSIUS_RANGE.highest, 'celsius-range'),
)

/** Where and how a reading was taken. What is left out was not told. */
export const Conditions = v.object({
  run: v.picklist(['lower', 'upper'], 'field-invalid'),
  load: v.exactOptional(v.picklist(['tensioned', 'slack'], 'field-invalid')),
  ruleCelsius: v.exactOptional(celsius),
  chainCelsius: v.exactOptional(celsius),
  /** A whole chain: what it was hung with, kg. */
  preloadKg: v.exactOptional(
    v.pipe(v.number('preload-range'), v.minValue(0, 'preload-range'), v.maxValue(50, 'preload-range')),
  ),
})
export type Conditions = v.InferOutput<typeof Conditions>

/** A run as it was typed and what became of it. */
export const Spot = v.object({
  id: Id,
  position: v.number(),
  place: v.nullable(v.number()),
  typed: v.nullable(v.string()),
  lengthMm: v.nullable(v.number()),
  pitches: v.nullable(v.number()),
  value: v.nullable(v.number()),
  over: v.nullable(v.number()),
  under: v.nullable(v.number()),
  u: v.number(),
  mode: v.nullable(CaliperMode),
  picture: v.nullable(PinPicture),
  linkIncluded: v.nullable(v.boolean()),
  oddCount: v.boolean(),
  borderline: v.boolean(),
  explanations: v.array(Explanation),
})
export type Spot = v.InferOutput<typeof Spot>

const readingEntries = {
  id: Id,
  occurredAt: Moment,
  recordedAt: Moment,
  person: v.string(),
  source: v.picklist(['shop', 'customer']),
  instrument: v.object({ id: Id, name: v.string(), kind: InstrumentKind, recordVersion: v.number() }),
  hint: v.nullable(v.picklist(['worn', 'nothing'])),
  signs: v.array(HandSign),
  /** Who held the instrument, where it was not who wrote it down. */
  reader: v.nullable(v.string()),
  baseline: v.boolean(),
  conditions: Conditions,
  note: v.nullable(v.string()),
  spots: v.array(Spot),
  odometer: v.nullable(v.object({ id: Id, typed: v.string(), km: v.number(), unit: DistanceUnit })),
  chainKm: v.nullable(v.number()),
  /** Why it was corrected, on the reading that corrects. */
  reason: v.nullable(v.string()),
}

/** A reading that stands, with those it corrected beneath, newest first. */
export const Reading = v.object({
  ...readingEntries,
  corrected: v.array(v.object(readingEntries)),
  /** An apprentice's, and no mechanic has looked at it yet. */
  unlooked: v.boolean(),
})
export type Reading = v.InferOutput<typeof Reading>
export type CorrectedReading = Reading['corrected'][number]

/** Two readings of one chain set side by side. Elongations in %. */
export const Disagreement = v.object({
  a: Id,
  b: Id,
  apart: v.picklist(APART),
  places: v.array(v.number()),
  gap: v.number(),
  u: v.number(),
  beyond: v.boolean(),
  trust: v.nullable(Id),
  because: v.picklist(['in-date', 'smaller-u', 'neither']),
  evidence: v.nullable(v.object({ instrumentId: Id, bias: v.number(), u: v.number() })),
  settle: v.array(v.picklist(DISAGREEMENT_SETTLES)),
})
export type Disagreement = v.InferOutput<typeof Disagreement>

/** A part of the catalogue and its price, in hundredths of the shop's money. */
export const OwnPrice = v.object({ name: v.string(), price: v.number() })
export type OwnPrice = v.InferOutput<typeof OwnPrice>

export const BikeRecord = v.object({
  summary: BikeSummary,
  version: v.number(),
  maker: v.nullable(v.string()),
  model: v.nullable(v.string()),
  kind: v.string(),
  weightKg: v.nullable(v.number()),
  notes: v.string(),
  goneOn: v.nullable(Day),
  /** What it was entered as a second time, where everything of it is now. */
  mergedInto: v.nullable(v.object({ id: Id, label: v.string() })),
  /** Entered twice, and made one with it within the day: still to be taken back. */
  merged: v.array(v.object({ id: Id, label: v.string(), tag: v.string() })),
  /** When its picture was taken in, by which its address tells one from the next. */
  picture: v.nullable(v.object({ at: Moment, width: v.number(), height: v.number() })),
  customer: v.object({ id: Id, name: v.string(), phone: v.nullable(v.string()) }),
  chain: v.nullable(
    v.object({
      id: Id,
      fittingId: Id,
      name: v.string(),
      pitches: v.nullable(v.number()),
      fittedAt: Moment,
      start: v.picklist(['fitted', 'stated', 'unknown']),
      care: v.picklist(CARE_KINDS),
      /** It was fitted new a little while ago and nobody has measured it yet. */
      baselineWanted: v.boolean(),
      /** Its length when new, hung whole; null if nobody measured it so. */
      whenNew: v.nullable(
        v.object({
          lengthMm: v.number(),
          pitches: v.number(),
          preloadKg: v.number(),
          ruleCelsius: v.exactOptional(v.number()),
          chainCelsius: v.exactOptional(v.number()),
        }),
      ),
    }),
  ),
  lastOdometer: v.nullable(v.object({ km: v.number(), at: Moment, unit: DistanceUnit })),
  /** The end of its ledger, for the chain now on; null with none. */
  distanceTail: v.nullable(DistanceTail),
  /** Why the chain's distance is what it is; null when it is not known. */
  distanceExplanation: v.nullable(Explanation),
  verdict: v.nullable(StoredVerdict),
  readings: v.array(Reading),
  /** Other things that happened: fittings, odometer values without a reading, chain events; newest first. */
  events: v.array(
    v.object({
      id: Id,
      at: Moment,
      kind: v.picklist([
        'fitted',
        'came-with',
        'taken-off',
        'odometer',
        'shortened',
        'cut',
        'rejoined',
        'lengthened',
        'part-on',
        'part-off',
      ]),
      /** Of a part that is no chain: what it is. */
      item: v.nullable(v.picklist(WEAR_ITEM_IDS)),
      value: v.nullable(v.number()),
      text: v.nullable(v.string()),
      person: v.nullable(v.string()),
    }),
  ),
  verdictInput: v.nullable(VerdictInput),
  /** The shop's own values for what is assumed. */
  assumptions: v.record(v.string(), v.number()),
  /** When the chain will be done, as of the last recorded moment; null when its distance is not known. */
  forecast: v.nullable(ChainForecast),
  /** What the chain on it, and the cassette and rings of its teeth, cost by the catalogue; null where that is not known. */
  ownPrices: v.object({ chain: v.nullable(OwnPrice), cassette: v.nullable(OwnPrice), rings: v.nullable(OwnPrice) }),
  /** Where the chain that is on was when the cassette was fitted, thousand weighted km; 0 for one as old as the cassette, or younger. */
  sprocketsFrom: v.number(),
  /** Chains that ran on its sprockets before, or in turn, each as it was when it came off. */
  earlierChains: v.array(EarlierChain),
  /** Decisions otherwise, of the chain now fitted, newest first. */
  decisions: v.array(Decision),
  /** Readings of the present round that do not agree, widest apart first. */
  disagreements: v.array(Disagreement),
  /** How its rule is chosen. */
  ruleChoice: v.object({
    ownRuleId: v.nullable(Id),
    customerRuleId: v.nullable(Id),
    markedInstrumentId: v.nullable(Id),
    customerMarkedInstrumentId: v.nullable(Id),
  }),
  /** The customer's own rhythm of looks; null where the shop's holds. */
  rhythm: v.nullable(v.object({ days: v.nullable(v.number()), eachVisit: v.boolean() })),
})
export type BikeRecord = v.InferOutput<typeof BikeRecord>

export const BikeTag = v.pipe(line(12), v.regex(/^[\p{L}\p{N}-]+$/u, 'tag-malformed'))

const WeightKg = v.pipe(v.number('number-malformed'), v.minValue(2, 'weight-range'), v.maxValue(120, 'weight-range'))

export const ChangeBike = v.object({
  label: v.exactOptional(line(60)),
  tag: v.exactOptional(BikeTag),
  frameMark: v.exactOptional(v.nullable(line(40))),
  notes: v.exactOptional(v.pipe(v.string('text-missing'), v.maxLength(2000, 'text-too-long'))),
  kind: v.exactOptional(line(30)),
  maker: v.exactOptional(v.nullable(line(60))),
  model: v.exactOptional(v.nullable(line(60))),
  weightKg: v.exactOptional(v.nullable(WeightKg)),
  /** The day it was sold or left for good; null: it is still here. */
  goneOn: v.exactOptional(v.nullable(Day)),
})
export type ChangeBike = v.InferOutput<typeof ChangeBike>

export const BikeDetails = v.object({
  id: Id,
  version: v.number(),
  label: v.string(),
  tag: v.string(),
  frameMark: v.nullable(v.string()),
  notes: v.string(),
  kind: v.string(),
  maker: v.nullable(v.string()),
  model: v.nullable(v.string()),
  weightKg: v.nullable(v.number()),
  goneOn: v.nullable(Day),
})

export const ById = v.object({ id: Id })

export const bikesEndpoints = {
  rack: endpoint({
    name: 'rack',
    method: 'GET',
    path: '/bikes',
    summary: 'Every bike, soonest trouble first or by a column, a page at a time.',
    access: 'signed-in',
    query: RackQuery,
    result: v.object({
      bikes: v.array(BikeSummary),
      /** Send back as `cursor` for the next page; null on the last. */
      next: v.nullable(v.string()),
      /** How many bikes match, and how many there are in each state. */
      total: v.number(),
      counts: v.record(v.string(), v.number()),
    }),
  }),
  find: endpoint({
    name: 'find',
    method: 'GET',
    path: '/find',
    summary: 'Find a bike by part of its customer, tag, label or frame mark, typos forgiven.',
    access: 'signed-in',
    query: v.object({ q: v.pipe(v.string('text-missing'), v.trim(), v.maxLength(80, 'text-too-long')) }),
    result: v.array(BikeSummary),
  }),
  bike: endpoint({
    name: 'bike',
    method: 'GET',
    path: '/bikes/:id',
    summary: 'One bike’s whole record.',
    access: 'signed-in',
    params: ById,
    result: BikeRecord,
  }),
  decide: endpoint({
    name: 'decide',
    method: 'POST',
    path: '/bikes/:id/decisions',
    summary:
      'Decide otherwise than the verdict says. Decision, reason and person stand beside it; the chain stays flagged.',
    access: 'decide',
    params: ById,
    body: Decide,
    result: BikeRecord,
    creates: true,
  }),
  withdrawDecision: endpoint({
    name: 'withdrawDecision',
    method: 'POST',
    path: '/decisions/:id/withdrawal',
    summary: 'Take a decision back: the verdict stands alone again.',
    access: 'decide',
    params: ById,
    body: v.object({ id: Id, reason: line(200) }),
    result: BikeRecord,
    creates: true,
  }),
  changeBike: endpoint({
    name: 'changeBike',
    method: 'PATCH',
    path: '/bikes/:id',
    summary: 'Change what a bike is called, its tag, frame mark or notes.',
    access: 'customers',
    params: ById,
    body: ChangeBike,
    result: BikeDetails,
    versioned: true,
  }),
  dropPicture: endpoint({
    name: 'dropPicture',
    method: 'POST',
    path: '/bikes/:id/picture/removal',
    summary: 'Take a bike’s picture away.',
    access: 'stand',
    creates: true,
    params: ById,
    result: BikeRecord,
  }),
}
