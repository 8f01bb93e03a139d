import { normalCumulative, normalDensity } from '../numerics/normal.ts'

/** A mark tried at a spot whose wear is known, %. */
export interface MarkTrial {
  readonly person: string
  readonly wear: number
  /** Went in, with a push or without. */
  readonly wentIn: boolean
}

/**
 * Where a mark goes in: `fitted` with the wear at which it is as likely in as out and how sharply it turns;
 * `between` two wears when no trial contradicts another; `beyond` all of them when it always or never went in.
 */
export type MarkFit =
  | {
      readonly state: 'fitted'
      readonly at: number
      readonly u: number
      readonly sigma: number
      readonly trials: number
    }
  | { readonly state: 'between'; readonly low: number; readonly high: number; readonly trials: number }
  | {
      readonly state: 'beyond'
      readonly side: 'always-in' | 'never-in'
      readonly wear: number
      readonly trials: number
    }
  | { readonly state: 'nothing' }

const STEPS = 100
const CONVERGED = 1e-10
/** The chance of either answer is held above this, so that no single trial breaks the arithmetic. */
const FAINT = 1e-12

/**
 * Fits where a drop-in mark truly goes in, from trials at known wears: a probit, P(in) = Φ((x − m)/σ).
 *
 * Newton's method on the likelihood by Fisher scoring; u of m from the information.
 *
 * @param trials at least one of each answer, overlapping, for a fit; otherwise what can still be said
 */
export function probitMark(trials: readonly MarkTrial[]): MarkFit {
  if (trials.length === 0) return { state: 'nothing' }
  const inside = trials.filter(({ wentIn }) => wentIn).map(({ wear }) => wear)
  const outside = trials.filter(({ wentIn }) => !wentIn).map(({ wear }) => wear)
  const all = { trials: trials.length }
  if (outside.length === 0) return { state: 'beyond', side: 'always-in', wear: Math.min(...inside), ...all }
  if (inside.length === 0) return { state: 'beyond', side: 'never-in', wear: Math.max(...outside), ...all }
  const low = Math.max(...outside)
  const high = Math.min(...inside)
  // Cleanly apart: the likelihood only grows as the turn gets sharper, so all that is known is where it lies.
  if (low <= high) return { state: 'between', low, high, ...all }
  const fit = scored(trials)
  return fit === null ? { state: 'between', low: high, high: low, ...all } : { state: 'fitted', ...fit, ...all }
}

/** Fisher scoring for intercept and slope of Φ(α + βx); null when it does not settle, or more wear does not make it likelier to go in. */
function scored(trials: readonly MarkTrial[]): { at: number; u: number; sigma: number } | null {
  const wears = trials.map(({ wear }) => wear)
  const centre = wears.reduce((sum, x) => sum + x, 0) / wears.length
  const spread = Math.sqrt(wears.reduce((sum, x) => sum + (x - centre) ** 2, 0) / wears.length)
  if (spread === 0) return null
  let alpha = 0
  let beta = 1 / spread
  let information = [0, 0, 0] as [number, number, number]
  let settled = false
  for (let step = 0; step < STEPS; step++) {
    let scoreA = 0
    let scoreB = 0
    information = [0, 0, 0]
    for (const { wear, wentIn } of trials) {
      const x = wear - centre
      const z = alpha + beta * x
      const p = Math.min(1 - FAINT, Math.max(FAINT, normalCumulative(z)))
      const d = normalDensity(z)
      const pull = (d * ((wentIn ? 1 : 0) - p)) / (p * (1 - p))
      const weight = (d * d) / (p * (1 - p))
      scoreA += pull
      scoreB += pull * x
      information[0] += weight
      information[1] += weight * x
      information[2] += weight * x * x
    }
    const [aa, ab, bb] = information
    const determinant = aa * bb - ab * ab
    if (!(determinant > 0)) return null
    const moveA = (bb * scoreA - ab * scoreB) / determinant
    const moveB = (aa * scoreB - ab * scoreA) / determinant
    // Halved where it would leap: far from the answer scoring overshoots.
    const damp = Math.min(1, 2 / spread / (Math.abs(moveB) + 1e-300), 4 / (Math.abs(moveA) + 1e-300))
    alpha += damp * moveA
    beta += damp * moveB
    settled = Math.abs(moveA) + Math.abs(moveB) * spread < CONVERGED
    if (settled) break
  }
  // What has not settled is no estimate: then all that is known is where the answers overlap.
  if (!settled || !(beta > 0)) return null
  const [aa, ab, bb] = information
  const determinant = aa * bb - ab * ab
  const at = -alpha / beta
  // Delta method for −α/β.
  const variance = (bb + 2 * ab * -at + at * at * aa) / (determinant * beta * beta)
  return { at: centre + at, u: Math.sqrt(Math.max(0, variance)), sigma: 1 / beta }
}
