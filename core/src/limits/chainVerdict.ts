import { hangsWholeChain, measuresNothing } from '../readings/instrumentKinds.ts'
import { assumptionsWith, type Assumptions } from '../assumptions.ts'
import { isPresent } from './presence.ts'
import type { ExplainedInput, Explanation } from '../explanation.ts'
import { driveClassOf, limitsFor, sprocketMarksOf, type HouseRule, type SprocketMarks } from './houseRules.ts'
import type { WorstSpotPosterior } from '../readings/worstSpot.ts'
import { ownReadings, presentRound, type CountedSpot, type Round } from './round.ts'
import type {
  AvailableInstrument,
  ChainVerdict,
  ChainVerdictInput,
  Settle,
  SprocketAdvice,
  VerdictFlag,
  VerdictReading,
  VerdictStep,
  VerdictWord,
} from './verdictTypes.ts'
import { rawWorst, spotsStillWanted, spreadOf, worstOf } from './worstOfRound.ts'

/** Elongations closer than this are equal: the arithmetic of 0.8 × 1.0 must not decide a verdict. */
const EQUAL = 1e-9
/** A step of the lattice elongations are on, %. */
const HAIR = 0.002

/** A share as formulas write it. */
const shown = (share: number): string => share.toFixed(Number.isInteger(Math.round(share * 1e6) / 1e4) ? 2 : 3)

interface Decision {
  readonly word: VerdictWord
  readonly decidedBy: VerdictStep
  readonly settle: readonly Settle[]
  readonly otherwise: VerdictWord | null
  /** The chance of being over it was decided on, where that was not D1's: the forecast's, where no gauge could tell. */
  readonly judgedBy?: number
  readonly steps: readonly Explanation[]
}

/** What every step looks at. */
interface Case {
  readonly round: Round
  readonly byInstrument: Seen['byInstrument']
  readonly limits: { readonly change: number; readonly plan: number | null; readonly watch: number }
  readonly P: number
  readonly q: number
  readonly overPlan: number | null
  readonly instruments: readonly AvailableInstrument[]
  readonly forecast: ChainVerdictInput['forecast']
  readonly assumed: Assumptions
}

/**
 * What to do about a chain, from its readings, under a house rule.
 *
 * One ordered procedure, D0 to D7; the first step that applies decides, and every step taken is returned with
 * its numbers, so that the verdict can be asked "why?".
 *
 * @param input readings of one chain in one fitting; see {@link ChainVerdictInput} for units
 * @returns the verdict; it depends on nothing but the input, and never on the order of the readings
 * @throws RangeError when a spot's u is not above 0 or its marks are in the wrong order
 */
export function chainVerdict(input: ChainVerdictInput): ChainVerdict {
  const assumed = assumptionsWith(input.assumptions)
  // What is known of the chain is the same whatever rule it is held against.
  const seen = look(input, assumed)
  const judged = judge(input, input.rule, seen, assumed)
  return {
    ...judged,
    schools: (input.otherRules ?? []).map((rule) => {
      const other = judge(input, rule, seen, assumed)
      return {
        ruleId: rule.id,
        school: rule.school,
        word: other.word,
        limit: other.limit,
        plan: other.plan,
        probabilityOver: other.probabilityOver,
      }
    }),
  }
}

/** What is known of a chain before any rule is asked. */
interface Seen {
  readonly own: readonly VerdictReading[]
  readonly round: Round
  /** The worst spot of the round; null with nothing measured. */
  readonly worst: WorstSpotPosterior | null
  /** The same by instrument, where two or more read the round. */
  readonly byInstrument: readonly WorstSpotPosterior[]
  /** A check by hand after the latest reading hinted at wear. */
  readonly worried: boolean
}

function look(input: ChainVerdictInput, assumed: Assumptions): Seen {
  const own = ownReadings(input.readings, input.chain.countChangedAt)
  const round = presentRound(own, assumed)
  const instruments = [...new Set(round.spots.map(({ reading }) => reading.instrument.id))]
  return {
    own,
    round,
    worst: round.spots.length === 0 ? null : worstOf(round.spots, assumed),
    byInstrument:
      instruments.length < 2
        ? []
        : instruments.map((id) =>
            worstOf(
              round.spots.filter(({ reading }) => reading.instrument.id === id),
              assumed,
            ),
          ),
    worried: suspectedByHand(input.readings),
  }
}

function judge(
  input: ChainVerdictInput,
  rule: HouseRule,
  seen: Seen,
  assumed: Assumptions,
): Omit<ChainVerdict, 'schools'> {
  const driveClass = driveClassOf(input.drive)
  const limits = limitsFor(rule, driveClass)
  const { round, worst, worried } = seen
  const counting = whatCounts(input, round, assumed)
  const common = {
    limit: limits.change,
    plan: limits.plan,
    watch: limits.watch,
    spotsMeasured: round.spots.length,
    spotsWanted: spotsStillWanted(round.spots, assumed),
    spread: spreadOf(round.spots),
    worst: rawWorst(round.spots),
    countedReadingIds: round.readings.map((reading) => reading.id),
  }
  if (worst === null) {
    const decision = nothingCounts(input, counting, assumed)
    return {
      ...common,
      ...decision,
      advice: null,
      flags: flagsOf(input, seen, limits, assumed),
      probabilityOver: null,
      median: null,
      halfWidth: null,
      checkInDays: checkInDays(decision.word, worried, assumed),
    }
  }
  const facts: Case = {
    round,
    byInstrument: seen.byInstrument,
    limits,
    P: worst.probabilityOver(limits.change),
    q: worst.median,
    overPlan: limits.plan === null ? null : worst.probabilityOver(limits.plan),
    instruments: input.instruments,
    // What a forecast adds belongs to a measurement that is still fresh: alone it never has a chain changed.
    forecast: isPresent(round, input.asOf, assumed) ? input.forecast : null,
    assumed,
  }
  const decision = decide(facts, [counting, worstExplained(facts, worst.halfWidth)])
  const teeth = sprocketAdvice(worst, round, sprocketMarksOf(rule, driveClass, assumed), assumed)
  return {
    ...common,
    ...decision,
    advice: decision.word === 'change' ? teeth.advice : null,
    flags: [
      ...flagsOf(input, seen, limits, assumed),
      ...(decision.word === 'change' && teeth.unseen ? (['teeth-unseen'] as const) : []),
    ],
    probabilityOver: decision.judgedBy ?? facts.P,
    median: worst.median,
    halfWidth: worst.halfWidth,
    checkInDays: checkInDays(decision.word, worried, assumed),
  }
}

// --- D0 ---------------------------------------------------------------------------------------------------

function whatCounts(input: ChainVerdictInput, round: Round, assumed: Assumptions): Explanation {
  return step(
    'D0',
    [
      { symbol: 'N', meaning: 'readings-known', value: input.readings.length, unit: 'text' },
      { symbol: 'd', meaning: 'round-days', value: assumed.verdict.roundDays, unit: 'days' },
      { symbol: 's', meaning: 'round-km', value: assumed.verdict.roundKm, unit: 'km' },
    ],
    round.spots.length,
    'spots',
  )
}

function nothingCounts(input: ChainVerdictInput, counting: Explanation, assumed: Assumptions): Decision {
  const km = input.chain.kmSinceFittedNew
  const isNew = km !== null && km < assumed.verdict.newChainKm && !suspectedByHand(input.readings)
  const word: VerdictWord = isNew ? 'not-measured-yet' : 'measure-it'
  const explained: Explanation = {
    ...counting,
    rule: isNew ? 'D0-new' : 'D0-nothing',
    inputs: [
      ...counting.inputs,
      { symbol: 'k', meaning: 'km-since-fitted', value: km ?? 'not-known', unit: km === null ? 'text' : 'km' },
      { symbol: 'k₀', meaning: 'new-chain-km', value: assumed.verdict.newChainKm, unit: 'km' },
    ],
    formula: 'k < k₀',
    result: { value: word, unit: 'text' },
  }
  return { word, decidedBy: 'D0', settle: [], otherwise: null, steps: [explained] }
}

/** Whether a check by hand, not answered by a reading since, hinted that the chain is worn. */
function suspectedByHand(readings: readonly VerdictReading[]): boolean {
  const measured = Math.max(...ownReadings(readings).map((reading) => reading.occurredAt), -Infinity)
  return readings.some((reading) => reading.hint === 'worn' && reading.occurredAt > measured)
}

// --- D1 to D7 ---------------------------------------------------------------------------------------------

function decide(facts: Case, before: readonly Explanation[]): Decision {
  const steps = [...before]
  const settled = (word: VerdictWord, decidedBy: VerdictStep, settle: readonly Settle[] = []): Decision => ({
    word,
    decidedBy,
    settle,
    otherwise: null,
    steps,
  })
  const { surelyOver, surelyUnder } = facts.assumed.verdict

  // D2: only marks, none near the limit. The forecast answers only if no instrument in the shop can.
  const blind = gaugeIsBlind(facts)
  if (blind) {
    const able = facts.instruments.filter(
      (other) => other.inDate && canAnswer(other, facts.limits.change, facts.assumed),
    )
    const best = able.sort((a, b) => a.u - b.u)[0]
    const ask = best !== undefined || !facts.forecast
    steps.push(stepOf('D2', facts, ask, blindInputs(facts)))
    if (ask)
      return {
        ...settled('measure-again', 'D2', [{ kind: 'instrument-that-can', instrumentId: best?.id ?? null }]),
        otherwise: withoutMeasuringAgain(facts).word,
      }
    const { overNow } = facts.forecast
    return { ...decideOnProbability({ ...facts, P: overNow }, steps), judgedBy: overNow }
  }

  // D3: over beyond doubt.
  const surely = facts.P >= surelyOver
  steps.push(stepOf('D3', facts, surely, [], `P ≥ ${shown(surelyOver)}`))
  if (surely) return settled('change', 'D3')

  // D4: in doubt, and something in this shop would settle it.
  const settle = whatWouldSettle(facts)
  steps.push(
    stepOf(
      'D4',
      facts,
      settle.length > 0,
      [
        { symbol: 'm', meaning: 'measured-again', value: facts.round.measuredAgain ? 'yes' : 'no', unit: 'text' },
        {
          symbol: 'w',
          meaning: 'spots-wanted',
          value: spotsStillWanted(facts.round.spots, facts.assumed),
          unit: 'spots',
        },
        { symbol: 'k', meaning: 'ways-to-settle', value: settle.length, unit: 'text' },
      ],
      `${shown(surelyUnder)} < P < ${shown(surelyOver)} ∧ k > 0`,
    ),
  )
  if (settle.length > 0)
    return { ...settled('measure-again', 'D4', settle), otherwise: withoutMeasuringAgain(facts).word }

  return decideOnProbability(facts, steps)
}

/** D5 to D7: what to say when measuring again is no option. */
function decideOnProbability(facts: Case, steps: Explanation[]): Decision {
  const { word, decidedBy } = withoutMeasuringAgain(facts)
  const { q, forecast, overPlan } = facts
  const { changeAt, surelyUnder } = facts.assumed.verdict
  steps.push(
    stepOf(
      'D5',
      facts,
      decidedBy === 'D5',
      [
        {
          symbol: 'F',
          meaning: 'forecast-ahead',
          value: forecast ? forecast.overAhead : 'no-forecast',
          unit: forecast ? 'probability' : 'text',
        },
        { symbol: 'd', meaning: 'look-ahead-km', value: facts.assumed.verdict.lookAheadKm, unit: 'km' },
      ],
      forecast ? `P ≥ ${shown(changeAt)} ∨ F ≥ ${shown(changeAt)}` : `P ≥ ${shown(changeAt)}`,
    ),
  )
  if (decidedBy !== 'D5')
    steps.push(
      stepOf(
        'D6',
        facts,
        decidedBy === 'D6',
        [
          { symbol: 'q', meaning: 'worst-median', value: q, unit: '%' },
          { symbol: 'w', meaning: 'watch-mark', value: lookMoreOften(facts), unit: '%' },
          ...(overPlan === null
            ? []
            : [{ symbol: 'Pₚ', meaning: 'over-plan', value: overPlan, unit: 'probability' } as const]),
        ],
        `P > ${shown(surelyUnder)} ∨ q ≥ w${overPlan === null ? '' : ` ∨ Pₚ ≥ ${shown(changeAt)}`}`,
      ),
    )
  if (decidedBy === 'D7')
    steps.push(
      stepOf('D7', facts, true, [
        {
          symbol: 'w',
          meaning: 'spots-wanted',
          value: spotsStillWanted(facts.round.spots, facts.assumed),
          unit: 'spots',
        },
      ]),
    )
  return { word, decidedBy, settle: [], otherwise: null, steps }
}

function withoutMeasuringAgain(facts: Case): { word: VerdictWord; decidedBy: VerdictStep } {
  const { changeAt, surelyUnder } = facts.assumed.verdict
  const { P, q, overPlan, forecast } = facts
  if (P >= changeAt || (forecast && forecast.overAhead >= changeAt)) return { word: 'change', decidedBy: 'D5' }
  if (P > surelyUnder || q >= lookMoreOften(facts) - EQUAL || (overPlan !== null && overPlan >= changeAt))
    return { word: 'closing-in', decidedBy: 'D6' }
  return { word: 'keep-riding', decidedBy: 'D7' }
}

/** The lower of watch and plan, %. */
const lookMoreOften = ({ limits }: Case): number => Math.min(limits.watch, limits.plan ?? Infinity)

function gaugeIsBlind({ round, limits, assumed }: Case): boolean {
  return round.spots.every(({ spot }) => {
    if (spot.value !== undefined) return false
    const clear = assumed.verdict.blindMarkU * spot.u
    return limits.change > (spot.over ?? -Infinity) + clear && limits.change < (spot.under ?? Infinity) - clear
  })
}

function blindInputs({ round, limits }: Case): ExplainedInput[] {
  const overs = round.spots.flatMap(({ spot }) => (spot.over === undefined ? [] : [spot.over]))
  const unders = round.spots.flatMap(({ spot }) => (spot.under === undefined ? [] : [spot.under]))
  return [
    { symbol: 'L', meaning: 'limit', value: limits.change, unit: '%' },
    ...(overs.length === 0 ? [] : [{ symbol: 'a', meaning: 'mark-in', value: Math.max(...overs), unit: '%' } as const]),
    ...(unders.length === 0
      ? []
      : [{ symbol: 'b', meaning: 'mark-out', value: Math.min(...unders), unit: '%' } as const]),
  ]
}

/** Whether an instrument can tell over from under at a limit: it reads a value there, or has a mark near. */
function canAnswer(instrument: AvailableInstrument, limit: number, assumed: Assumptions): boolean {
  if (measuresNothing(instrument.kind)) return false
  if (instrument.marks === undefined) return true
  return instrument.marks.some((mark) => Math.abs(mark - limit) <= assumed.verdict.blindMarkU * instrument.u)
}

/** D4's conditions, as what to do about them; empty when there is no doubt or nothing would settle it. */
function whatWouldSettle(facts: Case): Settle[] {
  const { surelyOver, surelyUnder, betterInstrumentShare } = facts.assumed.verdict
  const { P, round, instruments, limits } = facts
  const atOdds = instrumentsAtOdds(facts.byInstrument, limits.change, facts.assumed)
  if (round.measuredAgain || P <= surelyUnder || P >= surelyOver) return []
  const settle: Settle[] = []
  const wanted = spotsStillWanted(round.spots, facts.assumed)
  if (wanted > 0) settle.push({ kind: 'more-spots', spots: wanted })
  const finestU = Math.min(...round.spots.map(({ spot, reading }) => Math.hypot(spot.u, reading.instrument.biasU)))
  const used = new Set(round.readings.map((reading) => reading.instrument.id))
  const better = instruments
    .filter(
      (other) =>
        other.inDate &&
        !used.has(other.id) &&
        !hangsWholeChain(other.kind) &&
        other.u <= betterInstrumentShare * finestU + EQUAL &&
        canAnswer(other, limits.change, facts.assumed),
    )
    .sort((a, b) => a.u - b.u || (a.id < b.id ? -1 : 1))[0]
  if (better) settle.push({ kind: 'better-instrument', instrumentId: better.id })
  if (atOdds) settle.push({ kind: 'same-spot-with-both' })
  return settle
}

/** Two instruments at odds: one surely over, one surely under. */
function instrumentsAtOdds(byInstrument: Seen['byInstrument'], limit: number, { verdict }: Assumptions): boolean {
  const chances = byInstrument.map((worst) => worst.probabilityOver(limit))
  return Math.max(0, ...chances) >= verdict.surelyOver && Math.min(1, ...chances) <= verdict.surelyUnder
}

// --- What stands beside the word --------------------------------------------------------------------------

/**
 * What else is suspect: a mark the worst place is more likely over than not. Where only gauges' marks were read, a mark no
 * gauge could see is not told: it says to look at the teeth instead.
 */
function sprocketAdvice(
  worst: WorstSpotPosterior,
  { spots }: Round,
  marks: SprocketMarks,
  { verdict }: Assumptions,
): { readonly advice: SprocketAdvice | null; readonly unseen: boolean } {
  const edges = spots.flatMap(({ spot }) => (spot.value === undefined ? [spot.over, spot.under] : Infinity))
  const seenTo = Math.max(...edges.filter((edge) => edge !== undefined))
  // The point at a mark is over it here, on the lattice it is not: hence the hair's breadth.
  const stands = (mark: number): boolean => worst.probabilityOver(mark - HAIR) >= verdict.changeAt
  const seen = (mark: number): boolean => mark <= seenTo + EQUAL
  const advice: SprocketAdvice | null =
    stands(marks.everything) && seen(marks.everything)
      ? 'check-everything'
      : stands(marks.sprockets) && seen(marks.sprockets)
        ? 'try-the-sprockets'
        : null
  return { advice, unseen: [marks.sprockets, marks.everything].some((mark) => stands(mark) && !seen(mark)) }
}

function flagsOf(
  input: ChainVerdictInput,
  { own, round, byInstrument, worried }: Seen,
  limits: { readonly change: number; readonly watch: number },
  assumed: Assumptions,
): VerdictFlag[] {
  const { spots } = round
  const raised: [VerdictFlag, boolean][] = [
    ['lower-than-before', readsLowerThanBefore(own)],
    ['wide-spread', (spreadOf(spots) ?? 0) > assumed.measuring.spreadReported],
    ['odd-count', spots.some(({ spot }) => (spot.pitches ?? 0) % 2 === 1)],
    ['borderline-mark', spots.some(({ spot }) => spot.borderline === true)],
    ['watch-mark-unseen', spots.length > 0 && spots.every(({ spot }) => watchIsUnseen(spot, limits.watch))],
    ['check-lapsed', spots.some(({ reading }) => reading.instrument.lapsed === true)],
    ['by-hand-suspicion', worried],
    ['customer-reading-apart', input.readings.some((reading) => reading.source === 'customer')],
    ['instruments-at-odds', instrumentsAtOdds(byInstrument, limits.change, assumed)],
  ]
  return raised.flatMap(([flag, stands]) => (stands ? [flag] : []))
}

/** A gauge whose nearest marks leave the watch mark strictly between them cannot see it. */
function watchIsUnseen(spot: CountedSpot['spot'], watch: number): boolean {
  if (spot.value !== undefined) return false
  return watch > (spot.over ?? -Infinity) && watch < (spot.under ?? Infinity)
}

/** A chain does not grow shorter: by more than 2·√(u₁² + u₂²) it is another chain, instrument or slip. */
function readsLowerThanBefore(own: readonly VerdictReading[]): boolean {
  const latest = own.at(-1)
  if (!latest) return false
  const worst = (reading: VerdictReading): { value: number; u: number } | null => {
    const points = reading.spots.flatMap(({ value, u }) => (value === undefined ? [] : [{ value, u }]))
    return points.length === 0 ? null : points.reduce((a, b) => (b.value > a.value ? b : a))
  }
  const now = worst(latest)
  if (!now) return false
  return own.slice(0, -1).some((earlier) => {
    const then = worst(earlier)
    return then !== null && then.value - now.value > 2 * Math.hypot(then.u, now.u)
  })
}

/**
 * Days to the next look where no forecast says otherwise.
 *
 * @param worried whether a check by hand after the latest reading hinted at wear: it moves the look to today
 */
function checkInDays(word: VerdictWord, worried: boolean, assumed: Assumptions): number | null {
  if (word === 'change') return null
  return word === 'measure-it' || word === 'measure-again' || worried ? 0 : assumed.verdict.checkDays
}

// --- Saying so --------------------------------------------------------------------------------------------

function step(
  rule: string,
  inputs: readonly ExplainedInput[],
  value: number | string,
  unit: Explanation['result']['unit'],
): Explanation {
  return { rule, inputs, result: { value, unit } }
}

function stepOf(
  name: VerdictStep,
  facts: Case,
  applies: boolean,
  inputs: readonly ExplainedInput[],
  formula?: string,
): Explanation {
  return {
    rule: name,
    inputs: [{ symbol: 'P', meaning: 'probability-over', value: facts.P, unit: 'probability' }, ...inputs],
    ...(formula === undefined ? {} : { formula }),
    result: { value: applies ? 'applies' : 'passes-on', unit: 'text' },
  }
}

function worstExplained({ round, limits, P, q, assumed }: Case, halfWidth: number): Explanation {
  const only = round.spots.length === 1 && assumed.measuring.places === 1 ? round.spots[0] : undefined
  const single = only?.spot.value !== undefined && !hangsWholeChain(only.reading.instrument.kind)
  const raw = rawWorst(round.spots)
  return {
    rule: single ? 'D1-one' : 'D1',
    inputs: [
      ...(single
        ? [
            { symbol: 'ε', meaning: 'elongation', value: q, unit: '%' } as const,
            { symbol: 'u', meaning: 'uncertainty', value: halfWidth, unit: '%' } as const,
          ]
        : [
            { symbol: 'n', meaning: 'spots-counted', value: round.spots.length, unit: 'spots' } as const,
            { symbol: 'm', meaning: 'places-round', value: assumed.measuring.places, unit: 'spots' } as const,
            {
              symbol: 'x',
              meaning: 'raw-worst',
              value: raw?.value ?? raw?.over ?? raw?.under ?? 0,
              unit: '%',
            } as const,
            { symbol: 'q', meaning: 'worst-median', value: q, unit: '%' } as const,
          ]),
      { symbol: 'L', meaning: 'limit', value: limits.change, unit: '%' },
    ],
    formula: single ? 'P = Φ((ε − L) / u)' : 'P = P(max θᵢ > L), θᵢ ~ N(μ, τ)',
    result: { value: P, unit: 'probability' },
  }
}
