import { asMarkedBy, SHIPPED_RULES, type HouseRule } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'

export interface RuleInForce extends HouseRule {
  readonly name: string | null
  /** Id of the version, which verdicts are stored with. */
  readonly versionId: string
  readonly isDefault: boolean
  /** Whose change mark counts, where it is the shop's own rule and goes as marked; and that mark, %. */
  readonly markedInstrumentId: string | null
  readonly changeMark: number | null
  readonly retired: boolean
}

/** The mark at which an instrument's newest record says to change, %. */
export const CHANGE_MARK = (instrument: string): string =>
  `(SELECT m.change_mark FROM instrument_versions m WHERE m.instrument_id = ${instrument} ORDER BY m.version DESC LIMIT 1)`

/** Every house rule of the shop in its newest version, the shop's default first, retired ones last. */
export function rulesInForce(work: Work): Promise<RuleInForce[]> {
  return work.select<RuleInForce>(
    `SELECT DISTINCT ON (r.is_default, r.retired_at IS NOT NULL, r.id)
       r.id, r.school, r.name, r.is_default AS "isDefault", r.retired_at IS NOT NULL AS retired, w.id AS "versionId",
       w.version, w.limits, w.watch_share AS "watchShare", w.sprocket_marks AS "sprocketMarks",
       r.marked_instrument_id AS "markedInstrumentId", ${CHANGE_MARK('r.marked_instrument_id')} AS "changeMark"
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
  /** The change mark of the instrument named for the bike or its customer, %; null with none. */
  readonly changeMark: number | null
}

/**
 * The rule a bike is judged by: its own, else its customer's, else the shop's. "As marked" takes its limit from the
 * instrument named for the bike, its customer or the shop; without one it is passed over.
 */
export function ruleFor(rules: readonly RuleInForce[], choice: RuleChoice): RuleInForce {
  const standing = rules.filter((rule) => !rule.retired)
  const shops = standing.find((rule) => rule.isDefault)
  for (const id of [choice.ownRule, choice.customerRule, shops?.id ?? null]) {
    const rule = id === null ? undefined : standing.find((candidate) => candidate.id === id)
    if (!rule) continue
    if (rule.school !== 'as-marked') return rule
    const changeMark = choice.changeMark ?? rule.changeMark
    if (changeMark !== null) return marked(rule, changeMark)
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
    const changeMark = choice.changeMark ?? rule.changeMark
    return changeMark === null ? [] : [asHouseRule(marked(rule, changeMark))]
  })
}

const marked = (rule: RuleInForce, changeMark: number): RuleInForce => ({
  ...rule,
  ...asMarkedBy(asHouseRule(rule), changeMark),
})

/** A rule as the core takes it, without what the database adds. */
export function asHouseRule({ id, version, school, limits, watchShare, sprocketMarks }: RuleInForce): HouseRule {
  return { id, version, school, limits, watchShare, ...(sprocketMarks ? { sprocketMarks } : {}) }
}
