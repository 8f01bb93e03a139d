import type { StudyResult } from '@pelrin/contract'

/** To a thousandth of a per cent: finer than any study can tell. */
const round = (value: number): number => Math.round(value * 1000) / 1000

/** What a study would write to its instrument's record; null where it says too little. */
export function recordFrom(result: StudyResult): { u: number | null; bias: number | null; biasU: number } | null {
  if (result.kind === 'values') {
    const { parts, repeatability, bias } = result
    // One reading by anybody; with one person only, what that person repeats to.
    const u = parts?.gauge.sd ?? repeatability?.sd ?? null
    if (u === null || u === 0) return null
    return { u: round(Math.max(0.001, u)), bias: bias ? round(bias.value) : null, biasU: bias ? round(bias.u) : 0 }
  }
  const fitted = result.marks.flatMap(({ mark, fit }) =>
    fit.state === 'fitted' ? [{ bias: mark - fit.at, u: fit.u, sigma: fit.sigma }] : [],
  )
  if (fitted.length === 0) return null
  const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length
  return {
    u: round(Math.max(0.001, mean(fitted.map(({ sigma }) => sigma)))),
    bias: round(mean(fitted.map(({ bias }) => bias))),
    biasU: round(Math.hypot(...fitted.map(({ u }) => u)) / fitted.length),
  }
}
