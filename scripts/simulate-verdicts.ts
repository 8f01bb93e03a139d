import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { judgeSimulated, WAYS, type Prices, type Setting, type Way } from '../core/src/economics/simulateJudging.ts'
import { DEFAULTS } from '../core/src/defaults.ts'
import { say } from './plain.ts'

/**
 * Judges simulated chains on one, three and eight noisy spots and writes what came of it to docs/verdicts-simulated.md.
 * `npm run simulate-verdicts [-- chains seed …]`; 2 000 chains and three seeds unless told.
 */
const [chains = 2_000, ...given] = process.argv.slice(2).map(Number)
const seeds = given.length > 0 ? given : [1, 2, 3]
const { chainPrice, cassettePrice, ringsPrice } = DEFAULTS.economics
const PRICES: readonly Prices[] = [
  { name: 'as shipped', chain: chainPrice, cassette: cassettePrice, rings: ringsPrice, look: 1 },
  { name: 'dear chain, cheap sprockets', chain: 70, cassette: 30, rings: 40, look: 1 },
  { name: 'cheap chain, dear sprockets', chain: 22, cassette: 180, rings: 140, look: 1 },
]
const NAMES: Readonly<Record<Way, string>> = {
  verdict: 'Pelrin',
  'all-places': 'all places, no look more',
  'read-alone': 'places read alone',
  plain: 'plain worst number',
  margin: 'plain, at 0.45',
}
const UNEVEN: readonly Setting['uneven'][] = ['any', { share: 0.08 }]
const SPOTS = [1, 3, 8]
const OFF = [0.03, 0.06, 0.12]

const percent = (value: number): string => `${(100 * value).toFixed(1)} %`

/** What judging the places nobody looked at saves, share of the first prices, by spots read with the middle u. */
const saved = new Map<number, number>()

/** A row a way of judging: over all seeds. */
function rowsOf(setting: Setting): string[] {
  const scores = seeds.map((seed) => judgeSimulated({ chains, seed, setting, prices: PRICES }))
  say(`${setting.spots} spots, u ${setting.u}, ${setting.uneven === 'any' ? 'any' : 'by share'}`)
  const cost = (way: Way): number => scores.reduce((sum, score) => sum + score[way].cost[0]!, 0)
  if (setting.u === OFF[1] && setting.uneven === 'any')
    saved.set(setting.spots, 1 - cost('all-places') / cost('read-alone'))
  return WAYS.map((way) => {
    const mean = (of: (score: (typeof scores)[number][Way]) => number): number =>
      scores.reduce((sum, score) => sum + of(score[way]), 0) / scores.length
    const costs = PRICES.map((_, p) => mean(({ cost }) => cost[p]!).toFixed(2)).join(' | ')
    return `| ${setting.spots} | ${setting.u.toFixed(2)} | ${NAMES[way]} | ${mean(({ brier }) => brier).toFixed(4)} | ${percent(mean(({ wrongChanges }) => wrongChanges))} | ${percent(mean(({ missed }) => missed))} | ${costs} |`
  })
}

const tables = UNEVEN.map((uneven) => {
  const rows = SPOTS.flatMap((spots) => OFF.flatMap((u) => rowsOf({ spots, u, uneven })))
  return `| spots | u | way | Brier | wrong changes | missed | ${PRICES.map(({ name }) => name).join(' | ')} |
|---|---|---|---|---|---|${PRICES.map(() => '---').join('|')}|
${rows.join('\n')}`
})
const prices = PRICES.map(
  ({ name, chain, cassette, rings, look }) =>
    `${name}: chain ${chain}, cassette ${cassette}, rings ${rings}, a look more ${look}`,
)

writeFileSync(
  join(import.meta.dirname, '../docs/verdicts-simulated.md'),
  `# Noisy spots, and what is made of them

Written by \`npm run simulate-verdicts\`, ${chains.toLocaleString('en')} chains for each of seeds ${seeds.join(', ')}; the means over the seeds. Each chain has
eight places, N(μ, τ), μ even on 0.1 to 0.7 %; some of them are read with u. The limit is 0.5 %, and the truth is whether the
worst of all eight is over it.

*Pelrin*: the verdict, which judges the eight places; measured again once where it says so, with the same instrument in three places
more. *All places, no look more*: the same chance, changed from one half. *Places read alone*: the chance that the worst of those
read is over, changed from one half. *Plain worst number*: the largest
number read is taken for the truth; *at 0.45*: against a limit that much lower.

*Brier*: mean squared distance between the chance given first and what was so, lower is better. *Wrong changes*: sound chains
changed. *Missed*: worn-out chains let ride on without another look. The last columns are what judging costs a chain until the
next look: what was left of a chain that came off, what cassette and rings lose under one that rides on (damage law, 500
weighted km), what a look more costs (${prices.join('; ')}).

## Uneven by anything from 0.01 to 0.1 %, not the mixture the verdict assumes

${tables[0]!}

## Uneven by 8 % of their wear

${tables[1]!}

Judging the places nobody looked at as well costs ${percent(saved.get(1)!)} less with one spot read and ${percent(saved.get(3)!)} less with three
(u 0.06, uneven by anything, first prices), and misses fewer worn chains; with all eight read it changes nothing. Another look, where the
verdict asks for one, costs more than it saves only where looking costs as much as assumed here and the chain is dear: what it
brings is that hardly a worn chain rides on.

That the plain worst number condemns many sound chains holds where all eight places are read, and with three where a reading is off by
0.12. Of one place, read well, it does the opposite: it misses worn chains, since the worst place is seldom the one somebody
looked at. A limit lowered by a fixed 0.05 is cheap where sprockets are dear and nothing else.
`,
)
