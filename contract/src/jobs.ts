import {
  CHAIN_HANGS,
  CLOSE_SCHOOLS,
  JOB_OUTCOMES,
  JOB_REASONS,
  OLD_FATES,
  ON_BIKE_WAYS,
  POSITIONS,
  POT_RECIPES,
  PREPARE_SCHOOLS,
  REWAX_SCHOOLS,
  SLACK_SCHOOLS,
  STEPS,
  WAX_FINISHES,
  type JobPlan as CoreJobPlan,
  OPENED_BY,
  PRESENT_JOINTS,
} from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Pitches } from './chains.ts'
import { Click, Closing } from './closing.ts'
import { Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { FittedPart } from './fittedPart.ts'

export const StepId = v.picklist(
  STEPS.map(({ id }) => id),
  'step-unknown',
)
export const JobReason = v.picklist(JOB_REASONS, 'field-invalid')
export const JobOutcome = v.picklist(JOB_OUTCOMES, 'field-invalid')
export const OldFate = v.picklist(OLD_FATES, 'field-invalid')
export const JobPosition = v.picklist(POSITIONS, 'field-invalid')

export const JobSchools = v.object({
  slack: v.picklist(SLACK_SCHOOLS, 'field-invalid'),
  prepare: v.picklist(PREPARE_SCHOOLS, 'field-invalid'),
  close: v.picklist(CLOSE_SCHOOLS, 'field-invalid'),
  oilPins: v.boolean('field-invalid'),
})

/** How a shop waxes, where schools differ. */
export const WaxSchools = v.object({
  recipe: v.picklist(POT_RECIPES, 'field-invalid'),
  finish: v.picklist(WAX_FINISHES, 'field-invalid'),
  linkInPot: v.boolean('field-invalid'),
  /** What is done with old wax after dry rides. */
  rewax: v.picklist(REWAX_SCHOOLS, 'field-invalid'),
})

/** By which schools a shop's jobs are done and its chains are waxed; version 0 are those shipped. */
export const HouseSchools = v.object({ version: v.number(), schools: JobSchools, waxing: WaxSchools })
export type HouseSchools = v.InferOutput<typeof HouseSchools>

const PresentOnBike = v.nullable(
  v.object({
    kind: v.picklist(PRESENT_JOINTS, 'field-invalid'),
    openedBy: v.nullable(v.picklist(OPENED_BY, 'field-invalid')),
    oneUse: v.boolean('field-invalid'),
  }),
)

export const JobChoice = v.object({
  present: v.exactOptional(PresentOnBike),
  oldFate: v.exactOptional(OldFate),
  position: v.exactOptional(JobPosition),
  schools: v.exactOptional(
    v.object({
      slack: v.exactOptional(JobSchools.entries.slack),
      prepare: v.exactOptional(JobSchools.entries.prepare),
      close: v.exactOptional(JobSchools.entries.close),
      oilPins: v.exactOptional(JobSchools.entries.oilPins),
    }),
  ),
})

const hangs = v.nullable(v.picklist(CHAIN_HANGS, 'field-invalid'))
/** What was typed or chosen at a step that asks for it. */
export const JobEntry = v.variant('asks', [
  v.object({ asks: v.literal('old-count'), pitches: Pitches, small: hangs, large: hangs }),
  v.object({ asks: v.literal('way'), way: v.picklist(['marked', 'not-known'], 'field-invalid') }),
  v.object({
    asks: v.literal('size'),
    way: v.picklist(ON_BIKE_WAYS, 'field-invalid'),
    counted: Pitches,
    addPitches: v.pipe(v.number('number-malformed'), v.minValue(0, 'added-range'), v.maxValue(12, 'added-range')),
  }),
  v.object({ asks: v.literal('new-count'), pitches: Pitches }),
  v.object({ asks: v.literal('click'), click: Click }),
])
export type JobEntry = v.InferOutput<typeof JobEntry>

/** What a person did on a job, as it is sent. */
const said = v.variant('kind', [
  v.object({ kind: v.picklist(['tick', 'untick']), step: StepId }),
  v.object({ kind: v.literal('entered'), step: StepId, entry: JobEntry }),
  v.object({ kind: v.literal('left-out'), step: StepId, why: line(200) }),
  v.object({ kind: v.picklist(['outcome', 'outcome-back']), outcome: JobOutcome }),
  v.object({ kind: v.literal('choice'), choice: JobChoice }),
  v.object({ kind: v.literal('note'), text: line(400) }),
  v.object({ kind: v.picklist(['take-over', 'pause', 'resume']) }),
])
const stamped = v.object({ id: Id, at: v.number(), by: v.string() })
export const JobEvent = v.intersect([stamped, said])
export type JobEvent = v.InferOutput<typeof JobEvent>

/** What a job costs, in minor units of the shop's money: null where a price is missing. */
export const JobBill = v.object({
  minutes: v.number(),
  parts: v.array(v.object({ name: v.string(), quantity: v.number(), price: v.nullable(v.number()) })),
  labour: v.number(),
  partsCost: v.nullable(v.number()),
  total: v.nullable(v.number()),
})
export type JobBill = v.InferOutput<typeof JobBill>

/** Which parts a job puts on. */
export const JobParts = v.object({
  chainPartId: v.nullable(Id),
  chain: v.string(),
  jointPartId: v.nullable(Id),
  joint: v.nullable(v.string()),
  /** What it takes from stock, where nothing is kept for it when it is closed. */
  list: v.array(v.object({ partId: Id, quantity: v.number(), included: v.boolean() })),
  /** What it was expected to cost when it began; absent of jobs begun before there was one. */
  estimate: v.optional(v.nullable(JobBill), null),
})
export type JobParts = v.InferOutput<typeof JobParts>

/** What closing wrote, by id. */
export const JobWritten = v.object({
  oldFittingId: v.nullable(Id),
  oldChainId: v.nullable(Id),
  newFittingId: v.nullable(Id),
  newChainId: v.nullable(Id),
  jointId: v.nullable(Id),
  offcutId: v.nullable(Id),
  used: v.array(v.object({ partId: Id, quantity: v.number() })),
  minutes: v.number(),
  /** What it cost; absent of jobs closed before there was one. */
  bill: v.optional(v.nullable(JobBill), null),
  oldReason: v.nullable(JobReason),
  click: v.nullable(Click),
  /** The count it was closed with; absent of jobs closed before it was kept, and where nothing new is on. */
  pitches: v.optional(v.number()),
})
export type JobWritten = v.InferOutput<typeof JobWritten>

export const Job = v.object({
  id: Id,
  version: v.number(),
  bikeId: Id,
  state: v.picklist(['open', 'closed', 'stopped', 'undone']),
  /** The core's plan, as it was begun. */
  plan: v.custom<CoreJobPlan>((value) => typeof value === 'object' && value !== null),
  parts: JobParts,
  openedAt: Moment,
  closedAt: v.nullable(Moment),
  by: v.string(),
  events: v.array(JobEvent),
  written: v.nullable(JobWritten),
  /** Whether what closing wrote can still be taken back. */
  canUndo: v.boolean(),
})
export type Job = v.InferOutput<typeof Job>

export const jobsEndpoints = {
  houseSchools: endpoint({
    name: 'houseSchools',
    method: 'GET',
    path: '/house-rules/job-schools',
    summary: 'By which schools this shop’s jobs are done.',
    access: 'signed-in',
    result: HouseSchools,
  }),
  changeHouseSchools: endpoint({
    name: 'changeHouseSchools',
    method: 'PATCH',
    path: '/house-rules/job-schools',
    summary: 'Say by which schools jobs are done from now on; those begun keep theirs.',
    access: 'owner',
    versioned: true,
    body: v.object({ ...JobSchools.entries, waxing: v.exactOptional(WaxSchools) }),
    result: HouseSchools,
  }),
  bikeJob: endpoint({
    name: 'bikeJob',
    method: 'GET',
    path: '/bikes/:id/job',
    summary: 'The job on a bike: the open one, else the latest; null with none. With none open, what one would cost.',
    access: 'signed-in',
    params: ById,
    result: v.object({ job: v.nullable(Job), estimate: v.nullable(JobBill) }),
  }),
  openJob: endpoint({
    name: 'openJob',
    method: 'POST',
    path: '/bikes/:id/jobs',
    summary: 'Begin changing the chain, with what is known of the bike and the parts kept for it.',
    access: 'record',
    creates: true,
    params: ById,
    body: v.object({
      id: Id,
      reason: JobReason,
      oldFate: v.optional(OldFate, 'scrapped'),
    }),
    result: Job,
  }),
  jobEvent: endpoint({
    name: 'jobEvent',
    method: 'POST',
    path: '/jobs/:id/events',
    summary: 'Write down what happened on a job: a step done, an outcome, a choice, a note.',
    access: 'record',
    queued: true,
    creates: true,
    params: ById,
    body: v.intersect([v.object({ id: Id, occurredAt: Moment }), said]),
    result: Job,
  }),
  closeJob: endpoint({
    name: 'closeJob',
    method: 'POST',
    path: '/jobs/:id/close',
    summary: 'Close a job: the old chain ends, the new one begins, joint, stock and minutes are written, all at once.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({
      /** Why the old chain came off. Only worn is a chain that ran to its end. */
      oldReason: JobReason,
      oldFate: OldFate,
      ...Closing.entries,
      /** The cassette that was fitted because the new chain skipped; null: none was. */
      cassette: v.optional(v.nullable(FittedPart), null),
      minutes: v.pipe(
        v.number('number-malformed'),
        v.minValue(0, 'minutes-negative'),
        v.maxValue(24 * 60, 'minutes-many'),
      ),
      /** The count as it was fitted. */
      pitches: Pitches,
    }),
    result: Job,
  }),
  stopJob: endpoint({
    name: 'stopJob',
    method: 'POST',
    path: '/jobs/:id/stop',
    summary: 'End a job without a new chain: what was kept for it is let go, the old chain stays as it is.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({ reason: line(200) }),
    result: Job,
  }),
  undoJob: endpoint({
    name: 'undoJob',
    method: 'POST',
    path: '/jobs/:id/undo',
    summary: 'Take back what closing wrote, within the day and while nothing rests on it.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({ reason: line(200) }),
    result: Job,
  }),
}
