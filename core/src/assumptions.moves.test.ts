import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import {
  ASSUMPTIONS,
  assumptionsWith,
  bathLoad,
  careDue,
  careDistance,
  chainForecast,
  chainVerdict,
  countsWithin,
  costOfWaiting,
  dayAfter,
  derailleurLength,
  dueAgainKm,
  eventCare,
  fitWear,
  fixedLengths,
  isSameRide,
  judgeTemperature,
  learnLife,
  lengthSchools,
  matchJoints,
  measureFrom,
  newJoint,
  NO_KM,
  observeSpot,
  odometerDoubt,
  parseOdometer,
  planVisits,
  pricesOf,
  readLedger,
  removalsAYear,
  rideRate,
  rotorWear,
  shippedPrior,
  shippedValue,
  SHIPPED_RULES,
  standingOf,
  SURFACES,
  trackDistance,
  usualCareFactor,
  usualWearFactor,
  visitMinutes,
  WEAR_ITEM_IDS,
  wearEvidence,
  wearWeighted,
  withOdometer,
  type ActsOn,
  type Assumptions,
  type ChainForecastInput,
  type ChainModel,
  type ForecastReading,
  type InstrumentKind,
  type JointModel,
  type LengthDrive,
} from './index.ts'

const DAY = 86_400_000
const CHAIN_PART: ChainModel = {
  ...{ id: 'c', maker: 'Varrow', name: 'Eleven', speeds: [11], innerMm: 2.2, outerMm: 5.5, profile: 'plain' },
  ...{ roller: 'standard', approvedFor: [], excludedFrom: [], joints: ['link'], markedOut: false, coating: 'plain' },
  ...{ flaredPins: false, motorRated: false, level: null, inBox: 116, jointInBox: 'link', price: 3200, stock: 2 },
}
const LINK_PART: JointModel = {
  ...{ id: 'l', kind: 'link', maker: 'Varrow', name: 'Eleven link', speeds: [11], profile: 'plain', outerMm: 5.55 },
  ...{ roller: 'standard', reuse: { kind: 'once' }, belongsTo: [], systems: [], arrow: false, letteredOut: false },
  ...{ openedBy: 'pliers', greased: false, guide: null, sheet: null, price: 400, stock: 10 },
}
const drive: LengthDrive = {
  type: 'derailleur',
  speeds: 12,
  system: null,
  fronts: [32],
  sprockets: [10, 51],
  chainstayMm: 440,
  suspension: 'full',
  growthMm: 8,
  statedAdd: null,
  pulleys: [14, 14],
  pulleysCounted: false,
  capacityTeeth: 41,
  largestSprocketTeeth: 51,
} as unknown as LengthDrive

const read = (kind: InstrumentKind, typed: string, assumed: Assumptions, more: object = {}) =>
  observeSpot({
    record: { kind, uMm: null, u: null, bias: 0, biasU: 0, marks: [0.5, 0.75], material: null, rollerMm: null },
    entry: { typed, pitches: 16, mode: 'inside-rollers', ...more },
    taken: kind === 'digital' ? { load: 'slack' } : {},
    assumed,
  })

const reading = (s: number, values: readonly number[], more: Partial<ForecastReading> = {}): ForecastReading => ({
  id: `${s} ${values.join()}`,
  occurredAt: s * 50 * DAY,
  chainKm: s * 1000,
  s,
  source: 'shop',
  instrument: { id: 'i', kind: 'digital', biasU: 0 },
  spots: values.map((value) => ({ value, u: 0.03 })),
  ...more,
})
const input = (assumed: Assumptions, more: Partial<ChainForecastInput['life']> = {}): ChainForecastInput => ({
  readings: [reading(1, [0.2, 0.21]), reading(1.9, [0.33, 0.41])],
  limit: 0.5,
  life: {
    care: 'dry-oil',
    start: 'fitted',
    sNow: 2,
    at: 100 * DAY,
    usualFactor: 1.2,
    rate: { kmPerDay: 9, weekScatter: 0.4, meanScatter: 0.1, basis: 'recent' },
    prior: shippedPrior('dry-oil', assumed.forecast),
    ...more,
  },
})
/** Readings a chain's wear follows closely: what comes after them and does not is a stray. */
const steady = [0.6, 0.9, 1.2, 1.5].map((s) => reading(s, Array<number>(8).fill(0.1 * s)))
const verdict = (assumed: Assumptions, readings: readonly ForecastReading[], more: object = {}) =>
  chainVerdict({
    readings,
    drive: { type: 'derailleur', speeds: 11 },
    rule: { ...SHIPPED_RULES[0], id: 'r', version: 1 },
    chain: { kmSinceFittedNew: 200 },
    instruments: [{ id: 'better', kind: 'digital', u: 0.017, inDate: true }],
    assumptions: overridesOf(assumed),
    ...more,
  })
/** What was set, as a shop keeps it. */
const overridesOf = (assumed: Assumptions): Record<string, number> =>
  Object.fromEntries(
    ASSUMPTIONS.flatMap(({ key }) => {
      const to = key.split('.').reduce<unknown>((at, part) => (at as Record<string, unknown>)[part], assumed) as number
      return to === shippedValue(key) ? [] : [[key, to]]
    }),
  )
const short = (value: number, u = 0.03) => [{ value, u, pitches: 40 }]
const minutes = (assumed: Assumptions) => [
  assumed.diary.minutes1,
  assumed.diary.minutes2,
  assumed.diary.minutes3,
  assumed.diary.minutes4,
  assumed.diary.minutes5,
  assumed.diary.minutes6,
  assumed.diary.minutes7,
]
const rides = [
  { id: 'a', from: 0, to: 3_600_000, km: 30, surface: 'wet' as const },
  { id: 'b', from: 40 * DAY, to: 40 * DAY + 3_600_000, km: 60, surface: null },
]
const odometer = [
  { at: -DAY, km: 100, restarted: false },
  { at: 41 * DAY, km: 187, restarted: false },
]

/** Results of the product, each from what is assumed: between them every declared value has to show. */
const RESULTS: Readonly<Partial<Record<ActsOn, (assumed: Assumptions) => unknown>>> = {
  readings: (a) => [
    read('steel-rule', '204.6', a),
    read('steel-rule', '204.6', a, { picture: 'half' }),
    read('steel-rule', '204.6', a, { picture: 'edge' }),
    read('steel-rule', '198.5', a),
    read('steel-rule', '211', a),
    read('caliper', '196.9', a),
    read('full-length', '204.6', a),
    read('drop-in', 'po', a),
    read('drop-in', 'io', a),
    read('three-contact', 'io', a),
    read('two-pin', '0.5', a),
    read('swing-arm', '0.5', a),
    read('graduated', '0.5', a),
    read('digital', '0.5', a),
    countsWithin({ lengthMm: 1537.7, wholeLinks: true }, a.measuring),
    countsWithin({ lengthMm: 2600, wholeLinks: false }, a.measuring),
  ],
  verdicts: (a) => [
    ...[0.1, 0.3, 0.42, 0.46, 0.5, 0.56, 0.8, 1.1].flatMap((value) => [
      verdict(a, [reading(2, [value])]),
      verdict(a, [reading(2, [value, value - 0.12, value])]),
      verdict(a, [reading(2, [], { spots: short(value) })]),
      verdict(a, [reading(2, [], { spots: [{ over: value, u: 0.05 }] })], { drive: { type: 'hub-gear', speeds: 1 } }),
    ]),
    verdict(a, []),
    verdict(a, [reading(1.95, [0.52, 0.5]), reading(2, [0.44], { occurredAt: 100 * DAY + 1 })]),
    verdict(a, [reading(1.97, [0.5]), reading(2, [0.44], { occurredAt: 98.5 * DAY + 10 * 3_600_000 })]),
    verdict(a, [reading(2, [0.42, 0.42, 0.42, 0.42, 0.42])], {
      asOf: { at: 110 * DAY, chainKm: 2100 },
      forecast: { overNow: 0.2, overAhead: 0.6 },
    }),
  ],
  forecasts: (a) => [
    chainForecast(input(a), a)?.forecast,
    chainForecast({ ...input(a, { sNow: 0 }), readings: [] }, a)?.forecast,
    chainForecast({ ...input(a, { rate: { ...input(a).life.rate, kmPerDay: 0.5 } }), readings: [] }, a)?.forecast,
    chainForecast(
      { ...input(a, { care: 'immersion-wax', rate: { ...input(a).life.rate, kmPerDay: 0.5 } }), readings: [] },
      a,
    )?.forecast,
    chainForecast({ ...input(a), readings: [reading(1, [0.2]), reading(1.9, [0.62])] }, a)?.forecast.withheld,
    chainForecast({ ...input(a), readings: [reading(1, [0.2]), reading(1.9, [0.45, 0.5])] }, a)?.forecast.withheld,
    ...[0.02, 0.1, 0.5, 0.55, 0.6, 0.7].map(
      (value) => chainForecast({ ...input(a), readings: [...steady, reading(1.9, [value])] }, a)?.forecast,
    ),
    wearEvidence([reading(1, [0.2]), reading(1, [0.3], { occurredAt: 50 * DAY + 20 * 3_600_000 })], undefined, a),
  ],
  priors: (a) => [
    (['immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil', 'unknown'] as const).map((care) =>
      shippedPrior(care, a.forecast),
    ),
    fitWear({
      care: 'dry-oil',
      observations: [{ s: 1, value: 0.3, u: 0.04 }],
      start: 'unknown',
      defaults: a.forecast,
    }).before.at(-1),
    learnLife('dry-oil', [], a.forecast),
  ],
  standings: (a) => {
    const outlook = { from: '2026-03-02', reached: Array.from({ length: 24 }, (_, i) => i * 10) }
    const facts = {
      word: 'keep-riding' as const,
      earned: false,
      decided: false,
      presentUntil: null,
      checkOn: null,
      outlook,
    }
    return [measureFrom(facts, a), standingOf(facts, '2026-04-20', a)]
  },
  distance: (a) => [
    parseOdometer('400000', 'km', a.distance),
    odometerDoubt({ km: 3000, at: 5 * DAY }, { km: 0, at: 0 }, a.distance),
    readLedger({ odometer, rides: [...rides, { ...rides[0]!, id: 'c' }] }, a.distance),
    withOdometer(
      {
        recorded: { at: 0, km: 0, s: 0 },
        odometer: { at: 0, km: 0, s: 0, shownKm: 0 },
        rides,
        before: [],
        mixBefore: NO_KM,
        unsaidKm: { atOdometer: 0, atReadings: {} },
        fittedFrom: 0,
        usualFactor: 1,
      },
      { at: 60 * DAY, km: 300, restarted: false },
      a.distance,
    ).chainAt(60 * DAY),
    usualWearFactor([], a.distance),
    usualCareFactor([], a.distance),
    SURFACES.map((surface) => [
      wearWeighted({ ...NO_KM, [surface]: 10 }, 1, a.distance),
      careDistance({ ...NO_KM, [surface]: 10 }, 1, a.distance),
    ]),
    rideRate(readLedger({ odometer: [], rides }, a.distance), a.distance),
    rideRate({ segments: [], lastAt: null, statedKmPerYear: 3000 }, a.distance),
    rideRate({ segments: [], lastAt: null, shopKmPerDay: 5 }, a.distance),
    [0, 10, 25, 50, 70].map((shift) =>
      isSameRide({ from: 0, to: 100, km: 20 }, { from: shift, to: 100 + shift, km: 20 + shift / 100 }, a.distance),
    ),
    [20.2, 21, 23, 26].map((km) => isSameRide({ from: 0, to: 100, km: 20 }, { from: 0, to: 100, km }, a.distance)),
    trackDistance(
      [0, 60, 150, 400, 460, 490].map((second, i) => ({
        at: second * 1000,
        latitude: i < 5 ? i * 0.003 : 0.03,
        longitude: 0,
      })),
      a.distance,
    ),
  ],
  costs: (a) =>
    costOfWaiting(
      fitWear({ care: 'dry-oil', observations: [{ s: 3, value: 0.5, u: 0.04 }] }),
      {
        limit: 0.5,
        sNow: 3,
        usualFactor: 1.2,
        prices: pricesOf({ chain: null, cassette: null, rings: null }, a.economics),
      },
      a.economics,
    ),
  lengths: (a) => [
    derailleurLength(drive, a),
    derailleurLength({ ...drive, suspension: 'rigid' }, a),
    derailleurLength({ ...drive, growthMm: 30 }, a),
    derailleurLength({ ...drive, fronts: [50, 34], sprockets: [11, 32], suspension: 'rigid' }, a),
    derailleurLength({ ...drive, sprockets: [10, 44] }, a),
    derailleurLength({ ...drive, pulleys: [12, 12] }, a),
    lengthSchools(drive, 118, a),
    fixedLengths({ frontTeeth: 44, rearTeeth: 17, fromMm: 430, toMm: 430, halfLink: true }, a),
    fixedLengths({ frontTeeth: 44, rearTeeth: 17, fromMm: 433, toMm: 433, halfLink: true }, a),
    fixedLengths({ frontTeeth: 44, rearTeeth: 17, fromMm: 436, toMm: 436, halfLink: true }, a),
  ],
  parts: (a) => [
    removalsAYear({ care: 'immersion-wax', takenOff: false }, a),
    removalsAYear({ care: 'dry-oil', takenOff: true }, a),
    [5.6, 5.72, 6, 6.3].map((outerMm) =>
      matchJoints({ chain: CHAIN_PART, newChain: true, speeds: 11, school: 'strict', care: 'dry-oil', assumed: a }, [
        newJoint({ ...LINK_PART, outerMm }),
      ]).map(({ outcome }) => outcome),
    ),
  ],
  'other-wear': (a) => [
    WEAR_ITEM_IDS.map((id) => [dueAgainKm(id, 'good', a.otherWear), dueAgainKm(id, 'watch', a.otherWear)]),
    [1.7, 1.62, 1.57, 1.55, 1.5].map((mm) =>
      rotorWear({ minimumMm: 1.5, readings: [{ km: 0, mm, u: 0.03 }], kmNow: 100 }, a.otherWear),
    ),
  ],
  care: (a) => [
    ...(['immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil'] as const).flatMap((care) =>
      [false, true].map((factoryCoat) =>
        careDue(
          {
            care,
            km: { ...NO_KM, wet: 20 },
            usualFactor: 1,
            days: factoryCoat ? null : 20,
            since: [],
            factoryCoat,
            rate: { kmPerDay: 1, weekScatter: 0.1, meanScatter: 0.1, basis: 'recent' },
            verdict: 'keep-riding',
            nextLookKm: null,
            nextLookDays: null,
          },
          a,
        ),
      ),
    ),
    [0, 5, 40, 200].map((km) =>
      eventCare(
        {
          eventOn: '2028-03-02',
          today: '2028-02-20',
          care: 'immersion-wax',
          used: { km, days: 0, interval: { km: 300, days: 90 }, kmLeft: 300 - km, asOf: '2028-02-20' },
          kmPerDay: 1,
        },
        a.care,
      ),
    ),
  ],
  'pot-heat': (a) => [
    [70, 100, 110, 120, 150].map((celsius) =>
      trace(
        Array.from({ length: 90 }, (_, i) => celsius + (i % 3) * 0.1),
        a,
      ),
    ),
    [70, 200, 400, 3000].map((length) =>
      trace(
        Array.from({ length }, () => 82),
        a,
      ),
    ),
    [5, 12, 30, 50].map((jump) =>
      trace([...Array.from({ length: 60 }, (_, i) => 82 + (i % 3) * 0.1), 82 + jump, 82], a),
    ),
    [3, 10, 25, 200].map((silent) =>
      trace(
        Array.from({ length: 60 }, (_, i) => 82 + (i % 3) * 0.1),
        a,
        silent,
      ),
    ),
    bathLoad({ clean: 10, wet: 5, gritty: 3 }, a.pot),
  ],
  diary: (a) => [
    visitMinutes(['change', 'check', 'care', 'other-wear'], a.diary),
    visitMinutes(['check', 'care'], a.diary),
    visitMinutes(['wash'], a.diary),
    planVisits(
      Array.from({ length: 14 }, (_, i) => ({
        bikeId: `${i}`,
        customerId: `${i}`,
        items: [
          { kind: 'change' as const, on: dayAfter('2026-03-02', i) },
          { kind: 'care' as const, on: dayAfter('2026-03-02', i + 20) },
        ],
        goodWeekday: null,
      })),
      { minutes: minutes(a), closed: new Set(), booked: new Map() },
      '2026-03-02',
      a.diary,
    ),
  ],
}

function trace(values: readonly number[], assumed: Assumptions, silentSeconds = 0): unknown {
  const now = 1_000_000_000
  const readings = values.map((celsius, i) => ({ at: now - (values.length - 1 - i + silentSeconds) * 1000, celsius }))
  return judgeTemperature(
    { readings, now, band: { low: 75, high: 90 }, alarmCelsius: assumed.pot.alarmCelsius },
    assumed.pot,
  )
}

/** Values that act where the core is asked from: each is moved by a test there. */
const ELSEWHERE: Readonly<Record<string, readonly string[]>> = {
  'server/src/limits/settings.test.ts': [
    'measuring.instrumentCheckMonths',
    'measuring.preloadKg',
    'verdict.eachVisit',
    'verdict.decidedCheckKm',
    'verdict.decidedCheckDays',
    'verdict.roadsideCheckDays',
    'distance.statedStartShare',
    'distance.statedStartLeastKm',
    'otherWear.rotorUMm',
    'jobs.hourPrice',
  ],
  'core/src/economics/careCosts.test.ts': ASSUMPTIONS.flatMap(({ key }) =>
    /^care\..*\.product$/.test(key) ? [key] : [],
  ),
  'core/src/care/washes.test.ts': ['care.washDays'],
  'core/src/pot/learnedMinutes.test.ts': ['pot.learnFrom'],
  'server/src/limits/limits.test.ts': ['verdict.rhythmDays'],
  'server/src/messages/quiet.test.ts': ['diary.quietFrom', 'diary.quietUntil'],
  'server/src/operation.test.ts': ['orders.ownerAbove'],
  'web/src/places/measure/evaluate.test.ts': ['measuring.oddLowest', 'measuring.oddHighest'],
  'web/src/places/pot/settings.test.ts': ASSUMPTIONS.flatMap(({ key }) =>
    /^pot\.(?:.*Minutes|.*minutes|stripCapacity|railCapacity|hands|.*Celsius)$/.test(key) &&
    !/stuck|alarm|spike/.test(key)
      ? [key]
      : [],
  ),
}

describe('every value a shop may set', () => {
  const shipped = new Map(
    Object.entries(RESULTS).map(([name, result]) => [name, JSON.stringify(result(assumptionsWith({})))]),
  )
  const elsewhere = new Set(Object.values(ELSEWHERE).flat())
  const here = ASSUMPTIONS.filter(({ key }) => !elsewhere.has(key))
  it.each(here.map((one) => [one.key, one.actsOn, one] as const))('%s moves %s', (key, actsOn, one) => {
    const { lowest, highest, whole } = one
    const between = [0.03, 0.2, 0.5, 0.8].map((share) => lowest + (highest - lowest) * share)
    const tried = [lowest, highest, ...between.map((value) => (whole ? Math.round(value) : value))]
    const moves = (to: number): boolean =>
      JSON.stringify(RESULTS[actsOn]?.(assumptionsWith({ [key]: to }))) !== shipped.get(actsOn)
    expect(tried.some(moves)).toBe(true)
  })
  it.each(Object.entries(ELSEWHERE))('what acts outside the core is moved in %s', (file, keys) => {
    const test = readFileSync(new URL(`../../${file}`, import.meta.url), 'utf8')
    // The pot's own test walks the list of values by itself.
    if (!test.includes('ASSUMPTIONS')) expect(keys.filter((key) => !test.includes(key.split('.')[1]!))).toEqual([])
  })
})
