import type { Assumptions } from '../assumptions.ts'

/** How an instrument's reading is entered: a length, its marks, a place on its scale, or what hands notice. */
export type EntryForm = 'length' | 'marks' | 'scale' | 'signs'

/** What a kind of instrument is: one entry here, a drawing, and its words; nothing else asks which kind it is. */
interface Kind {
  readonly entry: EntryForm
  /** What it looks at: places round the chain, the whole of it hung, or nothing it could put a number to. */
  readonly looksAt: 'places' | 'whole-chain' | 'nothing-measured'
  /** Which assumed value its own uncertainty is, where its record has none; null: it has none at all. */
  readonly u: Extract<keyof Assumptions['measuring'], `${string}U` | `${string}UMm`> | null
  /** Marks it can have, at most; 0: none. */
  readonly marks: number
  /** Its marks are told one by one by a thumb. */
  readonly pad?: true
  /** It closes on pins or rollers, which it measures between in several ways. */
  readonly jaws?: true
  /** A pin's end is read on it in pictures, with no number. */
  readonly pictures?: true
  /** One can be connected, and sends what it reads. */
  readonly connects?: true
}

export const INSTRUMENT_KINDS = [
  'steel-rule',
  'caliper',
  'drop-in',
  'three-contact',
  'two-pin',
  'swing-arm',
  'graduated',
  'digital',
  'full-length',
  'by-hand',
] as const
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number]

export const KINDS: Readonly<Record<InstrumentKind, Kind>> = {
  'steel-rule': { entry: 'length', looksAt: 'places', u: 'steelRuleUMm', marks: 0, pictures: true },
  caliper: { entry: 'length', looksAt: 'places', u: 'caliperUMm', marks: 0, jaws: true },
  'drop-in': { entry: 'marks', looksAt: 'places', u: 'dropInMarkU', marks: 4, pad: true },
  'three-contact': { entry: 'marks', looksAt: 'places', u: 'threeContactMarkU', marks: 4, pad: true },
  'two-pin': { entry: 'marks', looksAt: 'places', u: 'twoPinMarkU', marks: 16 },
  'swing-arm': { entry: 'scale', looksAt: 'places', u: 'swingArmU', marks: 4 },
  graduated: { entry: 'scale', looksAt: 'places', u: 'graduatedU', marks: 0 },
  digital: { entry: 'scale', looksAt: 'places', u: 'digitalU', marks: 0, connects: true },
  'full-length': { entry: 'length', looksAt: 'whole-chain', u: 'fullLengthUMm', marks: 0 },
  'by-hand': { entry: 'signs', looksAt: 'nothing-measured', u: null, marks: 0 },
}

/** Usual minutes of a round of three places, or of hanging a whole chain that has to come off first. */
export const ROUND_MINUTES: Readonly<Record<InstrumentKind, number>> = {
  'steel-rule': 3,
  caliper: 2.5,
  'drop-in': 1,
  'three-contact': 1,
  'two-pin': 2,
  'swing-arm': 1,
  graduated: 1,
  digital: 1.5,
  'full-length': 12,
  'by-hand': 0.5,
}

export const entryForm = (kind: InstrumentKind): EntryForm => KINDS[kind].entry
export const looksAtPlaces = (kind: InstrumentKind): boolean => KINDS[kind].looksAt === 'places'
export const hangsWholeChain = (kind: InstrumentKind): boolean => KINDS[kind].looksAt === 'whole-chain'
export const measuresNothing = (kind: InstrumentKind): boolean => KINDS[kind].looksAt === 'nothing-measured'
