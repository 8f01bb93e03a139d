import { useTranslation } from 'react-i18next'
import { number, percent } from '../../../messages/format.ts'
import { ink } from '../../../theme/theme.ts'
import { HEIGHT, WIDTH } from './frame.ts'

/** The arm turns by this much over its whole scale, degrees. */
const SWEEP = 31
const PIVOT = { x: 150, y: 132 }
const REACH = 476

/** A swing-arm gauge: one foot in the chain, the arm fallen to where it stops on its scale. */
export function SwingArmDrawing({
  value,
  past,
  top,
  limit,
  colour,
}: {
  /** On the scale, %; null with nothing read. */
  value: number | null
  /** The arm came to the end of its travel. */
  past: boolean
  /** Its highest mark, %. */
  top: number
  limit: number
  colour: string
}) {
  const { t } = useTranslation()
  // A worn chain lets the arm fall further: down is more.
  const angle = (percentOf: number): number => ((-SWEEP / 2 + (SWEEP * percentOf) / top) * Math.PI) / 180
  const point = (percentOf: number, radius: number): [number, number] => [
    PIVOT.x + radius * Math.cos(angle(percentOf)),
    PIVOT.y + radius * Math.sin(angle(percentOf)),
  ]
  const shown = past ? top * 1.04 : value
  const steps = Math.round(top / 0.05)
  const [tipX, tipY] = point(shown ?? 0, REACH - 26)
  const arc = (radius: number): string => {
    const [x1, y1] = point(-0.04 * top, radius)
    const [x2, y2] = point(top * 1.07, radius)
    return `M${x1} ${y1}A${radius} ${radius} 0 0 1 ${x2} ${y2}`
  }
  const spoken =
    shown === null
      ? t('measure.gaugeEmpty')
      : past
        ? t('measure.armPast', { top: percent(top) })
        : t('measure.armAt', { value: percent(value ?? 0) })
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={spoken} style={{ display: 'block' }}>
      <path d={arc(REACH)} fill="none" stroke={ink('edge')} strokeWidth={1.6} />
      <path d={arc(REACH + 46)} fill="none" stroke={ink('line')} strokeWidth={1} />
      {Array.from({ length: steps + 1 }, (_, i) => {
        const tick = (i * top) / steps
        const major = i % 5 === 0
        const [x1, y1] = point(tick, REACH)
        const [x2, y2] = point(tick, REACH + (major ? 22 : 12))
        const [tx, ty] = point(tick, REACH + 40)
        return (
          <g key={i}>
            <line x1={x1} y1={y1} x2={x2} y2={y2} stroke={ink('edge')} strokeWidth={major ? 1.8 : 1} />
            {major && (
              <text x={tx} y={ty + 5} fontSize={15} fontWeight={600} textAnchor="middle" fill={ink('ink')}>
                {number(tick, 2)}
              </text>
            )}
          </g>
        )
      })}
      <line
        x1={point(limit, REACH - 8)[0]}
        y1={point(limit, REACH - 8)[1]}
        x2={point(limit, REACH + 26)[0]}
        y2={point(limit, REACH + 26)[1]}
        stroke={ink('madder')}
        strokeWidth={3}
      />
      {/* The foot in the chain. */}
      <g>
        {[0, 1, 2, 3].map((i) => (
          <circle key={i} cx={54 + i * 42} cy={228} r={13} fill={ink('blade')} stroke={ink('edge')} strokeWidth={1.4} />
        ))}
        {[0, 1, 2, 3].map((i) => (
          <circle key={i} cx={54 + i * 42} cy={228} r={5.5} fill={ink('edge')} />
        ))}
        <path
          d={`M${PIVOT.x + 16} ${PIVOT.y - 22}V214H${PIVOT.x - 6}V${PIVOT.y + 30}H84V222H68V${PIVOT.y - 22}Z`}
          fill={ink('paper')}
          stroke={ink('edge')}
          strokeWidth={2}
          strokeLinejoin="round"
        />
      </g>
      <g opacity={shown === null ? 0.35 : 1}>
        <line
          x1={PIVOT.x}
          y1={PIVOT.y}
          x2={tipX}
          y2={tipY}
          stroke={ink('edge')}
          strokeWidth={15}
          strokeLinecap="round"
        />
        <line
          x1={PIVOT.x}
          y1={PIVOT.y}
          x2={tipX}
          y2={tipY}
          stroke={ink('sheet')}
          strokeWidth={11}
          strokeLinecap="round"
        />
        <line
          x1={tipX}
          y1={tipY}
          x2={point(shown ?? 0, REACH - 3)[0]}
          y2={point(shown ?? 0, REACH - 3)[1]}
          stroke={shown === null ? ink('edge') : colour}
          strokeWidth={4}
        />
      </g>
      <circle cx={PIVOT.x} cy={PIVOT.y} r={9} fill={ink('sheet')} stroke={ink('edge')} strokeWidth={2} />
    </svg>
  )
}
