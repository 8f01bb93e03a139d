import { DEFAULTS } from './defaults.ts'

type Numbers<T> = T extends number ? number : { readonly [K in keyof T]: Numbers<T[K]> }

/** The values assumed: {@link DEFAULTS}, or those with a shop's own in their places. */
export type Assumptions = Numbers<typeof DEFAULTS>

/** A shop's own values by key, such as `measuring.steelRuleUMm`; keys left out keep the shipped value. */
export type AssumptionOverrides = Readonly<Record<string, number>>

export type AssumptionUnit =
  | 'mm'
  | '%'
  | 'km'
  | 'days'
  | 'hours'
  | 'months'
  | 'kg'
  | 'spots'
  | 'pitches'
  | 'share'
  | 'u'
  | '1000 km'
  | 'seconds'
  | 'km/h'
  | 'money'
  | 'chains'
  | 'yes-no'
  | 'teeth'
  | 'times a year'
  | 'minutes'
  | 'celsius'
  | 'people'

/** One value a shop can change. */
export interface Assumption {
  /** Path in {@link DEFAULTS}; also its key in the message catalogue. */
  readonly key: string
  readonly unit: AssumptionUnit
  /** What it may be set to, in its unit. */
  readonly lowest: number
  readonly highest: number
  /** True for counts and days. */
  readonly whole?: boolean
}

const value = (key: string, unit: AssumptionUnit, lowest: number, highest: number, whole = false): Assumption =>
  whole ? { key, unit, lowest, highest, whole } : { key, unit, lowest, highest }

/** Every value a shop can change, in the order a screen lists them. */
export const ASSUMPTIONS: readonly Assumption[] = [
  value('measuring.steelRuleUMm', 'mm', 0.02, 2),
  value('measuring.caliperUMm', 'mm', 0.01, 1),
  value('measuring.dropInMarkU', '%', 0.005, 0.3),
  value('measuring.threeContactMarkU', '%', 0.005, 0.3),
  value('measuring.twoPinMarkU', '%', 0.005, 0.3),
  value('measuring.swingArmU', '%', 0.005, 0.3),
  value('measuring.graduatedU', '%', 0.005, 0.3),
  value('measuring.digitalU', '%', 0.005, 0.3),
  value('measuring.fullLengthUMm', 'mm', 0.05, 5),
  value('measuring.rollerMm', 'mm', 6, 10),
  value('measuring.pinMm', 'mm', 3, 5),
  value('measuring.pictureUMm', 'mm', 0.1, 2),
  value('measuring.preloadKg', 'kg', 0.5, 20),
  value('measuring.candidateLowest', '%', -1, 0),
  value('measuring.candidateHighest', '%', 1, 5),
  value('measuring.countLowest', '%', -3, 0),
  value('measuring.countHighest', '%', 2, 10),
  value('measuring.spreadReported', '%', 0.02, 1),
  value('measuring.instrumentCheckMonths', 'months', 1, 60, true),
  value('measuring.spotsWanted', 'spots', 1, 8, true),
  value('measuring.longRunPitches', 'pitches', 16, 120, true),
  value('measuring.places', 'spots', 1, 24, true),
  value('measuring.pushU', '%', 0, 0.3),
  value('measuring.slackU', '%', 0, 0.3),
  value('measuring.oddLowest', '%', -1, 0),
  value('measuring.oddHighest', '%', 0.2, 2),
  value('verdict.roundKm', 'km', 0, 1000),
  value('verdict.roundDays', 'days', 0, 90, true),
  value('verdict.newChainKm', 'km', 0, 1000),
  value('verdict.visitHours', 'hours', 1, 72),
  value('verdict.surelyOver', 'share', 0.6, 0.999),
  value('verdict.surelyUnder', 'share', 0.001, 0.4),
  value('verdict.changeAt', 'share', 0.2, 0.9),
  value('verdict.lookAheadKm', 'km', 0, 1000),
  value('verdict.betterInstrumentShare', 'share', 0.1, 1),
  value('verdict.blindMarkU', 'u', 0.5, 5),
  value('verdict.sprocketMark.floor', '%', 0.3, 2),
  value('verdict.sprocketMark.overLimit', '%', 0, 1),
  value('verdict.everythingMark.floor', '%', 0.5, 3),
  value('verdict.everythingMark.overLimit', '%', 0, 2),
  value('verdict.rhythmDays', 'days', 0, 365, true),
  value('verdict.eachVisit', 'yes-no', 0, 1, true),
  value('verdict.checkDays', 'days', 7, 730, true),
  value('verdict.presentDays', 'days', 0, 90, true),
  value('verdict.presentKm', 'km', 0, 1000),
  value('verdict.decidedCheckKm', 'km', 10, 1000),
  value('verdict.decidedCheckDays', 'days', 1, 180, true),
  ...['immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil', 'unknown'].flatMap((care) => [
    value(`forecast.priors.${care}.life`, '1000 km', 0.5, 50),
    value(`forecast.priors.${care}.gamma`, 'share', 0.8, 2.5),
    value(`forecast.priors.${care}.gammaSd`, 'share', 0.01, 0.5),
  ]),
  value('forecast.lifeSd', 'share', 0.05, 1.5),
  value('forecast.epsilon0', '%', -0.1, 0.3),
  value('forecast.epsilon0U', '%', 0.005, 0.2),
  value('forecast.unknownLives', 'share', 0.5, 3),
  value('forecast.lawOff', 'share', 0, 1),
  value('forecast.checkRisk', 'share', 0.01, 0.5),
  value('forecast.checkFloorKm', 'km', 0, 1000),
  value('forecast.checkHorizonDays', 'days', 7, 730, true),
  value('forecast.checkHorizonWaxDays', 'days', 7, 730, true),
  value('forecast.doubtShown', 'share', 0.1, 1),
  value('forecast.verdictApart', 'share', 0.1, 1),
  value('distance.odometerHighestKm', 'km', 10_000, 1_000_000),
  value('distance.odometerDayKm', 'km', 50, 2000),
  value('distance.ridesOverOdometer', 'share', 0, 1),
  ...['dry', 'damp', 'wet', 'gritty'].map((surface) => value(`distance.wearFactor.${surface}`, 'share', 0.2, 10)),
  value('distance.wearFactorUnknown', 'share', 0.2, 10),
  ...['dry', 'damp', 'wet', 'gritty'].map((surface) => value(`distance.careFactor.${surface}`, 'share', 0.2, 10)),
  value('distance.careFactorUnknown', 'share', 0.2, 10),
  value('distance.rateDays', 'days', 14, 365, true),
  value('distance.rateHalfLifeDays', 'days', 7, 365, true),
  value('distance.weekScatter', 'share', 0, 3),
  value('distance.statedRateScatter', 'share', 0, 2),
  value('distance.shopRateScatter', 'share', 0, 3),
  value('distance.statedStartShare', 'share', 0, 1),
  value('distance.statedStartLeastKm', 'km', 1, 2000),
  value('distance.sameRideOverlap', 'share', 0.3, 1),
  value('distance.sameRideDistance', 'share', 0.01, 0.3),
  value('distance.trackGapSeconds', 'seconds', 10, 3600, true),
  value('distance.trackJumpKmh', 'km/h', 60, 300),
  value('economics.chainPrice', 'money', 0, 2000),
  value('economics.cassettePrice', 'money', 0, 4000),
  value('economics.ringsPrice', 'money', 0, 4000),
  value('economics.chainsOutlived', 'chains', 1, 20),
  value('economics.ringsLast', 'share', 0.5, 20),
  value('economics.damageSlope', 'share', 0, 6),
  value('economics.damageStep', '%', 0.05, 1),
  value('economics.efficiencyLoss', '%', 0, 10),
  value('length.added', 'pitches', 0, 10, true),
  value('length.addedWide', 'pitches', 0, 12, true),
  value('length.wideSprocketTeeth', 'teeth', 30, 60, true),
  value('length.addedSuspended', 'pitches', 0, 8, true),
  value('length.pulleyTeeth', 'teeth', 8, 20, true),
  value('length.pitchesPerPulleyTooth', 'pitches', 0, 1),
  value('length.doubtPitches', 'pitches', 0, 6, true),
  value('length.fixedPlayMm', 'mm', 0, 3),
  value('parts.jointWidthMm', 'mm', 0, 0.6),
  value('parts.removalsWax', 'times a year', 0, 60, true),
  value('parts.removalsOff', 'times a year', 0, 60, true),
  value('otherWear.teethKm', 'km', 100, 20_000),
  value('otherWear.rotorKm', 'km', 100, 20_000),
  value('otherWear.padsKm', 'km', 100, 20_000),
  value('otherWear.bearingsKm', 'km', 100, 20_000),
  value('otherWear.tyresKm', 'km', 100, 20_000),
  value('otherWear.watchShare', 'share', 0.05, 1),
  value('otherWear.rotorUMm', 'mm', 0.005, 0.2),
  value('otherWear.rotorRate', 'mm', 0.005, 0.5),
  value('otherWear.rotorRateSd', 'share', 0.1, 2),
  value('otherWear.rotorChangeAt', 'share', 0.1, 0.95),
  value('otherWear.rotorRisk', 'share', 0.005, 0.4),
  ...['immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil'].flatMap((care) => [
    value(`care.${care}.km`, 'km', 20, 2000),
    value(`care.${care}.days`, 'days', 1, 365, true),
  ]),
  value('care.firstCareKm', 'km', 0, 500),
  value('care.firstRideKm', 'km', 0, 200),
  value('care.eventLeadDays', 'days', 1, 14, true),
  value('care.eventUsedShare', 'share', 0.05, 1),
  ...[
    'stripMinutes',
    'stripHandsMinutes',
    'dryMinutes',
    'loadMinutes',
    'hangMinutes',
    'flexMinutes',
    'heatMinutes',
  ].map((key) => value(`pot.${key}`, 'minutes', 0, 240, true)),
  ...['soak-and-hang', 'bubble-out', 'cool-draw'].flatMap((recipe) => [
    ...['minutes', 'drawMinutes', 'reheatMinutes'].map((key) => value(`pot.${recipe}.${key}`, 'minutes', 0, 240, true)),
    value(`pot.${recipe}.lowCelsius`, 'celsius', 40, 150),
    value(`pot.${recipe}.highCelsius`, 'celsius', 40, 150),
  ]),
  value('pot.stripCapacity', 'chains', 1, 40, true),
  value('pot.railCapacity', 'chains', 1, 100, true),
  value('pot.hands', 'people', 1, 10, true),
  value('pot.alarmCelsius', 'celsius', 60, 160),
  value('pot.bathChains', 'chains', 1, 1000, true),
  value('pot.wetCounts', 'chains', 1, 10),
  value('pot.grittyCounts', 'chains', 1, 10),
  value('pot.silentSeconds', 'seconds', 5, 300, true),
  value('pot.stuckMinutes', 'minutes', 1, 60, true),
  value('pot.spikeCelsius', 'celsius', 2, 60),
  ...[1, 2, 3, 4, 5, 6, 7].map((weekday) => value(`diary.minutes${weekday}`, 'minutes', 0, 10_000, true)),
  value('diary.quietFrom', 'hours', 0, 24, true),
  value('diary.quietUntil', 'hours', 0, 24, true),
  value('diary.pullForwardDays', 'days', 0, 60, true),
  ...['arriveMinutes', 'changeMinutes', 'checkMinutes', 'careMinutes', 'otherWearMinutes'].map((key) =>
    value(`diary.${key}`, 'minutes', 0, 240, true),
  ),
  value('jobs.hourPrice', 'money', 0, 500),
  value('orders.ownerAbove', 'money', 0, 100_000),
]

/** Why a value cannot be set: keys of the message catalogue. */
export type AssumptionProblem = 'assumption-unknown' | 'assumption-range' | 'assumption-whole'

/** What stands in the way of setting a value; null when nothing does. */
export function assumptionProblem(key: string, to: number): AssumptionProblem | null {
  const found = ASSUMPTIONS.find((one) => one.key === key)
  if (!found) return 'assumption-unknown'
  if (!(to >= found.lowest && to <= found.highest)) return 'assumption-range'
  return found.whole === true && !Number.isInteger(to) ? 'assumption-whole' : null
}

/** The value shipped for a key. @throws RangeError for a key there is none of */
export function shippedValue(key: string): number {
  let at: unknown = DEFAULTS
  for (const part of key.split('.')) at = (at as Record<string, unknown> | undefined)?.[part]
  if (typeof at !== 'number') throw new RangeError(`there is no assumption ${key}`)
  return at
}

/**
 * The assumptions with a shop's own values in their places.
 *
 * @param overrides by key; unknown keys and values out of range are left out, so that a stored set made by another
 *   version of Pelrin can always be read
 */
export function assumptionsWith(overrides: AssumptionOverrides): Assumptions {
  const entries = Object.entries(overrides).filter(([key, to]) => assumptionProblem(key, to) === null)
  if (entries.length === 0) return DEFAULTS
  let tree: Tree = DEFAULTS
  for (const [key, to] of entries) tree = withValue(tree, key.split('.'), to)
  return tree as unknown as Assumptions
}

interface Tree {
  readonly [key: string]: Tree | number
}

/** A copy of a tree with one leaf replaced. */
function withValue(tree: Tree, [head = '', ...rest]: readonly string[], to: number): Tree {
  return { ...tree, [head]: rest.length === 0 ? to : withValue(tree[head] as Tree, rest, to) }
}
