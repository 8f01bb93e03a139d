import { useTranslation } from 'react-i18next'
import type { Insight } from '@pelrin/contract'
import { number } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'

const WIDTH = 640
const LEFT = 150
const RIGHT = 16
const ROW = 34
const TOP = 8
const AXIS = 34

/** Lives by care on one scale: the shipped one as an open mark with where 9 in 10 chains lie, the learned one filled. */
export function LifePicture({ insight }: { insight: Insight }) {
  const { t } = useTranslation()
  const rows = insight.chains.map(({ care, shipped }) => ({
    care,
    shipped,
    learned: insight.learned?.groups.find((group) => group.care === care && group.surface === null),
  }))
  const spread = 1.645
  const most = Math.max(
    ...rows.map(({ shipped }) => shipped.life * Math.exp(spread * shipped.lifeSd)),
    ...rows.map(({ learned }) => learned?.lifeRange[1] ?? 0),
  )
  const end = Math.ceil(most / 4) * 4
  const x = (life: number): number => LEFT + (life / end) * (WIDTH - LEFT - RIGHT)
  const height = TOP + rows.length * ROW + AXIS
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label={t('insight.picture')}
      style={{ width: '100%', maxWidth: 760 }}
    >
      {Array.from({ length: end / 2 + 1 }, (_, i) => 2 * i).map((life) => (
        <g key={life}>
          <line x1={x(life)} x2={x(life)} y1={TOP} y2={TOP + rows.length * ROW} stroke={ink('line')} />
          <text x={x(life)} y={height - 16} textAnchor="middle" fontSize={13} fill={ink('faint')}>
            {life}
          </text>
        </g>
      ))}
      {rows.map(({ care, shipped, learned }, i) => {
        const y = TOP + i * ROW + ROW / 2
        return (
          <g key={care}>
            <text x={LEFT - 12} y={y + 5} textAnchor="end" fontSize={14.5} fill={ink('ink')}>
              {t(`care.${care}`)}
            </text>
            <line
              x1={x(shipped.life * Math.exp(-spread * shipped.lifeSd))}
              x2={x(shipped.life * Math.exp(spread * shipped.lifeSd))}
              y1={y - 5}
              y2={y - 5}
              stroke={ink('faint')}
              strokeWidth={1.5}
            />
            <circle cx={x(shipped.life)} cy={y - 5} r={5} fill={ink('paper')} stroke={ink('faint')} strokeWidth={2} />
            {learned && (
              <>
                <line
                  x1={x(learned.lifeRange[0])}
                  x2={x(learned.lifeRange[1])}
                  y1={y + 7}
                  y2={y + 7}
                  stroke={ink('steel')}
                  strokeWidth={3}
                />
                <circle cx={x(learned.life)} cy={y + 7} r={5.5} fill={ink('steel')}>
                  <title>{number(learned.life, 1)}</title>
                </circle>
              </>
            )}
          </g>
        )
      })}
    </svg>
  )
}
