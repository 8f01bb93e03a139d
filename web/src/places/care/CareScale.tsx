import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { number } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'

const WIDTH = 390
const RULE = 40
/** Ticks a scale has room for. */
const TICKS = 24
const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000]

/** What is used up of an interval, as a mark on an engraved scale; the interval's end is a notch in its edge. */
export function CareScale({ label, used, all, unit }: { label: string; used: number; all: number; unit: string }) {
  const { t } = useTranslation()
  const end = Math.max(all * 1.25, used * 1.05)
  const x = (value: number): number => (value / end) * WIDTH
  const step = STEPS.find((one) => end / one <= TICKS) ?? end / TICKS
  const ticks = Array.from({ length: Math.floor(end / step) + 1 }, (_, i) => i * step)
  const over = used > all
  return (
    <Box component="figure" sx={{ m: 0 }}>
      <Typography component="figcaption" variant="body2" color="textSecondary">
        {label}:{' '}
        <Box component="span" sx={{ color: over ? ink('madder') : 'text.primary', fontWeight: 700 }}>
          {t('caring.scaleOf', { used: number(used, 0), all: `${number(all, 0)} ${unit}` })}
        </Box>
      </Typography>
      <svg
        viewBox={`-4 0 ${WIDTH + 8} ${RULE + 16}`}
        width="100%"
        aria-hidden
        style={{ display: 'block', maxWidth: 520 }}
      >
        <path
          d={`M0 4 H${x(all) - 7} L${x(all)} 16 L${x(all) + 7} 4 H${WIDTH} V${RULE} H0 Z`}
          fill="var(--mui-palette-background-paper)"
          stroke="currentColor"
        />
        <rect
          x={0}
          y={RULE - 9}
          width={Math.min(WIDTH, x(used))}
          height={9}
          fill={ink(over ? 'madder' : 'steel')}
          opacity={0.35}
        />
        {ticks.map((value, i) => (
          <g key={value}>
            <line x1={x(value)} x2={x(value)} y1={RULE} y2={RULE - (i % 5 === 0 ? 16 : 9)} stroke="currentColor" />
            {i % 5 === 0 && (
              <text
                x={x(value)}
                y={RULE + 14}
                textAnchor={x(value) > WIDTH - 10 ? 'end' : 'middle'}
                fontSize={12}
                fill="currentColor"
              >
                {number(value, 0)}
              </text>
            )}
          </g>
        ))}
        <path
          d={`M${x(used)} ${RULE} V8 M${x(used) - 6} 8 H${x(used) + 6}`}
          stroke={ink(over ? 'madder' : 'steel')}
          strokeWidth={3}
          fill="none"
        />
      </svg>
    </Box>
  )
}
