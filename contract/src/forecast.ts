import * as v from 'valibot'
import { CARE_KINDS, SURFACES, WITHHELD } from '@pelrin/core'
import { Id, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

export const CareKind = v.picklist(CARE_KINDS, 'field-invalid')
export const Surface = v.picklist(SURFACES, 'field-invalid')

export const WearPrior = v.object({ life: v.number(), lifeSd: v.number(), gamma: v.number(), gammaSd: v.number() })

export const RideRate = v.object({
  kmPerDay: v.number(),
  weekScatter: v.number(),
  meanScatter: v.number(),
  basis: v.picklist(['recent', 'older', 'statement', 'shop', 'none']),
})

/** What is known of a chain's life beside its readings; distances in thousand weighted km. */
export const ChainLife = v.object({
  care: CareKind,
  start: v.union([v.picklist(['fitted', 'unknown']), v.object({ value: v.number(), u: v.number() })]),
  sNow: v.nullable(v.number()),
  at: v.number(),
  usualFactor: v.number(),
  rate: RideRate,
  prior: WearPrior,
})

/** Kilometres by surface. */
export const SurfaceKm = v.object({
  indoor: v.number(),
  dry: v.number(),
  damp: v.number(),
  wet: v.number(),
  gritty: v.number(),
  unknown: v.number(),
})

const ChainAt = v.object({ at: v.number(), km: v.nullable(v.number()), s: v.nullable(v.number()) })

/** What a chain's distance rests on since the last value its bike's odometer showed: the screen goes on from there while somebody types. */
export const DistanceTail = v.object({
  recorded: ChainAt,
  odometer: v.nullable(v.object({ ...ChainAt.entries, shownKm: v.number() })),
  rides: v.array(
    v.object({
      id: Id,
      from: v.number(),
      to: v.number(),
      km: v.number(),
      surface: v.nullable(Surface),
      profile: v.exactOptional(v.array(v.object({ at: v.number(), share: v.number() }))),
    }),
  ),
  before: v.array(
    v.object({
      from: v.number(),
      to: v.number(),
      km: v.number(),
      surface: v.nullable(Surface),
      rideId: v.nullable(Id),
    }),
  ),
  mixBefore: SurfaceKm,
  unsaidKm: v.object({ atOdometer: v.number(), atReadings: v.record(v.string(), v.number()) }),
  fittedFrom: v.number(),
  usualFactor: v.number(),
})

const Quantiles = v.tuple([v.number(), v.number(), v.number()])

/** When a chain crosses its limit, as the core gives it. */
export const ChainForecast = v.object({
  withheld: v.nullable(v.picklist(WITHHELD)),
  limit: v.number(),
  sNow: v.number(),
  crossing: Quantiles,
  kmLeft: Quantiles,
  daysLeft: v.tuple([v.nullable(v.number()), v.nullable(v.number()), v.nullable(v.number())]),
  overNow: v.number(),
  overAhead: v.number(),
  next: v.object({ s: v.number(), km: v.number(), days: v.number() }),
  /** Days after the last recorded moment on which the chance of being over reaches each of the chances an outlook keeps. */
  reached: v.array(v.number()),
  doubt: v.number(),
})

/** Where a long piece of work stands. */
export const JobProgress = v.object({
  id: v.string(),
  state: v.picklist(['waiting', 'running', 'done', 'cancelled', 'failed']),
  done: v.number(),
  of: v.number(),
  startedAt: v.nullable(Moment),
  finishedAt: v.nullable(Moment),
})
export type JobProgress = v.InferOutput<typeof JobProgress>

/** What was learned of one care, or of a care on one usual surface. */
export const LearnedGroup = v.object({
  care: CareKind,
  surface: v.nullable(Surface),
  chains: v.number(),
  shipped: WearPrior,
  life: v.number(),
  lifeRange: v.tuple([v.number(), v.number()]),
  lifeSd: v.number(),
  heldOutGain: v.number(),
  adopted: v.boolean(),
})
export type LearnedGroup = v.InferOutput<typeof LearnedGroup>

/** What was learned of kilometres nobody said the surface of. */
export const LearnedUnsaid = v.object({
  factor: v.number(),
  range: v.tuple([v.number(), v.number()]),
  chains: v.number(),
  heldOutGain: v.number(),
  adopted: v.boolean(),
})
export type LearnedUnsaid = v.InferOutput<typeof LearnedUnsaid>

/** How forecasts, as they were made at the time, came true by the readings after them. */
export const Calibration = v.object({
  care: CareKind,
  forecasts: v.number(),
  /** Share of later readings inside their predicted 90 %. */
  inside: v.number(),
  /** Median distance of the reading from what was predicted, %; the same of the straight line. */
  error: v.number(),
  lineError: v.nullable(v.number()),
})

export const Insight = v.object({
  learned: v.nullable(
    v.object({
      version: v.number(),
      learnedAt: Moment,
      person: v.string(),
      groups: v.array(LearnedGroup),
      /** Null with too few such chains. */
      unsaid: v.nullable(LearnedUnsaid),
    }),
  ),
  versions: v.array(
    v.object({ version: v.number(), learnedAt: Moment, person: v.string(), undoneAt: v.nullable(Moment) }),
  ),
  /** Chains with two readings or more, by care: how many there are to learn from. */
  chains: v.array(v.object({ care: CareKind, chains: v.number(), shipped: WearPrior })),
  calibration: v.array(Calibration),
  job: v.nullable(JobProgress),
})
export type Insight = v.InferOutput<typeof Insight>

export const forecastEndpoints = {
  insight: endpoint({
    name: 'insight',
    method: 'GET',
    path: '/insight',
    summary: 'What the shop has learned of its chains, and how its forecasts came true.',
    access: 'signed-in',
    result: Insight,
  }),
  learn: endpoint({
    name: 'learn',
    method: 'POST',
    path: '/insight/learning',
    summary: 'Learn the life of the shop’s chains anew; every bike’s forecast follows in the background.',
    access: 'owner',
    body: v.object({ id: Id }),
    result: Insight,
    creates: true,
  }),
  undoLearning: endpoint({
    name: 'undoLearning',
    method: 'POST',
    path: '/insight/undo',
    summary: 'Take the newest learning back: the one before it, or the shipped values, are in force again.',
    access: 'owner',
    body: v.object({ version: v.number() }),
    result: Insight,
    creates: true,
  }),
  forecastShop: endpoint({
    name: 'forecastShop',
    method: 'POST',
    path: '/forecasts',
    summary: 'Forecast every chain of the shop anew, in the background.',
    access: 'forecast',
    body: v.object({ id: Id }),
    result: JobProgress,
    creates: true,
  }),
  forecastProgress: endpoint({
    name: 'forecastProgress',
    method: 'GET',
    path: '/forecasts/progress',
    summary: 'Where the whole-shop forecast stands; null when none was ever made.',
    access: 'signed-in',
    result: v.object({ job: v.nullable(JobProgress) }),
  }),
  cancelForecast: endpoint({
    name: 'cancelForecast',
    method: 'POST',
    path: '/forecasts/cancellation',
    summary: 'Stop the whole-shop forecast after the chain it is at. What is done stays.',
    access: 'forecast',
    body: v.object({ id: v.string() }),
    result: v.object({ job: v.nullable(JobProgress) }),
    creates: true,
  }),
}
