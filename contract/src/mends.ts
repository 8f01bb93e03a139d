import { MEND_JOINTS, type MendOption, PITCH_KINDS } from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { ChainJoint, Pitches } from './chains.ts'
import { Closing } from './closing.ts'
import { Day, Id, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { CareKind } from './forecast.ts'
import { Handling } from './handling.ts'

/** Why a chain broke, as far as it was found. A break has a cause: it is looked for. */
export const BREAK_CAUSES = [
  'joint-failed',
  'pin-pushed-out',
  'plate-cracked',
  'bent-in-shifting',
  'worn-through',
  'not-found',
] as const

const Broken = v.object({
  /** Pitches it had before, the broken one among them. */
  pitches: Pitches,
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
  /** For the way home only: it is changed before it is ridden on. A pin that must not be pressed in again is pressed in for no other. */
  roadside: v.boolean('field-invalid'),
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
  /** It was mended for the way home only. */
  roadside: v.boolean(),
  /** Its pitches were put back since. */
  addedBackAt: v.nullable(Moment),
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
      /** What it is closed with; null: nobody looked. */
      joint: v.nullable(ChainJoint),
      /** That is a link, and may be closed once more without a word about it. */
      ownLink: v.boolean(),
    }),
  ),
  /** What the way off and on again follows from; null without a chain. */
  handling: v.nullable(Handling),
  care: CareKind,
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
  addPitchesBack: endpoint({
    name: 'addPitchesBack',
    method: 'POST',
    path: '/bikes/:id/mends/:mendId/added',
    summary: 'Put pitches back into a chain that was shortened when it was mended: a piece between joints of its own.',
    access: 'work',
    creates: true,
    params: v.object({ id: Id, mendId: Id }),
    body: v.object({
      id: Id,
      fittingId: Id,
      /** Pitches that are added, its new links among them; even. */
      add: v.pipe(
        v.number('number-malformed'),
        v.integer('number-whole'),
        v.minValue(2, 'add-back-range'),
        v.maxValue(40, 'add-back-range'),
      ),
      /** The piece that was cut off it and kept, or one of the same model: that one wears differently from the rest. */
      from: v.picklist(['offcut', 'same-model'], 'field-invalid'),
      by: v.picklist(['link', 'pin'], 'field-invalid'),
      ...Closing.entries,
    }),
    result: BikeMends,
  }),
}
export type AddPitchesBack = v.InferOutput<typeof mendsEndpoints.addPitchesBack.body>
export type MendChain = v.InferOutput<typeof mendsEndpoints.mendChain.body>
