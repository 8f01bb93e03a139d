import type { Assumptions } from '../assumptions.ts'
import { SMALLEST_CHANGE } from '../studies/gaugeStudy.ts'
import { entryForm, measuresNothing, ROUND_MINUTES, type InstrumentKind } from './instrumentKinds.ts'
import { lengthUMm, scaleU, type InstrumentRecord } from './instrumentRecord.ts'
import { PITCH_MM } from '../defaults.ts'

/** Pitches a length is usually read over: a foot of rule, the jaws of a caliper, a whole chain. */
const USUAL_RUN: Readonly<Partial<Record<InstrumentKind, number>>> = {
  'steel-rule': 24,
  caliper: 16,
  'full-length': 112,
}

/** What an instrument is good for. */
export interface WhatItSees {
  /** For three places, or for the whole chain off its bike. */
  readonly minutes: number
  /** One standard deviation of a reading with it, its bias's own included, %. */
  readonly u: number
  /** The least change in wear two readings with it show for sure, 95 in 100, %. */
  readonly smallestChange: number
  /** It answers at these and nowhere between, %; null where it reads any value. */
  readonly marks: readonly number[] | null
}

/**
 * What an instrument costs in time and what it can tell, by its record; null for one that measures nothing.
 *
 * 1.96·√2·u is what two readings have to differ by to differ truly.
 */
export function whatItSees(record: InstrumentRecord, assumed: Assumptions): WhatItSees | null {
  const { kind, biasU, marks } = record
  if (measuresNothing(kind)) return null
  const run = USUAL_RUN[kind]
  const own =
    entryForm(kind) === 'length' && run !== undefined
      ? (100 * lengthUMm(record, assumed)) / (run * PITCH_MM)
      : scaleU(record, assumed)
  const u = Math.hypot(own, biasU)
  return {
    minutes: ROUND_MINUTES[kind],
    u,
    smallestChange: SMALLEST_CHANGE * u,
    marks: entryForm(kind) === 'marks' ? [...(marks ?? [])].sort((a, b) => a - b) : null,
  }
}
