import type { TFunction } from 'i18next'
import type { HouseRules } from '@pelrin/contract'

/** What a rule is called: a shop's own by its name, a school by its word. */
export function ruleName({ rules }: Pick<HouseRules, 'rules'>, ruleId: string, t: TFunction): string {
  const rule = rules.find(({ id }) => id === ruleId)
  return rule ? (rule.name ?? t(`school.${rule.school}`)) : ''
}
