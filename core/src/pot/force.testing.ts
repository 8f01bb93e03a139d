import type { PotChain, PotInput, Span } from './potTypes.ts'

/**
 * The least late minutes, and then the earliest end, that any order gives: plain, slow, and nothing of the planner's in it.
 * Resources are counted minute by minute.
 */
export function bestByForce(input: PotInput, what: 'every order of hands' | 'dips in order'): [number, number] {
  let best: [number, number] = [Infinity, Infinity]
  const free = input.chains.filter(({ stage }) => stage.kind !== 'hanging' && stage.kind !== 'in-pot')
  const most = Math.min(input.shop.railCapacity, Math.max(...input.shop.pots.map(({ capacity }) => capacity)))
  for (const dips of ordered(free, most)) {
    const lists = what === 'dips in order' ? [plainList(input, dips)] : intoEveryPot(input, interleavings(input, dips))
    for (const list of lists) {
      const score = run(input, list)
      if (score[0] < best[0] || (score[0] === best[0] && score[1] < best[1])) best = score
    }
  }
  return best
}

type Task =
  | { readonly do: 'strip'; readonly chain: PotChain }
  | { readonly do: 'dip'; readonly chains: readonly PotChain[]; readonly pot?: string }
  | { readonly do: 'flex'; readonly chain: PotChain }

/** Every way to part chains into dips of one recipe, in every order. */
function* ordered(chains: readonly PotChain[], most: number): Generator<PotChain[][]> {
  if (chains.length === 0) {
    yield []
    return
  }
  for (let bits = 1; bits < 1 << chains.length; bits++) {
    const first = chains.filter((_, i) => (bits >> i) & 1)
    if (first.length > most || first.some(({ recipe }) => recipe !== first[0]!.recipe)) continue
    for (const rest of ordered(
      chains.filter((one) => !first.includes(one)),
      most,
    ))
      yield [first, ...rest]
  }
}

const strips = ({ stage, needs }: PotChain): boolean => stage.kind === 'waiting' && needs === 'strip'

function plainList({ chains }: PotInput, dips: readonly PotChain[][]): Task[] {
  const hanging = chains.filter(({ stage }) => stage.kind === 'hanging')
  return [
    ...flexes(hanging),
    ...dips.flatMap((dip): Task[] => [
      ...dip.filter(strips).map((chain) => ({ do: 'strip' as const, chain })),
      { do: 'dip', chains: dip },
      ...flexes(dip),
    ]),
  ]
}

const flexes = (chains: readonly PotChain[]): Task[] =>
  [...chains].sort((a, b) => (a.readyBy ?? Infinity) - (b.readyBy ?? Infinity)).map((chain) => ({ do: 'flex', chain }))

/** Every order in which what has to come after something does. */
function* interleavings({ chains }: PotInput, dips: readonly PotChain[][]): Generator<Task[]> {
  const tasks: Task[] = [
    ...dips
      .flat()
      .filter(strips)
      .map((chain) => ({ do: 'strip' as const, chain })),
    ...dips.map((dip) => ({ do: 'dip' as const, chains: dip })),
    ...chains.map((chain) => ({ do: 'flex' as const, chain })),
  ]
  const mayFollow = (task: Task, done: readonly Task[]): boolean => {
    if (task.do === 'strip') return true
    if (task.do === 'dip') {
      const at = dips.indexOf(task.chains as PotChain[])
      const before = at === 0 || done.some((one) => one.do === 'dip' && one.chains === dips[at - 1])
      const ready = (chain: PotChain): boolean =>
        !strips(chain) || done.some((one) => one.do === 'strip' && one.chain === chain)
      return before && task.chains.every(ready)
    }
    const { stage } = task.chain
    return stage.kind === 'hanging' || done.some((one) => one.do === 'dip' && one.chains.includes(task.chain))
  }
  function* go(done: Task[]): Generator<Task[]> {
    if (done.length === tasks.length) yield done
    for (const task of tasks) if (!done.includes(task) && mayFollow(task, done)) yield* go([...done, task])
  }
  yield* go([])
}

/** The same with each dip in every pot. */
function* intoEveryPot({ shop }: PotInput, lists: Iterable<Task[]>): Generator<Task[]> {
  function* go(done: Task[], left: readonly Task[]): Generator<Task[]> {
    const [task, ...rest] = left
    if (!task) yield done
    else if (task.do !== 'dip') yield* go([...done, task], rest)
    else for (const { id } of shop.pots) yield* go([...done, { ...task, pot: id }], rest)
  }
  for (const list of lists) yield* go([], list)
}

/** Each task as early as it can be, in the order of the list: late minutes and the end. */
function run({ chains, shop }: PotInput, list: readonly Task[]): [number, number] {
  const hands: Span[] = []
  const bath: Span[] = []
  const rail: Span[] = []
  const pots = shop.pots.map((pot) => ({ ...pot, freeAt: 0 }))
  const dryAt = new Map<PotChain, number>()
  const hungAt = new Map<PotChain, number>()
  const readyAt = new Map<PotChain, number>()
  for (const chain of chains) {
    const { stage, needs } = chain
    if (stage.kind === 'hanging') {
      const to = Math.max(0, stage.since + shop.hangMinutes)
      rail.push({ from: stage.since, to })
      hungAt.set(chain, to)
    } else if (stage.kind === 'stripping') {
      const to = Math.max(0, stage.since + shop.stripMinutes)
      bath.push({ from: stage.since, to })
      dryAt.set(chain, to + shop.dryMinutes)
    } else if (stage.kind === 'drying') dryAt.set(chain, Math.max(0, stage.since + shop.dryMinutes))
    else if (needs !== 'strip') dryAt.set(chain, needs === 'dry' ? shop.dryMinutes : 0)
  }
  const fits = (spans: readonly Span[], capacity: number, from: number, minutes: number, count = 1): boolean => {
    for (let at = from; at < from + minutes; at++)
      if (spans.filter((one) => one.from <= at && at < one.to).length + count > capacity) return false
    return true
  }
  const firstFrom = (from: number, fitting: (at: number) => boolean): number => {
    let at = from
    while (!fitting(at)) at++
    return at
  }
  const handsAt = (at: number, minutes: number): boolean => fits(hands, shop.mechanics, at, minutes)
  for (const task of list) {
    if (task.do === 'strip') {
      const at = firstFrom(
        0,
        (minute) =>
          fits(bath, shop.stripCapacity, minute, shop.stripMinutes) && handsAt(minute, shop.stripHandsMinutes),
      )
      bath.push({ from: at, to: at + shop.stripMinutes })
      hands.push({ from: at, to: at + shop.stripHandsMinutes })
      dryAt.set(task.chain, at + shop.stripMinutes + shop.dryMinutes)
    } else if (task.do === 'dip') {
      const from = Math.max(0, ...task.chains.map((one) => Math.max(dryAt.get(one)!, one.notBefore ?? 0)))
      const { minutes, drawMinutes, reheatMinutes } = shop.recipes[task.chains[0]!.recipe]
      const ways = pots
        .filter(({ id, capacity }) => capacity >= task.chains.length && (task.pot ?? id) === id)
        .map((pot) => {
          const load = firstFrom(Math.max(from, pot.freeAt), (at) => handsAt(at, shop.loadMinutes))
          return { pot, load, out: Math.max(load + shop.loadMinutes, pot.hotAt) + minutes }
        })
      if (ways.length === 0) return [Infinity, Infinity]
      const { pot, load, out } = ways.reduce((a, b) => (b.out < a.out ? b : a))
      hands.push({ from: load, to: load + shop.loadMinutes })
      const draw = firstFrom(
        out,
        (at) =>
          handsAt(at, drawMinutes) &&
          fits(rail, shop.railCapacity, at + drawMinutes, shop.hangMinutes, task.chains.length),
      )
      const hung = draw + drawMinutes
      hands.push({ from: draw, to: hung })
      pot.freeAt = hung
      pot.hotAt = hung + reheatMinutes
      for (const one of task.chains) {
        rail.push({ from: hung, to: hung + shop.hangMinutes })
        hungAt.set(one, hung + shop.hangMinutes)
      }
    } else {
      const at = firstFrom(hungAt.get(task.chain)!, (minute) => handsAt(minute, shop.flexMinutes))
      hands.push({ from: at, to: at + shop.flexMinutes })
      readyAt.set(task.chain, at + shop.flexMinutes)
    }
  }
  const late = chains.reduce((sum, one) => sum + Math.max(0, readyAt.get(one)! - (one.readyBy ?? Infinity)), 0)
  return [late, Math.max(0, ...readyAt.values(), ...hands.map(({ to }) => to))]
}
