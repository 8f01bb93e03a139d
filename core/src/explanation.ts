/** Units a number in an explanation can have. `pitches`, `probability` and the like are counted, not measured. */
export type Unit =
  | 'mm'
  | 'in'
  | '%'
  | 'km'
  | 'mi'
  | 'days'
  | 'pitches'
  | 'teeth'
  | 'rad'
  | 'probability'
  | 'spots'
  | 'visits'
  | 'u'
  | '°C'
  | 'ppm/°C'
  | 'kg'
  | 'text'

/** One thing a result was made from. `meaning` and textual values are keys of the message catalogue. */
export interface ExplainedInput {
  /** The symbol used in the formula, such as `L` or `n`. */
  readonly symbol: string
  /** Catalogue key of what it stands for. */
  readonly meaning: string
  readonly value: number | string
  readonly unit: Unit
}

/**
 * Why a number is what it is. Made by the function that made the number, from the very values it used,
 * so that what the screen says cannot drift from what was computed.
 */
export interface Explanation {
  /** Catalogue key of the rule applied. */
  readonly rule: string
  readonly inputs: readonly ExplainedInput[]
  /** In the symbols of the inputs; no words, so it needs no translation. Absent where the rule is not a formula. */
  readonly formula?: string
  readonly result: { readonly value: number | string; readonly unit: Unit }
  /** What the inputs themselves came from. */
  readonly because?: readonly Explanation[]
}
