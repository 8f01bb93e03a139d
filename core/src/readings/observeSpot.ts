import { KINDS, hangsWholeChain } from './instrumentKinds.ts'
import type { Assumptions } from '../assumptions.ts'
import type { ExplainedInput, Explanation } from '../explanation.ts'
import { marksTyped, type MarksEntryProblem } from './gaugeMarks.ts'
import { lengthUMm, scaleU, type InstrumentRecord } from './instrumentRecord.ts'
import { parseLength, type LengthProblem, type LengthUnit } from './parseLength.ts'
import { parsePercent, type PercentProblem, type Scale } from './parsePercent.ts'
import { pastMarkOf, type PinPicture } from './pinPicture.ts'
import { pinSpanFromCaliper, type CaliperMode } from './pinSpanFromCaliper.ts'
import { spanObservation } from './spanObservation.ts'
import { temperatureCorrection, type Temperatures } from './temperature.ts'

/** One spot as it was typed. Which parts matter follows from the instrument's kind. */
export interface SpotEntry {
  /** A length, marks (`io`), or what a scale shows (`0.62`, `end`). */
  readonly typed: string
  /** Pitches counted, for lengths. Of a whole chain: its count with the connecting link. */
  readonly pitches?: number | null
  /** What a caliper's jaws touched; pin to pin unless told. */
  readonly mode?: CaliperMode
  /** Where the typed whole mark lies on the last pin, when no length was read. */
  readonly picture?: PinPicture
  /** Whether a whole chain was hung with its connecting link; it is unless told. */
  readonly linkIncluded?: boolean
}

export interface Observed {
  /** Elongation, %; absent when only bounds are known. */
  readonly value?: number
  readonly over?: number
  readonly under?: number
  /** Standard uncertainty of the value or of each bound, %, without the instrument's bias. */
  readonly u: number
  /** Pitches between the pins measured. */
  readonly pitches?: number
  /** Length between pin centres, mm, as read, and the unit it was read in. */
  readonly lengthMm?: number
  readonly unit?: LengthUnit
  /** The whole mark the length was told from, mm. */
  readonly pastMarkMm?: number
  readonly oddCount: boolean
  /** A mark went in with a push only. */
  readonly borderline: boolean
  /** What temperature added, %. */
  readonly temperature: number
  readonly explanations: readonly Explanation[]
}

export type SpotProblem =
  | LengthProblem
  | PercentProblem
  | MarksEntryProblem
  | 'count-missing'
  | 'count-malformed'
  | 'count-impossible'
  | 'shorter-than-roller'
  | 'instrument-reads-signs'

export type ObservedResult =
  | { readonly ok: true; readonly observed: Observed }
  | {
      readonly ok: false
      readonly field: 'typed' | 'pitches'
      readonly problem: SpotProblem
      readonly values?: Readonly<Record<string, string | number>>
    }

/** How a reading was taken; what is left out was not told. */
export interface Taken extends Temperatures {
  readonly load?: 'tensioned' | 'slack'
}

/** A slack run reads a little less than one under tension, by how much nobody knows: it joins the uncertainty. */
function slackened(observed: Observed, { measuring }: Assumptions): Observed {
  const u = Math.hypot(observed.u, measuring.slackU)
  return {
    ...observed,
    u,
    explanations: [
      ...observed.explanations,
      {
        rule: 'uncertainty-of-slack',
        inputs: [
          { symbol: 'u₀', meaning: 'uncertainty', value: observed.u, unit: '%' },
          { symbol: 's', meaning: 'slack-reads-less', value: measuring.slackU, unit: '%' },
        ],
        formula: 'u = √(u₀² + s²)',
        result: { value: u, unit: '%' },
      },
    ],
  }
}

/** The end of a swing-arm's travel, however it is written. */
const END_OF_TRAVEL = /^(?:end|e)$/i

/**
 * What a spot says of the chain, from what was typed and the instrument's record: the one place where any kind of
 * reading becomes an elongation or an interval, in the browser while somebody types as on the server when it is
 * saved.
 *
 * @param query `record` the instrument's record; `entry` as typed; `taken` how: temperatures of rule and chain, and under
 *   what tension, if told
 * @returns the observation, or the field at fault and why (never throws on anything typed)
 */
export function observeSpot({
  record,
  entry,
  taken = {},
  assumed,
}: {
  record: InstrumentRecord
  entry: SpotEntry
  taken?: Taken
  assumed: Assumptions
}): ObservedResult {
  const seen = observe(record, entry, taken, assumed)
  return seen.ok && taken.load === 'slack' && !hangsWholeChain(record.kind)
    ? { ok: true, observed: slackened(seen.observed, assumed) }
    : seen
}

function observe(record: InstrumentRecord, entry: SpotEntry, taken: Taken, assumed: Assumptions): ObservedResult {
  switch (record.kind) {
    case 'steel-rule':
    case 'caliper':
    case 'full-length':
      return observeLength(record, entry, taken, assumed)
    case 'drop-in':
    case 'three-contact':
    case 'two-pin':
      return observeMarks(record, entry, assumed)
    case 'swing-arm':
      return END_OF_TRAVEL.test(entry.typed.trim())
        ? { ok: true, observed: overMark(record, record.marks?.at(-1) ?? 1, false, assumed) }
        : observeScale(record, entry, { lowest: 0, highest: record.marks?.at(-1) ?? 1 }, assumed)
    case 'graduated':
      return observeScale(record, entry, { lowest: 0, highest: 1, step: 0.05 }, assumed)
    case 'digital':
      return observeScale(record, entry, { lowest: -0.5, highest: 3 }, assumed)
    case 'by-hand':
      return { ok: false, field: 'typed', problem: 'instrument-reads-signs' }
  }
}

/** The length between pin centres a text stands for, mm; a caliper's by its mode. */
export function pinSpanTyped(
  record: InstrumentRecord,
  entry: SpotEntry,
  assumed: Assumptions,
):
  | {
      readonly ok: true
      readonly lengthMm: number
      readonly unit: LengthUnit
      readonly pastMarkMm: number | null
      readonly denominator: number | null
    }
  | { readonly ok: false; readonly problem: LengthProblem | 'shorter-than-roller' } {
  const parsed = parseLength(entry.typed)
  if (!parsed.ok) return parsed
  const { lengthMm, unit, pastMarkMm, denominator } = parsed.length
  const { mode = 'pin-to-pin' } = entry
  const told = { ok: true, unit, pastMarkMm, denominator } as const
  if (KINDS[record.kind].jaws !== true || mode === 'pin-to-pin') return { ...told, lengthMm }
  const rollerMm = record.rollerMm ?? assumed.measuring.rollerMm
  if (mode === 'outside-rollers' && lengthMm <= rollerMm) return { ok: false, problem: 'shorter-than-roller' }
  return { ...told, lengthMm: pinSpanFromCaliper({ readingMm: lengthMm, mode, rollerMm }) }
}

function observeLength(
  record: InstrumentRecord,
  entry: SpotEntry,
  temperatures: Temperatures,
  assumed: Assumptions,
): ObservedResult {
  const span = pinSpanTyped(record, entry, assumed)
  if (!span.ok) return { ok: false, field: 'typed', problem: span.problem }
  const counted = entry.pitches ?? null
  if (counted === null) return { ok: false, field: 'pitches', problem: 'count-missing' }
  if (!Number.isInteger(counted) || counted < 2 || counted > 300)
    return { ok: false, field: 'pitches', problem: 'count-malformed' }
  // Without its connecting link a chain hangs from the last pin of its last inner link: one pitch fewer.
  const pitches = hangsWholeChain(record.kind) && entry.linkIncluded === false ? counted - 1 : counted
  const { measuring } = assumed
  const picture = KINDS[record.kind].pictures === true ? entry.picture : undefined
  const lengthMm = span.lengthMm + (picture === undefined ? 0 : pastMarkOf(picture, measuring.pinMm))
  const uMm = picture === undefined ? lengthUMm(record, assumed) : measuring.pictureUMm
  const made = spanObservation({ lengthMm, pitches, uMm, bias: record.bias })
  const { correction, explanation } = temperatureCorrection(record.material ?? 'steel', temperatures)
  const value = made.value + correction
  if (value < measuring.countLowest || value > measuring.countHighest)
    return {
      ok: false,
      field: 'pitches',
      problem: 'count-impossible',
      values: { pitches, elongation: value.toFixed(1) },
    }
  const corrected: Explanation = explanation
    ? {
        ...made.explanation,
        inputs: [
          ...made.explanation.inputs,
          { symbol: 'c', meaning: 'temperature-correction', value: correction, unit: '%' },
        ],
        formula: `${made.explanation.formula ?? ''} + c`,
        result: { value, unit: '%' },
        because: [explanation],
      }
    : made.explanation
  const caliper = KINDS[record.kind].jaws === true ? caliperExplained(record, entry, lengthMm, assumed) : []
  return {
    ok: true,
    observed: {
      ...(picture === 'clear' ? { over: value } : { value }),
      u: made.u,
      pitches,
      lengthMm,
      unit: span.unit,
      ...(picture !== undefined
        ? { pastMarkMm: span.lengthMm }
        : span.pastMarkMm === null
          ? {}
          : { pastMarkMm: span.pastMarkMm }),
      oddCount: made.oddCount,
      borderline: false,
      temperature: correction,
      explanations: [...caliper, corrected, ...(explanation ? [explanation] : []), made.uExplanation],
    },
  }
}

/** How a caliper's jaws lead to the pins. */
function caliperExplained(
  record: InstrumentRecord,
  { mode = 'pin-to-pin' }: SpotEntry,
  lengthMm: number,
  assumed: Assumptions,
): Explanation[] {
  if (mode === 'pin-to-pin') return []
  const rollerMm = record.rollerMm ?? assumed.measuring.rollerMm
  const inside = mode === 'inside-rollers'
  return [
    {
      rule: `caliper-${mode}`,
      inputs: [
        { symbol: 'J', meaning: 'jaw-reading', value: inside ? lengthMm - rollerMm : lengthMm + rollerMm, unit: 'mm' },
        { symbol: 'r', meaning: 'roller-diameter', value: rollerMm, unit: 'mm' },
      ],
      formula: inside ? 'L = J + r' : 'L = J − r',
      result: { value: lengthMm, unit: 'mm' },
    },
  ]
}

/** Two marks a gauge stops between, as people write it: 0.6–0.65. */
const BETWEEN = /^\s*([\d.,]+)\s*%?\s*(?:-|–|to|\/)\s*([\d.,]+)\s*%?\s*$/i

/** Where a gauge stops between two marks of its scale: in the middle of them, give or take their distance. */
function observeBetween(
  record: InstrumentRecord,
  entry: SpotEntry,
  scale: Scale,
  assumed: Assumptions,
): ObservedResult {
  const [, from = '', to = ''] = BETWEEN.exec(entry.typed) ?? []
  const [low, high] = [parsePercent(from, scale), parsePercent(to, scale)]
  const values = { lowest: scale.lowest, highest: scale.highest }
  if (!low.ok) return { ok: false, field: 'typed', problem: low.problem, values }
  if (!high.ok) return { ok: false, field: 'typed', problem: high.problem, values }
  if (high.percent <= low.percent) return { ok: false, field: 'typed', problem: 'percent-between', values }
  const value = (low.percent + high.percent) / 2 - record.bias
  const own = scaleU(record, assumed)
  const u = Math.hypot(own, (high.percent - low.percent) / Math.sqrt(12))
  return {
    ok: true,
    observed: {
      value,
      u,
      oddCount: false,
      borderline: false,
      temperature: 0,
      explanations: [
        {
          rule: 'elongation-between-marks',
          inputs: [
            { symbol: 'a', meaning: 'mark-reached', value: low.percent, unit: '%' },
            { symbol: 'b', meaning: 'mark-not-reached', value: high.percent, unit: '%' },
            { symbol: 'd', meaning: 'instrument-bias', value: record.bias, unit: '%' },
          ],
          formula: 'ε = (a + b) / 2 − d',
          result: { value, unit: '%' },
        },
        {
          rule: 'uncertainty-between-marks',
          inputs: [
            { symbol: 'u₀', meaning: 'uncertainty', value: own, unit: '%' },
            { symbol: 'a', meaning: 'mark-reached', value: low.percent, unit: '%' },
            { symbol: 'b', meaning: 'mark-not-reached', value: high.percent, unit: '%' },
          ],
          formula: 'u = √(u₀² + (b − a)² / 12)',
          result: { value: u, unit: '%' },
        },
      ],
    },
  }
}

function observeScale(record: InstrumentRecord, entry: SpotEntry, scale: Scale, assumed: Assumptions): ObservedResult {
  if (scale.step !== undefined && BETWEEN.test(entry.typed)) return observeBetween(record, entry, scale, assumed)
  const parsed = parsePercent(entry.typed, scale)
  if (!parsed.ok)
    return {
      ok: false,
      field: 'typed',
      problem: parsed.problem,
      values: { lowest: scale.lowest, highest: scale.highest },
    }
  const value = parsed.percent - record.bias
  const u = scaleU(record, assumed)
  return {
    ok: true,
    observed: {
      value,
      u,
      oddCount: false,
      borderline: false,
      temperature: 0,
      explanations: [
        {
          rule: 'elongation-from-scale',
          inputs: [
            { symbol: 'y', meaning: 'scale-value', value: parsed.percent, unit: '%' },
            { symbol: 'b', meaning: 'instrument-bias', value: record.bias, unit: '%' },
          ],
          formula: 'ε = y − b',
          result: { value, unit: '%' },
        },
        uOfInstrument(record, u),
      ],
    },
  }
}

function observeMarks(record: InstrumentRecord, entry: SpotEntry, assumed: Assumptions): ObservedResult {
  const marks = record.marks ?? []
  const parsed = marksTyped(record.kind, entry.typed, marks)
  if (!parsed.ok)
    return {
      ok: false,
      field: 'typed',
      problem: parsed.problem,
      values: { count: marks.length, steps: marks.join(', ') },
    }
  const { over, under, pushed } = parsed
  if (pushed !== undefined) return { ok: true, observed: atTheMark(record, pushed, assumed) }
  const made = {
    ...(over === undefined ? {} : { over: over - record.bias }),
    ...(under === undefined ? {} : { under: under - record.bias }),
  }
  const u = scaleU(record, assumed)
  return {
    ok: true,
    observed: {
      ...made,
      u,
      oddCount: false,
      borderline: false,
      temperature: 0,
      explanations: [
        ...(over === undefined ? [] : [markExplained('over', over, record.bias)]),
        ...(under === undefined ? [] : [markExplained('under', under, record.bias)]),
        uOfInstrument(record, u),
      ],
    },
  }
}

/** A mark that goes in with a push only: the chain is about at it. Never the same as a drop. */
function atTheMark(record: InstrumentRecord, mark: number, assumed: Assumptions): Observed {
  const { pushU } = assumed.measuring
  const markU = scaleU(record, assumed)
  const value = mark - record.bias
  const u = Math.hypot(markU, pushU)
  return {
    value,
    u,
    oddCount: false,
    borderline: true,
    temperature: 0,
    explanations: [
      {
        rule: 'at-the-mark',
        inputs: [
          { symbol: 'a', meaning: 'mark-pushed', value: mark, unit: '%' },
          { symbol: 'd', meaning: 'instrument-bias', value: record.bias, unit: '%' },
        ],
        formula: 'ε = a − d',
        result: { value, unit: '%' },
      },
      {
        rule: 'uncertainty-of-push',
        inputs: [
          { symbol: 'uₘ', meaning: 'mark-uncertainty', value: markU, unit: '%' },
          { symbol: 'p', meaning: 'push-uncertainty', value: pushU, unit: '%' },
        ],
        formula: 'u = √(uₘ² + p²)',
        result: { value: u, unit: '%' },
      },
    ],
  }
}

/** Past the top mark: the arm came to the end of its travel. */
function overMark(record: InstrumentRecord, mark: number, borderline: boolean, assumed: Assumptions): Observed {
  const u = scaleU(record, assumed)
  return {
    over: mark - record.bias,
    u,
    oddCount: false,
    borderline,
    temperature: 0,
    explanations: [markExplained('over', mark, record.bias), uOfInstrument(record, u)],
  }
}

function markExplained(side: 'over' | 'under', mark: number, bias: number): Explanation {
  const inputs: ExplainedInput[] = [
    { symbol: side === 'over' ? 'a' : 'b', meaning: side === 'over' ? 'mark-in' : 'mark-out', value: mark, unit: '%' },
    { symbol: 'd', meaning: 'instrument-bias', value: bias, unit: '%' },
  ]
  return {
    rule: side === 'over' ? 'over-the-mark' : 'under-the-mark',
    inputs,
    formula: side === 'over' ? 'ε > a − d' : 'ε < b − d',
    result: { value: mark - bias, unit: '%' },
  }
}

function uOfInstrument({ u, biasU }: InstrumentRecord, used: number): Explanation {
  return {
    rule: u === null ? 'uncertainty-of-kind' : 'uncertainty-of-record',
    inputs: [
      { symbol: 'u', meaning: 'uncertainty', value: used, unit: '%' },
      { symbol: 'uB', meaning: 'bias-uncertainty', value: biasU, unit: '%' },
    ],
    result: { value: used, unit: '%' },
  }
}

/** How far a length lies from the mark it was read against, mm, and on which side of it. */
export const fromMark = (lengthMm: number, markMm: number): { readonly mm: number; readonly past: boolean } => ({
  mm: Math.abs(lengthMm - markMm),
  past: lengthMm >= markMm,
})
