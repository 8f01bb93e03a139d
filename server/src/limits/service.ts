import type { HouseRules, Moved, RuleChange } from '@pelrin/contract'
import { chainVerdict, type VerdictWord } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { shopFacts, type ShopFacts } from '../state/shopFacts.ts'
import { bikeFacts, forecastOf, shownOf } from '../state/verdictInput.ts'
import { assumptionsInForce, assumptionVersions } from './assumptionsStore.ts'
import { writeChange, type Concerned } from './changes.ts'
import { rulesInForce, ruleVersions } from './houseRulesStore.ts'
import { BIKE_STATE } from '../state/models.ts'

/** Makes a change and judges every bike it concerns anew, all in one transaction. */
export async function changeRules(work: Work, change: RuleChange, reason: string): Promise<Moved> {
  return judgeAnew(work, await writeChange(work, change, reason), async (bikeId, shared) => {
    await judgeBike(work, bikeId, { readingId: null, occurredAt: work.now }, shared)
    const state = await work.of(BIKE_STATE).findByPk(bikeId, { transaction: work.transaction })
    return state?.word
  })
}

/**
 * What a change would do: it is made, looked at and taken back, so that what is promised is what would happen.
 */
export async function previewRules(work: Work, change: RuleChange): Promise<Moved> {
  return work.peek(async () =>
    judgeAnew(work, await writeChange(work, change, 'preview'), async (bikeId, shared) => {
      const { input } = await bikeFacts(work, bikeId, work.now, shared)
      // What other rules would say moves nothing, and takes most of the time.
      return chainVerdict({
        ...input,
        assumptions: input.assumptions ?? {},
        forecast: shownOf(forecastOf(input)),
        otherRules: [],
      }).word
    }),
  )
}

interface Judged {
  id: string
  label: string
  customer: string
  word: VerdictWord
}

/** @param judge gives a bike its new word */
async function judgeAnew(
  work: Work,
  { where, values }: Concerned,
  judge: (bikeId: string, shared: ShopFacts) => Promise<VerdictWord | undefined>,
): Promise<Moved> {
  // In order of id, as every writer takes them, so that none waits for another in a circle.
  const bikes = await work.select<Judged>(
    `SELECT b.id, b.label, c.name AS customer, s.word
     FROM bikes b JOIN customers c ON c.id = b.customer_id JOIN bike_state s ON s.bike_id = b.id
     WHERE ${where} ORDER BY b.id FOR UPDATE OF s`,
    values,
  )
  const shared = await shopFacts(work)
  const moved: Moved['moved'] = []
  for (const { id, label, customer, word } of bikes) {
    const to = (await judge(id, shared)) ?? word
    if (to !== word) moved.push({ bikeId: id, bike: label, customer, from: word, to })
  }
  return { judged: bikes.length, moved }
}

/** The house rules as their place shows them. */
export async function houseRules(work: Work): Promise<HouseRules> {
  const rules = await rulesInForce(work)
  const versions = await ruleVersions(work)
  const counts = await work.select<{ ruleId: string; bikes: number }>(
    `SELECT w.house_rule_id AS "ruleId", count(*)::int AS bikes
     FROM bike_state s JOIN house_rule_versions w ON w.id = s.house_rule_version_id GROUP BY 1`,
  )
  const exceptions = await work.select<HouseRules['exceptions'][number]>(
    `SELECT c.id AS "customerId", c.name AS customer, NULL::uuid AS "bikeId", NULL AS bike, c.house_rule_id AS "ruleId",
       i.name AS "markedInstrument" FROM customers c LEFT JOIN instruments i ON i.id = c.marked_instrument_id
     WHERE c.house_rule_id IS NOT NULL
     UNION ALL
     SELECT c.id, c.name, b.id, b.label, b.house_rule_id, i.name
     FROM bikes b JOIN customers c ON c.id = b.customer_id LEFT JOIN instruments i ON i.id = b.marked_instrument_id
     WHERE b.house_rule_id IS NOT NULL ORDER BY 2, 4 NULLS FIRST`,
  )
  const rhythms = await work.select<HouseRules['rhythms'][number]>(
    `SELECT id AS "customerId", name AS customer, rhythm_days AS days, each_visit AS "eachVisit"
     FROM customers WHERE rhythm_days IS NOT NULL OR each_visit ORDER BY name`,
  )
  const { version, overrides } = await assumptionsInForce(work)
  return {
    rules: rules.map(({ versionId: _, changeMark: _mark, sprocketMarks, ...rule }) => ({
      ...rule,
      ...(sprocketMarks ? { sprocketMarks: { ...sprocketMarks } } : {}),
      bikes: counts.find(({ ruleId }) => ruleId === rule.id)?.bikes ?? 0,
      versions: versions
        .filter(({ houseRuleId }) => houseRuleId === rule.id)
        .map(({ houseRuleId: __, validFrom, ...one }) => ({ ...one, validFrom: validFrom.toISOString() })),
    })),
    assumptions: {
      version,
      overrides: { ...overrides },
      versions: (await assumptionVersions(work)).map(({ validFrom, overrides: set, ...one }) => ({
        ...one,
        overrides: { ...set },
        validFrom: validFrom.toISOString(),
      })),
    },
    rhythms,
    exceptions,
  }
}
