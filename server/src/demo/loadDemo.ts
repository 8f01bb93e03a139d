import { hash } from '@node-rs/argon2'
import {
  DEFAULTS,
  observeSpot,
  SHIPPED_RULES,
  weekdayOf,
  type ForecastReading,
  type InstrumentRecord,
} from '@pelrin/core'
import { STAND_IN } from '@pelrin/contract'
import { daysLater, dayIn, momentAt } from '../days/days.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { shopFacts } from '../state/shopFacts.ts'
import type { Database } from '../db/connection.ts'
import { inShop, analyzeTables, type Work } from '../db/work.ts'
import { BikeSimulation, type Ending, type History, type PastReading } from './history.ts'
import { driveDetails } from './driveDetails.ts'
import { loadCare } from './loadCare.ts'
import { loadCatalogue, type LoadedCatalogue } from './loadCatalogue.ts'
import { loadJoints, type FittedChain } from './loadJoints.ts'
import { loadEventDates } from './loadEventDates.ts'
import { loadPot } from './loadPot.ts'
import { loadComponents } from './loadComponents.ts'
import { loadWearChecks } from './loadWearChecks.ts'
import { loadStudy } from './loadStudy.ts'
import { pastReading, pastVerdict, type PastStory } from './pastVerdict.ts'
import { Chance } from './random.ts'
import {
  customers,
  DRIVE_KINDS,
  WALL,
  instrumentPlan,
  LINE_UP,
  TEAM,
  SHOP,
  type BikePlan,
  type InstrumentKey,
} from './scenario.ts'
import type { NewRowOf } from '../db/table.ts'
import { PEOPLE, SHOPS } from '../auth/models.ts'
import { BIKES, CUSTOMERS, type CustomerRow } from '../bikes/models.ts'
import { CHAINS, CHAIN_EVENTS, FITTINGS, type ChainRow, type FittingRow } from '../chains/models.ts'
import { DISTANCE_ENTRIES, RIDES } from '../distance/models.ts'
import { INSTRUMENTS, INSTRUMENT_VERSIONS } from '../instruments/models.ts'
import { HOUSE_RULES, HOUSE_RULE_VERSIONS } from '../limits/models.ts'
import { DRIVES, type DriveRow } from '../parts/models.ts'
import { READINGS, SPOTS, VERDICTS, type SpotRow } from '../readings/models.ts'
import { VISITS } from '../stand/models.ts'

const SEED = 20263

/** How the bikes in for today stand, and two that are closing in by a round of this week. */
const ENDINGS: Record<string, Ending> = {
  Causeway: { daysAgo: 9, worn: 1.3, instrument: 'rule' },
  'Bakery van 2': { daysAgo: 62, worn: 0.9 },
  'Sand racer': { daysAgo: 24, worn: 0.42 },
  'Island mail 4': { daysAgo: 1, worn: 1.2, twist: 'disagree' },
  Tandem: { daysAgo: 12, worn: 1.42 },
  'School pool 7': { daysAgo: 100, worn: 0.3 },
  Downs: { daysAgo: 5, worn: 0.86, twist: 'shortened', instrument: 'digital' },
  'Winter bike': { daysAgo: 6, worn: 1.12, twist: 'late-gauge' },
  Courier: { daysAgo: 11, worn: 0.35, twist: 'rotation' },
  'Senna Keel, Ferry bike': { daysAgo: 3, worn: 0.84, instrument: 'digital' },
  'Senna Keel, Old faithful': { daysAgo: 3, worn: 0.86, instrument: 'digital' },
}

/** The rest take what comes, with enough of each kind that every state is to be seen. */
function endingOf(customer: string, { label }: BikePlan, chance: Chance): Ending {
  const told = ENDINGS[label] ?? ENDINGS[`${customer}, ${label}`]
  if (told) return told
  const lot = chance.unit()
  if (lot < 0.12) return { daysAgo: chance.whole(3, 40), worn: chance.between(1.25, 1.8) }
  if (lot < 0.25) return { daysAgo: chance.whole(2, 50), worn: chance.between(0.82, 0.95) }
  if (lot < 0.3) return { daysAgo: chance.whole(2, 30), worn: chance.between(0.94, 1), twist: 'in-doubt' }
  if (lot < 0.39) return { daysAgo: chance.whole(190, 290), worn: chance.between(0.3, 0.7) }
  if (lot < 0.47) return { daysAgo: chance.whole(4, 50), worn: 0, twist: 'fresh' }
  return { daysAgo: chance.whole(3, 170), worn: chance.between(0.1, 0.75) }
}

export interface Loaded {
  readonly shopId: string
  readonly bikes: number
  readonly readings: number
}

/**
 * Loads the demo shop, the same every time, with dates counted back from a day.
 *
 * All of it is one transaction: a load that was interrupted leaves nothing behind.
 *
 * @param now the moment it is loaded at
 * @param progress told how many bikes are done, of how many
 */
export async function loadDemo(
  database: Database,
  now: Date,
  progress: (done: number, of: number) => void = () => undefined,
): Promise<Loaded> {
  const chance = new Chance(SEED)
  // Counted from the start of the day, so that a second load on one day gives the very same rows.
  const today = momentAt(SHOP.timeZone, dayIn(SHOP.timeZone, now), '08:30')
  const founded = new Date(today.getTime() - 760 * 86_400_000)
  const shopId = chance.id(founded)
  return inShop(
    database,
    shopId,
    null,
    async (work) => {
      await work
        .of(SHOPS)
        .create(
          { id: shopId, ...SHOP, distanceUnit: 'km', demo: true, begunAt: new Date(founded) },
          { transaction: work.transaction },
        )
      return new Loader(work, chance, today, founded, progress).load()
    },
    { long: true },
  )
}

class Loader {
  private peopleIds: string[] = []
  private instruments = new Map<InstrumentKey, { id: string; versionId: string }>()
  private rule = { id: '', versionId: '' }
  private catalogue: LoadedCatalogue = { systems: new Map(), chains: new Map(), parts: [] }
  private readonly fitted: FittedChain[] = []
  /** Rows gathered over all bikes, written table by table: a few large statements instead of thousands of small ones. */
  private readonly pending = {
    customers: [] as NewRowOf<typeof CUSTOMERS>[],
    bikes: [] as NewRowOf<typeof BIKES>[],
    drives: [] as NewRowOf<typeof DRIVES>[],
    chains: [] as NewRowOf<typeof CHAINS>[],
    fittings: [] as NewRowOf<typeof FITTINGS>[],
    chainEvents: [] as NewRowOf<typeof CHAIN_EVENTS>[],
    entries: [] as NewRowOf<typeof DISTANCE_ENTRIES>[],
    rides: [] as NewRowOf<typeof RIDES>[],
    readings: [] as NewRowOf<typeof READINGS>[],
    spots: [] as NewRowOf<typeof SPOTS>[],
    verdicts: [] as NewRowOf<typeof VERDICTS>[],
  }
  private readonly kmPerDay = new Map<string, number>()
  private readonly toJudge: { bikeId: string; at: Date; by: number; readingId: string | null }[] = []

  constructor(
    private readonly work: Work,
    private readonly chance: Chance,
    private readonly today: Date,
    private readonly founded: Date,
    private readonly progress: (done: number, of: number) => void,
  ) {}

  async load(): Promise<Loaded> {
    await this.loadPeople()
    await this.loadRules()
    await this.loadInstruments()
    this.catalogue = await loadCatalogue(this.work, SEED + 1, this.founded, this.peopleIds[0]!)
    const plans = customers()
    const total = plans.reduce((sum, plan) => sum + plan.bikes.length, 0)
    let number = 0
    const inToday = new Map<string, string>()
    for (const plan of plans) {
      const customerId = this.chance.id(this.founded)
      const phone = `01${this.chance.whole(100, 999)} 555 ${this.chance.whole(100, 999)}`
      this.pending.customers.push({
        id: customerId,
        name: plan.name,
        phone,
        version: 1,
        eachVisit: false,
        language: this.pending.customers.length % 9 === 4 ? ('fr' as const) : ('en' as const),
        optedOutAt: this.pending.customers.length % 11 === 7 ? this.founded : null,
        // A third told when it suits them, and who treats their chains.
        ...(habitOf(this.pending.customers.length) ?? {}),
        ...plan.rhythm,
      })
      for (const bikePlan of plan.bikes) {
        const bikeId = this.addBike({ id: customerId, name: plan.name }, bikePlan, 400 + number++ * 7)
        inToday.set(`${plan.name}/${bikePlan.label}`, bikeId)
      }
    }
    await this.write()
    await loadJoints(this.work, SEED + 2, this.catalogue.parts, this.fitted, this.peopleIds[0]!)
    await loadWearChecks({ ...this.work, now: this.today }, SEED + 3, this.pending.drives as DriveRow[], this.peopleIds)
    await loadComponents(
      { ...this.work, now: this.today },
      SEED + 9,
      this.pending.drives as DriveRow[],
      this.catalogue.parts,
      this.peopleIds,
    )
    await loadCare(
      { ...this.work, now: this.today },
      SEED + 4,
      this.pending.chains,
      this.pending.fittings,
      this.kmPerDay,
      this.peopleIds,
    )
    await loadPot(
      { ...this.work, now: this.today },
      SEED + 5,
      this.pending.chains,
      this.pending.fittings,
      this.peopleIds,
    )
    await loadEventDates({ ...this.work, now: this.today }, SEED + 6, this.pending.bikes, this.peopleIds[0]!)
    await analyzeTables(this.work)
    const shared = await shopFacts(this.work)
    // Those whose rides say what they are ridden on come first: the others are taken to be ridden as their customer's are.
    const ridden = new Set(this.pending.rides.map(({ bikeId }) => bikeId))
    const inOrder = this.toJudge.toSorted((a, b) => Number(ridden.has(b.bikeId)) - Number(ridden.has(a.bikeId)))
    for (const [done, { bikeId, at, by, readingId }] of inOrder.entries()) {
      const author = { personId: this.peopleIds[by]!, deviceId: null, requestId: null }
      await judgeBike({ ...this.work, now: at, author }, bikeId, { readingId, occurredAt: at }, shared)
      this.progress(done + 1, total)
    }
    await this.lookOver()
    await this.loadLineUp(inToday)
    await this.loadBookings(inToday)
    await loadStudy(this.work, this.chance, {
      today: this.today,
      instrumentId: this.instruments.get('digital')!.id,
      people: this.peopleIds.slice(0, 3),
    })
    return { shopId: this.work.shopId, bikes: total, readings: this.pending.readings.length }
  }

  private async write(): Promise<void> {
    const { of, transaction } = this.work
    const { pending } = this
    await of(CUSTOMERS).bulkCreate(pending.customers, { transaction })
    await of(BIKES).bulkCreate(pending.bikes, { transaction })
    await of(DRIVES).bulkCreate(pending.drives, { transaction })
    await of(CHAINS).bulkCreate(pending.chains, { transaction })
    await of(FITTINGS).bulkCreate(pending.fittings, { transaction })
    await of(CHAIN_EVENTS).bulkCreate(pending.chainEvents, { transaction })
    await of(DISTANCE_ENTRIES).bulkCreate(pending.entries, { transaction })
    await of(RIDES).bulkCreate(pending.rides, { transaction })
    await of(READINGS).bulkCreate(pending.readings, { transaction })
    await of(SPOTS).bulkCreate(pending.spots, { transaction })
    await of(VERDICTS).bulkCreate(pending.verdicts, { transaction })
  }

  /** What the apprentice wrote down was looked at by the mechanic the same evening, but for that of the last days. */
  private async lookOver(): Promise<void> {
    for (const [kind, table] of [
      ['reading', 'readings'],
      ['care', 'care_events'],
    ] as const)
      await this.work.select(
        `INSERT INTO looks (subject_kind, subject_id, at, person_id)
         SELECT '${kind}', f.id, f.occurred_at + interval '3 hours', :mechanic FROM ${table} f
         JOIN people p ON p.id = f.person_id AND p.role = 'apprentice'
         WHERE f.occurred_at < CAST(:today AS timestamptz) - interval '3 days' RETURNING subject_id`,
        { mechanic: this.peopleIds[1]!, today: this.today },
      )
  }

  private async loadPeople(): Promise<void> {
    const { of, transaction } = this.work
    for (const { password, pin, ...person } of TEAM) {
      // Who sits at the desk measures nothing, and changes nothing of what the others' dice throw.
      const desk = person.role === 'desk'
      const id = (desk ? new Chance(SEED + 7) : this.chance).id(this.founded)
      if (!desk) this.peopleIds.push(id)
      const salt = Buffer.from(id.replaceAll('-', ''), 'hex')
      await of(PEOPLE).create(
        {
          id,
          ...person,
          passwordHash: await hash(password, { salt }),
          pinHash: await hash(pin, { salt }),
          active: true,
          demoPassword: password,
        },
        { transaction },
      )
    }
  }

  private async loadRules(): Promise<void> {
    const { of, transaction } = this.work
    // "As marked" has no limits of its own: where no instrument is named for a bike, the shop's rule holds.
    const shipped = [...SHIPPED_RULES, { ...SHIPPED_RULES[0], school: 'as-marked' as const }]
    // Schools that came later draw from chances of their own, so that the shop's story stays as it was.
    const later = new Chance(SEED + 8)
    for (const [i, { school, limits, watchShare }] of shipped.entries()) {
      const chance = school === 'half-for-all' || school === 'one-pair' ? later : this.chance
      const id = chance.id(this.founded)
      const versionId = chance.id(this.founded)
      if (i === 0) this.rule = { id, versionId }
      await of(HOUSE_RULES).create({ id, school, isDefault: i === 0 }, { transaction })
      await of(HOUSE_RULE_VERSIONS).create(
        { id: versionId, houseRuleId: id, version: 1, limits, watchShare, validFrom: this.founded },
        { transaction },
      )
    }
  }

  private async loadInstruments(): Promise<void> {
    const { of, transaction } = this.work
    const day = dayIn(SHOP.timeZone, this.today)
    for (const { key, kind, name, checkedDaysAgo } of WALL) {
      const id = this.chance.id(this.founded)
      const versionId = this.chance.id(this.founded)
      this.instruments.set(key, { id, versionId })
      // The digital gauge sends its readings: it is the stand-in that ships with Pelrin.
      const connection = key === 'digital' ? STAND_IN : null
      await of(INSTRUMENTS).create({ id, kind, name, connection }, { transaction })
      const { kind: _, marks, ...record } = recordOf(key)
      const { changeMark = null, seesRollerWear = false } = instrumentPlan(key)
      await of(INSTRUMENT_VERSIONS).create(
        {
          id: versionId,
          instrumentId: id,
          version: 1,
          ...record,
          marks: marks && [...marks],
          changeMark,
          seesRollerWear,
          standing: 'in-use',
          checkedOn: kind === 'by-hand' ? null : daysLater(day, -checkedDaysAgo),
          validFrom: this.founded,
          personId: this.peopleIds[0]!,
          reason: 'taken into use',
        },
        { transaction },
      )
    }
  }

  private addBike(customer: { readonly id: string; readonly name: string }, plan: BikePlan, number: number): string {
    const id = this.chance.id(this.founded)
    const drive = DRIVE_KINDS[plan.drive]
    const maker = this.chance.pick(['Ostling', 'Varrow', 'Tindrel', 'Korvane', 'Mabry'])
    this.pending.bikes.push({
      id,
      customerId: customer.id,
      label: plan.label,
      maker,
      model: null,
      kind: plan.kind,
      tag: String(number).padStart(4, '0'),
      frameMark: `${maker.slice(0, 2).toUpperCase()}${this.chance.whole(10_000, 99_999)}`,
      notes: '',
      odometerUnit: plan.miles === true ? 'mi' : 'km',
      version: 1,
    })
    this.pending.drives.push({
      id: this.chance.id(this.founded),
      bikeId: id,
      type: drive.type,
      speeds: drive.speeds,
      fronts: [...drive.fronts],
      sprockets: [...drive.sprockets],
      motor: 'motor' in drive ? drive.motor : false,
      ...driveDetails(plan.drive, plan.kind, this.catalogue, number),
    })
    this.kmPerDay.set(id, plan.life.kmPerWeek / 7)
    const ending = endingOf(customer.name, plan, this.chance)
    this.addHistory(id, plan, new BikeSimulation(this.chance, plan, this.today, ending).run())
    return id
  }

  private addHistory(bikeId: string, plan: BikePlan, history: History): void {
    const { pending } = this
    const chainIds = history.chains.map(() => this.chance.id(this.founded))
    const partIds = history.chains.map(({ name }) => this.catalogue.chains.get(name) ?? null)
    const cameOffFor = (chain: number) => history.fittings.findLast((one) => one.chain === chain)?.endReason ?? null
    const turns = history.chains.some((_, i) => cameOffFor(i) === 'swapped')
    pending.chains.push(
      ...history.chains.map((chain, i) => ({
        id: chainIds[i]!,
        partId: partIds[i] ?? null,
        ...chain,
        // Twins are told apart by what is tied to them.
        name: turns ? `${chain.name}, ${TIES[i % TIES.length]} tie` : chain.name,
        ...whereabouts(bikeId, cameOffFor(i)),
        version: 1,
      })),
    )
    for (const [i, { chain, from }] of history.fittings.entries()) {
      const later = history.fittings.slice(i + 1).some((one) => one.chain === chain)
      const partId = partIds[chain]
      if (later || partId == null) continue
      this.fitted.push({ chainId: chainIds[chain]!, partId, from, waxed: plan.life.care === 'immersion-wax' })
    }
    const fittingIds = history.fittings.map((fitting) => this.chance.id(fitting.from))
    pending.fittings.push(
      ...history.fittings.map(({ chain, from, to, start, endReason }, i) => ({
        id: fittingIds[i]!,
        bikeId,
        chainId: chainIds[chain]!,
        during: [
          { value: from, inclusive: true },
          { value: to, inclusive: false },
        ] as FittingRow['during'],
        start,
        endReason,
        cameFrom: null,
        personId: this.peopleIds[0]!,
        recordedAt: from,
      })),
    )
    pending.chainEvents.push(
      ...history.events.map(({ chain, at, ...event }) => ({
        ...event,
        ...this.fact(at, 0),
        chainId: chainIds[chain]!,
      })),
    )
    pending.entries.push(...history.odometers.map(({ at, typed, km, by }) => this.odometer(bikeId, at, typed, km, by)))
    pending.rides.push(
      ...history.rides.map(({ from, to, ...ride }) => ({
        ...this.fact(from, 0),
        ...ride,
        recordedAt: to,
        bikeId,
        endedAt: to,
        source: 'service' as const,
      })),
    )
    const told: PastStory = { history, plan, rule: { ...SHIPPED_RULES[0], id: this.rule.id, version: 1 } }
    const sofar: { fitting: number; reading: ForecastReading }[] = []
    let lastReadingId: string | null = null
    for (const [i, past] of history.readings.entries()) {
      const entry = past.odometer
        ? this.odometer(bikeId, past.at, past.odometer.typed, past.odometer.km, past.by)
        : null
      if (entry) pending.entries.push(entry)
      const fact = this.fact(past.at, past.by)
      lastReadingId = fact.id
      const rows = past.spots.map((spot, position) => this.spot(fact.id, past, spot, position))
      const on = { chainId: chainIds[history.fittings[past.fitting]!.chain]!, fittingId: fittingIds[past.fitting]! }
      pending.readings.push({
        ...fact,
        bikeId,
        ...on,
        instrumentId: this.instruments.get(past.instrument)!.id,
        instrumentVersionId: this.instruments.get(past.instrument)!.versionId,
        distanceEntryId: entry?.id ?? null,
        source: 'shop',
      })
      pending.spots.push(...rows)
      const { id: instrumentId } = this.instruments.get(past.instrument)!
      sofar.push({ fitting: past.fitting, reading: pastReading(told, past, { id: fact.id, instrumentId, rows }) })
      // The last verdict is given by the same code as any other, from the database.
      if (i === history.readings.length - 1) continue
      const readings = sofar.filter(({ fitting }) => fitting === past.fitting).map(({ reading }) => reading)
      pending.verdicts.push({
        bikeId,
        ...on,
        readingId: fact.id,
        ...this.fact(past.at, past.by),
        houseRuleVersionId: this.rule.versionId,
        ...pastVerdict(told, past, readings),
      })
    }
    const last = history.readings.at(-1)!
    const present = history.fittings.length - 1
    const measured = last.fitting === present
    this.toJudge.push({
      bikeId,
      at: measured ? last.at : history.fittings[present]!.from,
      by: last.by,
      readingId: measured ? lastReadingId : null,
    })
  }

  private fact(at: Date, by: number) {
    return {
      id: this.chance.id(at),
      occurredAt: at,
      recordedAt: at,
      personId: this.peopleIds[by]!,
      deviceId: null,
      supersedesId: null,
      reason: null,
      deleted: false,
    }
  }

  private odometer(bikeId: string, at: Date, typed: string, km: number, by: number): NewRowOf<typeof DISTANCE_ENTRIES> {
    return {
      ...this.fact(at, by),
      bikeId,
      kind: 'odometer',
      typed,
      unit: typed.endsWith('mi') ? 'mi' : 'km',
      km,
      restarted: false,
    }
  }

  private spot(readingId: string, past: PastReading, spot: PastReading['spots'][number], position: number): SpotRow {
    const seen = observeSpot({
      record: recordOf(past.instrument),
      entry: { typed: spot.typed, pitches: spot.pitches },
      assumed: DEFAULTS,
    })
    if (!seen.ok) throw new Error(`${spot.typed} is no reading: ${seen.problem}`)
    const { observed } = seen
    return {
      id: this.chance.id(past.at),
      readingId,
      readingOccurredAt: past.at,
      position,
      place: spot.place ?? null,
      typed: spot.typed,
      mode: null,
      picture: null,
      linkIncluded: null,
      unit: observed.unit ?? null,
      pastMarkMm: observed.pastMarkMm ?? null,
      lengthMm: observed.lengthMm ?? null,
      pitches: spot.pitches,
      value: observed.value ?? null,
      over: observed.over ?? null,
      under: observed.under ?? null,
      u: observed.u,
      borderline: observed.borderline,
    }
  }

  /** What is booked ahead: bikes that are not in today, on days that are not Sundays. */
  private async loadBookings(bikeIds: ReadonlyMap<string, string>): Promise<void> {
    const today = dayIn(SHOP.timeZone, this.today)
    const here = new Set(LINE_UP.map(({ customer, label }) => bikeIds.get(`${customer}/${label}`)))
    const others = [...bikeIds.values()].filter((id) => !here.has(id))
    await this.work.of(VISITS).bulkCreate(
      BOOKED.map(({ inDays, clock, reason, minutes }, i) => {
        const asked = daysLater(today, inDays)
        const day = weekdayOf(asked) === 7 ? daysLater(asked, 1) : asked
        return {
          id: this.chance.id(this.today),
          bikeId: others[(i * 7 + 3) % others.length]!,
          day,
          position: i + 1,
          promisedAt: clock === null ? null : momentAt(SHOP.timeZone, day, clock),
          reason,
          minutes,
          bookedAt: this.today,
          state: 'waiting' as const,
          version: 1,
        }
      }),
      { transaction: this.work.transaction },
    )
  }

  private async loadLineUp(bikeIds: ReadonlyMap<string, string>): Promise<void> {
    const day = dayIn(SHOP.timeZone, this.today)
    await this.work.of(VISITS).bulkCreate(
      LINE_UP.map(({ customer, label, at, reason }, i) => ({
        id: this.chance.id(this.today),
        bikeId: bikeIds.get(`${customer}/${label}`)!,
        day,
        position: i + 1,
        promisedAt: momentAt(SHOP.timeZone, day, at),
        reason,
        state: 'waiting' as const,
        version: 1,
      })),
      { transaction: this.work.transaction },
    )
  }
}

/** Habits of every third customer, in turn. */
const habitOf = (number: number): Pick<CustomerRow, 'careAt' | 'goodWeekday'> | null =>
  number % 3 === 0 ? { careAt: number % 2 === 0 ? 'workshop' : 'home', goodWeekday: 1 + ((number / 3) % 6) } : null

/** Bookings ahead: so many days from today, at what time they are promised, and why. */
const BOOKED = [
  { inDays: 1, clock: '11:00', reason: 'check and wax', minutes: 30 },
  { inDays: 1, clock: '15:30', reason: 'service', minutes: 90 },
  { inDays: 2, clock: null, reason: 'new chain', minutes: 45 },
  { inDays: 4, clock: '10:30', reason: 'squeaks', minutes: 30 },
  { inDays: 6, clock: null, reason: 'fleet look-over', minutes: 240 },
  { inDays: 8, clock: '17:00', reason: 'rewax', minutes: 30 },
] as const

const recordOf = (key: InstrumentKey): InstrumentRecord => {
  const { kind, uMm = null, u = null, marks = null } = instrumentPlan(key)
  return { kind, uMm, u, bias: 0, biasU: 0, marks, material: 'steel', rollerMm: null }
}

const TIES = ['blue', 'red', 'green']

/** What became of a chain, by why it came off last: a twin waits for its turn, one changed early is a spare. */
function whereabouts(bikeId: string, endReason: string | null): Pick<ChainRow, 'fate' | 'homeBikeId'> {
  if (endReason === 'swapped') return { fate: 'rotation', homeBikeId: bikeId }
  return { fate: endReason === null ? null : endReason === 'early' ? 'spare' : 'scrapped', homeBikeId: null }
}
