/** Units values are set in. */
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

/** What a value acts on: results that move with it. A test holds each to its word. */
export const ACTS_ON = [
  'readings',
  'instruments',
  'verdicts',
  'standings',
  'looks',
  'priors',
  'forecasts',
  'distance',
  'costs',
  'lengths',
  'parts',
  'other-wear',
  'care',
  'pot-plan',
  'pot-heat',
  'diary',
  'messages',
  'estimates',
  'orders',
] as const
export type ActsOn = (typeof ACTS_ON)[number]

/** One value that is assumed, whole: nothing of it is said anywhere else. */
export interface Declared {
  readonly shipped: number
  readonly unit: AssumptionUnit
  /** What it may be set to, in its unit. */
  readonly range: readonly [lowest: number, highest: number]
  readonly actsOn: ActsOn
  /** What it means, to be followed by the value. */
  readonly says: string
  /** True for counts and days. */
  readonly whole: boolean
}

const value = (
  shipped: number,
  unit: AssumptionUnit,
  range: readonly [number, number],
  actsOn: ActsOn,
  says: string,
): Declared => ({ shipped, unit, range, actsOn, says, whole: false })
const whole = (...declared: Parameters<typeof value>): Declared => ({ ...value(...declared), whole: true })

/**
 * Every assumption Pelrin makes that is neither physics nor a standard, in one place: what is shipped, its unit, what a
 * shop may set it to, what it acts on and what it means. The values the code reads, the list and the editor of House rules,
 * docs/assumptions.md and the API's document are all made from this.
 */
export const DECLARED = {
  measuring: {
    steelRuleUMm: value(0.25, 'mm', [0.02, 2], 'readings', 'A length on a steel rule is uncertain by'),
    caliperUMm: value(0.1, 'mm', [0.01, 1], 'readings', 'A caliper reading is uncertain by'),
    dropInMarkU: value(0.05, '%', [0.005, 0.3], 'readings', 'A mark of a drop-in gauge is uncertain by'),
    threeContactMarkU: value(0.04, '%', [0.005, 0.3], 'readings', 'A mark of a three-contact gauge is uncertain by'),
    twoPinMarkU: value(0.05, '%', [0.005, 0.3], 'readings', 'A step of a two-pin gauge is uncertain by'),
    swingArmU: value(0.06, '%', [0.005, 0.3], 'readings', 'A swing-arm gauge is uncertain by'),
    graduatedU: value(0.06, '%', [0.005, 0.3], 'readings', 'A graduated gauge is uncertain by'),
    digitalU: value(0.03, '%', [0.005, 0.3], 'readings', 'A digital gauge is uncertain by'),
    fullLengthUMm: value(0.8, 'mm', [0.05, 5], 'readings', 'A whole chain’s length, hung, is uncertain by'),
    rollerMm: value(7.75, 'mm', [6, 10], 'readings', 'A roller’s diameter, for calipers'),
    pinMm: value(3.6, 'mm', [3, 5], 'readings', 'A pin’s diameter, for telling by a picture'),
    pictureUMm: value(0.45, 'mm', [0.1, 2], 'readings', 'A length told by a picture is uncertain by'),
    preloadKg: value(2, 'kg', [0.5, 20], 'readings', 'A whole chain is hung with'),
    candidateLowest: value(-0.2, '%', [-1, 0], 'readings', 'The lowest elongation a count left out is looked for'),
    candidateHighest: value(2.5, '%', [1, 5], 'readings', 'The highest elongation a count left out is looked for'),
    countLowest: value(-1, '%', [-3, 0], 'readings', 'A count that was told is refused below'),
    countHighest: value(5, '%', [2, 10], 'readings', 'A count that was told is refused above'),
    spreadReported: value(0.15, '%', [0.02, 1], 'verdicts', 'Spots further apart than this are reported'),
    instrumentCheckMonths: whole(12, 'months', [1, 60], 'instruments', 'An instrument’s check holds for'),
    spotsWanted: whole(3, 'spots', [1, 8], 'verdicts', 'Places wanted round the chain with a short instrument'),
    longRunPitches: whole(48, 'pitches', [16, 120], 'verdicts', 'A run this long is no short span'),
    places: whole(8, 'spots', [1, 24], 'verdicts', 'Places round a chain that are judged, measured or not'),
    pushU: value(0.05, '%', [0, 0.3], 'readings', 'A mark that goes in with a push is uncertain by a further'),
    slackU: value(0.05, '%', [0, 0.3], 'readings', 'A slack run reads less by about'),
    oddLowest: value(-0.1, '%', [-1, 0], 'readings', 'A run one pitch out is thought of from an elongation of'),
    oddHighest: value(0.8, '%', [0.2, 2], 'readings', 'A run one pitch out is thought of up to an elongation of'),
  },
  verdict: {
    roundKm: value(100, 'km', [0, 1000], 'verdicts', 'Readings count together within this distance'),
    roundDays: whole(14, 'days', [0, 90], 'verdicts', 'Readings count together within so many days before the latest'),
    newChainKm: value(150, 'km', [0, 1000], 'verdicts', 'A chain is new up to'),
    visitHours: value(12, 'hours', [1, 72], 'verdicts', 'Readings this close together are one visit'),
    surelyOver: value(0.9, 'share', [0.6, 0.999], 'verdicts', 'Over beyond doubt from this chance'),
    surelyUnder: value(0.1, 'share', [0.001, 0.4], 'verdicts', 'Under beyond doubt below this chance'),
    changeAt: value(
      0.5,
      'share',
      [0.2, 0.9],
      'verdicts',
      'Change, when measuring again is no option, from this chance',
    ),
    lookAheadKm: value(150, 'km', [0, 1000], 'verdicts', 'How far ahead the forecast is asked'),
    betterInstrumentShare: value(
      0.6,
      'share',
      [0.1, 1],
      'verdicts',
      'A better instrument has at most this share of the uncertainty',
    ),
    blindMarkU: value(2, 'u', [0.5, 5], 'verdicts', 'A gauge cannot answer further than this from its marks'),
    sprocketMark: {
      floor: value(0.75, '%', [0.3, 2], 'verdicts', 'Sprockets are suspect from at least'),
      overLimit: value(0.25, '%', [0, 1], 'verdicts', 'Sprockets are suspect from so much over the limit by speeds'),
    },
    everythingMark: {
      floor: value(1, '%', [0.5, 3], 'verdicts', 'Everything it runs on is suspect from at least'),
      overLimit: value(
        0.5,
        '%',
        [0, 2],
        'verdicts',
        'Everything it runs on is suspect from so much over the limit by speeds',
      ),
    },
    rhythmDays: whole(0, 'days', [0, 365], 'looks', 'Look at every chain at least so often (0: as the forecast says)'),
    eachVisit: whole(0, 'yes-no', [0, 1], 'looks', 'Look at every chain whenever its bike is in (1: yes, 0: no)'),
    checkDays: whole(45, 'days', [7, 730], 'verdicts', 'Next look where there is no forecast, after'),
    presentDays: whole(14, 'days', [0, 90], 'verdicts', 'A reading speaks for the chain for so many days'),
    presentKm: value(150, 'km', [0, 1000], 'verdicts', 'A reading speaks for the chain until so much was ridden since'),
    decidedCheckKm: value(150, 'km', [10, 1000], 'looks', 'Next look at a chain decided about otherwise, after riding'),
    decidedCheckDays: whole(
      14,
      'days',
      [1, 180],
      'looks',
      'Next look at a chain decided about otherwise, at the latest after',
    ),
    roadsideCheckDays: whole(
      3,
      'days',
      [1, 30],
      'looks',
      'A chain mended for the way home only is changed, at the latest, after',
    ),
  },
  forecast: {
    priors: {
      'immersion-wax': {
        life: value(9, '1000 km', [0.5, 50], 'priors', 'A chain’s life to 0.5 % under immersion wax, weighted'),
        gamma: value(1.1, 'share', [0.8, 2.5], 'priors', 'How wear speeds up under immersion wax'),
        gammaSd: value(0.1, 'share', [0.01, 0.5], 'priors', 'How unsure it is how wear speeds up under immersion wax'),
      },
      'drip-wax': {
        life: value(6, '1000 km', [0.5, 50], 'priors', 'A chain’s life to 0.5 % under drip wax, weighted'),
        gamma: value(1.2, 'share', [0.8, 2.5], 'priors', 'How wear speeds up under drip wax'),
        gammaSd: value(0.12, 'share', [0.01, 0.5], 'priors', 'How unsure it is how wear speeds up under drip wax'),
      },
      'dry-oil': {
        life: value(4, '1000 km', [0.5, 50], 'priors', 'A chain’s life to 0.5 % under dry oil, weighted'),
        gamma: value(1.4, 'share', [0.8, 2.5], 'priors', 'How wear speeds up under dry oil'),
        gammaSd: value(0.15, 'share', [0.01, 0.5], 'priors', 'How unsure it is how wear speeds up under dry oil'),
      },
      'wet-oil': {
        life: value(3.5, '1000 km', [0.5, 50], 'priors', 'A chain’s life to 0.5 % under wet oil, weighted'),
        gamma: value(1.55, 'share', [0.8, 2.5], 'priors', 'How wear speeds up under wet oil'),
        gammaSd: value(0.15, 'share', [0.01, 0.5], 'priors', 'How unsure it is how wear speeds up under wet oil'),
      },
      unknown: {
        life: value(4, '1000 km', [0.5, 50], 'priors', 'A chain’s life to 0.5 % under unknown care, weighted'),
        gamma: value(1.4, 'share', [0.8, 2.5], 'priors', 'How wear speeds up under unknown care'),
        gammaSd: value(0.2, 'share', [0.01, 0.5], 'priors', 'How unsure it is how wear speeds up under unknown care'),
      },
    },
    lifeSd: value(0.45, 'share', [0.05, 1.5], 'forecasts', 'How far lives scatter (of the logarithm)'),
    epsilon0: value(0.03, '%', [-0.1, 0.3], 'forecasts', 'A new chain nobody measured starts at'),
    epsilon0U: value(0.03, '%', [0.005, 0.2], 'forecasts', 'What a new chain starts at is uncertain by'),
    unknownLives: value(
      1.5,
      'share',
      [0.5, 3],
      'priors',
      'A chain that came with its bike has run at most so many lives',
    ),
    lawOff: value(
      0.3,
      'share',
      [0, 1],
      'forecasts',
      'How far the wear law itself may be off over what is left to ride',
    ),
    checkRisk: value(0.06, 'share', [0.01, 0.5], 'forecasts', 'Look again before the chance of being over reaches'),
    checkFloorKm: value(150, 'km', [0, 1000], 'forecasts', 'Look again no sooner than after'),
    checkHorizonDays: whole(120, 'days', [7, 730], 'forecasts', 'Look again no later than after the riding of'),
    checkHorizonWaxDays: whole(
      180,
      'days',
      [7, 730],
      'forecasts',
      'With immersion wax, look again no later than after the riding of',
    ),
    doubtShown: value(
      0.5,
      'share',
      [0.1, 1],
      'forecasts',
      'No forecast when the newest reading is a stray with more than this chance',
    ),
    verdictApart: value(
      0.4,
      'share',
      [0.1, 1],
      'forecasts',
      'No forecast when it and the readings differ about being over by more than',
    ),
  },
  distance: {
    odometerHighestKm: value(500_000, 'km', [10_000, 1000_000], 'distance', 'No odometer is believed above'),
    odometerDayKm: value(400, 'km', [50, 2000], 'distance', 'More a day than this since the last value is asked about'),
    ridesOverOdometer: value(
      0.05,
      'share',
      [0, 1],
      'distance',
      'Rides may add up to so much more than the odometer before that is flagged',
    ),
    wearFactor: {
      indoor: value(0.7, 'share', [0.1, 10], 'distance', 'A km on a trainer or rollers wears, in dry km'),
      dry: value(1, 'share', [0.2, 10], 'distance', 'A dry km wears, in dry km'),
      damp: value(1.3, 'share', [0.2, 10], 'distance', 'A damp km wears'),
      wet: value(2, 'share', [0.2, 10], 'distance', 'A wet km wears'),
      gritty: value(3, 'share', [0.2, 10], 'distance', 'A km in sand, salt or mud wears'),
    },
    wearFactorUnknown: value(1.2, 'share', [0.2, 10], 'distance', 'A km nobody said anything of wears'),
    careFactor: {
      indoor: value(0.7, 'share', [0.1, 10], 'distance', 'A km on a trainer or rollers uses a treatment up by'),
      dry: value(1, 'share', [0.2, 10], 'distance', 'A dry km uses up a treatment by, in dry km'),
      damp: value(1.5, 'share', [0.2, 10], 'distance', 'A damp km uses it up by'),
      wet: value(3, 'share', [0.2, 10], 'distance', 'A wet km uses it up by'),
      gritty: value(2.5, 'share', [0.2, 10], 'distance', 'A km in sand, salt or mud uses it up by'),
    },
    careFactorUnknown: value(1.2, 'share', [0.2, 10], 'distance', 'A km nobody said anything of uses it up by'),
    rateDays: whole(84, 'days', [14, 365], 'distance', 'The ride rate looks back'),
    rateHalfLifeDays: whole(42, 'days', [7, 365], 'distance', 'A day counts half after'),
    weekScatter: value(0.7, 'share', [0, 3], 'distance', 'A week’s distance varies, where rides do not tell, by'),
    statedRateScatter: value(0.3, 'share', [0, 2], 'distance', 'What a customer says of a year may be off by'),
    shopRateScatter: value(0.8, 'share', [0, 3], 'distance', 'The shop’s mean may be off for one bike by'),
    statedStartShare: value(
      0.25,
      'share',
      [0, 1],
      'forecasts',
      'What a customer says a chain had run may be off by this share',
    ),
    statedStartLeastKm: value(
      100,
      'km',
      [1, 2000],
      'forecasts',
      'What a customer says a chain had run may be off by at least',
    ),
    sameRideOverlap: value(
      0.8,
      'share',
      [0.3, 1],
      'distance',
      'Two records are one ride when they overlap by this share of their time',
    ),
    sameRideDistance: value(
      0.05,
      'share',
      [0.01, 0.3],
      'distance',
      'Two records are one ride when they differ in distance by at most this share',
    ),
    trackGapSeconds: whole(120, 'seconds', [10, 3600], 'distance', 'A pause in a track longer than this is left out'),
    trackJumpKmh: value(120, 'km/h', [60, 300], 'distance', 'A jump in a track faster than this is left out'),
  },
  economics: {
    chainPrice: value(38, 'money', [0, 2000], 'costs', 'A chain costs, fitted'),
    cassettePrice: value(64, 'money', [0, 4000], 'costs', 'A cassette costs, fitted'),
    ringsPrice: value(95, 'money', [0, 4000], 'costs', 'A set of rings costs, fitted'),
    chainsOutlived: value(4, 'chains', [1, 20], 'costs', 'A cassette outlives, when each is changed in time'),
    ringsLast: value(2.5, 'share', [0.5, 20], 'costs', 'Rings last longer than a cassette by'),
    damageSlope: value(
      1.6,
      'share',
      [0, 6],
      'costs',
      'Damage grows by e to this for every step over the limit by speeds',
    ),
    damageStep: value(0.25, '%', [0.05, 1], 'costs', 'A step over the limit, for damage, is'),
    efficiencyLoss: value(
      1,
      '%',
      [0, 10],
      'costs',
      'Power lost for each % of elongation: an estimate, 0 switches it off',
    ),
  },
  length: {
    added: whole(
      2,
      'pitches',
      [0, 10],
      'lengths',
      'Pitches added to a derailleur’s loop, where its maker says nothing',
    ),
    addedWide: whole(4, 'pitches', [0, 12], 'lengths', 'Pitches added with one ring and a wide cassette'),
    wideSprocketTeeth: whole(45, 'teeth', [30, 60], 'lengths', 'A cassette is wide from a largest sprocket of'),
    addedSuspended: whole(
      2,
      'pitches',
      [0, 8],
      'lengths',
      'Pitches added further with full suspension of a short travel on a wide cassette',
    ),
    addedLongTravel: whole(
      2,
      'pitches',
      [0, 8],
      'lengths',
      'Pitches added further with full suspension of a long travel on a wide cassette',
    ),
    shortTravelMm: value(
      15,
      'mm',
      [0, 80],
      'lengths',
      'A travel is short where the chainstay grows through it by no more than',
    ),
    pulleyTeeth: whole(11, 'teeth', [8, 20], 'lengths', 'Pulleys take more chain when they are larger than'),
    pitchesPerPulleyTooth: value(
      1 / 3,
      'pitches',
      [0, 1],
      'lengths',
      'Pitches for every tooth of both pulleys above that',
    ),
    doubtPitches: whole(2, 'pitches', [0, 6], 'lengths', 'In doubt a chain is kept longer by'),
    fixedPlayMm: value(0.5, 'mm', [0, 3], 'lengths', 'An axle that cannot be moved lets a chain be off by'),
  },
  parts: {
    jointWidthMm: value(0.15, 'mm', [0, 0.6], 'parts', 'A link’s and a chain’s outer width may differ by'),
    removalsWax: whole(12, 'times a year', [0, 60], 'parts', 'A waxed chain comes off'),
    removalsOff: whole(6, 'times a year', [0, 60], 'parts', 'A chain washed off the bike comes off'),
  },
  otherWear: {
    teethKm: value(3000, 'km', [100, 20_000], 'other-wear', 'Cassette, rings and pulleys are looked at again after'),
    rotorKm: value(3000, 'km', [100, 20_000], 'other-wear', 'Rotors are looked at again at the latest after'),
    padsKm: value(1500, 'km', [100, 20_000], 'other-wear', 'Pads are looked at again after'),
    bearingsKm: value(4000, 'km', [100, 20_000], 'other-wear', 'Headset and bearings are looked at again after'),
    tyresKm: value(2000, 'km', [100, 20_000], 'other-wear', 'Tyres are looked at again after'),
    watchShare: value(
      0.3,
      'share',
      [0.05, 1],
      'other-wear',
      'What is to be watched is looked at again after this share of that distance',
    ),
    rotorUMm: value(0.02, 'mm', [0.005, 0.2], 'other-wear', 'A caliper on a rotor is off by about'),
    rotorRate: value(0.05, 'mm', [0.005, 0.5], 'other-wear', 'A rotor nobody knows better of loses in a thousand km'),
    rotorRateSd: value(0.8, 'share', [0.1, 2], 'other-wear', 'What a rotor loses scatters, of its logarithm, by'),
    rotorChangeAt: value(
      0.5,
      'share',
      [0.1, 0.95],
      'other-wear',
      'A rotor is changed when it is under its minimum with a probability of',
    ),
    rotorRisk: value(
      0.05,
      'share',
      [0.005, 0.4],
      'other-wear',
      'A rotor is watched when it is under its minimum with a probability of',
    ),
  },
  care: {
    'immersion-wax': {
      km: value(300, 'km', [20, 2000], 'care', 'Immersion wax lasts, dry'),
      days: whole(90, 'days', [1, 365], 'care', 'Immersion wax lasts at most'),
      product: value(0.6, 'money', [0, 100], 'care', 'Immersion wax costs for one treatment'),
    },
    'drip-wax': {
      km: value(200, 'km', [20, 2000], 'care', 'Drip wax lasts, dry'),
      days: whole(60, 'days', [1, 365], 'care', 'Drip wax lasts at most'),
      product: value(0.5, 'money', [0, 100], 'care', 'Drip wax costs for one treatment'),
    },
    'dry-oil': {
      km: value(180, 'km', [20, 2000], 'care', 'Dry oil lasts, dry'),
      days: whole(45, 'days', [1, 365], 'care', 'Dry oil lasts at most'),
      product: value(0.2, 'money', [0, 100], 'care', 'Dry oil costs for one treatment'),
    },
    'wet-oil': {
      km: value(300, 'km', [20, 2000], 'care', 'Wet oil lasts, dry'),
      days: whole(30, 'days', [1, 365], 'care', 'Wet oil lasts at most'),
      product: value(0.2, 'money', [0, 100], 'care', 'Wet oil costs for one treatment'),
    },
    washDays: whole(0, 'days', [0, 365], 'care', 'A drive is washed every so many days (0: when it is dirty)'),
    firstCareKm: value(50, 'km', [0, 500], 'care', 'The factory’s coat carries a new chain to its first care for'),
    firstRideKm: value(15, 'km', [0, 200], 'care', 'A waxed chain is ridden in before an event for'),
    eventLeadDays: whole(2, 'days', [1, 14], 'care', 'A waxed chain is waxed before an event by'),
    eventUsedShare: value(0.5, 'share', [0.05, 1], 'care', 'On the day of an event a treatment is used up at most by'),
  },
  pot: {
    stripMinutes: whole(25, 'minutes', [0, 240], 'pot-plan', 'A chain is stripped for'),
    stripHandsMinutes: whole(2, 'minutes', [0, 240], 'pot-plan', 'Stripping a chain takes, with hands on'),
    dryMinutes: whole(20, 'minutes', [0, 240], 'pot-plan', 'A stripped chain dries for'),
    loadMinutes: whole(2, 'minutes', [0, 240], 'pot-plan', 'Loading a pot takes'),
    hangMinutes: whole(25, 'minutes', [0, 240], 'pot-plan', 'A waxed chain hangs for'),
    flexMinutes: whole(3, 'minutes', [0, 240], 'pot-plan', 'Flexing and wiping it takes'),
    heatMinutes: whole(
      38,
      'minutes',
      [0, 240],
      'pot-plan',
      'A cold pot is molten after, where the pot does not say otherwise',
    ),
    'soak-and-hang': {
      minutes: whole(12, 'minutes', [0, 240], 'pot-plan', 'Soak and hang: in molten wax for'),
      drawMinutes: whole(3, 'minutes', [0, 240], 'pot-plan', 'Soak and hang: drawing and hanging takes'),
      reheatMinutes: whole(0, 'minutes', [0, 240], 'pot-plan', 'Soak and hang: the pot is hot again after'),
      lowCelsius: value(70, 'celsius', [40, 150], 'pot-plan', 'Soak and hang: too cool to dip below'),
      highCelsius: value(100, 'celsius', [40, 150], 'pot-plan', 'Soak and hang: too hot above'),
    },
    'bubble-out': {
      minutes: whole(8, 'minutes', [0, 240], 'pot-plan', 'Bubble out: in molten wax for'),
      drawMinutes: whole(3, 'minutes', [0, 240], 'pot-plan', 'Bubble out: drawing and hanging takes'),
      reheatMinutes: whole(0, 'minutes', [0, 240], 'pot-plan', 'Bubble out: the pot is hot again after'),
      lowCelsius: value(92, 'celsius', [40, 150], 'pot-plan', 'Bubble out: too cool to dip below'),
      highCelsius: value(105, 'celsius', [40, 150], 'pot-plan', 'Bubble out: too hot above'),
    },
    'cool-draw': {
      minutes: whole(25, 'minutes', [0, 240], 'pot-plan', 'Cool draw: in molten wax for'),
      drawMinutes: whole(6, 'minutes', [0, 240], 'pot-plan', 'Cool draw: drawing and hanging takes'),
      reheatMinutes: whole(15, 'minutes', [0, 240], 'pot-plan', 'Cool draw: the pot is hot again after'),
      lowCelsius: value(75, 'celsius', [40, 150], 'pot-plan', 'Cool draw: too cool to dip below'),
      highCelsius: value(105, 'celsius', [40, 150], 'pot-plan', 'Cool draw: too hot above'),
    },
    stripCapacity: whole(4, 'chains', [1, 40], 'pot-plan', 'The stripping bath takes'),
    railCapacity: whole(8, 'chains', [1, 100], 'pot-plan', 'The rail takes'),
    hands: whole(1, 'people', [1, 10], 'pot-plan', 'At the pot there are'),
    learnFrom: whole(
      5,
      'chains',
      [0, 100],
      'pot-plan',
      'Its own minutes take the place of those above, once seen so often (0: never)',
    ),
    alarmCelsius: value(
      115,
      'celsius',
      [60, 160],
      'pot-heat',
      'A pot’s alarm, below what the wax maker allows, is at, where the pot does not say otherwise',
    ),
    bathChains: whole(60, 'chains', [1, 1000], 'pot-heat', 'A bath of wax is changed after'),
    wetCounts: value(2, 'chains', [1, 10], 'pot-heat', 'For a bath of wax a wet chain counts'),
    grittyCounts: value(3, 'chains', [1, 10], 'pot-heat', 'For a bath of wax a gritty chain counts'),
    silentSeconds: whole(20, 'seconds', [5, 300], 'pot-heat', 'A thermometer is lost when silent for'),
    stuckMinutes: whole(8, 'minutes', [1, 60], 'pot-heat', 'A thermometer is stuck when it shows the same for'),
    spikeCelsius: value(15, 'celsius', [2, 60], 'pot-heat', 'A thermometer is not believed when it jumps by'),
  },
  diary: {
    minutes1: whole(720, 'minutes', [0, 10_000], 'diary', 'Work a Monday takes, 0 for closed'),
    minutes2: whole(720, 'minutes', [0, 10_000], 'diary', 'Work a Tuesday takes, 0 for closed'),
    minutes3: whole(720, 'minutes', [0, 10_000], 'diary', 'Work a Wednesday takes, 0 for closed'),
    minutes4: whole(720, 'minutes', [0, 10_000], 'diary', 'Work a Thursday takes, 0 for closed'),
    minutes5: whole(720, 'minutes', [0, 10_000], 'diary', 'Work a Friday takes, 0 for closed'),
    minutes6: whole(300, 'minutes', [0, 10_000], 'diary', 'Work a Saturday takes, 0 for closed'),
    minutes7: whole(0, 'minutes', [0, 10_000], 'diary', 'Work a Sunday takes, 0 for closed'),
    quietFrom: whole(20, 'hours', [0, 24], 'messages', 'No message goes out from'),
    quietUntil: whole(8, 'hours', [0, 24], 'messages', 'No message goes out until'),
    pullForwardDays: whole(14, 'days', [0, 60], 'diary', 'A visit settles what is due within'),
    arriveMinutes: whole(5, 'minutes', [0, 240], 'diary', 'Taking a bike in and giving it back takes'),
    changeMinutes: whole(35, 'minutes', [0, 240], 'diary', 'Changing a chain takes, in a visit'),
    checkMinutes: whole(5, 'minutes', [0, 240], 'diary', 'Measuring a chain takes, in a visit'),
    careMinutes: whole(15, 'minutes', [0, 240], 'diary', 'Treating a chain takes, in a visit'),
    washMinutes: whole(15, 'minutes', [0, 240], 'diary', 'Washing and drying a drive takes, in a visit'),
    otherWearMinutes: whole(10, 'minutes', [0, 240], 'diary', 'Looking over everything else takes, in a visit'),
  },
  jobs: {
    hourPrice: value(48, 'money', [0, 500], 'estimates', 'An hour at the stand costs'),
  },
  orders: {
    ownerAbove: value(500, 'money', [0, 100_000], 'orders', 'Above this sum only the owner orders'),
  },
} as const
