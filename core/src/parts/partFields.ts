import { COATINGS } from './describe.ts'
import { teethOrderProblem, teethProblem } from '../length/teeth.ts'
import type { PartProblem } from './partProblems.ts'

/** What there is in a catalogue. */
export const PART_KINDS = [
  'chain',
  'link',
  'pin',
  'clip',
  'cassette',
  'ring',
  'derailleur',
  'pulley',
  'rotor',
  'pads',
  'tyre',
  'consumable',
  'tool',
] as const
export type PartKind = (typeof PART_KINDS)[number]

/** How parts of a catalogue name others: systems by their name, a maker's chains by theirs. */
export interface PartNames {
  readonly systemId: (name: string) => string | undefined
  readonly systemName: (id: string) => string | undefined
  readonly chainId: (maker: string, name: string) => string | undefined
  readonly chainName: (id: string) => string | undefined
}

/** What a person fills in a field with, for the form that asks for it. */
export type FieldInput =
  | { readonly kind: 'text' }
  | { readonly kind: 'long-text' }
  | { readonly kind: 'number'; readonly unit?: 'mm' | 'money' | 'pitches' | 'teeth' }
  | { readonly kind: 'numbers' }
  | { readonly kind: 'choice'; readonly choices: readonly string[]; readonly mayBeEmpty: boolean }
  | { readonly kind: 'choices'; readonly choices: readonly string[] }
  | { readonly kind: 'systems' }
  | { readonly kind: 'chains' }
  | { readonly kind: 'yes-no' }
  | { readonly kind: 'reuse' }

type Read = { readonly value: unknown } | { readonly problem: PartProblem }

/** One field of a part: how it is asked for, read from text, and written as text. */
export interface PartField {
  readonly key: string
  readonly input: FieldInput
  readonly read: (text: string, context: { readonly names: PartNames; readonly maker: string }) => Read
  readonly write: (value: unknown, names: PartNames) => string
}

const value = (of: unknown): Read => ({ value: of })
const problem = (code: PartProblem): Read => ({ problem: code })
const parts = (text: string, apart: RegExp): string[] =>
  text
    .split(apart)
    .map((one) => one.trim())
    .filter((one) => one !== '')

/** A number with a point or a comma, with blanks, points or commas between thousands; NaN when it is none. */
export function readNumber(text: string): number {
  const clean = text
    .trim()
    .replace('−', '-')
    .replace(/(?<=\d)[\s\u00a0\u202f'](?=\d{3}(\D|$))/g, '')
  if (!/^-?[\d.,]+$/.test(clean)) return NaN
  const last = Math.max(clean.lastIndexOf('.'), clean.lastIndexOf(','))
  if (last < 0) return Number(clean)
  const [whole, rest] = [clean.slice(0, last), clean.slice(last + 1)]
  // A sign that stands twice, or before another, parts thousands; the last one, alone of its kind, is the decimal sign.
  if (whole.includes(clean[last]!))
    return /^-?\d{1,3}([.,]\d{3})+$/.test(clean) ? Number(clean.replace(/[.,]/g, '')) : NaN
  if (!/^-?\d{0,3}([.,]\d{3})*$|^-?\d*$/.test(whole) || !/^\d*$/.test(rest)) return NaN
  return Number(`${whole.replace(/[.,]/g, '')}.${rest === '' ? '0' : rest}`)
}

const text = (key: string, { empty }: { empty: boolean }, long = false): PartField => ({
  key,
  input: { kind: long ? 'long-text' : 'text' },
  read: (typed) =>
    typed === ''
      ? empty
        ? value(null)
        : problem('text-missing')
      : /^[=@+\t]|^-(?!\d)/.test(typed)
        ? // A spreadsheet would compute it.
          problem('cell-formula')
        : typed.length > (long ? 400 : 60)
          ? problem('text-too-long')
          : value(typed),
  write: (of) => (of as string | null) ?? '',
})

const number = (
  key: string,
  {
    unit,
    empty,
    whole = false,
    times = 1,
    decimals,
  }: {
    unit?: 'mm' | 'money' | 'pitches' | 'teeth'
    empty?: number | null
    whole?: boolean
    times?: number
    decimals?: number
  },
): PartField => ({
  key,
  input: { kind: 'number', ...(unit === undefined ? {} : { unit }) },
  read: (typed) => {
    if (typed === '') return empty === undefined ? problem('number-missing') : value(empty)
    const found = readNumber(typed)
    if (Number.isNaN(found)) return problem('number-malformed')
    if (whole && !Number.isInteger(found)) return problem('number-whole')
    return value(times === 1 ? found : Math.round(found * times))
  },
  write: (of) => {
    if (of === null || of === undefined) return ''
    const shown = (of as number) / times
    return decimals === undefined ? String(shown) : shown.toFixed(decimals)
  },
})

/** Whole numbers apart by blanks, commas or strokes; `6-8` is 6, 7 and 8. */
function readNumbers(typed: string): number[] {
  return parts(typed, /[\s,;/]+/).flatMap((one) => {
    const run = /^(\d+)[-–](\d+)$/.exec(one)
    if (!run) return [/^\d+$/.test(one) ? Number(one) : NaN]
    const [from, to] = [Number(run[1]), Number(run[2])]
    return to > from && to - from < 20 ? Array.from({ length: to - from + 1 }, (_, i) => from + i) : [NaN]
  })
}

const numbers = (key: string, check: (found: number[]) => PartProblem | null): PartField => ({
  key,
  input: { kind: 'numbers' },
  read: (typed) => {
    const found = readNumbers(typed)
    const wrong = found.some(Number.isNaN) ? 'teeth-malformed' : check(found)
    return wrong === null ? value(found) : problem(wrong)
  },
  write: (of) => (of as number[]).join(' '),
})

const choice = (key: string, choices: readonly string[], empty?: string | null): PartField => ({
  key,
  input: { kind: 'choice', choices, mayBeEmpty: empty === null },
  read: (typed) => {
    if (typed === '') return empty === undefined ? problem('choice-unknown') : value(empty)
    const found = choices.find((one) => one.toLowerCase() === typed.toLowerCase())
    return found === undefined ? problem('choice-unknown') : value(found)
  },
  write: (of) => (of as string | null) ?? '',
})

const choices = (key: string, known: readonly string[]): PartField => ({
  key,
  input: { kind: 'choices', choices: known },
  read: (typed) => {
    const found = parts(typed.toLowerCase(), /[,;/]+/)
    return found.every((one) => known.includes(one)) ? value([...new Set(found)]) : problem('choice-unknown')
  },
  write: (of) => (of as string[]).join(', '),
})

const systems = (key: string): PartField => ({
  key,
  input: { kind: 'systems' },
  read: (typed, { names }) => {
    const found = parts(typed, /[,;]+/).map(names.systemId)
    return found.includes(undefined) ? problem('system-unknown') : value([...new Set(found)])
  },
  write: (of, names) => (of as string[]).map((id) => names.systemName(id) ?? '').join(', '),
})

const chains = (key: string): PartField => ({
  key,
  input: { kind: 'chains' },
  read: (typed, { names, maker }) => {
    const found = parts(typed, /[,;]+/).map((name) => names.chainId(maker, name))
    return found.includes(undefined) ? problem('chain-unknown') : value(found)
  },
  write: (of, names) => (of as string[]).map((id) => names.chainName(id) ?? '').join(', '),
})

const YES: readonly string[] = ['yes', 'y', 'true', '1', 'x']
const NO: readonly string[] = ['no', 'n', 'false', '0', '']
const yesNo = (key: string): PartField => ({
  key,
  input: { kind: 'yes-no' },
  read: (typed) =>
    YES.includes(typed.toLowerCase())
      ? value(true)
      : NO.includes(typed.toLowerCase())
        ? value(false)
        : problem('yes-no-unknown'),
  write: (of) => (of === true ? 'yes' : 'no'),
})

/** `once`, a number of times, or `firm`: until it no longer clicks firmly. */
const reuse: PartField = {
  key: 'reuse',
  input: { kind: 'reuse' },
  read: (typed) => {
    if (typed === '' || typed.toLowerCase() === 'once') return value({ kind: 'once' })
    if (typed.toLowerCase() === 'firm') return value({ kind: 'firm' })
    return /^\d+$/.test(typed) ? value({ kind: 'times', most: Number(typed) }) : problem('reuse-unknown')
  },
  write: (of) => {
    const { kind, most } = of as { kind: string; most?: number }
    return kind === 'times' ? String(most) : kind
  },
}

const speeds = numbers('speeds', () => null)
const profile = choice('profile', ['plain', 'asymmetric', 'flat-top'], 'plain')
const roller = choice('roller', ['standard', 'large'], 'standard')
const outerMm = number('outerMm', { unit: 'mm', empty: null })
const JOINT: readonly PartField[] = [
  speeds,
  profile,
  roller,
  outerMm,
  systems('systems'),
  reuse,
  chains('belongsTo'),
  yesNo('arrow'),
  yesNo('letteredOut'),
  choice('openedBy', ['hand', 'pliers', 'never'], 'pliers'),
  yesNo('greased'),
  choice('guide', ['snapped', 'pulled'], null),
  text('sheet', { empty: true }, true),
]

/** What names a part, and what the shop has of it and asks for it. */
export const COMMON_FIELDS: readonly PartField[] = [
  text('maker', { empty: false }),
  text('name', { empty: false }),
  number('price', { unit: 'money', empty: null, times: 100, decimals: 2 }),
  number('stock', { empty: 0, whole: true }),
  number('reorderPoint', { empty: 0, whole: true }),
]

/** What else is to be known of a part, in words. */
const SAID = text('remark', { empty: true }, true)

/** What is to be said of each kind of part. */
export const PART_FIELDS: Readonly<Record<PartKind, readonly PartField[]>> = {
  chain: [
    speeds,
    number('innerMm', { unit: 'mm', empty: null }),
    outerMm,
    profile,
    roller,
    systems('approvedFor'),
    systems('excludedFrom'),
    choices('joints', ['link', 'pin', 're-press', 'clip']),
    yesNo('flaredPins'),
    yesNo('markedOut'),
    choice('coating', COATINGS, 'plain'),
    yesNo('motorRated'),
    text('level', { empty: true }),
    number('inBox', { unit: 'pitches', whole: true }),
    choice('jointInBox', ['none', 'link', 'pin', 'preset-pin'], 'none'),
  ],
  link: JOINT,
  pin: JOINT,
  clip: JOINT,
  cassette: [
    numbers('sprockets', (found) =>
      found.length === 0 ? 'teeth-missing' : (teethProblem(found) ?? teethOrderProblem(found)),
    ),
    systems('systems'),
  ],
  ring: [
    numbers('teeth', (found) => (found.length === 0 ? 'teeth-missing' : teethProblem(found))),
    choice('width', ['3/32', '1/8'], '3/32'),
    yesNo('wideNarrow'),
    speeds,
  ],
  derailleur: [
    speeds,
    systems('systems'),
    number('capacityTeeth', { unit: 'teeth', whole: true }),
    number('largestSprocketTeeth', { unit: 'teeth', whole: true }),
    numbers('pulleys', (found) => (found.length === 2 ? teethProblem(found) : 'pulleys-two')),
    yesNo('clutch'),
    yesNo('cageLock'),
    number('addPitches', { unit: 'pitches', empty: null, whole: true }),
    number('addPitchesSuspended', { unit: 'pitches', empty: null, whole: true }),
    yesNo('pulleysCounted'),
  ],
  pulley: [numbers('teeth', (found) => (found.length === 0 ? 'teeth-missing' : teethProblem(found))), SAID],
  rotor: [number('minimumMm', { unit: 'mm', empty: null }), SAID],
  pads: [SAID],
  tyre: [SAID],
  consumable: [SAID],
  tool: [SAID],
}
