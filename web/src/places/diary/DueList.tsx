import { Box, Button, Typography } from '@mui/material'
import { useDraggable } from '@dnd-kit/core'
import { useTranslation } from 'react-i18next'
import type { DueVisit } from '@pelrin/contract'
import { day as dayWord, today } from '../../messages/format.ts'
import { Cap } from '../../pieces/Cap.tsx'
import { Plate } from '../../pieces/Plate.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { ink } from '../../theme/theme.ts'
import { EmptyNext } from '../../pieces/EmptyNext.tsx'

/** A visit by what it is for: its first bike names it. */
export const keyOf = ({ bikes }: DueVisit): string => bikes[0]!.bike.id

/** What a visit's items are, in words, each with its day and whether it is done early. */
export function useVisitWords() {
  const { t } = useTranslation()
  return (item: DueVisit['bikes'][number]['items'][number]): string => {
    const words = { kind: t(`diary.kind.${item.kind}`), date: dayWord(item.on) }
    if (item.on < today()) return t('diary.overdue', words)
    return item.pulledForwardDays > 0
      ? t('diary.early', { ...words, count: item.pulledForwardDays })
      : t('diary.onTime', words)
  }
}

/** Visits that are due and not booked, on the days they would suit. */
export function DueList({
  visits,
  chosen,
  busy,
  onChoose,
  onBook,
}: {
  visits: readonly DueVisit[]
  chosen: DueVisit | undefined
  busy: boolean
  onChoose: (visit: DueVisit) => void
  onBook: (visit: DueVisit) => void
}) {
  const { t } = useTranslation()
  if (visits.length === 0)
    return <EmptyNext next={{ says: t('place.rack'), to: '/rack' }}>{t('diary.dueNone')}</EmptyNext>
  return (
    <Box component="ol" aria-label={t('diary.due', { count: visits.length })} sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {visits.map((visit) => (
        <DueRow
          key={keyOf(visit)}
          visit={visit}
          chosen={visit === chosen}
          busy={busy}
          onChoose={() => onChoose(visit)}
          onBook={() => onBook(visit)}
        />
      ))}
    </Box>
  )
}

function DueRow({
  visit,
  chosen,
  busy,
  onChoose,
  onBook,
}: {
  visit: DueVisit
  chosen: boolean
  busy: boolean
  onChoose: () => void
  onBook: () => void
}) {
  const { t } = useTranslation()
  const words = useVisitWords()
  const { setNodeRef, listeners, transform } = useDraggable({ id: keyOf(visit) })
  return (
    <Box
      component="li"
      ref={setNodeRef}
      {...listeners}
      aria-current={chosen ? 'true' : undefined}
      onClick={onChoose}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: '118px minmax(0, 1fr) auto' },
        gap: 1.5,
        alignItems: 'center',
        borderTop: 1,
        borderColor: 'divider',
        py: 1,
        pr: 1,
        cursor: 'grab',
        bgcolor: chosen ? 'background.paper' : 'transparent',
        boxShadow: chosen ? `inset 5px 0 ${ink('steel')}` : 'none',
        pl: 1.5,
        ...(transform
          ? {
              transform: `translate(${transform.x}px, ${transform.y}px)`,
              position: 'relative',
              zIndex: 2,
              bgcolor: 'background.paper',
            }
          : {}),
      }}
    >
      <span>
        <Typography component="span" sx={{ display: 'block', fontWeight: 700 }}>
          {dayWord(visit.day)}
        </Typography>
        <Typography component="span" variant="body2" color="textSecondary">
          {t('diary.minutes', { count: visit.minutes })}
        </Typography>
      </span>
      <span>
        <Typography component="span" sx={{ display: 'block', fontWeight: 700, fontSize: 'size.lead' }}>
          {visit.customer.name}
        </Typography>
        {visit.bikes.map(({ bike, items }) => (
          <Typography
            key={bike.id}
            component="span"
            variant="body2"
            sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}
          >
            <Plate shape={VERDICT_LOOK[bike.word].plate} colour={VERDICT_LOOK[bike.word].colour} height={12} />
            <span>
              {bike.label}: {items.map(words).join('; ')}
            </span>
          </Typography>
        ))}
        <Typography component="span" variant="body2" color="textSecondary">
          {t(`diary.because.${visit.because}`)}
        </Typography>
      </span>
      <Button
        variant={chosen ? 'contained' : 'outlined'}
        disabled={busy}
        onClick={(event) => {
          event.stopPropagation()
          onBook()
        }}
        aria-label={`${t('diary.bookOn', { day: dayWord(visit.day) })}: ${visit.customer.name}`}
        sx={{ gap: 1 }}
      >
        {t('diary.book')} {chosen && <Cap of="diary.bookSuits" />}
      </Button>
    </Box>
  )
}
