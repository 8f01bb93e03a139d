import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { Study } from '@pelrin/contract'
import { number, percent } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'

const WIDTH = 760
const HEIGHT = 300
const LEFT = 58
const BOTTOM = 34
/** How each person's values are told apart, also in grey: by shape, then by colour. */
const SHAPES = ['circle', 'square', 'triangle', 'diamond', 'cross', 'ring', 'bar', 'wedge'] as const
const COLOURS = ['steel', 'madder', 'brass', 'edge', 'steel', 'madder', 'brass', 'edge'] as const

/**
 * Every value as it was read: spots side by side, people by shape with their means joined, the truth as a line. What
 * scatters within a person is repeatability, what lies between the lines is between people.
 */
export function StudyPicture({ study }: { study: Study }) {
  const { t } = useTranslation()
  const values = study.values.flatMap((one) => (one.value === null ? [] : [{ ...one, value: one.value }]))
  if (values.length === 0) return null
  const all = [...values.map(({ value }) => value), ...study.spots.flatMap(({ reference }) => reference ?? [])]
  const low = Math.min(...all) - 0.03
  const high = Math.max(...all) + 0.03
  const y = (value: number): number => 10 + ((high - value) / (high - low)) * (HEIGHT - BOTTOM - 10)
  const column = (WIDTH - LEFT - 10) / study.spots.length
  const step = high - low > 0.6 ? 0.2 : high - low > 0.25 ? 0.1 : 0.05
  const ticks = Array.from({ length: Math.floor(high / step) - Math.ceil(low / step) + 1 }, (_, i) =>
    Number(((Math.ceil(low / step) + i) * step).toFixed(3)),
  )
  const at = (person: number, spot: number, repeat: number): number =>
    LEFT +
    column * (spot + 0.5) +
    ((person - (study.people.length - 1) / 2) / Math.max(1, study.people.length)) * column * 0.7 +
    (repeat - (study.repeats - 1) / 2) * 5
  const meanOf = (personId: string, spot: number): number | null => {
    const own = values.filter((one) => one.personId === personId && one.spot === spot)
    return own.length === 0 ? null : own.reduce((sum, one) => sum + one.value, 0) / own.length
  }
  return (
    <Box component="section" aria-label={t('study.picture')}>
      <Stack direction="row" sx={{ gap: 2.5, mb: 0.5, flexWrap: 'wrap' }}>
        {study.people.map((person, i) => (
          <Stack key={person.id} direction="row" sx={{ gap: 0.75, alignItems: 'center' }}>
            <svg width={18} height={18} aria-hidden>
              <Shape shape={SHAPES[i] ?? 'circle'} x={9} y={9} colour={ink(COLOURS[i] ?? 'edge')} />
            </svg>
            <Typography variant="body2">{person.name}</Typography>
          </Stack>
        ))}
      </Stack>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={t('study.pictureOf', {
          values: values.length,
          spots: study.spots.length,
          people: study.people.length,
        })}
      >
        {ticks.map((tick) => (
          <g key={tick}>
            <line x1={LEFT} x2={WIDTH - 10} y1={y(tick)} y2={y(tick)} stroke={ink('line')} />
            <text x={LEFT - 8} y={y(tick) + 5} fontSize={14} textAnchor="end" fill={ink('faint')}>
              {percent(tick)}
            </text>
          </g>
        ))}
        <text
          x={14}
          y={HEIGHT / 2}
          fontSize={13.5}
          fill={ink('faint')}
          textAnchor="middle"
          transform={`rotate(-90 14 ${HEIGHT / 2})`}
        >
          {t('chart.elongation')}
        </text>
        {study.spots.map(({ label, reference }, spot) => (
          <g key={label}>
            {spot > 0 && (
              <line
                x1={LEFT + column * spot}
                x2={LEFT + column * spot}
                y1={10}
                y2={HEIGHT - BOTTOM}
                stroke={ink('line')}
                strokeDasharray="2 4"
              />
            )}
            {reference !== undefined && (
              <line
                x1={LEFT + column * (spot + 0.08)}
                x2={LEFT + column * (spot + 0.92)}
                y1={y(reference)}
                y2={y(reference)}
                stroke={ink('edge')}
                strokeWidth={2}
                strokeDasharray="7 4"
              />
            )}
            <text
              x={LEFT + column * (spot + 0.5)}
              y={HEIGHT - 10}
              fontSize={17}
              fontWeight={700}
              textAnchor="middle"
              fill={ink('ink')}
            >
              {label}
            </text>
          </g>
        ))}
        {study.people.map((person, i) => {
          const colour = ink(COLOURS[i] ?? 'edge')
          const line = study.spots.flatMap((_, spot) => {
            const mean = meanOf(person.id, spot)
            return mean === null ? [] : [`${at(i, spot, (study.repeats - 1) / 2)} ${y(mean)}`]
          })
          return (
            <g key={person.id}>
              {line.length > 1 && (
                <path d={`M${line.join('L')}`} fill="none" stroke={colour} strokeWidth={1.4} opacity={0.55} />
              )}
              {values
                .filter((one) => one.personId === person.id)
                .map((one) => (
                  <Shape
                    key={one.id}
                    shape={SHAPES[i] ?? 'circle'}
                    x={at(i, one.spot, one.repeat)}
                    y={y(one.value)}
                    colour={colour}
                  />
                ))}
            </g>
          )
        })}
      </svg>
      <Typography variant="body2" color="textSecondary">
        {t(
          study.spots.some(({ reference }) => reference !== undefined) ? 'study.pictureNoteTrue' : 'study.pictureNote',
        )}{' '}
        {t('study.range', {
          low: number(Math.min(...values.map(({ value }) => value)), 2),
          high: number(Math.max(...values.map(({ value }) => value)), 2),
        })}
      </Typography>
    </Box>
  )
}

function Shape({ shape, x, y, colour }: { shape: (typeof SHAPES)[number]; x: number; y: number; colour: string }) {
  switch (shape) {
    case 'circle':
      return <circle cx={x} cy={y} r={5} fill={colour} />
    case 'ring':
      return <circle cx={x} cy={y} r={4.5} fill="none" stroke={colour} strokeWidth={2} />
    case 'square':
      return <rect x={x - 4.5} y={y - 4.5} width={9} height={9} fill={colour} />
    case 'bar':
      return <rect x={x - 2} y={y - 6} width={4} height={12} fill={colour} />
    case 'triangle':
      return <path d={`M${x} ${y - 6}l5.5 10h-11Z`} fill={colour} />
    case 'wedge':
      return <path d={`M${x} ${y + 6}l5.5 -10h-11Z`} fill={colour} />
    case 'diamond':
      return <path d={`M${x} ${y - 6.5}l6 6.5 -6 6.5 -6 -6.5Z`} fill={colour} />
    case 'cross':
      return <path d={`M${x - 5} ${y - 5}l10 10m0 -10l-10 10`} stroke={colour} strokeWidth={2.4} />
  }
}
