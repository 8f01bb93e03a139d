import type { PotInput, PotPlan, Span } from './potTypes.ts'

/**
 * Looks through a plan minute by minute for what it must never do. Shares nothing with the planner but its types.
 *
 * @returns a sentence for each thing that is wrong; none for a plan that holds
 */
export function checkPlan({ chains, shop }: PotInput, plan: PotPlan): string[] {
  const wrong: string[] = []
  const say = (holds: boolean, sentence: string): void => {
    if (!holds) wrong.push(sentence)
  }
  const length = ({ from, to }: Span): number => to - from
  const most = (spans: readonly (Span & { count: number })[]): number =>
    Math.max(
      0,
      ...spans
        .filter((one) => length(one) > 0)
        .map(({ from: at }) =>
          spans.reduce((sum, { from, to, count }) => sum + (from <= at && at < to ? count : 0), 0),
        ),
    )
  const one = (span: Span | null) => (span ? [{ ...span, count: 1 }] : [])

  say(plan.chains.length === chains.length, 'every chain has its way')
  for (const chain of chains) {
    const way = plan.chains.find(({ id }) => id === chain.id)
    const dips = plan.dips.filter((dip) => dip.chains.includes(chain.id))
    if (!way) continue
    const { strip, dry, dip, hang, flex, late } = way
    const of = `chain ${chain.id}`
    const { stage } = chain
    say(dips.length === (stage.kind === 'hanging' ? 0 : 1), `${of} is waxed once`)
    if (stage.kind === 'waiting') {
      say((strip !== null) === (chain.needs === 'strip'), `${of} is stripped where it has to be`)
      say((dry !== null) === (chain.needs !== 'nothing'), `${of} is dried where it has to be`)
      if (strip) say(strip.from >= 0, `${of} is not stripped before now`)
      if (dip) say(dip.from >= (chain.notBefore ?? 0), `${of} goes in when it is pinned, or later`)
    }
    if (strip) say(length(strip) >= shop.stripMinutes, `${of} is stripped long enough`)
    if (strip && dry) say(dry.from >= strip.to, `${of} dries after it was stripped`)
    if (dry && stage.kind === 'waiting') say(length(dry) >= shop.dryMinutes, `${of} dries long enough`)
    if (dip) {
      if (dry) say(dip.from >= dry.to, `${of} is dry before it is waxed`)
      say(hang.from >= dip.to, `${of} hangs after it was drawn`)
    }
    say(length(hang) >= shop.hangMinutes, `${of} hangs long enough`)
    say(flex.from >= hang.to, `${of} is flexed when it has hung`)
    say(length(flex) === shop.flexMinutes, `${of} is flexed`)
    say(late === (chain.readyBy === null ? 0 : Math.max(0, flex.to - chain.readyBy)), `${of} is as late as it is said`)
  }
  for (const dip of plan.dips) {
    const pot = shop.pots.find(({ id }) => id === dip.pot)
    const inIt = chains.filter(({ id }) => dip.chains.includes(id))
    say(pot !== undefined && inIt.length <= pot.capacity, `no more in ${dip.pot} than it takes`)
    if (!dip.begun)
      say(
        inIt.every(({ recipe }) => recipe === dip.recipe),
        `one recipe in a dip`,
      )
    const { minutes, drawMinutes } = shop.recipes[dip.recipe]
    const first = plan.dips.filter((other) => other !== dip && other.pot === dip.pot && other.draw.to <= dip.load.from)
    const reheated = Math.max(
      pot?.hotAt ?? 0,
      ...first.map((other) => other.draw.to + shop.recipes[other.recipe].reheatMinutes),
    )
    say(dip.draw.from >= Math.max(dip.load.to, reheated) + minutes, `long enough in molten wax`)
    say(length(dip.draw) === drawMinutes, `drawn by hand`)
  }
  for (const { id } of shop.pots)
    say(
      most(
        plan.dips.filter(({ pot }) => pot === id).map(({ load, draw }) => ({ from: load.from, to: draw.to, count: 1 })),
      ) <= 1,
      `one dip at a time in ${id}`,
    )
  say(most(plan.chains.flatMap(({ strip }) => one(strip))) <= shop.stripCapacity, 'no more in the bath than it takes')
  say(most(plan.chains.flatMap(({ hang }) => one(hang))) <= shop.railCapacity, 'no more on the rail than it takes')
  say(most(plan.hands.map((span) => ({ ...span, count: 1 }))) <= shop.mechanics, 'no more hands than there are')
  for (let mechanic = 0; mechanic < shop.mechanics; mechanic++)
    say(
      most(plan.hands.filter((hand) => hand.mechanic === mechanic).map((span) => ({ ...span, count: 1 }))) <= 1,
      'nobody does two things at once',
    )
  const promised = new Map(chains.map(({ id, readyBy }) => [id, readyBy]))
  say(plan.late === plan.chains.reduce((sum, { late }) => sum + late, 0), 'late minutes add up')
  say(plan.finish === Math.max(0, ...plan.chains.map(({ flex }) => flex.to)), 'it ends when it is said')
  say(
    plan.chains.every(({ id }) => promised.has(id)),
    'no chain is made up',
  )
  return wrong
}
