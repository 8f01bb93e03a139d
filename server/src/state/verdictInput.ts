import { odometerDistance, type VerdictReading } from '@pelrin/core'
import type { VerdictInput } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { standingEntries, type StandingEntry } from '../distance/store.ts'
import { asAvailable } from '../instruments/store.ts'
import { asHouseRule, otherRules, ruleFor, type RuleChoice, type RuleInForce } from '../limits/houseRulesStore.ts'
import { asVerdictReading } from '../readings/attributed.ts'
import { readingsOfBike, type ReadingFact } from '../readings/store.ts'
import { presentFitting, type PresentFitting } from './presentFitting.ts'
import { shopFacts, type ShopFacts } from './shopFacts.ts'

/** Everything known of a bike that its verdict rests on. */
export interface BikeFacts {
  readonly fitting: PresentFitting | null
  readonly readings: readonly ReadingFact[]
  readonly entries: readonly StandingEntry[]
  readonly rule: RuleInForce
  readonly input: VerdictInput
  /** What the present chain had run at the last odometer value, km. */
  readonly chainKm: number | null
}

/** Kilometres of the present chain up to a moment; null when the odometer does not say. */
export function chainKmAt(fitting: PresentFitting, entries: readonly StandingEntry[], at: Date): number | null {
  const values = entries.map((entry) => ({ at: entry.at.getTime(), km: entry.km, restarted: entry.restarted }))
  const km = odometerDistance(values, fitting.from.getTime(), at.getTime())
  if (km !== null) return km
  // Fitted new, or first read here: up to then it has run nothing that is known.
  return fitting.start === 'fitted' || entries.some((entry) => entry.at >= fitting.from && entry.at <= at) ? 0 : null
}

/**
 * Gathers what a bike's verdict rests on.
 *
 * @param asOf the moment at which instruments are in date or not
 * @param shared what all bikes of the shop share, where many are judged
 */
export async function bikeFacts(work: Work, bikeId: string, asOf: Date, shared?: ShopFacts): Promise<BikeFacts> {
  const [bike] = await work.select<RuleChoice & { type: 'derailleur' | 'hub-gear' | 'single-speed'; speeds: number }>(
    `SELECT b.house_rule_id AS "ownRule", c.house_rule_id AS "customerRule", d.type, d.speeds,
       (SELECT w.change_mark FROM instrument_versions w WHERE w.instrument_id = b.marked_instrument_id
        ORDER BY w.version DESC LIMIT 1) AS "changeMark"
     FROM bikes b JOIN customers c ON c.id = b.customer_id JOIN drives d ON d.bike_id = b.id WHERE b.id = :bikeId`,
    { bikeId },
  )
  if (!bike) throw new Error(`bike ${bikeId} has no drive`)
  const fitting = await presentFitting(work, bikeId)
  const readings = await readingsOfBike(work, bikeId)
  const entries = await standingEntries(work, bikeId)
  const { rules, instruments, assumptions } = shared ?? (await shopFacts(work))
  const { assumed, overrides } = assumptions
  const rule = ruleFor(rules, bike)
  const standing = readings.filter(
    (reading) => reading.supersededBy === null && !reading.deleted && reading.fittingId === fitting?.id,
  )
  const lastEntryAt = entries.at(-1)?.at ?? null
  const chainKm = fitting === null ? null : chainKmAt(fitting, entries, lastEntryAt ?? fitting.from)
  return {
    fitting,
    readings,
    entries,
    rule,
    chainKm,
    input: {
      readings: standing.map((reading): VerdictReading =>
        asVerdictReading(reading, fitting === null ? null : chainKmAt(fitting, entries, reading.occurredAt), assumed),
      ) as VerdictInput['readings'],
      drive: { type: bike.type, speeds: bike.speeds },
      rule: asHouseRule(rule),
      chain: {
        kmSinceFittedNew: fitting?.start === 'fitted' ? chainKm : null,
        ...(fitting?.countChangedAt ? { countChangedAt: fitting.countChangedAt.getTime() } : {}),
      },
      instruments: instruments.map((instrument) =>
        asAvailable(instrument, asOf, assumed),
      ) as VerdictInput['instruments'],
      ...(Object.keys(overrides).length === 0 ? {} : { assumptions: { ...overrides } }),
      otherRules: otherRules(rules, rule, bike),
    },
  }
}
