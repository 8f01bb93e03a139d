import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { join } from 'node:path'
import { CARE_KINDS, type CareKind } from '@pelrin/core'
import { say } from '../plain.ts'
import { scoreCare } from './scoreCare.ts'
import { scoreForecasts } from './scoreForecasts.ts'
import { scoreLearning } from './scoreLearning.ts'
import { GENERATORS, type Generator } from './truth.ts'

/**
 * `npm run evaluate [-- --chains 200 seed …]`: forecasts simulated shops whose truth is known, and writes how well into
 * docs/evaluation.md. Nothing in it is timed.
 */
const given = process.argv.slice(2)
const at = given.indexOf('--chains')
const chains = at < 0 ? 150 : Number(given.splice(at, 2)[1])
const seeds = given.length > 0 ? given.map(Number) : [1, 2]
if (!(chains >= 10) || seeds.some((seed) => !Number.isInteger(seed)))
  throw new RangeError('say whole numbers as seeds, and 10 chains or more')

/** Chains of different care are different chains. */
const mixed = (seed: number, care: CareKind): number => 10 * seed + CARE_KINDS.indexOf(care)
const percent = (value: number): string => `${(100 * value).toFixed(1)} %`
const number = (value: number, digits = 2): string => (Number.isFinite(value) ? value.toFixed(digits) : '–')

/** One row of the first table. */
function forecastRow(seed: number, generator: Generator, care: CareKind): string {
  const score = scoreForecasts(mixed(seed, care), generator, care, chains)
  const ratio = score.error / score.lineError
  say(`${generator} ${care} ${seed}: cover ${percent(score.cover)}, error ${number(ratio)} of the line's`)
  return `| ${generator} | ${care} | ${seed} | ${score.forecasts} | ${percent(score.cover)} | ${number(score.error)} | ${number(score.lineError)} | ${number(ratio)} | ${percent(score.lineless)} | ${percent(score.withheld)} |`
}

const forecasts = GENERATORS.flatMap((generator) =>
  CARE_KINDS.flatMap((care) => seeds.map((seed) => forecastRow(seed, generator, care))),
)
const cared = CARE_KINDS.flatMap((care) =>
  seeds.map((seed) => {
    const score = scoreCare(mixed(seed, care), care, chains)
    say(`looked after, ${care} ${seed}: ${number(score.checks, 1)} checks, late ${percent(score.late)}`)
    return `| ${care} | ${seed} | ${number(score.checks, 1)} | ${percent(score.late)} | ${percent(score.used)} |`
  }),
)
const learned = CARE_KINDS.flatMap((care) =>
  seeds.map((seed) => {
    const score = scoreLearning(mixed(seed, care), care, 40, 0.7)
    say(`learned, ${care} ${seed}: ${number(score.ratio)} of what was planted`)
    return `| ${care} | ${seed} | ${number(score.ratio)} | ${number(score.heldOutGain, 3)} | ${number(score.shippedError)} | ${number(score.learnedError)} |`
  }),
)

writeFileSync(
  join(import.meta.dirname, '../../docs/evaluation.md'),
  `# How well forecasts come true

Written by \`npm run evaluate -- --chains ${chains} ${seeds.join(' ')}\` (Node ${process.versions.node}, ${cpus().length} cores; nothing here
depends on the machine). Simulated chains whose truth is known, ${chains} for each row. Readings fall at moments that do not depend
on the truth; each chain is forecast at every reading from the second on (walk-ins: from the first), until a reading
says more likely over than not. \`docs/forecast.md\` says what the generators are and what the method does.

*Cover*: true crossings inside the 90 % band. *Error*: median distance of the middle crossing from the true one,
thousand weighted km; *line*: the same of the straight line through the last two readings, both over the
forecasts that have a line (*no line*: the share where it never meets the limit, or marks give no slope). *Withheld*: forecasts not
shown.

| generator | care | seed | forecasts | cover | error | line | error / line | no line | withheld |
|---|---|---|---|---|---|---|---|---|---|
${forecasts.join('\n')}

## Looked after by their own next checks

From new to change, by the verdict and the next check of the product itself (the first generator). *Late*: more than
0.05 % past the limit when they came off. *Used*: share of the distance to the limit that was ridden.

| care | seed | checks a life | late | used |
|---|---|---|---|---|
${cared.join('\n')}

## What learning adds

40 chains with a life of 0.7 × the prior's; learned life over the planted one, gain in log evidence a held-out chain,
and the median error of forecasts of other such chains under both priors.

| care | seed | learned / planted | held-out gain | error, shipped | error, learned |
|---|---|---|---|---|---|
${learned.join('\n')}
`,
)
