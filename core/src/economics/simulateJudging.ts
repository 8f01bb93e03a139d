import { DEFAULTS } from '../defaults.ts'
import { worstSpot } from '../readings/worstSpot.ts'
import { chainVerdict } from '../limits/chainVerdict.ts'
import { SHIPPED_RULES } from '../limits/houseRules.ts'
import { cassetteDamageRate, ringsDamageRate } from './damage.ts'

/** What a chain and the sprockets it runs on cost, in any one currency. */
export interface Prices {
  readonly name: string
  readonly chain: number
  readonly cassette: number
  readonly rings: number
  /** What it costs to measure a chain once more. */
  readonly look: number
}

/** How chains wear and how they are read. */
export interface Setting {
  /** How many of the eight places round each chain are read. */
  readonly spots: number
  /** What each reading is off by (sd), %. */
  readonly u: number
  /** How unevenly chains wear: by up to so much whatever they have worn, %; or by a share of their wear. */
  readonly uneven: 'any' | { readonly share: number }
}

/**
 * The ways of judging that are set beside each other: the verdict; the chance for the worst of all places, and for the
 * worst of those read, changed from one half without another look; the largest number taken for the truth; and the
 * largest number against a limit a fixed 0.05 % lower.
 */
export const WAYS = ['verdict', 'all-places', 'read-alone', 'plain', 'margin'] as const
export type Way = (typeof WAYS)[number]

/** How a way of judging did over many simulated chains. */
export interface Score {
  /** Mean squared distance between the chance it gave and what was so: lower is better. */
  readonly brier: number
  /** Share of sound chains it would have changed. */
  readonly wrongChanges: number
  /** Share of worn-out chains it would have let ride on, neither changed nor measured again. */
  readonly missed: number
  /** What it costs a chain until the next look, by the prices given, in their order. */
  readonly cost: readonly number[]
}

const PLACES = 8
const LIMIT = 0.5
const MARGIN = 0.05
/** Distance to the next look, and what a chain runs to its limit, thousand weighted km: a chain kept with oil. */
const AHEAD = 0.5
const LIFE = 4
const GAMMA = 1.4
const STEPS = 5
const SPOTS_MORE = 3

/**
 * Judges simulated chains of known truth. Each has eight places, N(μ, τ), with μ between 0.1 and 0.7 % and τ between
 * 0.01 and 0.1 % or a share of μ, drawn evenly: not the mixture the verdict assumes. Some of the places are read. The
 * truth is whether the worst of the eight is over 0.5 %.
 *
 * A chain that is changed costs what was left of it: the share of its distance to the limit it had not run, by
 * ε ∝ s^1.4. One that rides on costs the life it takes from cassette and rings beyond what a sound chain does, by the
 * damage law over the next 500 weighted km. One that is measured again costs the look, and is then judged by three places
 * more, or by those it has read once more.
 *
 * @param run `chains` how many, `seed` of the draws, a whole number above 0: the same seed gives the same scores
 */
export function judgeSimulated({
  chains,
  seed,
  setting,
  prices,
}: {
  readonly chains: number
  readonly seed: number
  readonly setting: Setting
  readonly prices: readonly Prices[]
}): Readonly<Record<Way, Score>> {
  const chance = new Draws(seed)
  const tallies = WAYS.map(() => ({ brier: 0, wrong: 0, missed: 0, cost: prices.map(() => 0) }))
  let sound = 0
  for (let i = 0; i < chains; i++) {
    const mu = 0.1 + 0.6 * chance.unit()
    const tau = setting.uneven === 'any' ? 0.01 + 0.09 * chance.unit() : setting.uneven.share * mu
    const truths = Array.from({ length: PLACES }, () => mu + tau * chance.normal())
    const read = (from: number, to: number): number[] =>
      truths.slice(from, to).map((truth) => truth + setting.u * chance.normal())
    const { spots } = setting
    const rounds = [read(0, spots), spots < PLACES ? read(spots, spots + SPOTS_MORE) : read(0, spots)]
    const worst = Math.max(...truths)
    const isOver = worst > LIMIT
    if (!isOver) sound++
    WAYS.forEach((way, w) => {
      const { chance: said, over, looks } = judged(way, rounds, setting.u)
      const tally = tallies[w]!
      tally.brier += (said - (isOver ? 1 : 0)) ** 2
      if (isOver && !over && looks === 0) tally.missed++
      if (!isOver && over) tally.wrong++
      prices.forEach((price, p) => {
        tally.cost[p]! += looks * price.look + (over ? wasted(worst, price) : ground(worst, price))
      })
    })
  }
  const scores = tallies.map(({ brier, wrong, missed, cost }): Score => ({
    brier: brier / chains,
    wrongChanges: wrong / Math.max(1, sound),
    missed: missed / Math.max(1, chains - sound),
    cost: cost.map((sum) => sum / chains),
  }))
  return Object.fromEntries(WAYS.map((way, w) => [way, scores[w]!])) as Record<Way, Score>
}

/** What a way says of a chain: the chance it gives first, whether it is changed in the end, and how often it was looked at once more. */
function judged(way: Way, rounds: readonly number[][], u: number): { chance: number; over: boolean; looks: number } {
  const first = rounds[0]!
  if (way === 'plain' || way === 'margin') {
    const over = Math.max(...first) > (way === 'plain' ? LIMIT : LIMIT - MARGIN)
    return { chance: over ? 1 : 0, over, looks: 0 }
  }
  if (way !== 'verdict') {
    const places = way === 'all-places' ? PLACES : first.length
    const { probabilityOver } = worstSpot({ spots: first.map((value) => ({ value, u })), limit: LIMIT, places })
    return { chance: probabilityOver, over: probabilityOver >= DEFAULTS.verdict.changeAt, looks: 0 }
  }
  const verdict = verdictOn([first], u)
  if (verdict.word !== 'measure-again')
    return { chance: verdict.probabilityOver ?? 0, over: verdict.word === 'change', looks: 0 }
  const settled = verdictOn(rounds, u)
  return { chance: verdict.probabilityOver ?? 0, over: settled.word === 'change', looks: 1 }
}

const verdictOn = (rounds: readonly number[][], u: number) =>
  chainVerdict({
    readings: rounds.map((read, i) => ({
      id: `r${i}`,
      occurredAt: i * 60_000,
      chainKm: null,
      source: 'shop',
      instrument: { id: 'i', kind: 'digital', biasU: 0 },
      spots: read.map((value) => ({ value, u })),
    })),
    drive: { type: 'derailleur', speeds: 11 },
    rule: { ...SHIPPED_RULES[0], id: 'by-speeds', version: 1 },
    chain: { kmSinceFittedNew: null },
    instruments: [],
    assumptions: {},
  })

/** What is thrown away with a chain that comes off, of its price. */
const wasted = (worst: number, { chain }: Prices): number =>
  chain * Math.max(0, 1 - Math.pow(Math.max(0, worst) / LIMIT, 1 / GAMMA))

/** What a chain that rides on costs cassette and rings beyond what a sound one does. */
function ground(worst: number, { cassette, rings }: Prices): number {
  const law = { limit: LIMIT, lifeToLimit: LIFE }
  const rate = (elongation: number): number =>
    cassette * cassetteDamageRate(elongation, law, DEFAULTS.economics) +
    rings * ringsDamageRate(elongation, law, DEFAULTS.economics)
  const s = LIFE * Math.pow(Math.max(0, worst) / LIMIT, 1 / GAMMA)
  let cost = 0
  for (let i = 0; i < STEPS; i++) {
    const worn = LIMIT * Math.pow((s + ((i + 0.5) / STEPS) * AHEAD) / LIFE, GAMMA)
    cost += (rate(worn) - rate(0)) * (AHEAD / STEPS)
  }
  return cost
}

/** A small seeded generator (mulberry32): simulations need no better, and the core takes no package for it. */
class Draws {
  constructor(private state: number) {}

  unit(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0
    let t = this.state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }

  normal(): number {
    return Math.sqrt(-2 * Math.log(1 - this.unit())) * Math.cos(2 * Math.PI * this.unit())
  }
}
