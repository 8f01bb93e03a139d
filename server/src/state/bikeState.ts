import {
  assumptionsWith,
  earnedByReadings,
  lastPresentDay,
  measureFrom,
  nextWashOn,
  type Assumptions,
  type ChainForecast,
  type ChainVerdict,
} from '@pelrin/core'
import type { SpotMark, VerdictInput } from '@pelrin/contract'
import { careNext } from '../care/nextStore.ts'
import { standingCare } from '../care/standingStore.ts'
import type { Work } from '../db/work.ts'
import { shopRiding, type BikeDistance, type ChainDistance, type ShopRiding } from '../distance/bikeDistanceStore.ts'
import { decisionStanding } from '../limits/decisionsStore.ts'
import { wearNext } from '../otherWear/store.ts'
import { dayIn, daysLater } from '../days/days.ts'
import { shopZone } from '../days/shopZone.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { forecastOf } from './verdictInput.ts'
import { BIKE_STATE, type BikeStateRow } from './models.ts'

/** Holds a bike's state until the transaction ends, so that two writers take their turn. */
export async function lockBikeState(work: Work, bikeId: string): Promise<void> {
  await work.select('SELECT bike_id FROM bike_state WHERE bike_id = :bikeId FOR UPDATE', { bikeId })
}

interface LatestVerdict {
  id: string
  occurredAt: Date
  chainId: string | null
  fittingId: string | null
  houseRuleVersionId: string
  readingId: string | null
  input: VerdictInput
  outcome: ChainVerdict
}

/**
 * Derives a bike's state from its facts and stores it: the latest verdict as it was given, the chain's distance,
 * the text it is found by. Nothing in it depends on today.
 *
 * @param known what was just worked out with the latest verdict; what is left out is worked out anew
 */
export async function refreshBikeState(work: Work, bikeId: string, known: Known = {}): Promise<void> {
  await store(work, await deriveBikeState(work, bikeId, known))
}

async function store(work: Work, row: BikeStateRow): Promise<void> {
  await work.of(BIKE_STATE).upsert(row, {
    transaction: work.transaction,
    conflictFields: ['shop_id', 'bike_id'] as never,
  })
}

/** A day, or the earlier one a fixed rhythm gives: the customer's own, else the shop's; 0 is none. */
const inRhythm = (day: string, from: string, rhythmDays: number): string => {
  if (rhythmDays === 0) return day
  const due = daysLater(from, rhythmDays)
  return due < day ? due : day
}

/** What was decided otherwise is looked at again after so many days: those of the rule, or sooner, once so much was ridden. */
function decidedCheckAfter({ life }: VerdictInput, { verdict }: Assumptions): number {
  const perDay = life?.rate.kmPerDay ?? 0
  const byKm = perDay > 0 ? Math.floor(verdict.decidedCheckKm / perDay) : Infinity
  return Math.max(1, Math.min(verdict.decidedCheckDays, byKm))
}

/** The last day a round is present, by the day it was measured and what was ridden since. */
function presentTo(
  measuredOn: string,
  recordedOn: string,
  counted: VerdictInput['readings'],
  { chain, life }: VerdictInput,
  assumed: Assumptions,
): string {
  const measuredKm = Math.max(...counted.map(({ chainKm }) => chainKm ?? NaN))
  const kmSince = chain.km == null || Number.isNaN(measuredKm) ? 0 : Math.max(0, chain.km - measuredKm)
  return lastPresentDay({ measuredOn, recordedOn, kmSince, kmPerDay: life?.rate.kmPerDay ?? 0 }, assumed)
}

/** What whoever refreshes a state has at hand. */
interface Known {
  readonly forecast?: ChainForecast | null
  readonly chainDistance?: ChainDistance | null
  readonly distance?: BikeDistance
  readonly riding?: ShopRiding
}

/** What a bike's state is by its facts. */
export async function deriveBikeState(work: Work, bikeId: string, known: Known = {}): Promise<BikeStateRow> {
  const [verdict] = await work.prepared<LatestVerdict>(
    `SELECT id, occurred_at AS "occurredAt", chain_id AS "chainId", fitting_id AS "fittingId",
       house_rule_version_id AS "houseRuleVersionId", reading_id AS "readingId", input, outcome
     FROM verdicts WHERE bike_id = :bikeId AND NOT deleted ORDER BY recorded_at DESC, id DESC LIMIT 1`,
    { bikeId },
  )
  if (!verdict) throw new Error(`bike ${bikeId} has never been judged`)
  const [named] = await work.prepared<{ text: string; careAt: 'home' | 'workshop' | null; washDays: number | null }>(
    `SELECT lower(unaccent(concat_ws(' ', c.name, b.label, b.tag, b.frame_mark, b.maker, b.model))) AS text,
       c.care_at AS "careAt", b.wash_days AS "washDays"
     FROM bikes b JOIN customers c ON c.id = b.customer_id WHERE b.id = :bikeId`,
    { bikeId },
  )
  const fitting = await presentFitting(work, bikeId)
  const { outcome, input } = verdict
  const decision = await decisionStanding(work, bikeId, fitting?.id ?? null, outcome.word)
  const counted = input.readings.filter((reading) => outcome.countedReadingIds.includes(reading.id))
  const measuredAt = counted.length === 0 ? null : new Date(Math.max(...counted.map((reading) => reading.occurredAt)))
  const zone = await shopZone(work)
  const from = dayIn(
    zone,
    measuredAt ?? (outcome.word === 'not-measured-yet' && fitting ? fitting.from : verdict.occurredAt),
  )
  // What was decided otherwise is looked at again soon, whatever the verdict would have waited for.
  const assumed = assumptionsWith(input.assumptions ?? {})
  const { rhythmDays, eachVisit } = assumed.verdict
  // As it was made with the verdict: from the very input stored with it.
  const forecast = known.forecast === undefined ? forecastOf(input) : known.forecast
  const shown = forecast?.withheld === null ? forecast : null
  const asOf = new Date(input.life?.at ?? verdict.occurredAt)
  const byForecast =
    shown && outcome.checkInDays !== null && outcome.checkInDays > 0
      ? daysLater(dayIn(zone, asOf), Math.floor(shown.next.days))
      : null
  const checkOn = decision
    ? daysLater(dayIn(zone, decision.occurredAt), decidedCheckAfter(input, assumed))
    : outcome.checkInDays === null
      ? null
      : inRhythm(byForecast ?? daysLater(from, outcome.checkInDays), from, input.rhythm?.days ?? rhythmDays)
  const daysToLimit = shown?.daysLeft[1] ?? null
  const presentUntil =
    measuredAt === null ? null : presentTo(dayIn(zone, measuredAt), dayIn(zone, asOf), counted, input, assumed)
  const outlook = shown && { from: dayIn(zone, asOf), reached: shown.reached }
  const dueFrom = measureFrom(
    {
      word: outcome.word,
      earned: earnedByReadings(outcome, assumed),
      decided: decision !== null,
      presentUntil,
      checkOn,
      outlook,
    },
    assumed,
  )
  const atHome = named?.careAt === 'home'
  const care = fitting && (await careNext(work, { ...known, fitting, input, outcome, forecast: shown, checkOn, zone }))
  return {
    bikeId,
    chainId: verdict.chainId,
    fittingId: verdict.fittingId,
    verdictId: verdict.id,
    houseRuleVersionId: verdict.houseRuleVersionId,
    word: outcome.word,
    advice: outcome.advice,
    flags: [...outcome.flags],
    probability: outcome.probabilityOver,
    median: outcome.median,
    limitAt: outcome.limit,
    marks: marksOf(outcome, counted),
    measuredAt,
    checkOn,
    eachVisit: input.rhythm?.eachVisit === true || eachVisit === 1,
    chainKm: input.chain.km ?? null,
    presentUntil,
    measureFrom: dueFrom,
    outlookFrom: outlook?.from ?? null,
    outlookReached: outlook ? [...outlook.reached] : null,
    changeOn:
      (outcome.word === 'change' && decision === null) || decision?.decision === 'change-early'
        ? (checkOn ?? from)
        : null,
    searchText: named?.text ?? '',
    lastFactId: decision?.id ?? verdict.readingId ?? verdict.id,
    decisionId: decision?.id ?? null,
    decision: decision?.decision ?? null,
    forecast,
    overOn: daysToLimit === null ? null : daysLater(dayIn(zone, asOf), Math.round(daysToLimit)),
    mix: input.mix ?? null,
    kmPerDay:
      input.life && (input.life.rate.basis === 'recent' || input.life.rate.basis === 'older')
        ? input.life.rate.kmPerDay
        : null,
    care,
    careOn: atHome ? null : (care?.dueOn ?? null),
    washOn:
      fitting === null || atHome
        ? null
        : nextWashOn(
            {
              events: (await standingCare(work, fitting.chainId)).map(({ at, ...event }) => ({
                ...event,
                on: dayIn(zone, at),
              })),
              fittedOn: dayIn(zone, fitting.from),
              ownDays: named?.washDays ?? null,
            },
            assumed.care,
          ),
    homeOn: atHome ? (care?.dueOn ?? null) : null,
    wearOn: await wearNext(work, bikeId, assumed, zone, known),
  }
}

function marksOf(outcome: ChainVerdict, counted: VerdictInput['readings']): SpotMark[] {
  return counted.flatMap((reading) =>
    reading.spots.map((spot, index) => ({
      value: spot.value ?? null,
      over: spot.over ?? null,
      under: spot.under ?? null,
      u: spot.u,
      worst: outcome.worst?.readingId === reading.id && outcome.worst.spot === index,
    })),
  )
}

/**
 * Derives the state of every bike of the shop anew from its facts.
 *
 * @returns how many bikes there are, and which had a state that differed from what was stored
 */
export async function rebuildState(work: Work): Promise<{ bikes: number; differing: string[] }> {
  const bikes = await work.select<{ id: string }>('SELECT id FROM bikes ORDER BY id')
  const riding = shopRiding(work)
  const differing: string[] = []
  for (const { id } of bikes) if (await rebuildBike(work, id, riding)) differing.push(id)
  return { bikes: bikes.length, differing }
}

/** Derives the state of one bike anew. @returns whether it differed from what was stored */
export async function rebuildBike(work: Work, bikeId: string, riding: ShopRiding): Promise<boolean> {
  const stored = await work.of(BIKE_STATE).findByPk(bikeId, { transaction: work.transaction })
  const derived = await deriveBikeState(work, bikeId, { riding })
  if (canonical(stored?.get({ plain: true }) ?? {}) === canonical(derived)) return false
  await store(work, derived)
  return true
}

/** JSON with its keys in order, so that two rows compare by content. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) =>
    part !== null && typeof part === 'object' && !Array.isArray(part) && !(part instanceof Date)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  )
}
