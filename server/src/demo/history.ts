import {
  type Surface,
  DEFAULTS,
  driveClassOf,
  formatLength,
  formatMarks,
  KM_PER_MILE,
  limitsFor,
  SHIPPED_RULES,
  spanAtElongation,
} from '@pelrin/core'
import type { Chance } from './random.ts'
import { DRIVE_KINDS, instrumentPlan, type BikePlan, type Care, type InstrumentKey } from './scenario.ts'

const DAY = 86_400_000

/** How the simulated chains wear: life to 0.5 %, thousand weighted km, and how wear speeds up. */
const WEAR: Record<Care, { life: number; gamma: number }> = {
  'immersion-wax': { life: 9, gamma: 1.1 },
  'drip-wax': { life: 6, gamma: 1.2 },
  'dry-oil': { life: 4, gamma: 1.4 },
  'wet-oil': { life: 3.5, gamma: 1.55 },
}
/** How far back rides were recorded, and what the weather was: shares of dry, up to damp, up to wet. */
const RIDES_DAYS = 140
const WEATHER = { fair: [0.55, 0.82, 0.95], rough: [0.2, 0.4, 0.65] } as const
/** How late the red drop-in gauge reads, %. */
const RED_GAUGE_LATE = 0.09

/** A spot as it was typed then. */
export interface PastSpot {
  readonly typed: string
  readonly pitches: number | null
  /** Counted from the connecting link, where it was. */
  readonly place?: number
}
export interface PastReading {
  readonly at: Date
  readonly by: number
  readonly instrument: InstrumentKey
  readonly spots: readonly PastSpot[]
  readonly odometer: { readonly typed: string; readonly km: number } | null
  /** Which of the bike's fittings it was taken in. */
  readonly fitting: number
}
export interface PastFitting {
  readonly chain: number
  readonly from: Date
  to: Date | null
  readonly start: 'fitted' | 'unknown'
  endReason: 'worn' | 'broken' | 'swapped' | null
}
export interface PastEvent {
  readonly chain: number
  readonly at: Date
  readonly kind: 'shortened'
  readonly pitchesAfter: number
}

/** A ride somebody recorded. */
export interface PastRide {
  readonly from: Date
  readonly to: Date
  readonly km: number
  readonly surface: Surface | null
}

/** What two years left in the book of one bike. */
export interface History {
  readonly readings: PastReading[]
  readonly fittings: PastFitting[]
  readonly chains: { readonly name: string; readonly pitches: number; readonly care: Care }[]
  readonly events: PastEvent[]
  readonly rides: PastRide[]
  readonly odometers: { readonly at: Date; readonly typed: string; readonly km: number; readonly by: number }[]
}

/** How a bike's story ends, for those whose present state is part of the scenario; the rest take what comes. */
export interface Ending {
  /** Days since it was last measured. */
  readonly daysAgo: number
  /** What the chain is truly worn to then, as a share of its limit. */
  readonly worn: number
  /** What it was last measured with; drawn when not told. Told ones are measured on three spots. */
  readonly instrument?: InstrumentKey
  readonly twist?: 'disagree' | 'shortened' | 'rotation' | 'fresh' | 'late-gauge' | 'in-doubt'
}

/** Simulates one bike's two years: rides, visits, what was read and when the chain was changed. */
export class BikeSimulation {
  readonly history: History = { readings: [], fittings: [], chains: [], events: [], rides: [], odometers: [] }
  private readonly drive
  private readonly limit: number
  private chainLife = 1
  private gamma = 1
  private zero = 0.02
  private weightedKm = 0
  /** By reading: what the chain had run then, and on how many spots it was read. */
  private readonly visited = new Map<number, { weightedKm: number; spots: number }>()
  private odometerKm: number
  private now: Date

  constructor(
    private readonly chance: Chance,
    private readonly plan: BikePlan,
    private readonly today: Date,
    private readonly ending: Ending,
  ) {
    this.drive = DRIVE_KINDS[plan.drive]
    this.limit = limitsFor({ ...SHIPPED_RULES[0], id: '', version: 1 }, driveClassOf(this.drive)).change
    this.odometerKm = chance.whole(150, 6000)
    this.now = new Date(today.getTime() - chance.whole(690, 730) * DAY)
  }

  run(): History {
    this.fit('unknown')
    this.weightedKm = this.chance.between(0.1, 0.6) * this.chainLife
    const last = new Date(this.today.getTime() - this.ending.daysAgo * DAY)
    this.visit()
    for (;;) {
      const days = this.chance.whole(95, 160)
      if (this.now.getTime() + (days + 45) * DAY > last.getTime()) break
      this.rideTo(new Date(this.now.getTime() + days * DAY))
      this.visit()
      if (this.trueWear() >= this.limit * this.chance.between(0.97, 1.2)) this.change('worn')
    }
    this.finish(last)
    if (this.ending.instrument !== undefined || this.ending.twist !== undefined || this.chance.happens(0.45))
      this.recordRides()
    return this.history
  }

  /** The last visit, bent so that the bike is in the state its story tells of. */
  private finish(last: Date): void {
    this.rideTo(last)
    const { twist, worn } = this.ending
    if (twist === 'fresh') this.change('worn')
    else this.liveUpTo(worn * this.limit)
    if (twist === 'rotation') this.rotate()
    if (twist === 'shortened') this.shorten(new Date(last.getTime() - 3 * DAY))
    if (twist === 'disagree') this.disagree()
    else if (twist === 'late-gauge') this.lateGauge()
    // One spot near the limit: more of them would settle it.
    else if (twist === 'in-doubt') this.read('rule', 1, this.trueWear(), this.readOdometer(), 1)
    else this.visit(this.ending.instrument)
  }

  /**
   * Gives the chain the life by which it is worn to a target now, and reads it anew at its earlier visits by that life:
   * its readings and its distance tell one story.
   */
  private liveUpTo(target: number): void {
    const grown = Math.max(0.01, target - this.zero) / 0.5
    this.chainLife = Math.max(0.05, this.weightedKm) / Math.pow(grown, 1 / this.gamma)
    const present = this.history.fittings.length - 1
    for (const [i, reading] of this.history.readings.entries()) {
      const then = this.visited.get(i)
      if (reading.fitting !== present || !then) continue
      const now = this.weightedKm
      this.weightedKm = then.weightedKm
      this.history.readings[i] = { ...reading, spots: this.spots(reading.instrument, then.spots, this.trueWear()) }
      this.weightedKm = now
    }
  }

  /** Two instruments, a day apart, one spot each: one says long gone, the other says long way to go. */
  private disagree(): void {
    const { now } = this
    this.now = new Date(now.getTime() - DAY)
    this.record('digital', [this.spot('digital', 0.48)], null, 2)
    this.now = now
    this.record('rule', [this.ruled('rule', 24, 0.97)], this.readOdometer(), 1)
  }

  /** The digital gauge and the red drop-in gauge on the very same places: the red one stays out where it should go in. */
  private lateGauge(): void {
    const { now } = this
    const places = [1, 2, 3]
    const spots = (typed: readonly string[]): PastSpot[] =>
      places.map((place, i) => ({ typed: typed[i] ?? '', pitches: null, place }))
    this.now = new Date(now.getTime() - 1_200_000)
    this.record('digital', spots(['0.84', '0.83', '0.85']), null, 2)
    this.now = now
    this.record('dropIn', spots(['io', 'io', 'io']), this.readOdometer(), 2)
  }

  /** Rides of the last months, as a device of the rider's recorded them: fewer than were ridden, in the weather there was. */
  private recordRides(): void {
    // From midnight, so that the hours are those of a day.
    const from = Math.floor(this.today.getTime() / DAY) * DAY - RIDES_DAYS * DAY
    const [dry, damp, wet] = WEATHER[this.plan.life.harshness > 1.8 ? 'rough' : 'fair']
    for (let day = from; day < this.today.getTime() - DAY; day += DAY) {
      if (!this.chance.happens(0.4)) continue
      const km = Math.round(10 * (this.plan.life.kmPerWeek / 2.8) * this.chance.between(0.35, 1.3)) / 10
      const start = new Date(day + this.chance.whole(6, 17) * 3_600_000 + this.chance.whole(0, 59) * 60_000)
      const lot = this.chance.unit()
      this.history.rides.push({
        from: start,
        to: new Date(start.getTime() + (km / this.chance.between(16, 26)) * 3_600_000 + 60_000),
        km,
        surface: lot < dry ? 'dry' : lot < damp ? 'damp' : lot < wet ? 'wet' : 'gritty',
      })
    }
  }

  private rideTo(to: Date): void {
    const weeks = (to.getTime() - this.now.getTime()) / (7 * DAY)
    const km = Math.max(0, weeks * this.plan.life.kmPerWeek * Math.max(0.4, this.chance.normal(1, 0.18)))
    this.odometerKm += km
    this.weightedKm += (km * this.plan.life.harshness) / 1000
    this.now = to
  }

  private trueWear(): number {
    return this.zero + 0.5 * Math.pow(this.weightedKm / this.chainLife, this.gamma)
  }

  private fit(start: PastFitting['start']): void {
    const { life, gamma } = WEAR[this.plan.life.care]
    this.chainLife = life * Math.exp(this.chance.normal(0, 0.25))
    this.gamma = Math.max(0.9, this.chance.normal(gamma, 0.08))
    this.zero = Math.max(0, this.chance.normal(0.03, 0.02))
    this.weightedKm = 0
    this.history.chains.push({ name: this.drive.chain, pitches: this.drive.pitches, care: this.plan.life.care })
    this.history.fittings.push({
      chain: this.history.chains.length - 1,
      from: this.now,
      to: null,
      start,
      endReason: null,
    })
  }

  private change(reason: 'worn' | 'swapped'): void {
    // The chain came off an hour after it was read.
    this.now = new Date(this.now.getTime() + 3_600_000)
    const present = this.history.fittings.at(-1)!
    present.to = this.now
    present.endReason = reason
    this.fit('fitted')
  }

  /** Three chains take turns, six times in the last quarter of a year, or since the present one was fitted. */
  private rotate(): void {
    const present = this.history.fittings.at(-1)!
    const chains = [present.chain]
    for (const _ of [1, 2]) {
      this.history.chains.push({ name: this.drive.chain, pitches: this.drive.pitches, care: 'immersion-wax' })
      chains.push(this.history.chains.length - 1)
    }
    let from = new Date(Math.max(this.now.getTime() - 84 * DAY, present.from.getTime() + DAY))
    const turnMs = (this.now.getTime() - from.getTime()) / 6
    present.to = from
    present.endReason = 'swapped'
    for (let turn = 0; turn < 6; turn++) {
      const to = turn === 5 ? null : new Date(from.getTime() + turnMs)
      this.history.fittings.push({
        chain: chains[(turn + 1) % 3]!,
        from,
        to,
        start: 'fitted',
        endReason: to === null ? null : 'swapped',
      })
      if (to !== null) from = to
    }
  }

  private shorten(at: Date): void {
    this.history.events.push({
      chain: this.history.fittings.at(-1)!.chain,
      at,
      kind: 'shortened',
      pitchesAfter: this.drive.pitches - 2,
    })
  }

  private visit(instrument?: InstrumentKey): void {
    const odometer = this.readOdometer()
    const by = this.chance.whole(0, 2)
    if (this.history.fittings.at(-1)!.start === 'fitted' && this.weightedKm === 0) {
      this.history.odometers.push({ at: this.now, by, ...odometer })
      return
    }
    const taken = instrument ?? this.chance.pick(['rule', 'rule', 'rule', 'ruleInch', 'digital', 'dropIn'] as const)
    this.read(taken, instrument === undefined ? this.chance.pick([1, 2, 3, 3]) : 3, this.trueWear(), odometer, by)
  }

  private readOdometer(): { typed: string; km: number } {
    const shown = Math.round(this.plan.miles === true ? this.odometerKm / KM_PER_MILE : this.odometerKm)
    return this.plan.miles === true
      ? { typed: `${shown} mi`, km: shown * KM_PER_MILE }
      : { typed: `${shown}`, km: shown }
  }

  private read(
    instrument: InstrumentKey,
    spots: number,
    worn: number,
    odometer: { typed: string; km: number } | null,
    by: number,
  ): void {
    this.visited.set(this.history.readings.length, { weightedKm: this.weightedKm, spots })
    this.record(instrument, this.spots(instrument, spots, worn), odometer, by)
  }

  private spots(instrument: InstrumentKey, count: number, worn: number): PastSpot[] {
    const spread = this.chance.pick([0.02, 0.03, 0.04])
    const many = instrument === 'dropIn' ? 1 : count
    return Array.from({ length: many }, () => this.spot(instrument, worn - 0.03 + this.chance.normal(0, spread)))
  }

  private record(
    instrument: InstrumentKey,
    spots: PastSpot[],
    odometer: { typed: string; km: number } | null,
    by: number,
  ): void {
    this.history.readings.push({
      at: this.now,
      by,
      instrument,
      spots,
      odometer,
      fitting: this.history.fittings.length - 1,
    })
  }

  private spot(instrument: InstrumentKey, worn: number): PastSpot {
    if (instrument === 'digital') {
      const value = worn + this.chance.normal(0, DEFAULTS.measuring.digitalU)
      return { typed: value.toFixed(2), pitches: null }
    }
    if (instrument === 'dropIn') {
      const shown = worn - RED_GAUGE_LATE + this.chance.normal(0, DEFAULTS.measuring.dropInMarkU)
      const { marks = [] } = instrumentPlan('dropIn')
      return { typed: formatMarks(marks.map((mark) => (shown >= mark ? 'in' : 'out'))), pitches: null }
    }
    return this.ruled(instrument, this.chance.pick([24, 24, 40, 16]), worn)
  }

  private ruled(instrument: InstrumentKey, pitches: number, worn: number): PastSpot {
    const lengthMm =
      spanAtElongation({ pitches, elongation: worn }) + this.chance.normal(0, DEFAULTS.measuring.steelRuleUMm * 0.8)
    const typed =
      instrument === 'ruleInch'
        ? formatLength(lengthMm, { unit: 'in', denominator: 32 }).replace(' in', '')
        : formatLength(lengthMm, { unit: 'mm' }).replace(' mm', '')
    return { typed, pitches }
  }
}
