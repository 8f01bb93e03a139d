import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { judgeSimulated } from '../core/src/limits/simulation.ts'
import { say } from './plain.ts'

/**
 * Judges simulated chains on eight noisy spots and writes what came of it to docs/verdicts-simulated.md.
 * `npm run simulate-verdicts [-- chains seed …]`; 10 000 chains and three seeds unless told.
 */
const [chains = 10_000, ...given] = process.argv.slice(2).map(Number)
const seeds = given.length > 0 ? given : [1, 2, 3]
const number = (value: number): string => value.toFixed(4)
const percent = (value: number): string => `${(100 * value).toFixed(1)} %`

const rows = seeds.map((seed) => {
  const { pelrin, plain } = judgeSimulated({ chains, seed })
  say(`seed ${seed}: Brier ${number(pelrin.brier)} against ${number(plain.brier)}`)
  return `| ${seed} | ${number(pelrin.brier)} | ${number(plain.brier)} | ${percent(pelrin.wrongChanges)} | ${percent(plain.wrongChanges)} | ${percent(pelrin.missed)} | ${percent(plain.missed)} |`
})
writeFileSync(
  join(import.meta.dirname, '../docs/verdicts-simulated.md'),
  `# Eight noisy spots, and what is made of them

Written by \`npm run simulate-verdicts\`, ${chains.toLocaleString('en')} chains a seed. Each chain's spots are
N(μ, τ), μ even on 0.1 to 0.7 %, τ even on 0.01 to 0.1 % (not the mixture the verdict assumes), read with
u = 0.06 %; the limit is 0.5 %, and the truth is whether the worst of the eight is over it. "Plain" takes the largest
number read for the truth.

*Brier*: mean squared distance between the chance given and what was so, lower is better. *Wrong changes*: sound
chains changed. *Missed*: worn-out chains called keep riding or closing in.

| seed | Brier, Pelrin | Brier, plain | wrong changes, Pelrin | wrong changes, plain | missed, Pelrin | missed, plain |
|---|---|---|---|---|---|---|
${rows.join('\n')}

The plain worst number hardly misses a worn chain because it condemns most of the sound ones near the limit; the
verdict gives a chance instead, and where it is in doubt says closing in and looks again within weeks.
`,
)
