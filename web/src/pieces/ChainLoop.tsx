import { Box, ButtonBase, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { ink } from '../theme/theme.ts'

export interface LoopSpot {
  readonly state: 'empty' | 'ready' | 'problem'
  /** What was read there, as it is shown. */
  readonly label: string | null
}

/** Where the places lie, in per cent of the drawing: from the connecting link on, the way the chain travels. */
const PLACES: readonly (readonly [x: number, y: number])[] = [
  [37, 17],
  [59, 15],
  [80, 17],
  [91, 50],
  [80, 83],
  [59, 85],
  [37, 83],
  [10, 50],
]

/**
 * The chain as a loop round its sprocket and ring, with a place to read at every eighth of it. It fills in as the
 * reading goes on; the worst place is ringed.
 */
export function ChainLoop({
  spots,
  current,
  worst,
  colour,
  named,
  wanted,
  spread,
  onPick,
}: {
  spots: readonly LoopSpot[]
  current: number
  worst: number | null
  /** Of the worst place: the verdict's. */
  colour: string
  /** Places are counted from the connecting link. */
  named: boolean
  wanted: string | null
  spread: string | null
  onPick: (place: number) => void
}) {
  const { t } = useTranslation()
  return (
    <Box
      role="group"
      aria-label={t('measure.loop')}
      onKeyDown={(event) => {
        const place = Number(event.key)
        if (!Number.isInteger(place) || place < 1 || place > spots.length || event.altKey || event.ctrlKey) return
        event.preventDefault()
        event.stopPropagation()
        onPick(place - 1)
      }}
      sx={{ position: 'relative', height: 172, width: '100%', userSelect: 'none' }}
    >
      <svg viewBox="0 0 390 172" width="100%" height="100%" preserveAspectRatio="none" aria-hidden>
        <circle cx={58} cy={86} r={30} fill="none" stroke={ink('line')} strokeWidth={1.5} strokeDasharray="4 4" />
        <circle cx={318} cy={86} r={48} fill="none" stroke={ink('line')} strokeWidth={1.5} strokeDasharray="5 4" />
        <path
          d="M55 52L316 30A56 56 0 0 1 316 142L55 120A34 34 0 0 1 55 52Z"
          fill="none"
          stroke={ink('edge')}
          strokeWidth={9}
          strokeLinejoin="round"
        />
        <path
          d="M55 52L316 30A56 56 0 0 1 316 142L55 120A34 34 0 0 1 55 52Z"
          fill="none"
          stroke={ink('paper')}
          strokeWidth={6}
          strokeDasharray="7 4"
        />
        {named && (
          <rect x={86} y={42} width={15} height={13} rx={6.5} fill={ink('brass')} transform="rotate(-5 93 48)" />
        )}
      </svg>
      {spots.map((spot, i) => {
        const [x, y] = PLACES[i] ?? [50, 50]
        const isWorst = worst === i
        const isCurrent = current === i
        return (
          <ButtonBase
            key={i}
            tabIndex={isCurrent ? 0 : -1}
            aria-current={isCurrent ? 'step' : undefined}
            aria-label={t('measure.place', { n: i + 1, value: spot.label ?? t('measure.placeEmpty') })}
            onClick={() => onPick(i)}
            sx={{
              position: 'absolute',
              left: `${x}%`,
              top: `${y}%`,
              width: 'clamp(46px, 16.5%, 64px)',
              height: 48,
              transform: 'translate(-50%, -50%)',
              borderRadius: '24px',
              flexDirection: 'column',
              lineHeight: 1.05,
              border: isWorst ? 3 : isCurrent ? 2.5 : 1.5,
              borderStyle: spot.state === 'empty' && !isCurrent ? 'dashed' : 'solid',
              borderColor: isWorst ? colour : spot.state === 'problem' ? ink('madder') : ink('edge'),
              bgcolor: isCurrent ? ink('steel') : ink('sheet'),
              color: isCurrent ? 'primary.contrastText' : ink('ink'),
            }}
          >
            <Typography
              component="span"
              sx={{ fontSize: spot.label === null ? 'size.text' : 'size.cap', fontWeight: 600, lineHeight: 1 }}
            >
              {i + 1}
            </Typography>
            {spot.label !== null && (
              <Typography component="span" sx={{ fontSize: 'size.small', fontWeight: 700, lineHeight: 1.1 }}>
                {spot.label}
              </Typography>
            )}
          </ButtonBase>
        )
      })}
      <Box
        sx={{
          position: 'absolute',
          left: '23%',
          right: '22%',
          top: '50%',
          transform: 'translateY(-50%)',
          textAlign: 'center',
        }}
      >
        {spread !== null && (
          <Typography variant="body2" sx={{ fontWeight: 600 }}>
            {spread}
          </Typography>
        )}
        {wanted !== null && (
          <Typography variant="body2" color="textSecondary">
            {wanted}
          </Typography>
        )}
      </Box>
    </Box>
  )
}
