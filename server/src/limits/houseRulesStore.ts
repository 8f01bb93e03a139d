import { asMarkedBy, SHIPPED_RULES, type HouseRule } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'

export interface RuleInForce extends HouseRule {
  readonly name: string | null
  /** Id of the version, which verdicts are stored with. */
  readonly versionId: string
  readonly isDefault: boolean
  readonly retired: boolean
}

/** Every house rule of the shop in its newest version, the shop's default first, retired ones last. */
export function rulesInForce(work: Work): Promise<RuleInForce[]> {
  return work.select<RuleInForce>(
    `SELECT DISTINCT ON (r.is_default, r.retired_at IS NOT NULL, r.id)
       r.id, r.school, r.name, r.is_default AS "isDefault", r.retired_at IS NOT NULL AS retired, w.id AS "versionId",
       w.version, w.limits, w.watch_share AS "watchShare"
     FROM house_rules r JOIN house_rule_versions w ON w.house_rule_id = r.id
     ORDER BY r.is_default DESC, r.retired_at IS NOT NULL, r.id, w.version DESC`,
  )
}

export interface RuleVersion {
  readonly houseRuleId: string
  readonly version: number
  readonly limits: HouseRule['limits']
  readonly watchShare: number
  readonly validFrom: Date
  readonly person: string | null
  readonly reason: string | null
}

export const ruleVersions = (work: Work): Promise<RuleVersion[]> =>
  work.select<RuleVersion>(
    `SELECT w.house_rule_id AS "houseRuleId", w.version, w.limits, w.watch_share AS "watchShare",
       w.valid_from AS "validFrom", p.name AS person, w.reason
     FROM house_rule_versions w LEFT JOIN people p ON p.id = w.person_id ORDER BY w.house_rule_id, w.version DESC`,
  )

/** What a bike's rule is chosen by. */
export interface RuleChoice {
  readonly ownRule: string | null
  readonly customerRule: string | null
  /** The change mark of the instrument named for the bike, %; null with none. */
  readonly changeMark: number | null
}

/**
 * The rule a bike is judged by: its own, else its customer's, else the shop's. "As marked" takes its limit from the
 * instrument named for the bike; without one it is passed over.
 */
export function ruleFor(rules: readonly RuleInForce[], choice: RuleChoice): RuleInForce {
  const standing = rules.filter((rule) => !rule.retired)
  const shops = standing.find((rule) => rule.isDefault)
  for (const id of [choice.ownRule, choice.customerRule, shops?.id ?? null]) {
    const rule = id === null ? undefined : standing.find((candidate) => candidate.id === id)
    if (!rule) continue
    if (rule.school !== 'as-marked') return rule
    if (choice.changeMark !== null) return marked(rule, choice.changeMark)
  }
  const bySpeeds = rules.find((rule) => rule.school === SHIPPED_RULES[0].school)
  if (!bySpeeds) throw new ProblemError(500, 'server-fault')
  return bySpeeds
}

/** The other rules a verdict says the word of. "As marked" is one only where an instrument is named. */
export function otherRules(rules: readonly RuleInForce[], chosen: RuleInForce, choice: RuleChoice): HouseRule[] {
  return rules.flatMap((rule) => {
    if (rule.id === chosen.id || rule.retired) return []
    if (rule.school !== 'as-marked') return [asHouseRule(rule)]
    return choice.changeMark === null ? [] : [asHouseRule(marked(rule, choice.changeMark))]
  })
}

const marked = (rule: RuleInForce, changeMark: number): RuleInForce => ({
  ...rule,
  ...asMarkedBy(asHouseRule(rule), changeMark),
})

/** A rule as the core takes it, without what the database adds. */
export function asHouseRule({ id, version, school, limits, watchShare }: RuleInForce): HouseRule {
  return { id, version, school, limits, watchShare }
}
