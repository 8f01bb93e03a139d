import type { TFunction } from 'i18next'
import type { JudgedChain, JudgedJoint } from '@pelrin/contract'
import { saidOf } from '../../messages/said.ts'
import { chainName, jointKey, jointName, priceText } from './partLook.ts'
import type { ListedPart } from './PartsList.tsx'

/** A chain as its line says it. */
export const listedChain = ({ part, outcome, rules, ...one }: JudgedChain, t: TFunction): ListedPart => ({
  key: part.id,
  name: chainName({ part, outcome, rules, ...one }),
  outcome,
  note: against(rules, t) || (part.level ?? ''),
  stock: part.stock,
  price: part.price,
})

/** A joint as its line says it: what it costs a year where it fits, or what speaks against it. */
export function listedJoint(one: JudgedJoint, t: TFunction): ListedPart {
  const { part, outcome, habit, rules } = one
  const onNow = part.model !== 're-press' && part.closings !== 0
  return {
    key: jointKey(one),
    name: onNow ? t('parts.onNow', { joint: jointName(one, t) }) : jointName(one, t),
    outcome,
    note:
      outcome === 'fits' && habit && !onNow
        ? habit.linksAYear === null
          ? t('parts.habitFirm')
          : t('parts.habit', { count: habit.linksAYear, cost: priceText(habit.cost, t) })
        : onNow && part.closings !== null
          ? t('parts.closedTimes', { count: part.closings })
          : against(rules, t),
    stock: part.model === 're-press' || onNow ? null : part.model.stock,
    price: part.model === 're-press' || onNow ? 0 : part.model.price,
  }
}

/** The rules that speak against a part, by name; what excludes it before what is only to be minded. */
function against(rules: JudgedChain['rules'], t: TFunction): string {
  const worst = (['does-not-fit', 'not-known', 'caution'] as const).find((outcome) =>
    rules.some((rule) => rule.outcome === outcome),
  )
  return rules
    .filter(({ outcome }) => outcome === worst)
    .map(({ rule }) => saidOf(t, 'parts.rule', rule))
    .join(', ')
}
