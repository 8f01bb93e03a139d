import type { PotSession } from './potSession.ts'
import { isBetter, type PotChain, type PotPlan, type PotScore } from './potTypes.ts'

/** What a search came to. */
export interface SearchedPot {
  /** The best found; null where nothing was better than what there was. */
  readonly plan: PotPlan | null
  /** Whether everything was looked at: then nothing is less late or sooner over. */
  readonly whole: boolean
}

/** Chains that have still to be stripped, that can go in, and that hang. */
interface Left {
  readonly toStrip: readonly PotChain[]
  readonly ready: readonly PotChain[]
  readonly hanging: readonly PotChain[]
}

interface Step {
  readonly place: () => void
  readonly then: Left
}

interface Tried extends Step {
  readonly late: number
  readonly finish: number
}

/**
 * Looks through every order of what hands do at the pot, chain by chain and dip by dip, into every pot: branch and bound.
 *
 * What comes after a beginning is not looked at where it cannot be less late, or sooner over, than the best known; nor where
 * the same was come to in another order; nor where two chains that are alike but for when they are wanted would be taken the wrong
 * way round.
 *
 * @param best what there is already
 * @param steps how many pieces of work may be placed in the search
 * @param aim `sooner`: what is less late or sooner over; `fewer-visits`: also what is neither, and brings somebody back less often
 */
export function searchPot(
  session: PotSession,
  left: Left,
  best: PotScore,
  steps: number,
  aim: 'sooner' | 'fewer-visits',
): SearchedPot {
  let least = best
  let plan: PotPlan | null = null
  let stepsLeft = steps
  const seen = new Set<string>()

  const hopeless = (late: number, finish: number): boolean =>
    late !== least.late
      ? late > least.late
      : aim === 'sooner'
        ? finish >= least.finish
        : finish > least.finish || least.interruptions <= 1

  const go = (left: Left): void => {
    if (left.toStrip.length + left.ready.length + left.hanging.length === 0) {
      const score = session.score()
      if (!isBetter(score, least)) return
      least = score
      plan = session.plan()
      return
    }
    const tried: Tried[] = []
    for (const step of stepsFrom(session, left)) {
      if (stepsLeft <= 0) return
      stepsLeft--
      const mark = session.mark()
      step.place()
      const state = session.state()
      if (!seen.has(state)) {
        seen.add(state)
        const { late, finish } = session.atLeast(step.then)
        if (!hopeless(late, finish)) tried.push({ ...step, late, finish })
      }
      session.backTo(mark)
    }
    tried.sort((a, b) => a.late - b.late || a.finish - b.finish)
    for (const { place, then, late, finish } of tried) {
      if (stepsLeft <= 0) return
      // Something better may have been found since.
      if (hopeless(late, finish)) continue
      const mark = session.mark()
      place()
      go(then)
      session.backTo(mark)
    }
  }
  go(left)
  return { plan, whole: stepsLeft > 0 }
}

const due = ({ readyBy }: PotChain): number => readyBy ?? Infinity
const from = ({ notBefore }: PotChain): number => notBefore ?? 0

/** Whether one of two comes first wherever both could: wanted no later, and with what it is otherwise no worse. */
const goesFirst = (one: PotChain, other: PotChain, noWorse: boolean): boolean =>
  noWorse && due(one) <= due(other) && (due(one) < due(other) || one.id < other.id)

const without = (chains: readonly PotChain[], ...taken: readonly PotChain[]): PotChain[] =>
  chains.filter((one) => !taken.includes(one))

/** Everything hands could do next. */
function* stepsFrom(session: PotSession, { toStrip, ready, hanging }: Left): Generator<Step> {
  for (const chain of hanging) {
    const sooner = (other: PotChain): boolean =>
      goesFirst(other, chain, session.hungUntil(other.id) <= session.hungUntil(chain.id))
    if (hanging.some(sooner)) continue
    yield {
      place: () => session.flex([chain.id]),
      then: { toStrip, ready, hanging: without(hanging, chain) },
    }
  }
  for (const dip of dipsOf(session, ready))
    for (const pot of session.potsFor(dip.length))
      yield {
        place: () =>
          session.dip(
            dip.map(({ id }) => id),
            pot,
          ),
        then: { toStrip, ready: without(ready, ...dip), hanging: [...hanging, ...dip] },
      }
  for (const chain of toStrip) {
    const sooner = (other: PotChain): boolean =>
      goesFirst(other, chain, other.recipe === chain.recipe && from(other) <= from(chain))
    if (toStrip.some(sooner)) continue
    yield {
      place: () => session.strip(chain.id),
      then: { toStrip: without(toStrip, chain), ready: [...ready, chain], hanging },
    }
  }
}

/** Chains that could go in together, most first. */
function dipsOf(session: PotSession, ready: readonly PotChain[]): PotChain[][] {
  const dips: PotChain[][] = []
  for (let bits = (1 << ready.length) - 1; bits > 0; bits--) {
    const dip = ready.filter((_, i) => (bits >> i) & 1)
    const { recipe } = dip[0]!
    if (dip.length > session.most || dip.some((one) => one.recipe !== recipe)) continue
    const passedOver = without(ready, ...dip).some((other) =>
      dip.some((one) =>
        goesFirst(
          other,
          one,
          other.recipe === recipe && session.dryAtOf(other.id) <= session.dryAtOf(one.id) && from(other) <= from(one),
        ),
      ),
    )
    if (!passedOver) dips.push(dip)
  }
  return dips
}
