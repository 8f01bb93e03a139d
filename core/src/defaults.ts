/**
 * Every assumption Pelrin makes that is neither physics nor a standard, in one place.
 * A shop can change each of them; the code reads them from here and nowhere else.
 */
export const DEFAULTS = {
  measuring: {
    /** Standard uncertainty of a length read on a steel rule, mm. */
    steelRuleUMm: 0.25,
    /** Standard uncertainty of a caliper reading, mm. */
    caliperUMm: 0.1,
    /** Standard uncertainty of a drop-in gauge's mark, % elongation. */
    dropInMarkU: 0.05,
    /** Standard uncertainty of a three-contact gauge's mark, and of a step of a two-pin gauge, % elongation. */
    threeContactMarkU: 0.04,
    twoPinMarkU: 0.05,
    /** Standard uncertainty of a swing-arm gauge, % elongation. */
    swingArmU: 0.06,
    /** Standard uncertainty of a graduated gauge, % elongation. */
    graduatedU: 0.06,
    /** Standard uncertainty of a digital gauge, % elongation. */
    digitalU: 0.03,
    /** Standard uncertainty of a whole chain's length, hung, mm. */
    fullLengthUMm: 0.8,
    /** Roller diameter assumed by caliper readings, mm. */
    rollerMm: 7.75,
    /** A pin's diameter, for telling where a mark lies on it by a picture, mm. */
    pinMm: 3.6,
    /** Standard uncertainty of a length told by a picture of the pin, mm: a quarter of the pin. */
    pictureUMm: 0.45,
    /** Preload a whole chain is hung with so that its lengths compare, kg. */
    preloadKg: 2,
    /** Elongation a length must have to be taken for a certain count, %. */
    candidateLowest: -0.2,
    candidateHighest: 2.5,
    /** Elongation beyond which a stated count is taken for a slip, %: no chain holds together that far. */
    countLowest: -1,
    countHighest: 5,
    /** Spread over the spots of one reading above which it is reported, %. */
    spreadReported: 0.15,
    /** Months after which an instrument's check has lapsed. */
    instrumentCheckMonths: 12,
    /** Spots wanted round the chain with a short-span instrument. */
    spotsWanted: 3,
    /** A run on a rule of this many pitches or more is no short span: it averages near half a chain. */
    longRunPitches: 48,
    /** Places round a chain that are judged, measured or not. */
    places: 8,
    /** What a mark that goes in with a push only is uncertain by beyond the mark itself, %. */
    pushU: 0.05,
    /** What a slack run reads less than a tensioned one, %: it joins u. */
    slackU: 0.05,
    /** An odd count whose elongation lies in this range is offered beside an even one over the limit, %. */
    oddLowest: -0.1,
    oddHighest: 0.8,
  },
  verdict: {
    /** How far back before the latest reading others still describe the same chain. */
    roundKm: 100,
    roundDays: 14,
    /** A chain fitted less than this long ago and not measured is "not measured yet", km. */
    newChainKm: 150,
    /** Readings this close together belong to one visit, hours. */
    visitHours: 12,
    /** Probability of being over the limit from which there is no doubt left. */
    surelyOver: 0.9,
    /** Probability of being over the limit below which it is surely under. */
    surelyUnder: 0.1,
    /** Probability from which a chain is changed when measuring again is no option. */
    changeAt: 0.5,
    /** How far ahead the forecast is asked whether the chain will be over, km. */
    lookAheadKm: 150,
    /** An instrument is better if its u is at most this share of the one used. */
    betterInstrumentShare: 0.6,
    /** How many u a limit lies from every mark before a gauge cannot answer. */
    blindMarkU: 2,
    /** Sprockets are suspect from the larger of this and the by-speeds limit plus the margin, %. */
    sprocketMark: { floor: 0.75, overLimit: 0.25 },
    /** Everything the chain runs on is suspect from the larger of this and limit plus margin, %. */
    everythingMark: { floor: 1.0, overLimit: 0.5 },
    /** A fixed rhythm of looks, days: the earlier of it and the forecast applies. 0: none. */
    rhythmDays: 0,
    /** 1: a look whenever a bike is in; 0: when it is due. */
    eachVisit: 0,
    /** Days to the next look where there is no forecast. */
    checkDays: 45,
    /** A round is present while its latest reading is at most so many days and so many estimated km old. */
    presentDays: 14,
    presentKm: 150,
    /** The next look at a chain the mechanic decided about otherwise: after this distance, km, or these days. */
    decidedCheckKm: 150,
    decidedCheckDays: 14,
  },
  forecast: {
    /** By care: life to 0.5 %, thousand weighted km, and how wear speeds up with its standard deviation. */
    priors: {
      'immersion-wax': { life: 9, gamma: 1.1, gammaSd: 0.1 },
      'drip-wax': { life: 6, gamma: 1.2, gammaSd: 0.12 },
      'dry-oil': { life: 4, gamma: 1.4, gammaSd: 0.15 },
      'wet-oil': { life: 3.5, gamma: 1.55, gammaSd: 0.15 },
      unknown: { life: 4, gamma: 1.4, gammaSd: 0.2 },
    },
    /** Standard deviation of the logarithm of a chain's life. */
    lifeSd: 0.45,
    /** Elongation of a new chain nobody measured, %, and its standard deviation. */
    epsilon0: 0.03,
    epsilon0U: 0.03,
    /** A chain that came in with its bike has run anything up to so many lives. */
    unknownLives: 1.5,
    /** How far the law itself may be off over what is left to ride, standard deviation of the logarithm. */
    lawOff: 0.3,
    /** Chance of being over at which to look again at the latest. */
    checkRisk: 0.06,
    /** The next look is at least so many real km ahead, and at most so many days' riding; with immersion wax so many. */
    checkFloorKm: 150,
    checkHorizonDays: 120,
    checkHorizonWaxDays: 180,
    /** Chance that the newest reading is a stray above which no forecast is shown. */
    doubtShown: 0.5,
    /** How far the verdict's chance of being over now may lie from the forecast's. */
    verdictApart: 0.4,
  },
  distance: {
    /** The largest odometer value believed, km: no bicycle has ridden farther. */
    odometerHighestKm: 500_000,
    /** More km a day than this since the last value are asked about. */
    odometerDayKm: 400,
    /** Rides may add up to so much more than the odometer's difference before they are flagged, share. */
    ridesOverOdometer: 0.05,
    /** Wear a km does by surface and weather, against a dry one. */
    wearFactor: { dry: 1, damp: 1.3, wet: 2, gritty: 3 },
    /** The same for a bike, customer and shop with no ride of known surface. */
    wearFactorUnknown: 1.2,
    /** How fast a km uses up a treatment, against a dry one. */
    careFactor: { dry: 1, damp: 1.5, wet: 3, gritty: 2.5 },
    careFactorUnknown: 1.2,
    /** The ride rate looks back so many days from the last recorded one; a day counts half after so many. */
    rateDays: 84,
    rateHalfLifeDays: 42,
    /** How much a week's distance varies where rides do not tell, share of the mean week. */
    weekScatter: 0.7,
    /** How far a rate the customer stated, or the shop's mean, may be off, share. */
    statedRateScatter: 0.3,
    shopRateScatter: 0.8,
    /** How far off what a customer says a chain had run may be: share of it, and never less than so many km. */
    statedStartShare: 0.25,
    statedStartLeastKm: 100,
    /** Two files are one ride when they overlap over more than this share of their time and differ by less in distance. */
    sameRideOverlap: 0.8,
    sameRideDistance: 0.05,
    /** Parts of a track left out: pauses in the record longer than this, s, and jumps faster than this, km/h. */
    trackGapSeconds: 120,
    trackJumpKmh: 120,
  },
  economics: {
    /** What a chain, a cassette and a set of rings cost fitted, in the shop's money. */
    chainPrice: 38,
    cassettePrice: 64,
    ringsPrice: 95,
    /** How many chains a cassette outlives when each is changed in time. */
    chainsOutlived: 4,
    /** How much longer rings last than a cassette. */
    ringsLast: 2.5,
    /** Damage grows by e^slope for every step of elongation over the limit by speeds, %. */
    damageSlope: 1.6,
    damageStep: 0.25,
    /** Drive efficiency lost for each % of elongation, in % of power: an estimate; 0 switches it off. */
    efficiencyLoss: 1,
  },
  length: {
    /** Pitches added to a derailleur's loop where its maker says nothing. */
    added: 2,
    /** The same with one ring and a largest sprocket of so many teeth or more. */
    addedWide: 4,
    wideSprocketTeeth: 45,
    /** Further ones for full suspension on such a drive. */
    addedSuspended: 2,
    /** Pulleys larger than this take more chain: so much for every tooth above, both together. */
    pulleyTeeth: 11,
    pitchesPerPulleyTooth: 1 / 3,
    /** How many pitches more to keep when in doubt. */
    doubtPitches: 2,
    /** How far an axle that cannot be moved still lets a chain be off, mm. */
    fixedPlayMm: 0.5,
  },
  parts: {
    /** How far a link's and a chain's outer width may differ, mm. */
    jointWidthMm: 0.15,
    /** How often a chain comes off in a year by its care: what the habit of washing or waxing it off the bike costs in links. */
    removalsWax: 12,
    removalsOff: 6,
  },
  otherWear: {
    /** Distance after which what was good is looked at again, km. */
    teethKm: 3000,
    rotorKm: 3000,
    padsKm: 1500,
    bearingsKm: 4000,
    tyresKm: 2000,
    /** Of that distance for what is to be watched. */
    watchShare: 0.3,
    /** u of a caliper on a rotor's worn track, mm. */
    rotorUMm: 0.02,
    /** What a rotor loses in a thousand km where nobody knows better, mm, and how far that scatters (of its logarithm). */
    rotorRate: 0.05,
    rotorRateSd: 0.8,
    /** Probability of being under its minimum from which a rotor is changed, and above which it is watched. */
    rotorChangeAt: 0.5,
    rotorRisk: 0.05,
  },
  care: {
    /** How long a treatment lasts, dry km and days at most, by care. */
    'immersion-wax': { km: 300, days: 90 },
    'drip-wax': { km: 200, days: 60 },
    'dry-oil': { km: 180, days: 45 },
    'wet-oil': { km: 300, days: 30 },
    /** Distance the factory's coat carries a new chain to its first care, km. */
    firstCareKm: 50,
    /** What a waxed chain is ridden in before an event, km. */
    firstRideKm: 15,
    /** Days before an event a chain is waxed by, so that there is one to ride it in. */
    eventLeadDays: 2,
    /** How much of a treatment may be used up on the day of an event, share. */
    eventUsedShare: 0.5,
  },
  pot: {
    /** Minutes each takes at the wax pot; hands on where it says so. */
    stripMinutes: 25,
    stripHandsMinutes: 2,
    dryMinutes: 20,
    loadMinutes: 2,
    hangMinutes: 25,
    flexMinutes: 3,
    /** From cold to molten: fifty minutes from cold with the chains in are these and a soak. */
    heatMinutes: 38,
    'soak-and-hang': { minutes: 12, drawMinutes: 3, reheatMinutes: 0, lowCelsius: 75, highCelsius: 90 },
    'bubble-out': { minutes: 8, drawMinutes: 3, reheatMinutes: 0, lowCelsius: 92, highCelsius: 105 },
    'cool-draw': { minutes: 25, drawMinutes: 6, reheatMinutes: 15, lowCelsius: 75, highCelsius: 105 },
    /** What the stripping bath and the rail take, and who is there. */
    stripCapacity: 4,
    railCapacity: 8,
    hands: 1,
    /** The shop's alarm, always below the wax maker's limit. */
    alarmCelsius: 115,
    /** Chains a bath of wax takes; what a wet and a gritty one count. */
    bathChains: 60,
    wetCounts: 2,
    grittyCounts: 3,
    /** A thermometer is not believed: silent for so long, without any change for so long, or jumping by so much. */
    silentSeconds: 20,
    stuckMinutes: 8,
    spikeCelsius: 15,
  },
  diary: {
    /** Minutes of work a day takes, Monday first; 0 is closed. */
    minutes1: 720,
    minutes2: 720,
    minutes3: 720,
    minutes4: 720,
    minutes5: 720,
    minutes6: 300,
    minutes7: 0,
    /** No message goes out between these hours. */
    quietFrom: 20,
    quietUntil: 8,
    /** What falls due within so many days of a visit is done in it. */
    pullForwardDays: 14,
    /** What a visit takes: to take a bike in and give it back, and each thing done, minutes. */
    arriveMinutes: 5,
    changeMinutes: 35,
    checkMinutes: 5,
    careMinutes: 15,
    otherWearMinutes: 10,
  },
  jobs: {
    /** Price of an hour at the stand, in whole money. */
    hourPrice: 48,
  },
  orders: {
    /** An order of more than this, in whole money, wants an owner. */
    ownerAbove: 500,
  },
} as const

/** Nominal pitch of every bicycle chain, mm: half an inch exactly (ISO 9633). */
export const PITCH_MM = 12.7

/** Millimetres in an inch, exact by definition. */
export const MM_PER_INCH = 25.4

/** Kilometres in a statute mile, exact by definition. */
export const KM_PER_MILE = 1.609344

/** The values of {@link DEFAULTS}.forecast a fit reads, as a shop may have set them. */
export interface WearPriorDefaults {
  readonly priors: Readonly<
    Record<
      keyof typeof DEFAULTS.forecast.priors,
      { readonly life: number; readonly gamma: number; readonly gammaSd: number }
    >
  >
  readonly lifeSd: number
  readonly epsilon0: number
  readonly epsilon0U: number
  readonly unknownLives: number
}
