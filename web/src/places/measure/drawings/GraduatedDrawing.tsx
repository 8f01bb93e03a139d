import { useTranslation } from 'react-i18next'
import { number, percent } from '../../../messages/format.ts'
import { ink } from '../../../theme/theme.ts'
import { HEIGHT, PAD, WIDTH } from './frame.ts'

const FROM = PAD + 96
const TO = WIDTH - PAD - 30

/** A graduated gauge: a tapered blade sinks between two rollers until it seats; the mark there is the reading. */
export function GraduatedDrawing({ value, limit, colour }: { value: number | null; limit: number; colour: string }) {
  const { t } = useTranslation()
  const x = (mark: number): number => FROM + mark * (TO - FROM)
  const top = 92
  const foot = (at: number): number => 152 - ((at - FROM) / (TO - FROM)) * 34
  const seat = value === null ? null : x(value)
  const roller = 30
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={value === null ? t('measure.gaugeEmpty') : t('measure.seatsAt', { value: percent(value) })}
      style={{ display: 'block' }}
    >
      <path
        d={`M${PAD} ${top - 12}H${TO + 22}L${TO + 22} ${foot(TO) - 1}L${FROM - 18} ${foot(FROM)}H${PAD}Z`}
        fill={ink('blade')}
        stroke={ink('edge')}
        strokeWidth={1.8}
        strokeLinejoin="round"
      />
      <circle
        cx={PAD + 30}
        cy={(top + foot(FROM)) / 2 - 6}
        r={13}
        fill={ink('paper')}
        stroke={ink('edge')}
        strokeWidth={1.6}
      />
      {Array.from({ length: 21 }, (_, i) => {
        const mark = i * 0.05
        const major = i % 5 === 0
        return (
          <g key={i}>
            <line
              x1={x(mark)}
              x2={x(mark)}
              y1={foot(x(mark))}
              y2={foot(x(mark)) - (major ? 24 : 13)}
              stroke={ink('edge')}
              strokeWidth={major ? 1.8 : 1}
            />
            {major && (
              <text x={x(mark)} y={top + 10} fontSize={16} fontWeight={600} textAnchor="middle" fill={ink('ink')}>
                {number(mark, 2)}
              </text>
            )}
          </g>
        )
      })}
      <path d={`M${x(limit)} ${top - 12}l-8 -13h16Z`} fill={ink('madder')} />
      <text x={x(limit)} y={top - 32} fontSize={14} fontWeight={600} textAnchor="middle" fill={ink('madder')}>
        {t('measure.drawLimit')}
      </text>
      {seat !== null && (
        <g>
          {[-104, 0, 104].map((beside) => (
            <g key={beside} opacity={beside === 0 ? 1 : 0.55}>
              <circle
                cx={seat + beside}
                cy={foot(seat) + roller + (beside < 0 ? 8 : 0)}
                r={roller}
                fill={ink('sheet')}
                stroke={ink('edge')}
                strokeWidth={1.6}
              />
              <circle cx={seat + beside} cy={foot(seat) + roller + (beside < 0 ? 8 : 0)} r={12} fill={ink('edge')} />
            </g>
          ))}
          <line x1={seat} x2={seat} y1={foot(seat) - 34} y2={foot(seat)} stroke={colour} strokeWidth={4} />
          <circle cx={seat} cy={foot(seat)} r={5.5} fill={colour} />
        </g>
      )}
    </svg>
  )
}
