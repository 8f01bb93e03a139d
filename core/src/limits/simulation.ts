import { SHIPPED_RULES } from './houseRules.ts'
import { chainVerdict } from './chainVerdict.ts'

/** How a way of judging did over many simulated chains. */
export interface Score {
  /** Mean squared distance between the chance it gave and what was so: lower is better. */
  readonly brier: number
  /** Share of sound chains it would have changed. */
  readonly wrongChanges: number
  /** Share of worn-out chains it would have let ride on, neither changed nor measured again. */
  readonly missed: number
}

/**
 * Judges simulated chains of known truth on eight noisy spots, by the verdict and by the plain worst number.
 *
 * A chain's spots are N(μ, τ) with μ between 0.1 and 0.7 % and τ between 0.01 and 0.1 %, drawn evenly: not the
 * mixture the verdict assumes. Each is read with u = 0.06 %. The truth is whether the worst of the eight is over
 * 0.5 %. The plain way says "over" when the largest number is.
 *
 * @param run `chains` how many; `seed` of the draws, a whole number above 0: the same seed gives the same scores
 */
export function judgeSimulated({ chains, seed }: { chains: number; seed: number }): {
  readonly pelrin: Score
  readonly plain: Score
} {
  const unit = uniform(seed)
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - unit())) * Math.cos(2 * Math.PI * unit())
  const LIMIT = 0.5
  const U = 0.06
  const rule = { ...SHIPPED_RULES[0], id: 'by-speeds', version: 1 }
  const tally = { pelrin: { brier: 0, wrong: 0, missed: 0 }, plain: { brier: 0, wrong: 0, missed: 0 } }
  let sound = 0
  for (let i = 0; i < chains; i++) {
    const mu = 0.1 + 0.6 * unit()
    const tau = 0.01 + 0.09 * unit()
    const truths = Array.from({ length: 8 }, () => mu + tau * normal())
    const read = truths.map((truth) => truth + U * normal())
    const isOver = Math.max(...truths) > LIMIT
    const verdict = chainVerdict({
      readings: [
        {
          id: 'r',
          occurredAt: 0,
          chainKm: null,
          source: 'shop',
          instrument: { id: 'i', kind: 'digital', biasU: 0 },
          spots: read.map((value) => ({ value, u: U })),
        },
      ],
      drive: { type: 'derailleur', speeds: 11 },
      rule,
      chain: { kmSinceFittedNew: null },
      instruments: [],
      assumptions: {},
    })
    const chance = verdict.probabilityOver ?? 0
    const plainOver = Math.max(...read) > LIMIT
    tally.pelrin.brier += (chance - (isOver ? 1 : 0)) ** 2
    tally.plain.brier += plainOver === isOver ? 0 : 1
    if (isOver) {
      if (verdict.word === 'keep-riding' || verdict.word === 'closing-in') tally.pelrin.missed++
      if (!plainOver) tally.plain.missed++
    } else {
      sound++
      if (verdict.word === 'change') tally.pelrin.wrong++
      if (plainOver) tally.plain.wrong++
    }
  }
  const score = ({ brier, wrong, missed }: { brier: number; wrong: number; missed: number }): Score => ({
    brier: brier / chains,
    wrongChanges: wrong / Math.max(1, sound),
    missed: missed / Math.max(1, chains - sound),
  })
  return { pelrin: score(tally.pelrin), plain: score(tally.plain) }
}

/** A small seeded generator (mulberry32): simulations need no better, and the core takes no package for it. */
function uniform(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}
