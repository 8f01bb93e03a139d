import { writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { join } from 'node:path'
import { CARE_KINDS, DEFAULTS, type CareKind } from '@pelrin/core'
import { say } from '../plain.ts'
import { scoreCare, WAYS, type CareScore, type Way } from './scoreCare.ts'
import { scoreForecasts, type ForecastScore } from './scoreForecasts.ts'
import { scoreLearning } from './scoreLearning.ts'
import { GENERATORS, type Generator } from './truth.ts'

/**
 * `npm run evaluate [-- --chains 150 seed …]`: forecasts simulated shops whose truth is known, and writes how well into
 * docs/evaluation.md. Nothing in it is timed.
 */
const given = process.argv.slice(2)
const at = given.indexOf('--chains')
const chains = at < 0 ? 150 : Number(given.splice(at, 2)[1])
const seeds = given.length > 0 ? given.map(Number) : [1, 2, 3, 4, 5]
if (!(chains >= 10) || seeds.some((seed) => !Number.isInteger(seed)))
  throw new RangeError('say whole numbers as seeds, and 10 chains or more')

/** Chains of different care are different chains. */
const mixed = (seed: number, care: CareKind): number => 10 * seed + CARE_KINDS.indexOf(care)
const percent = (value: number): string => `${(100 * value).toFixed(1)} %`
const number = (value: number, digits = 2): string => (Number.isFinite(value) ? value.toFixed(digits) : '–')
const sum = <T>(all: readonly T[], of: (one: T) => number): number => all.reduce((total, one) => total + of(one), 0)
const mean = <T>(all: readonly T[], of: (one: T) => number): number => sum(all, of) / all.length

/** What is asked of a row, and whether it does. */
const aims = new Map<string, { asked: string; met: boolean[]; missed: string[] }>()
function aim(name: string, asked: string, row: string, met: boolean, shown: string): void {
  const known = aims.get(name) ?? { asked, met: [], missed: [] }
  known.met.push(met)
  if (!met) known.missed.push(`${row} ${shown}`)
  aims.set(name, known)
}

/** Where the model's own law holds, and it only has to be read. */
const ON_THE_LAW: readonly Generator[] = ['law', 'sparse', 'inch-rule', 'half-mm-rule', 'two-marks']
const COVER_ASKED: Readonly<Partial<Record<Generator, number>>> = {
  'walk-in': 0.85,
  'off-law': 0.8,
  'second-truth': 0.8,
}

/** One row of the first table: all seeds together, the least and the most cover of one. */
function forecastRow(generator: Generator, care: CareKind): string {
  const scores = seeds.map((seed) => scoreForecasts(mixed(seed, care), generator, care, chains))
  const forecasts = sum(scores, (score) => score.forecasts)
  const share = (of: (score: ForecastScore) => number): number =>
    sum(scores, (score) => score.forecasts * of(score)) / forecasts
  const cover = share((score) => score.cover)
  const covers = scores.map((score) => score.cover)
  const ratio = share((score) => score.error) / share((score) => score.lineError)
  const asked = COVER_ASKED[generator]
  const row = `${generator}, ${care}:`
  if (asked !== undefined)
    aim(`cover, ${generator}`, `at least ${percent(asked)} in every row`, row, cover >= asked, percent(cover))
  else if (generator === 'law')
    aim('cover, law', '88 to 95 % in every row', row, cover >= 0.88 && cover <= 0.95, percent(cover))
  if (generator === 'law') aim('error on the law', "at most 0.60 of the line's", row, ratio <= 0.6, number(ratio))
  else aim('error elsewhere', "at most 0.75 of the line's", row, ratio <= 0.75, number(ratio))
  say(`${generator} ${care}: cover ${percent(cover)}, error ${number(ratio)} of the line's`)
  return `| ${generator} | ${care} | ${forecasts} | ${percent(cover)} | ${percent(Math.min(...covers))} – ${percent(Math.max(...covers))} | ${number(share((score) => score.error))} | ${number(share((score) => score.lineError))} | ${number(ratio)} | ${percent(share((score) => score.lineless))} | ${percent(share((score) => score.withheld))} |`
}

const cared = (generator: Generator, care: CareKind, way: Way, risk: number): CareScore => {
  const scores = seeds.map((seed) => scoreCare(mixed(seed, care), care, chains, { generator, way, risk }))
  return {
    chains: sum(scores, (score) => score.chains),
    checks: mean(scores, (score) => score.checks),
    late: mean(scores, (score) => score.late),
    used: mean(scores, (score) => score.used),
    cost: mean(scores, (score) => score.cost),
  }
}

const CARED: readonly Generator[] = ['law', 'inch-rule', 'half-mm-rule', 'two-marks', 'second-truth']
function caredRow(generator: Generator, care: CareKind, way: Way): string {
  const score = cared(generator, care, way, DEFAULTS.forecast.checkRisk)
  const row = `${generator}, ${care}:`
  if (way === 'pelrin' && generator === 'law') {
    aim('late on the law', 'at most 8 %', row, score.late <= 0.08, percent(score.late))
    aim('looks a life on the law', 'at most 7', row, score.checks <= 7, number(score.checks, 1))
  }
  say(`looked after, ${generator} ${care} ${way}: ${number(score.checks, 1)} checks, late ${percent(score.late)}`)
  return `| ${generator} | ${care} | ${way} | ${number(score.checks, 1)} | ${percent(score.late)} | ${percent(score.used)} | ${number(score.cost)} |`
}

/** Cost against looks on the second truth, all kinds of care together, by the risk a look is let come to. */
const RISKS = [0.01, 0.02, 0.04, 0.06, 0.1, 0.15, 0.25, 0.4]
function curvePoint(risk: number): { risk: number; checks: number; late: number; used: number; cost: number } {
  const scores = CARE_KINDS.map((care) => cared('second-truth', care, 'pelrin', risk))
  say(`risk ${risk}`)
  return {
    risk,
    checks: mean(scores, (score) => score.checks),
    late: mean(scores, (score) => score.late),
    used: mean(scores, (score) => score.used),
    cost: mean(scores, (score) => score.cost),
  }
}

const forecasts = GENERATORS.flatMap((generator) => CARE_KINDS.map((care) => forecastRow(generator, care)))
const lives = CARED.flatMap((generator) =>
  WAYS.filter((way) => generator === 'law' || generator === 'second-truth' || way !== 'fixed-distance').flatMap((way) =>
    CARE_KINDS.map((care) => caredRow(generator, care, way)),
  ),
)
const curve = RISKS.map(curvePoint)
const cheapest = curve.reduce((a, b) => (b.cost < a.cost ? b : a))
const inForce = curve.find(({ risk }) => risk === DEFAULTS.forecast.checkRisk)!
const learned = CARE_KINDS.flatMap((care) =>
  seeds.slice(0, 2).map((seed) => {
    const score = scoreLearning(mixed(seed, care), care, 40, 0.7)
    say(`learned, ${care} ${seed}: ${number(score.ratio)} of what was planted`)
    return `| ${care} | ${seed} | ${number(score.ratio)} | ${number(score.heldOutGain, 3)} | ${number(score.shippedError)} | ${number(score.learnedError)} |`
  }),
)
const aimed = [...aims].map(
  ([name, { asked, met, missed }]) =>
    `| ${name} | ${asked} | ${met.filter(Boolean).length} of ${met.length} | ${missed.join('; ') || '–'} |`,
)
/** One series of a drawing. */
const series = (of: (point: (typeof curve)[number]) => number, digits: number): string =>
  `[${curve.map((point) => of(point).toFixed(digits)).join(', ')}]`

writeFileSync(
  join(import.meta.dirname, '../../docs/evaluation.md'),
  `# How well forecasts come true

Written by \`npm run evaluate -- --chains ${chains} ${seeds.join(' ')}\` (Node ${process.versions.node}, ${cpus().length} cores; nothing here
depends on the machine). Simulated chains whose truth is known, ${chains} for each row and seed. Readings fall at moments that do
not depend on the truth; each chain is forecast at every reading from the second on (walk-ins: from the first), until a reading
says more likely over than not. [forecast.md](forecast.md) says what the generators are, what the method does, and what holds back
the aims that are not met.

## Aims

| aim | asked | rows that meet it | rows that do not |
|---|---|---|---|
${aimed.join('\n')}

## Forecasts

*Cover*: true crossings inside the 90 % band, over all seeds, and of the least and the most of them. *Error*: median distance of the
middle crossing from the true one, thousand weighted km; *line*: the same of the straight line through the last two readings, both
over the forecasts that have a line (*no line*: the share where it never meets the limit, or marks give no slope). *Withheld*:
forecasts not shown.

| generator | care | forecasts | cover | by seed | error | line | error / line | no line | withheld |
|---|---|---|---|---|---|---|---|---|---|
${forecasts.join('\n')}

On ${ON_THE_LAW.join(', ')} the law holds and only the readings differ.

## Looked after from new to change

*Pelrin*: by its own next checks and verdicts. *Straight line*: looked at again where the line through the last two readings meets
the limit (no sooner and no later than Pelrin may), and changed at a number over it. *Fixed distance*: changed when the usual life
of its care is ridden, never looked at. *Late*: more than 0.05 % past the limit when they came off. *Used*: share of the distance to
the limit that was ridden. *Cost*: of a thousand weighted km: looks, chain, and what it wore of cassette and rings by the damage law,
in the shipped prices.

| generator | care | way | looks a life | late | used | cost |
|---|---|---|---|---|---|---|
${lives.join('\n')}

## Cost against looks, on the second truth

The chance of being over at which a look falls due, from 1 to 40 %; all kinds of care together. In force is
${percent(DEFAULTS.forecast.checkRisk)}: ${number(inForce.checks, 1)} looks a life, ${percent(inForce.late)} late, ${number(inForce.cost)}. Cheapest is ${percent(cheapest.risk)}: ${number(cheapest.checks, 1)} looks, ${percent(cheapest.late)} late,
${number(cheapest.cost)}.

\`\`\`mermaid
xychart-beta
  title "Cost of a thousand weighted km, by looks a life"
  x-axis "looks a life" [${curve.map(({ checks }) => `"${number(checks, 1)}"`).join(', ')}]
  y-axis "cost" ${Math.floor(Math.min(...curve.map(({ cost }) => cost)) - 1)} --> ${Math.ceil(Math.max(...curve.map(({ cost }) => cost)) + 1)}
  line ${series(({ cost }) => cost, 2)}
\`\`\`

| risk | looks a life | late | used | cost |
|---|---|---|---|---|
${curve.map(({ risk, checks, late, used, cost }) => `| ${percent(risk)} | ${number(checks, 1)} | ${percent(late)} | ${percent(used)} | ${number(cost)} |`).join('\n')}

## What learning adds

40 chains with a life of 0.7 × the prior's; learned life over the planted one, gain in log evidence a held-out chain,
and the median error of forecasts of other such chains under both priors.

| care | seed | learned / planted | held-out gain | error, shipped | error, learned |
|---|---|---|---|---|---|
${learned.join('\n')}
`,
)
