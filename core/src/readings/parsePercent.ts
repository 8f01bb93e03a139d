/** Why a text is not what a gauge shows. Keys of the message catalogue. */
export type PercentProblem =
  | 'percent-letters'
  | 'percent-two-decimals'
  | 'percent-is-length'
  | 'percent-low'
  | 'percent-high'
  | 'percent-step'
  | 'percent-between'

export type PercentResult =
  { readonly ok: true; readonly percent: number } | { readonly ok: false; readonly problem: PercentProblem }

/** What a gauge's scale can show, %. */
export interface Scale {
  readonly lowest: number
  readonly highest: number
  /** Its divisions, %; absent for a display. */
  readonly step?: number
}

/**
 * Reads an elongation as a gauge shows it: `0.62`, `0,62`, `.62`, with or without `%`.
 *
 * A number no chain can show, such as 203.2, is named as the length it probably is.
 *
 * @returns the elongation in %, or the one problem that stands in the way (never throws)
 */
export function parsePercent(text: string, scale: Scale): PercentResult {
  const clean = text.trim().replace(/\s*%$/, '').replace(/[−–]/g, '-')
  if ((clean.match(/[.,]/g) ?? []).length > 1) return { ok: false, problem: 'percent-two-decimals' }
  if (/^\d+(?:[.,]\d+)?\s*(?:mm|in|")$/i.test(clean)) return { ok: false, problem: 'percent-is-length' }
  if (!/^-?(?:\d+(?:[.,]\d*)?|[.,]\d+)$/.test(clean)) return { ok: false, problem: 'percent-letters' }
  const percent = Number(clean.replace(',', '.'))
  if (percent > 60) return { ok: false, problem: 'percent-is-length' }
  if (percent < scale.lowest) return { ok: false, problem: 'percent-low' }
  if (percent > scale.highest + 1e-9) return { ok: false, problem: 'percent-high' }
  if (scale.step !== undefined) {
    const steps = percent / scale.step
    if (Math.abs(steps - Math.round(steps)) > 1e-6) return { ok: false, problem: 'percent-step' }
  }
  return { ok: true, percent }
}
