import { useTranslation } from 'react-i18next'
import type { SpotMark } from '@pelrin/contract'
import { wearRule, type WearRuleSize } from '@pelrin/drawn'
import { percent } from '../messages/format.ts'
import { DrawnShapes } from './DrawnShapes.tsx'

/** The wear rule on screen: elongation on the same steel scale wherever it is shown. */
export function WearRule({
  size,
  marks,
  limit,
  watch,
  colour,
}: {
  size: WearRuleSize
  marks: readonly SpotMark[]
  limit: number
  /** Where to look more often, %; drawn on larger rules only. */
  watch?: number
  /** Colour of the worst mark: the verdict's. */
  colour: string
}) {
  const { t } = useTranslation()
  const { width, height, shapes } = wearRule({
    size,
    marks,
    limit,
    numeral: percent,
    ...(watch === undefined ? {} : { watch }),
  })
  const spoken = marks
    .map((mark) =>
      mark.value === null ? `${mark.over ?? ''}–${mark.under ?? ''} %` : t('rule.spot', { value: percent(mark.value) }),
    )
    .join(', ')
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={size === 'small' ? width : '100%'}
      {...(size === 'small' ? { height } : {})}
      role="img"
      aria-label={
        marks.length === 0
          ? t('rule.empty', { limit: percent(limit) })
          : t('rule.label', { spots: spoken, limit: percent(limit) })
      }
      style={{ display: 'block', overflow: 'visible' }}
    >
      <DrawnShapes shapes={shapes} own={colour} />
    </svg>
  )
}
