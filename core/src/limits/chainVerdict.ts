import { DEFAULTS } from '../defaults.ts'
import type { ExplainedInput, Explanation } from '../explanation.ts'
import { driveClassOf, limitsFor, sprocketMarks, type HouseRule } from './houseRules.ts'
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

interface Decision {
  readonly word: VerdictWord
  readonly decidedBy: VerdictStep
  readonly settle: readonly Settle[]
  readonly otherwise: VerdictWord | null
  readonly steps: readonly Explanation[]
}

/** What every step looks at. */
interface Case {
  readonly round: Round
  readonly limits: { readonly change: number; readonly plan: number | null; readonly watch: number }
  readonly P: number
  readonly q: number
  readonly overPlan: number | null
  readonly instruments: readonly AvailableInstrument[]
  readonly forecast: ChainVerdictInput['forecast']
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
  const judged = judge(input, input.rule)
  return {
    ...judged,
    schools: (input.otherRules ?? []).map((rule) => {
      const other = judge(input, rule)
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

function judge(input: ChainVerdictInput, rule: HouseRule): Omit<ChainVerdict, 'schools'> {
  const driveClass = driveClassOf(input.drive)
  const limits = limitsFor(rule, driveClass)
  const own = ownReadings(input.readings, input.chain.countChangedAt)
  const round = presentRound(own)
  const counting = whatCounts(input, round)
  const common = {
    limit: limits.change,
    plan: limits.plan,
    watch: limits.watch,
    spotsMeasured: round.spots.length,
    spotsWanted: spotsStillWanted(round.spots),
    spread: spreadOf(round.spots),
    worst: rawWorst(round.spots),
    countedReadingIds: round.readings.map((reading) => reading.id),
  }
  if (round.spots.length === 0) {
    const decision = nothingCounts(input, counting)
    return {
      ...common,
      ...decision,
      advice: null,
      flags: flagsOf(input, own, round, limits.watch),
      probabilityOver: null,
      median: null,
      halfWidth: null,
      checkInDays: checkInDays(decision.word),
    }
  }
  const worst = worstOf(round.spots, limits.change)
  const facts: Case = {
    round,
    limits,
    P: worst.probabilityOver,
    q: worst.median,
    overPlan: limits.plan === null ? null : worstOf(round.spots, limits.plan).probabilityOver,
    instruments: input.instruments,
    forecast: input.forecast,
  }
  const decision = decide(facts, [counting, worstExplained(facts, worst.halfWidth)])
  return {
    ...common,
    ...decision,
    advice: decision.word === 'change' ? sprocketAdvice(worst.median, driveClass) : null,
    flags: flagsOf(input, own, round, limits.watch),
    probabilityOver: worst.probabilityOver,
    median: worst.median,
    halfWidth: worst.halfWidth,
    checkInDays: checkInDays(decision.word),
  }
}

// --- D0 ---------------------------------------------------------------------------------------------------

function whatCounts(input: ChainVerdictInput, round: Round): Explanation {
  return step(
    'D0',
    [
      { symbol: 'N', meaning: 'readings-known', value: input.readings.length, unit: 'text' },
      { symbol: 'd', meaning: 'round-days', value: DEFAULTS.verdict.roundDays, unit: 'days' },
      { symbol: 's', meaning: 'round-km', value: DEFAULTS.verdict.roundKm, unit: 'km' },
    ],
    round.spots.length,
    'spots',
  )
}

function nothingCounts(input: ChainVerdictInput, counting: Explanation): Decision {
  const km = input.chain.kmSinceFittedNew
  const isNew = km !== null && km < DEFAULTS.verdict.newChainKm && !suspectedByHand(input.readings)
  const word: VerdictWord = isNew ? 'not-measured-yet' : 'measure-it'
  const explained: Explanation = {
    ...counting,
    rule: isNew ? 'D0-new' : 'D0-nothing',
    inputs: [
      ...counting.inputs,
      { symbol: 'k', meaning: 'km-since-fitted', value: km ?? 'not-known', unit: km === null ? 'text' : 'km' },
      { symbol: 'k₀', meaning: 'new-chain-km', value: DEFAULTS.verdict.newChainKm, unit: 'km' },
    ],
    formula: 'k < k₀',
    result: { value: word, unit: 'text' },
  }
  return { word, decidedBy: 'D0', settle: [], otherwise: null, steps: [explained] }
}

const suspectedByHand = (readings: readonly VerdictReading[]): boolean =>
  readings.some((reading) => reading.hint === 'worn')

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
  const { surelyOver } = DEFAULTS.verdict

  // D2: only marks, none near the limit. The forecast answers only if no instrument in the shop can.
  const blind = gaugeIsBlind(facts)
  if (blind) {
    const able = facts.instruments.filter((other) => other.inDate && canAnswer(other, facts.limits.change))
    const best = able.sort((a, b) => a.u - b.u)[0]
    const ask = best !== undefined || !facts.forecast
    steps.push(stepOf('D2', facts, ask, blindInputs(facts)))
    if (ask)
      return {
        ...settled('measure-again', 'D2', [{ kind: 'instrument-that-can', instrumentId: best?.id ?? null }]),
        otherwise: withoutMeasuringAgain(facts).word,
      }
    return decideOnProbability({ ...facts, P: facts.forecast.overNow }, steps)
  }

  // D3: over beyond doubt.
  const surely = facts.P >= surelyOver
  steps.push(stepOf('D3', facts, surely, [], 'P ≥ 0.90'))
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
        { symbol: 'w', meaning: 'spots-wanted', value: spotsStillWanted(facts.round.spots), unit: 'spots' },
      ],
      '0.10 < P < 0.90',
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
      ],
      forecast ? 'P ≥ 0.50 ∨ F ≥ 0.50' : 'P ≥ 0.50',
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
        overPlan === null ? 'P > 0.10 ∨ q ≥ w' : 'P > 0.10 ∨ q ≥ w ∨ Pₚ ≥ 0.50',
      ),
    )
  if (decidedBy === 'D7')
    steps.push(
      stepOf('D7', facts, true, [
        { symbol: 'w', meaning: 'spots-wanted', value: spotsStillWanted(facts.round.spots), unit: 'spots' },
      ]),
    )
  return { word, decidedBy, settle: [], otherwise: null, steps }
}

function withoutMeasuringAgain(facts: Case): { word: VerdictWord; decidedBy: VerdictStep } {
  const { changeAt, surelyUnder } = DEFAULTS.verdict
  const { P, q, overPlan, forecast } = facts
  if (P >= changeAt || (forecast && forecast.overAhead >= changeAt)) return { word: 'change', decidedBy: 'D5' }
  if (P > surelyUnder || q >= lookMoreOften(facts) - EQUAL || (overPlan !== null && overPlan >= changeAt))
    return { word: 'closing-in', decidedBy: 'D6' }
  return { word: 'keep-riding', decidedBy: 'D7' }
}

/** The lower of watch and plan, %. */
const lookMoreOften = ({ limits }: Case): number => Math.min(limits.watch, limits.plan ?? Infinity)

function gaugeIsBlind({ round, limits }: Case): boolean {
  return round.spots.every(({ spot }) => {
    if (spot.value !== undefined) return false
    const clear = DEFAULTS.verdict.blindMarkU * spot.u
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
function canAnswer(instrument: AvailableInstrument, limit: number): boolean {
  if (instrument.kind === 'by-hand') return false
  if (instrument.marks === undefined) return true
  return instrument.marks.some((mark) => Math.abs(mark - limit) <= DEFAULTS.verdict.blindMarkU * instrument.u)
}

/** D4's conditions, as what to do about them; empty when there is no doubt or nothing would settle it. */
function whatWouldSettle(facts: Case): Settle[] {
  const { surelyOver, surelyUnder, betterInstrumentShare } = DEFAULTS.verdict
  const { P, round, instruments, limits } = facts
  const atOdds = instrumentsAtOdds(round.spots, limits.change)
  if (round.measuredAgain || P <= surelyUnder || P >= surelyOver) return []
  const settle: Settle[] = []
  const wanted = spotsStillWanted(round.spots)
  if (wanted > 0) settle.push({ kind: 'more-spots', spots: wanted })
  const finestU = Math.min(...round.spots.map(({ spot, reading }) => Math.hypot(spot.u, reading.instrument.biasU)))
  const used = new Set(round.readings.map((reading) => reading.instrument.id))
  const better = instruments
    .filter(
      (other) =>
        other.inDate &&
        !used.has(other.id) &&
        other.kind !== 'full-length' &&
        other.u <= betterInstrumentShare * finestU + EQUAL &&
        canAnswer(other, limits.change),
    )
    .sort((a, b) => a.u - b.u || (a.id < b.id ? -1 : 1))[0]
  if (better) settle.push({ kind: 'better-instrument', instrumentId: better.id })
  if (atOdds) settle.push({ kind: 'same-spot-with-both' })
  return settle
}

/** Two instruments at odds: one surely over, one surely under. */
function instrumentsAtOdds(spots: readonly CountedSpot[], limit: number): boolean {
  const instruments = new Set(spots.map(({ reading }) => reading.instrument.id))
  if (instruments.size < 2) return false
  const chances = [...instruments].map(
    (id) =>
      worstOf(
        spots.filter(({ reading }) => reading.instrument.id === id),
        limit,
      ).probabilityOver,
  )
  return Math.max(...chances) >= DEFAULTS.verdict.surelyOver && Math.min(...chances) <= DEFAULTS.verdict.surelyUnder
}

// --- What stands beside the word --------------------------------------------------------------------------

function sprocketAdvice(median: number, driveClass: ReturnType<typeof driveClassOf>): SprocketAdvice | null {
  const marks = sprocketMarks(driveClass)
  if (median >= marks.everything - EQUAL) return 'check-everything'
  return median >= marks.sprockets - EQUAL ? 'try-the-sprockets' : null
}

function flagsOf(input: ChainVerdictInput, own: readonly VerdictReading[], round: Round, watch: number): VerdictFlag[] {
  const flags: VerdictFlag[] = []
  if (readsLowerThanBefore(own)) flags.push('lower-than-before')
  if ((spreadOf(round.spots) ?? 0) > DEFAULTS.measuring.spreadReported) flags.push('wide-spread')
  if (round.spots.some(({ spot }) => (spot.pitches ?? 0) % 2 === 1)) flags.push('odd-count')
  if (round.spots.length > 0 && round.spots.every(({ spot }) => watchIsUnseen(spot, watch)))
    flags.push('watch-mark-unseen')
  if (suspectedByHand(input.readings)) flags.push('by-hand-suspicion')
  if (input.readings.some((reading) => reading.source === 'customer')) flags.push('customer-reading-apart')
  if (instrumentsAtOdds(round.spots, limitsFor(input.rule, driveClassOf(input.drive)).change))
    flags.push('instruments-at-odds')
  return flags
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

function checkInDays(word: VerdictWord): number | null {
  switch (word) {
    case 'change':
      return null
    case 'measure-it':
    case 'measure-again':
      return 0
    case 'not-measured-yet':
      return DEFAULTS.verdict.firstCheckDays
    case 'closing-in':
      return DEFAULTS.verdict.closingInCheckDays
    case 'keep-riding':
      return DEFAULTS.verdict.checkDays
  }
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

function worstExplained({ round, limits, P, q }: Case, halfWidth: number): Explanation {
  const only = round.spots.length === 1 ? round.spots[0] : undefined
  const single = only?.spot.value !== undefined && only.reading.instrument.kind !== 'full-length'
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
