import { byPromise, PotSession } from './potSession.ts'
import { isBetter, type PotChain, type PotInput, type PotPlan, type PotScore } from './potTypes.ts'

/** So many chains are planned by trying everything; more by improving a good order. */
export const EXHAUSTIVE_CHAINS = 5
/** Orders tried for more: fixed, so that a plan is the same every time. */
const TRIES = 2500
/** Steps taken in search of a better interleaving of hands once every order was tried. */
const STEPS = 15_000

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
 * there are; no chain is waxed before it is stripped and dry. With up to {@link EXHAUSTIVE_CHAINS} chains still to go in
 * every order and batch is tried under every policy of what hands do first, then what they do between dips as long as steps are left: for
 * three nothing better exists; with more than five it is a good plan. Never worse than first come, first served.
 *
 * @param input chains in the order they came, and the shop; minutes from now
 * @throws RangeError where nothing could ever be waxed: no pot, no rail, no bath for what needs one, no hands
 */
export function planPot(input: PotInput): PlannedPot {
  check(input)
  const session = new PotSession(input)
  const free = input.chains.filter(({ stage }) => stage.kind !== 'in-pot' && stage.kind !== 'hanging')
  const begun = flexGroups(input, session)
  const came = batches(free, session.most)
  const firstCome = place(session, begun, { order: came, ...PLAIN })
  const starts = [came, batches([...free].sort(byPromise), session.most), singles(free)]
  const ways =
    free.length > EXHAUSTIVE_CHAINS
      ? starts
      : [
          ...starts,
          ...orders(
            free.map(({ id }) => id),
            session,
          ),
        ]
  const found = ways
    .flatMap((order) => POLICIES.map((policy) => ({ order, ...policy })))
    .map((way): Found => ({ way, score: place(session, begun, way) }))
  const best = found.reduce((one, other) => (isBetter(other.score, one.score) ? other : one))
  if (free.length > EXHAUSTIVE_CHAINS) {
    runThrough(session, begun, improve(session, begun, best).way)
    return { plan: session.plan(), firstCome }
  }
  const likely = found.sort((a, b) => (isBetter(a.score, b.score) ? -1 : 1)).map(({ way }) => way.order)
  const better = interleave(session, begun, [...new Set(likely)], best.score)
  if (better) return { plan: better, firstCome }
  runThrough(session, begun, best.way)
  return { plan: session.plan(), firstCome }
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

/**
 * Looks for something better than the best so far by what hands do when: whatever is stripped ahead of dips, whatever is flexed between
 * them; as long as steps are left, the likeliest orders first.
 *
 * @returns null where nothing better was found
 */
function interleave(session: PotSession, begun: Order, likely: readonly Order[], first: PotScore): PotPlan | null {
  let best = first
  let plan: PotPlan | null = null
  let steps = STEPS
  const all = [...begun, ...(likely[0] ?? [])].flat()
  const hopeless = (left: boolean, hanging: Order): boolean => {
    if (steps-- <= 0) return true
    const late = all.reduce((sum, id) => sum + session.lateSoFar(id), 0)
    if (late !== best.late) return late > best.late
    const finish = Math.max(
      session.finishSoFar(),
      left ? session.soonest() : 0,
      ...hanging.map(([id]) => session.flexedAt(id!)),
    )
    return finish > best.finish
  }
  const go = (strips: Order, dips: Order, hanging: Order): void => {
    if (hopeless(dips.length > 0, hanging)) return
    if (dips.length === 0 && hanging.length === 0) {
      const score = session.score()
      if (!isBetter(score, best)) return
      best = score
      plan = session.plan()
      return
    }
    const then = (placing: () => void, ...rest: Parameters<typeof go>): void => {
      const mark = session.mark()
      placing()
      go(...rest)
      session.backTo(mark)
    }
    // Those of one dip are as good as each other; those of a later dip may go before.
    for (const [i, [id, ...others]] of strips.entries())
      then(() => session.strip(id!), withRest(strips, i, others), dips, hanging)
    const [dip, ...otherDips] = dips
    if (dip && !dip.some((id) => session.isToStrip(id)))
      then(() => session.dip(dip), strips, otherDips, [...hanging, session.promised(dip)])
    // One chain at a time: the rest of its dip may hang on while something else is done.
    for (const [i, [id, ...others]] of hanging.entries())
      then(() => session.flex([id!]), strips, dips, withRest(hanging, i, others))
  }
  for (const order of likely)
    go(
      order.map((dip) => dip.filter((id) => session.isToStrip(id))).filter((dip) => dip.length > 0),
      order,
      begun,
    )
  return plan
}

/** Groups with what is left of one of them. */
const withRest = (groups: Order, i: number, rest: readonly string[]): Order =>
  rest.length === 0 ? groups.toSpliced(i, 1) : groups.with(i, rest)

/** Every way to part chains into dips of one recipe, in every order. */
function* orders(ids: readonly string[], session: PotSession): Generator<Order> {
  if (ids.length === 0) yield []
  for (const dip of subsets(ids, session.most)) {
    if (!session.oneRecipe(dip)) continue
    const rest = ids.filter((id) => !dip.includes(id))
    for (const others of orders(rest, session)) yield [dip, ...others]
  }
}

/** Every choice of at least one and at most so many. */
function subsets(ids: readonly string[], most: number): string[][] {
  const all: string[][] = []
  for (let bits = (1 << ids.length) - 1; bits > 0; bits--) {
    const chosen = ids.filter((_, i) => (bits >> i) & 1)
    if (chosen.length <= most) all.push(chosen)
  }
  return all
}

/** Moves chains between dips, and dips among themselves, as long as that helps and tries are left. */
function improve(session: PotSession, begun: Order, start: Found): Found {
  let best = start
  let tries = TRIES
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
