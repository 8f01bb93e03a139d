import { byPromise, PotSession } from './potSession.ts'
import { searchPot } from './searchPot.ts'
import { isBetter, type PotChain, type PotInput, type PotPlan, type PotScore } from './potTypes.ts'

/** So many chains are planned by looking through everything; more by improving a good order. */
export const EXHAUSTIVE_CHAINS = 7
/** With a few more a search goes on from the improved order for a while: it finds what no exchange of chains does. */
const SEARCHED_CHAINS = 12
/** Pieces of work a search may place: enough to look through everything with seven, but for a few in a hundred. */
const STEPS = 250_000
const STEPS_BEYOND = 10_000
const STEPS_FOR_VISITS = 6_000
/** Chains placed in improving an order: fixed, so that a plan is the same every time. */
const TRIED_CHAINS = 100_000

/** A plan, and what taking the chains as they came would have cost. */
export interface PlannedPot {
  readonly plan: PotPlan
  readonly firstCome: PotScore
}

/**
 * Plans a session at the wax pot: which chains go into it together, and when, so that as few minutes as can be are late over all
 * promises; then that it is over early; then that nobody comes back to it more often than has to be.
 *
 * What is begun stays as it is. A plan never has more in bath, pot or on the rail than they take, nor more hands at work than
 * there are; no chain is waxed before it is stripped and dry. With up to {@link EXHAUSTIVE_CHAINS} chains still to go in everything is
 * looked through, and nothing is less late or sooner over (of one or two sessions in a hundred that is not proved before the steps give
 * out); with more it is a good plan. Never worse than first come, first served.
 *
 * @param input chains in the order they came, and the shop; minutes from now
 * @param meanwhile is given a good plan before a search begins that may take seconds; not called where nothing is searched
 * @throws RangeError where nothing could ever be waxed: no pot, no rail, no bath for what needs one, no hands
 */
export function planPot(input: PotInput, meanwhile?: (planned: PlannedPot) => void): PlannedPot {
  check(input)
  const session = new PotSession(input)
  const free = input.chains.filter(({ stage }) => stage.kind !== 'in-pot' && stage.kind !== 'hanging')
  const begun = flexGroups(input, session)
  const came = batches(free, session.most)
  const firstCome = place(session, begun, { order: came, ...PLAIN })
  const best = [came, batches([...free].sort(byPromise), session.most), singles(free)]
    .flatMap((order) => POLICIES.map((policy) => ({ order, ...policy })))
    .map((way): Found => ({ way, score: place(session, begun, way) }))
    .reduce((one, other) => (isBetter(other.score, one.score) ? other : one))
  const improved = improve(session, begun, best, Math.ceil(TRIED_CHAINS / Math.max(1, free.length)))
  const mark = session.mark()
  runThrough(session, begun, improved.way)
  const good: PlannedPot = { plan: session.plan(), firstCome }
  if (free.length > SEARCHED_CHAINS) return good
  session.backTo(mark)
  meanwhile?.(good)
  const searched = search(session, input, free, improved.score)
  return searched ? { plan: searched, firstCome } : good
}

/** Something better than what there is, by looking through what hands could do; null where nothing is. */
function search(session: PotSession, input: PotInput, free: readonly PotChain[], best: PotScore): PotPlan | null {
  const left = {
    toStrip: free.filter(({ id }) => session.isToStrip(id)),
    ready: free.filter(({ id }) => !session.isToStrip(id)),
    hanging: input.chains.filter((chain) => !free.includes(chain)),
  }
  const steps = free.length > EXHAUSTIVE_CHAINS ? STEPS_BEYOND : STEPS
  const sooner = searchPot(session, left, best, steps, 'sooner').plan
  return searchPot(session, left, sooner ?? best, STEPS_FOR_VISITS, 'fewer-visits').plan ?? sooner
}

type Order = readonly (readonly string[])[]
/** What hands do first where several things wait for them. */
interface Policy {
  /** Everything is stripped before anything is dipped; or each before its own dip. */
  readonly stripAhead: boolean
  /** Chains are flexed as soon as they have hung, before what is dipped next; by the clock; or after everything else. */
  readonly flex: 'first' | 'by-the-clock' | 'last'
}
interface Way extends Policy {
  readonly order: Order
}
interface Found {
  readonly way: Way
  readonly score: PotScore
}

const PLAIN: Policy = { stripAhead: false, flex: 'by-the-clock' }
const POLICIES: readonly Policy[] = [false, true].flatMap((stripAhead) =>
  (['by-the-clock', 'first', 'last'] as const).map((flex) => ({ stripAhead, flex })),
)

function check({ chains, shop }: PotInput): void {
  if (shop.pots.length === 0) throw new RangeError('there is no pot')
  if (!(shop.mechanics >= 1)) throw new RangeError('nobody is there to work at the pot')
  if (!(shop.railCapacity >= 1) || shop.pots.some(({ capacity }) => !(capacity >= 1)))
    throw new RangeError('a pot and a rail take at least one chain')
  if (!(shop.stripCapacity >= 1) && chains.some(({ needs }) => needs === 'strip'))
    throw new RangeError('there is no bath to strip in')
  if (new Set(chains.map(({ id }) => id)).size !== chains.length) throw new RangeError('each chain once')
}

/** Chains that hang, or are in a pot, to be flexed in the groups they come off the rail in. */
function flexGroups({ chains }: PotInput, session: PotSession): Order {
  const hanging = chains.filter(({ stage }) => stage.kind === 'hanging').map(({ id }) => [id])
  return [...hanging, ...session.dips.map((dip) => session.promised(dip.chains))]
}

/** Chains as they come, together with those after them of the same recipe. */
function batches(chains: readonly PotChain[], most: number): Order {
  const order: string[][] = []
  let recipe: string | null = null
  for (const chain of chains) {
    const last = order.at(-1)
    if (last && recipe === chain.recipe && last.length < most) last.push(chain.id)
    else order.push([chain.id])
    recipe = chain.recipe
  }
  return order
}

const singles = (chains: readonly PotChain[]): Order => [...chains].sort(byPromise).map(({ id }) => [id])

/** Places dips in their order, and what hands do beside them by the policy. */
function runThrough(session: PotSession, begun: Order, { order, stripAhead, flex }: Way): void {
  let hanging = [...begun]
  const flexUntil = (minute: number): void => {
    const due = hanging.filter(([id]) => session.hungUntil(id!) <= minute)
    hanging = hanging.filter((group) => !due.includes(group))
    for (const group of due.sort((a, b) => session.hungUntil(a[0]!) - session.hungUntil(b[0]!))) session.flex(group)
  }
  if (stripAhead) for (const id of order.flat()) if (session.isToStrip(id)) session.strip(id)
  for (const dip of order) {
    if (flex !== 'last') flexUntil(flex === 'first' ? Infinity : session.nextLoad())
    session.dip(dip)
    hanging.push(dip)
  }
  flexUntil(Infinity)
}

function place(session: PotSession, begun: Order, way: Way): PotScore {
  const mark = session.mark()
  runThrough(session, begun, way)
  const score = session.score()
  session.backTo(mark)
  return score
}

/** Moves chains between dips, and dips among themselves, as long as that helps and tries are left. */
function improve(session: PotSession, begun: Order, start: Found, most: number): Found {
  let best = start
  let tries = most
  for (let again = true; again && tries > 0;) {
    again = false
    for (const order of neighbours(best.way.order, session.most)) {
      if (tries-- === 0) break
      if (!order.every((dip) => session.oneRecipe(dip))) continue
      const way = { ...best.way, order }
      const score = place(session, begun, way)
      if (!isBetter(score, best.score)) continue
      best = { way, score }
      again = true
      break
    }
  }
  return best
}

/** Orders one step away: a chain into another dip or one of its own, two dips exchanged, two made one. */
function* neighbours(order: Order, most: number): Generator<Order> {
  const without = (id: string): string[][] => order.map((dip) => dip.filter((one) => one !== id))
  const kept = (dips: string[][]): Order => dips.filter((dip) => dip.length > 0)
  for (let i = 0; i + 1 < order.length; i++) {
    const swapped = [...order]
    swapped[i] = order[i + 1]!
    swapped[i + 1] = order[i]!
    yield swapped
    if (order[i]!.length + order[i + 1]!.length <= most)
      yield [...order.slice(0, i), [...order[i]!, ...order[i + 1]!], ...order.slice(i + 2)]
  }
  for (const [i, dip] of order.entries())
    for (const id of dip) {
      for (const [j, other] of order.entries()) {
        if (i === j) continue
        const moved = without(id)
        if (other.length < most) {
          moved[j]!.push(id)
          yield kept(moved)
        }
      }
      for (let at = 0; at <= order.length; at++) {
        const alone = without(id)
        alone.splice(at, 0, [id])
        yield kept(alone)
      }
      for (let j = i + 1; j < order.length; j++)
        for (const other of order[j]!)
          yield order.map((one) => one.map((each) => (each === id ? other : each === other ? id : each)))
    }
}
