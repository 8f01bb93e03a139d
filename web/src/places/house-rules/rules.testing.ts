import { SHIPPED_RULES } from '@pelrin/core'
import type { HouseRules, Moved } from '@pelrin/contract'
import type { Rule } from './RuleEditor.tsx'

/** A house rule as it is shipped, in force since spring. */
export const ruleOf = (school: Rule['school'], more: Partial<Rule> = {}): Rule => {
  const shipped = SHIPPED_RULES.find((one) => one.school === school) ?? SHIPPED_RULES[0]
  const validFrom = '2026-03-01T09:00:00.000Z'
  return {
    id: `rule ${school}`,
    school,
    name: null,
    isDefault: school === 'by-speeds',
    markedInstrumentId: null,
    retired: false,
    bikes: 42,
    version: 1,
    limits: shipped.limits,
    watchShare: shipped.watchShare,
    versions: [
      { version: 1, limits: shipped.limits, watchShare: shipped.watchShare, validFrom, person: null, reason: null },
    ],
    ...more,
  }
}

export const moved = (...words: [from: Moved['moved'][number]['from'], to: Moved['moved'][number]['to']][]): Moved => ({
  judged: 42,
  moved: words.map(([from, to], i) => ({ bikeId: `bike ${i}`, bike: 'Causeway', customer: 'Ivo Marsh', from, to })),
})

export const assumptionsOf = (overrides: Record<string, number> = {}): HouseRules['assumptions'] => ({
  version: Object.keys(overrides).length,
  overrides,
  versions: Object.entries(overrides).map(([key, value], i) => ({
    version: i + 1,
    overrides: { [key]: value },
    validFrom: '2026-04-01T09:00:00.000Z',
    person: 'Tove Sandell',
    reason: 'salt on the causeway',
  })),
})
