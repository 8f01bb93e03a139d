import { Box, Typography } from '@mui/material'
import { useDroppable } from '@dnd-kit/core'
import { useTranslation } from 'react-i18next'
import { weekdayOf } from '@pelrin/core'
import type { DiaryDay } from '@pelrin/contract'
import { day as dayWord, locale } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'

const HEIGHT = 84
/** A day drawn over its top is drawn no higher than so many times what the fullest day takes. */
const OVER = 1.25

const letterOf = (day: string): string =>
  new Intl.DateTimeFormat(locale(), { weekday: 'narrow', timeZone: 'UTC' }).format(new Date(`${day}T00:00:00Z`))

const monthShort = (day: string): string =>
  new Intl.DateTimeFormat(locale(), { month: 'short', timeZone: 'UTC' }).format(new Date(`${day}T00:00:00Z`))

/** The days ahead side by side: what is booked, what is due beside it, and what each takes. A visit is dropped on a day to book it. */
export function LoadStrip({
  days,
  chosen,
  onChoose,
}: {
  days: readonly DiaryDay[]
  chosen: string
  onChoose: (day: string) => void
}) {
  const { t } = useTranslation()
  const top = Math.max(60, ...days.map(({ capacity }) => capacity)) * OVER
  return (
    <Box>
      <Box
        role="listbox"
        aria-label={t('diary.load')}
        sx={{
          display: 'flex',
          overflowX: 'auto',
          borderBottom: `1.5px solid ${ink('edge')}`,
          pt: 0.5,
          '@media print': { flexWrap: 'wrap' },
        }}
      >
        {days.map((day, i) => (
          <DayColumn
            key={day.day}
            day={day}
            first={i === 0}
            top={top}
            chosen={day.day === chosen}
            onChoose={() => onChoose(day.day)}
          />
        ))}
      </Box>
      <Box
        component="ul"
        sx={{ listStyle: 'none', m: 0, p: 0, pt: 0.5, display: 'flex', flexWrap: 'wrap', columnGap: 2.5 }}
      >
        {(['booked', 'due', 'capacity', 'closed'] as const).map((one) => (
          <Box component="li" key={one} sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
            <svg width={20} height={12} aria-hidden>
              {one === 'capacity' ? (
                <line x1={0} x2={20} y1={6} y2={6} stroke={ink('ink')} strokeWidth={2} />
              ) : (
                <rect
                  width={20}
                  height={12}
                  fill={one === 'closed' ? ink('line') : ink('steel')}
                  opacity={one === 'due' ? 0.35 : 1}
                />
              )}
            </svg>
            <Typography variant="body2" color="textSecondary">
              {t(`diary.legend.${one}`)}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  )
}

function DayColumn({
  day: { day, capacity, booked, due, closed },
  top,
  first,
  chosen,
  onChoose,
}: {
  day: DiaryDay
  /** The first column, which names its month as the first of a month does. */
  first: boolean
  top: number
  chosen: boolean
  onChoose: () => void
}) {
  const { t } = useTranslation()
  const { setNodeRef, isOver } = useDroppable({ id: day, disabled: capacity === 0 })
  const high = (minutes: number): number => (Math.min(top, minutes) / top) * HEIGHT
  const isClosed = capacity === 0
  return (
    <Box
      ref={setNodeRef}
      role="option"
      aria-selected={chosen}
      aria-label={
        isClosed && closed === null
          ? t('diary.dayClosed', { day: dayWord(day) })
          : t('diary.dayLoad', { day: dayWord(day), booked, due, capacity })
      }
      tabIndex={chosen ? 0 : -1}
      onClick={onChoose}
      sx={{
        flex: '1 0 30px',
        cursor: 'pointer',
        borderLeft: weekdayOf(day) === 1 ? `1px solid ${ink('edge')}` : '1px solid transparent',
        bgcolor: chosen || isOver ? ink('blade') : 'transparent',
        textAlign: 'center',
      }}
    >
      <svg
        viewBox={`0 0 24 ${HEIGHT}`}
        width="100%"
        height={HEIGHT}
        preserveAspectRatio="none"
        aria-hidden
        style={{ display: 'block' }}
      >
        {isClosed && <rect x={2} y={0} width={20} height={HEIGHT} fill={ink('line')} opacity={0.7} />}
        <rect x={4} y={HEIGHT - high(booked)} width={16} height={high(booked)} fill={ink('steel')} />
        <rect
          x={4}
          y={HEIGHT - high(booked + due)}
          width={16}
          height={high(booked + due) - high(booked)}
          fill={ink(booked + due > capacity ? 'brass' : 'steel')}
          opacity={booked + due > capacity ? 0.7 : 0.35}
        />
        {!isClosed && (
          <line
            x1={1}
            x2={23}
            y1={HEIGHT - high(capacity)}
            y2={HEIGHT - high(capacity)}
            stroke={ink('ink')}
            strokeWidth={1.5}
          />
        )}
      </svg>
      <Typography
        component="span"
        sx={{ display: 'block', fontSize: 'size.cap', color: 'text.secondary', lineHeight: 1.2 }}
      >
        {first || day.endsWith('-01') ? monthShort(day) : letterOf(day)}
      </Typography>
      <Typography
        component="span"
        sx={{ display: 'block', fontSize: 'size.note', fontWeight: chosen ? 700 : 400, lineHeight: 1.2, pb: 0.5 }}
      >
        {Number(day.slice(8))}
      </Typography>
    </Box>
  )
}
