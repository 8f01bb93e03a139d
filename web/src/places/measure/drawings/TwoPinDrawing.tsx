import { marksTyped } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { percent } from '../../../messages/format.ts'
import { intervalText } from '../../../pieces/intervalText.ts'
import { ink } from '../../../theme/theme.ts'
import { HEIGHT, PAD, WIDTH } from './frame.ts'

/** A two-pin gauge: its fixed pin in the chain, the other a step farther out with every step, until it no longer goes in. */
export function TwoPinDrawing({
  typed,
  marks,
  limit,
  colour,
}: {
  typed: string
  marks: readonly number[]
  limit: number
  colour: string
}) {
  const { t } = useTranslation()
  const read = marksTyped('two-pin', typed, marks)
  const from = PAD + 150
  const wide = (WIDTH - PAD - from) / Math.max(1, marks.length)
  const top = 60
  const foot = 150
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={read.ok ? intervalText(read, t) : t('measure.gaugeEmpty')}
      style={{ display: 'block' }}
    >
      <rect x={PAD} y={top - 26} width={WIDTH - 2 * PAD} height={30} fill={ink('blade')} stroke={ink('edge')} />
      <path
        d={`M${PAD + 50} ${top + 4}V${foot}h26V${top + 4}Z`}
        fill={ink('sheet')}
        stroke={ink('edge')}
        strokeWidth={2}
      />
      {marks.map((mark, i) => {
        const went = read.ok && read.over !== undefined && mark <= read.over
        const stayed = read.ok && read.under !== undefined && mark >= read.under
        const x = from + i * wide
        // Each step stands a little lower than the one before: a stair to be walked up until it stops.
        const y = top + 16 + (i / marks.length) * (foot - top - 40)
        return (
          <g key={mark}>
            <rect
              x={x}
              y={y}
              width={wide - 3}
              height={foot - y}
              fill={went ? colour : ink('sheet')}
              fillOpacity={went ? 0.85 : 1}
              stroke={stayed && read.under === mark ? ink('edge') : ink('line')}
              strokeWidth={stayed && read.under === mark ? 2.5 : 1}
            />
            <text
              x={x + (wide - 3) / 2}
              y={foot + 22}
              fontSize={marks.length > 8 ? 13 : 16}
              fontWeight={Math.abs(mark - limit) < 1e-9 ? 700 : 500}
              textAnchor="middle"
              fill={ink('ink')}
            >
              {percent(mark)}
            </text>
          </g>
        )
      })}
    </svg>
  )
}
