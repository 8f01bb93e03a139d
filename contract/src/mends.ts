import { MEND_JOINTS, type MendOption, PITCH_KINDS } from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Closing } from './closing.ts'
import { Day, Id, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

/** Why a chain broke, as far as it was found. A break has a cause: it is looked for. */
export const BREAK_CAUSES = [
  'joint-failed',
  'pin-pushed-out',
  'plate-cracked',
  'bent-in-shifting',
  'worn-through',
  'not-found',
] as const

const Count = v.pipe(
  v.number('number-malformed'),
  v.integer('number-whole'),
  v.minValue(20, 'box-range'),
  v.maxValue(400, 'box-range'),
)
const Broken = v.object({
  /** Pitches it had before, the broken one among them. */
  pitches: Count,
  broken: v.picklist(PITCH_KINDS, 'field-invalid'),
  damaged: v.pipe(
    v.array(v.pipe(v.number('number-malformed'), v.integer('number-whole'), v.minValue(0, 'damaged-elsewhere'))),
    v.minLength(1, 'damaged-none'),
  ),
})

export const MendChoice = v.object({
  joint: v.picklist(MEND_JOINTS, 'field-invalid'),
  way: v.picklist(['each', 'one-run'], 'field-invalid'),
  /** Whether pieces of the same model go in. */
  inserted: v.boolean('field-invalid'),
})

export const Mend = v.object({
  id: Id,
  at: Moment,
  person: v.string(),
  chain: v.object({ id: Id, name: v.string() }),
  ...Broken.entries,
  /** How it was mended; null where it was replaced instead. */
  option: v.nullable(v.custom<MendOption>((value) => typeof value === 'object' && value !== null)),
  cause: v.picklist(BREAK_CAUSES),
  choice: v.picklist(['mended', 'replace']),
  advised: v.string(),
  /** The day a mended chain is looked at again at the latest. */
  followUpOn: v.nullable(Day),
})
export type Mend = v.InferOutput<typeof Mend>

export const BikeMends = v.object({
  /** The chain that is on and its count now; null with none. */
  chain: v.nullable(
    v.object({
      id: Id,
      fittingId: Id,
      name: v.string(),
      pitches: v.nullable(v.number()),
      /** Pitches of it that were cut off and kept. */
      offcut: v.number(),
    }),
  ),
  /** What the rules say of pressing an old pin in again on it: excluded is not offered. */
  rePress: v.picklist(['allowed', 'caution', 'excluded']),
  mends: v.array(Mend),
  /** The shop's own values for what is assumed: the gears a count reaches follow from them. */
  assumptions: v.record(v.string(), v.number()),
})
export type BikeMends = v.InferOutput<typeof BikeMends>

export const mendsEndpoints = {
  bikeMends: endpoint({
    name: 'bikeMends',
    method: 'GET',
    path: '/bikes/:id/mends',
    summary: 'Breaks of a bike’s chains and what was done, and what mending the one that is on needs to know.',
    access: 'signed-in',
    params: ById,
    result: BikeMends,
  }),
  mendChain: endpoint({
    name: 'mendChain',
    method: 'POST',
    path: '/bikes/:id/mends',
    summary: 'Write down that a chain broke, what was found, and whether it was mended or is to be replaced.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({
      id: Id,
      /** The fitting whose chain broke. */
      fittingId: Id,
      ...Broken.entries,
      cause: v.picklist(BREAK_CAUSES, 'cause-missing'),
      choice: v.picklist(['mended', 'replace'], 'field-invalid'),
      /** How it was mended; null for a chain that is to be replaced. */
      mend: v.nullable(MendChoice),
      /** How the link clicked; null where nothing clicks. */
      ...Closing.entries,
      /** What the rider was told. */
      advised: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(600, 'text-too-long')), ''),
    }),
    result: BikeMends,
  }),
}
export type MendChain = v.InferOutput<typeof mendsEndpoints.mendChain.body>
