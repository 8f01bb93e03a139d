import type { HouseRule } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'

export interface RuleInForce extends HouseRule {
  /** Id of the version, which verdicts are stored with. */
  readonly versionId: string
  readonly isDefault: boolean
}

/** Every house rule of the shop in its newest version, the shop's default first. */
export function rulesInForce(work: Work): Promise<RuleInForce[]> {
  return work.select<RuleInForce>(
    `SELECT DISTINCT ON (r.is_default, r.id)
       r.id, r.school, r.is_default AS "isDefault", w.id AS "versionId", w.version, w.limits,
       w.watch_share AS "watchShare"
     FROM house_rules r JOIN house_rule_versions w ON w.house_rule_id = r.id
     ORDER BY r.is_default DESC, r.id, w.version DESC`,
  )
}

/** The rule a bike is judged by: its own, else its customer's, else the shop's. */
export function ruleFor(rules: readonly RuleInForce[], chosen: readonly (string | null)[]): RuleInForce {
  for (const id of chosen) {
    const rule = id === null ? undefined : rules.find((candidate) => candidate.id === id)
    if (rule) return rule
  }
  const shops = rules.find((rule) => rule.isDefault)
  if (!shops) throw new ProblemError(500, 'server-fault')
  return shops
}

/** A rule as the core takes it, without what the database adds. */
export function asHouseRule({ id, version, school, limits, watchShare }: RuleInForce): HouseRule {
  return { id, version, school, limits, watchShare }
}
