import {
  POT_RECIPES,
  type ChainPlan,
  type HandsOn,
  type Pot,
  type PotChain,
  type PotDip,
  type PotInput,
  type PotPlan,
  type PotRecipe,
  type PotScore,
  type PotShop,
  type Span,
} from './potTypes.ts'
import { Timetable } from './timetable.ts'

interface PotNow {
  readonly pot: Pot
  freeAt: number
  hotAt: number
}

interface Mark {
  readonly hands: number
  readonly bath: number
  readonly rail: number
  readonly work: number
  readonly dips: number
  readonly pots: readonly Pick<PotNow, 'freeAt' | 'hotAt'>[]
}

type Way = { strip: Span | null; dry: Span | null; dip: Span | null; hang: Span; flex: Span | null }

/** Wanted earliest first; who is not waited for, last; the rest by name, so that a plan is the same every time. */
export const byPromise = (one: PotChain, other: PotChain): number =>
  (one.readyBy ?? Infinity) - (other.readyBy ?? Infinity) || (one.id < other.id ? -1 : 1) || 0

/**
 * A session at the pot as far as it is planned: what is begun stands in it from the start; whatever is placed next begins as
 * early as hands, bath, pot and rail allow. What was placed last can be taken back.
 */
export class PotSession {
  private readonly hands: Timetable
  private readonly bath: Timetable
  private readonly rail: Timetable
  private readonly pots: PotNow[]
  private readonly ways = new Map<string, Way>()
  /** Minute a chain that lies in no pot yet can go into one; not there: it has to be stripped first. */
  private readonly dryAt = new Map<string, number>()
  private readonly work: Omit<HandsOn, 'mechanic'>[] = []
  readonly dips: PotDip[] = []
  private readonly byId: ReadonlyMap<string, PotChain>
  private readonly shop: PotShop

  constructor({ chains, shop }: PotInput) {
    this.shop = shop
    this.byId = new Map(chains.map((chain) => [chain.id, chain]))
    this.hands = new Timetable(shop.mechanics)
    this.bath = new Timetable(shop.stripCapacity)
    this.rail = new Timetable(shop.railCapacity)
    this.pots = shop.pots.map((pot) => ({ pot, freeAt: 0, hotAt: pot.hotAt }))
    for (const chain of chains) this.takeUp(chain)
    for (const now of this.pots) this.takeUpDip(now, chains)
  }

  /** Chains in one dip, at most, in any pot. */
  get most(): number {
    return Math.min(this.shop.railCapacity, Math.max(0, ...this.pots.map(({ pot }) => pot.capacity)))
  }

  /** Whether chains go into the wax by one recipe. */
  oneRecipe(ids: readonly string[]): boolean {
    return ids.every((id) => this.chain(id).recipe === this.chain(ids[0]!).recipe)
  }

  /** A chain that is begun, as far as it is. */
  private takeUp({ id, stage, needs }: PotChain): void {
    const { stripMinutes, dryMinutes, hangMinutes } = this.shop
    if (stage.kind === 'hanging') {
      const to = Math.max(0, stage.since + hangMinutes)
      this.rail.book(stage.since, to - stage.since)
      this.ways.set(id, { strip: null, dry: null, dip: null, hang: { from: stage.since, to }, flex: null })
    } else if (stage.kind === 'stripping') {
      const to = Math.max(0, stage.since + stripMinutes)
      this.bath.book(stage.since, to - stage.since)
      this.begin(id, { from: stage.since, to }, { from: to, to: to + dryMinutes })
    } else if (stage.kind === 'drying')
      this.begin(id, null, { from: stage.since, to: Math.max(0, stage.since + dryMinutes) })
    else if (stage.kind === 'waiting' && needs === 'dry') this.begin(id, null, { from: 0, to: dryMinutes })
    else if (stage.kind === 'waiting' && needs === 'nothing') this.begin(id, null, null)
  }

  private begin(id: string, strip: Span | null, dry: Span | null): void {
    this.dryAt.set(id, dry?.to ?? 0)
    this.ways.set(id, { strip, dry, dip: null, hang: NEVER, flex: null })
  }

  /** What is in a pot already: in molten wax as long as it has to be, then drawn. */
  private takeUpDip(now: PotNow, chains: readonly PotChain[]): void {
    const inIt = chains.filter(({ stage }) => stage.kind === 'in-pot' && stage.pot === now.pot.id)
    const [first] = inIt
    if (!first) return
    const since = Math.min(...inIt.map(({ stage }) => (stage.kind === 'in-pot' ? stage.since : 0)))
    this.draw(now, inIt, { from: since, to: since + this.shop.loadMinutes }, true)
  }

  /**
   * Strips what has to be, then puts chains of one recipe into a pot.
   *
   * @param into which; left out: the one that lets go of them first
   */
  dip(ids: readonly string[], into?: string): void {
    const chains = ids.map((id) => this.chain(id)).sort(byPromise)
    const { loadMinutes } = this.shop
    const from = Math.max(0, ...chains.map((chain) => Math.max(this.prepared(chain), chain.notBefore ?? 0)))
    const holds = this.pots.filter(({ pot }) => pot.capacity >= chains.length && (into ?? pot.id) === pot.id)
    if (holds.length === 0) throw new RangeError('no pot takes that many chains')
    const recipe = this.recipe(chains)
    const drawn = (now: PotNow): { now: PotNow; load: number; out: number } => {
      const load = this.hands.firstFree(Math.max(from, now.freeAt), loadMinutes)
      return { now, load, out: Math.max(load + loadMinutes, now.hotAt) + recipe.minutes }
    }
    const { now, load } = holds.map(drawn).reduce((best, one) => (one.out < best.out ? one : best))
    this.hands.book(load, loadMinutes)
    this.work.push({ from: load, to: load + loadMinutes, what: 'load', chains: chains.map(({ id }) => id) })
    this.draw(now, chains, { from: load, to: load + loadMinutes }, false)
  }

  private recipe(chains: readonly PotChain[]) {
    return this.shop.recipes[chains[0]!.recipe]
  }

  /** From the wax on to the rail, with hands free and room for all of them there. */
  private draw(now: PotNow, chains: readonly PotChain[], load: Span, begun: boolean): void {
    const { minutes, drawMinutes, reheatMinutes } = this.recipe(chains)
    const { hangMinutes } = this.shop
    let out = Math.max(0, Math.max(load.to, now.hotAt) + minutes)
    for (;;) {
      out = this.hands.firstFree(out, drawMinutes)
      const hung = this.rail.firstFree(out + drawMinutes, hangMinutes, chains.length)
      if (hung === out + drawMinutes) break
      out = hung - drawMinutes
    }
    const hung = out + drawMinutes
    this.hands.book(out, drawMinutes)
    this.rail.book(hung, hangMinutes, chains.length)
    now.freeAt = hung
    now.hotAt = hung + reheatMinutes
    const ids = chains.map(({ id }) => id)
    this.work.push({ from: out, to: hung, what: 'draw', chains: ids })
    this.dips.push({
      pot: now.pot.id,
      chains: ids,
      recipe: chains[0]!.recipe,
      load,
      draw: { from: out, to: hung },
      begun,
    })
    for (const id of ids) {
      const { strip, dry } = this.ways.get(id) ?? { strip: null, dry: null }
      this.ways.set(id, {
        strip,
        dry,
        dip: { from: load.from, to: hung },
        hang: { from: hung, to: hung + hangMinutes },
        flex: null,
      })
    }
  }

  /** Minute a chain is dry; stripped for it where it has to be. */
  private prepared({ id }: PotChain): number {
    const known = this.dryAt.get(id)
    if (known !== undefined) return known
    const { stripMinutes, stripHandsMinutes, dryMinutes } = this.shop
    let from = 0
    for (;;) {
      from = this.bath.firstFree(from, stripMinutes)
      const hand = this.hands.firstFree(from, stripHandsMinutes)
      if (hand === from) break
      from = hand
    }
    this.bath.book(from, stripMinutes)
    this.hands.book(from, stripHandsMinutes)
    this.work.push({ from, to: from + stripHandsMinutes, what: 'strip', chains: [id] })
    const strip = { from, to: from + stripMinutes }
    this.begin(id, strip, { from: strip.to, to: strip.to + dryMinutes })
    return strip.to + dryMinutes
  }

  /** Chains, the first promised first. */
  promised(ids: readonly string[]): string[] {
    return ids
      .map((id) => this.chain(id))
      .sort(byPromise)
      .map(({ id }) => id)
  }

  /** Flexes chains that hang, the first promised first. */
  flex(ids: readonly string[]): void {
    const { flexMinutes } = this.shop
    for (const id of this.promised(ids)) {
      const way = this.ways.get(id)!
      const from = this.hands.firstFree(way.hang.to, flexMinutes)
      this.hands.book(from, flexMinutes)
      this.work.push({ from, to: from + flexMinutes, what: 'flex', chains: [id] })
      way.flex = { from, to: from + flexMinutes }
    }
  }

  /** Pots that take so many: of those that are as good as each other, one. */
  potsFor(count: number): string[] {
    const seen = new Set<string>()
    return this.pots.flatMap(({ pot: { id, capacity }, freeAt, hotAt }) => {
      const as = `${capacity} ${freeAt} ${Math.max(freeAt + this.shop.loadMinutes, hotAt)}`
      if (capacity < count || seen.has(as)) return []
      seen.add(as)
      return [id]
    })
  }

  /** Minute a chain that needs no stripping any more is dry. */
  dryAtOf(id: string): number {
    return this.dryAt.get(id) ?? Infinity
  }

  /** All that is placed, in words that are the same however it was come to. */
  state(): string {
    let state = ''
    for (const { freeAt, hotAt } of this.pots) state += `${freeAt},${hotAt};`
    for (const id of this.byId.keys()) {
      const way = this.ways.get(id)
      state += way ? `${way.strip?.from},${way.dip?.from},${way.hang.from},${way.flex?.from};` : ';'
    }
    return state
  }

  /** What everything comes to at least, once what is left is placed as well: minutes late, and the end. */
  atLeast({
    toStrip,
    ready,
    hanging,
  }: Readonly<Record<'toStrip' | 'ready' | 'hanging', readonly PotChain[]>>): Pick<PotScore, 'late' | 'finish'> {
    const { flexMinutes, hangMinutes, loadMinutes, stripMinutes, stripHandsMinutes, dryMinutes, mechanics } = this.shop
    let late = 0
    for (const [id, { flex }] of this.ways) {
      const { readyBy } = this.chain(id)
      if (flex && readyBy !== null) late += Math.max(0, flex.to - readyBy)
    }
    let finish = this.finishSoFar()
    for (const { id, readyBy } of hanging) {
      const at = this.hands.firstFree(this.hungUntil(id), flexMinutes) + flexMinutes
      finish = Math.max(finish, at)
      if (readyBy !== null) late += Math.max(0, at - readyBy)
    }
    const still = [...toStrip, ...ready]
    const atWork = this.work.reduce((sum, { from, to }) => sum + Math.max(0, to - Math.max(0, from)), 0)
    let handsLeft = stripHandsMinutes * toStrip.length + flexMinutes * (still.length + hanging.length)
    if (still.length > 0) {
      const stripped = this.bath.firstFree(0, stripMinutes) + stripMinutes + dryMinutes
      let first = Infinity
      let ownLate = 0
      let ownLateReady = 0
      let shortest = Infinity
      for (const { id, recipe, readyBy, notBefore } of still) {
        const { minutes, drawMinutes } = this.shop.recipes[recipe]
        const from = Math.max(this.dryAt.get(id) ?? stripped, notBefore ?? 0)
        let out = Infinity
        for (const { freeAt, hotAt } of this.pots)
          out = Math.min(out, Math.max(Math.max(from, freeAt) + loadMinutes, hotAt) + minutes)
        const at = out + drawMinutes + hangMinutes + flexMinutes
        first = Math.min(first, at)
        finish = Math.max(finish, at)
        shortest = Math.min(shortest, loadMinutes + minutes + drawMinutes)
        const lateBy = readyBy === null ? 0 : Math.max(0, at - readyBy)
        ownLate += lateBy
        if (this.dryAt.has(id)) ownLateReady += lateBy
      }
      // Chains come out a dip at a time, the fullest dips first at best, hang as many as the rail takes, and are flexed
      // one after the other.
      const dips = this.fullestDips(still)
      const dipOf = dips.flatMap((size, dip) => Array.from({ length: size }, () => dip))
      const inTurn = lateInTurn(
        still,
        (i) =>
          first +
          Math.max(
            Math.floor(dipOf[i]! / this.pots.length) * shortest,
            Math.floor(i / this.shop.railCapacity) * hangMinutes,
            Math.floor(i / mechanics) * flexMinutes,
          ),
      )
      // They are stripped as many at a time as the bath takes.
      const stripInTurn = lateInTurn(
        toStrip,
        (i) => stripped + Math.floor(i / this.shop.stripCapacity) * stripMinutes + shortest + hangMinutes + flexMinutes,
      )
      finish = Math.max(finish, inTurn.finish, stripInTurn.finish)
      late += Math.max(ownLate, inTurn.late, ownLateReady + stripInTurn.late)
      for (const { recipe, count } of countedByRecipe(still))
        handsLeft += Math.ceil(count / this.most) * (loadMinutes + this.shop.recipes[recipe].drawMinutes)
    }
    return { late, finish: Math.max(finish, (atWork + handsLeft) / mechanics) }
  }

  /** How many chains dips of one recipe each take at most, the fullest first. */
  private fullestDips(chains: readonly PotChain[]): number[] {
    return countedByRecipe(chains)
      .flatMap(({ count }) =>
        Array.from({ length: Math.ceil(count / this.most) }, (_, i) => Math.min(this.most, count - i * this.most)),
      )
      .sort((a, b) => b - a)
  }

  /** Whether a chain has still to be stripped. */
  isToStrip(id: string): boolean {
    return !this.dryAt.has(id)
  }

  /** Strips a chain ahead of its dip. */
  strip(id: string): void {
    this.prepared(this.chain(id))
  }

  /** Minute before which a chain that was drawn cannot be flexed. */
  flexedAt(id: string): number {
    return this.hungUntil(id) + this.shop.flexMinutes
  }

  /** Minute the rail lets go of a chain that was drawn. */
  hungUntil(id: string): number {
    return this.ways.get(id)!.hang.to
  }

  /** First minute hands are free to load what comes next. */
  nextLoad(): number {
    const free = Math.min(...this.pots.map(({ freeAt }) => freeAt))
    return this.hands.firstFree(free, this.shop.loadMinutes)
  }

  /** Minute before which nothing that is still to go in can be ready. */
  soonest(): number {
    const { loadMinutes, hangMinutes, flexMinutes, recipes } = this.shop
    const wax = Math.min(...Object.values(recipes).map(({ minutes, drawMinutes }) => minutes + drawMinutes))
    const free = Math.min(...this.pots.map(({ freeAt, hotAt }) => Math.max(freeAt + loadMinutes, hotAt)))
    return free + wax + hangMinutes + flexMinutes
  }

  /** Minutes a chain is late at least, as far as it is placed. */
  lateSoFar(id: string): number {
    const { readyBy } = this.chain(id)
    const way = this.ways.get(id)
    if (readyBy === null) return 0
    const ready = way?.flex?.to ?? (way && way.hang !== NEVER ? way.hang.to + this.shop.flexMinutes : this.soonest())
    return Math.max(0, ready - readyBy)
  }

  /** Minute the last of what is placed is done. */
  finishSoFar(): number {
    return Math.max(0, ...this.work.map(({ to }) => to))
  }

  private chain(id: string): PotChain {
    const chain = this.byId.get(id)
    if (!chain) throw new RangeError(`${id} is no chain of this session`)
    return chain
  }

  mark(): Mark {
    return {
      hands: this.hands.length,
      bath: this.bath.length,
      rail: this.rail.length,
      work: this.work.length,
      dips: this.dips.length,
      pots: this.pots.map(({ freeAt, hotAt }) => ({ freeAt, hotAt })),
    }
  }

  /** Takes back everything placed since a mark. */
  backTo({ hands, bath, rail, work, dips, pots }: Mark): void {
    for (const { what, chains } of this.work.splice(work)) {
      for (const id of chains) {
        const way = this.ways.get(id)
        if (what === 'flex' && way) way.flex = null
        if (what === 'draw' && way) this.ways.set(id, { ...way, dip: null, hang: NEVER, flex: null })
        if (what === 'strip') {
          this.ways.delete(id)
          this.dryAt.delete(id)
        }
      }
    }
    this.hands.unbook(hands)
    this.bath.unbook(bath)
    this.rail.unbook(rail)
    this.dips.length = dips
    pots.forEach(({ freeAt, hotAt }, i) => Object.assign(this.pots[i]!, { freeAt, hotAt }))
  }

  score(): PotScore {
    let late = 0
    for (const { id } of this.byId.values()) late += this.lateSoFar(id)
    return { late, finish: this.finishSoFar(), interruptions: interruptionsOf(this.work) }
  }

  /** The plan once everything is placed. */
  plan(): PotPlan {
    const chains = [...this.byId.values()].map(({ id }): ChainPlan => {
      const { strip, dry, dip, hang, flex } = this.ways.get(id)!
      return { id, strip, dry, dip, hang, flex: flex ?? hang, late: this.lateSoFar(id) }
    })
    return { ...this.score(), dips: [...this.dips], chains, hands: withMechanics(this.work, this.shop.mechanics) }
  }
}

/** What chains come to that are ready in turn, the first wanted first. @param readyAt when the first is, the second … */
function lateInTurn(chains: readonly PotChain[], readyAt: (i: number) => number): { late: number; finish: number } {
  const wanted = chains.map(({ readyBy }) => readyBy ?? Infinity).sort((a, b) => a - b)
  let late = 0
  for (const [i, by] of wanted.entries()) late += Math.max(0, readyAt(i) - by)
  return { late, finish: chains.length === 0 ? 0 : readyAt(chains.length - 1) }
}

function countedByRecipe(chains: readonly PotChain[]): { recipe: PotRecipe; count: number }[] {
  return POT_RECIPES.map((recipe) => ({ recipe, count: chains.filter((one) => one.recipe === recipe).length })).filter(
    ({ count }) => count > 0,
  )
}

const NEVER: Span = { from: Infinity, to: Infinity }

/** How often somebody comes to the pot: work that follows at once is one visit. */
function interruptionsOf(work: readonly Span[]): number {
  let visits = 0
  let until = -Infinity
  for (const { from, to } of [...work].sort((a, b) => a.from - b.from)) {
    if (from > until) visits++
    until = Math.max(until, to)
  }
  return visits
}

/** Who does what: whoever is free first. Never more at once than there are, because the hands were booked so. */
function withMechanics(work: readonly Omit<HandsOn, 'mechanic'>[], mechanics: number): HandsOn[] {
  const freeAt = Array.from({ length: mechanics }, () => -Infinity)
  return [...work]
    .sort((a, b) => a.from - b.from || a.to - b.to)
    .map((one) => {
      const mechanic = Math.max(
        0,
        freeAt.findIndex((at) => at <= one.from),
      )
      freeAt[mechanic] = Math.max(freeAt[mechanic]!, one.to)
      return { ...one, mechanic }
    })
}
