import { MM_PER_INCH } from '../defaults.ts'

export type LengthUnit = 'mm' | 'in'

/** What was read on a rule, as a length and as the way it was written. */
export interface ParsedLength {
  readonly lengthMm: number
  /** The unit it was read in. `cm` counts as mm. */
  readonly unit: LengthUnit
  /** True when no unit was written and Pelrin chose one. */
  readonly unitAssumed: boolean
  /** The whole mark when it was written as so far past a mark, mm; else null. */
  readonly pastMarkMm: number | null
  /** Steps per inch when a fraction was written (16, 32 …); else null. */
  readonly denominator: number | null
}

/** Why a text is not a length. Each is a key of the message catalogue. */
export type LengthProblem =
  | 'length-empty'
  | 'length-letters'
  | 'length-two-decimals'
  | 'length-negative'
  | 'length-zero'
  | 'length-fraction-zero'
  | 'length-fraction-improper'
  | 'length-too-long'
  | 'length-unfinished'
  | 'length-mixed-units'

export type LengthResult =
  { readonly ok: true; readonly length: ParsedLength } | { readonly ok: false; readonly problem: LengthProblem }

/** The longest length taken, mm: two chains' worth. Ten metres is a slip of the finger, not a chain. */
export const LONGEST_LENGTH_MM = 4000

/** A bare number below this is in inches: fewer mm than five pitches are never measured on a rule. */
const SHORTEST_BARE_MM = 61

const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
}

interface Quantity {
  readonly value: number
  readonly unit: 'mm' | 'cm' | 'in' | null
  readonly denominator: number | null
}

const UNIT = String.raw`(mm|cm|in|inch|inches|")?`
const WHOLE_AND_FRACTION = new RegExp(String.raw`^(?:(\d+)(?:\s+|-))?(\d+)\s*/\s*(\d+)\s*${UNIT}$`)
const DECIMAL = new RegExp(String.raw`^(\d+(?:[.,]\d*)?|[.,]\d+)\s*${UNIT}$`)

function unitOf(text: string | undefined): Quantity['unit'] {
  if (text === undefined) return null
  return text === 'mm' || text === 'cm' ? text : 'in'
}

function parseQuantity(text: string): Quantity | LengthProblem {
  const fraction = WHOLE_AND_FRACTION.exec(text)
  if (fraction) {
    const [, whole = '0', over = '0', under = '0', unit] = fraction
    const denominator = Number(under)
    if (denominator === 0) return 'length-fraction-zero'
    if (Number(over) >= denominator) return 'length-fraction-improper'
    return { value: Number(whole) + Number(over) / denominator, unit: unitOf(unit) ?? 'in', denominator }
  }
  const decimal = DECIMAL.exec(text)
  if (decimal) {
    const [, digits = '', unit] = decimal
    return { value: Number(digits.replace(',', '.')), unit: unitOf(unit), denominator: null }
  }
  return problemOf(text)
}

/** Names what is wrong with a text no pattern took. */
function problemOf(text: string): LengthProblem {
  if (/^[-−–]/.test(text)) return 'length-negative'
  if ((text.match(/[.,]/g) ?? []).length > 1) return 'length-two-decimals'
  if (/\d\s*\/\s*$|^\d+\s+\d+$|^\d+\s*i$|^\d+\s*c$|^\d+\s*m$/.test(text)) return 'length-unfinished'
  return 'length-letters'
}

const toMm = (value: number, unit: 'mm' | 'cm' | 'in'): number =>
  unit === 'in' ? value * MM_PER_INCH : unit === 'cm' ? value * 10 : value

/**
 * Reads a length the way mechanics write it.
 *
 * Takes a point or a comma; `mm`, `cm`, `in`, `″`; fractions (`12 3/32`, `12-3/32`, `12½`); and how far a pin
 * stands past or short of a whole mark (`12in +3/32`, `300 + 1.4`, `12in -1/64`). Without a unit a fraction is
 * in inches, and so is a number too small to be millimetres of chain; anything else is in mm.
 *
 * @returns the length, or the one problem that stands in the way (never throws)
 */
export function parseLength(text: string): LengthResult {
  const fail = (problem: LengthProblem): LengthResult => ({ ok: false, problem })
  let clean = text
    .trim()
    .toLowerCase()
    .replace(/[″”“]|''/g, '"')
    .replace(/[−–]/g, '-')
    .replace(/⁄/g, '/')
  clean = clean.replace(/(\d?)\s*([½¼¾⅛⅜⅝⅞])/g, (_, before: string, sign: string) =>
    before === '' ? VULGAR[sign]! : `${before} ${VULGAR[sign]!}`,
  )
  if (clean === '') return fail('length-empty')
  if (clean.startsWith('-')) return fail('length-negative')

  // A sign splits mark and offset. A hyphen glued between two numbers joins a whole to its fraction instead.
  const split = /^(.+?)\s*(\+|(?<=[a-z"]\s*)-|\s-\s*)\s*(.*)$/.exec(clean)
  if (split) {
    const [, markText = '', signText = '', offsetText = ''] = split
    if (offsetText.trim() === '') return fail('length-unfinished')
    const mark = parseQuantity(markText.trim())
    if (typeof mark === 'string') return fail(mark)
    const offset = parseQuantity(offsetText.trim())
    if (typeof offset === 'string') return fail(offset)
    const markUnit = mark.unit ?? bareUnit(mark.value, offset.denominator !== null)
    const offsetUnit = offset.unit ?? (markUnit === 'cm' ? 'mm' : markUnit)
    if (mark.unit !== null && offset.unit !== null && (mark.unit === 'in') !== (offset.unit === 'in'))
      return fail('length-mixed-units')
    const pastMarkMm = toMm(mark.value, markUnit)
    const sign = signText.includes('-') ? -1 : 1
    return bounded({
      lengthMm: pastMarkMm + sign * toMm(offset.value, offsetUnit),
      unit: markUnit === 'in' ? 'in' : 'mm',
      unitAssumed: mark.unit === null && offset.unit === null,
      pastMarkMm,
      denominator: offset.denominator,
    })
  }

  const quantity = parseQuantity(clean)
  if (typeof quantity === 'string') return fail(quantity)
  const unit = quantity.unit ?? bareUnit(quantity.value, false)
  return bounded({
    lengthMm: toMm(quantity.value, unit),
    unit: unit === 'in' ? 'in' : 'mm',
    unitAssumed: quantity.unit === null,
    pastMarkMm: null,
    denominator: quantity.denominator,
  })
}

function bareUnit(value: number, fractionBeside: boolean): 'mm' | 'in' {
  return fractionBeside || value < SHORTEST_BARE_MM ? 'in' : 'mm'
}

function bounded(length: ParsedLength): LengthResult {
  if (length.lengthMm < 0) return { ok: false, problem: 'length-negative' }
  if (length.lengthMm === 0) return { ok: false, problem: 'length-zero' }
  if (length.lengthMm > LONGEST_LENGTH_MM) return { ok: false, problem: 'length-too-long' }
  return { ok: true, length }
}
