import type { TFunction } from 'i18next'
import { aheadBy } from '@pelrin/core'
import type { JudgedChain, JudgedJoint } from '@pelrin/contract'
import { chainName } from './partLook.ts'
import { saidOf } from '../../messages/said.ts'

/** What the rules together say of a part, in one sentence. */
export function ruledText(
  { outcome, rules }: Pick<JudgedChain | JudgedJoint, 'outcome' | 'rules'>,
  t: TFunction,
): string {
  const those = rules.filter((rule) => rule.outcome === outcome)
  if (outcome === 'fits') return t('parts.answer.fits', { count: rules.length })
  if (outcome === 'caution') return t('parts.answer.caution', { count: those.length })
  if (outcome === 'not-known') return t('parts.answer.not-known')
  const [first] = those
  return t('parts.answer.does-not-fit', { reason: first ? saidOf(t, 'parts.reason', first.reason, first.values) : '' })
}

/** Why a chain stands where it does: before the next, or after the first. */
export function placeText(
  drive: Parameters<typeof aheadBy>[0],
  chosen: JudgedChain,
  chains: readonly JudgedChain[],
  t: TFunction,
): string {
  const [first, second] = chains
  if (!first || !second || chosen.outcome === 'does-not-fit') return ''
  const isFirst = chosen.part.id === first.part.id
  const other = isFirst ? second : first
  const by = isFirst ? aheadBy(drive, chosen, other) : aheadBy(drive, other, chosen)
  return by === null ? '' : t(`parts.answer.${isFirst ? 'first' : 'after'}.${by}`, { other: chainName(other) })
}
