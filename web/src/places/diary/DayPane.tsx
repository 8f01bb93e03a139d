import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Booking, DiaryDay } from '@pelrin/contract'
import { clock, day as dayWord, weekdayName } from '../../messages/format.ts'
import { timeOn } from '../../messages/timeOn.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Plate } from '../../pieces/Plate.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'

/** A day of the diary: what is booked, by when it is promised, and whether the shop is open. */
export function DayPane({
  day,
  bookings,
  busy,
  onMove,
  onClose,
}: {
  day: DiaryDay
  bookings: readonly Booking[]
  busy: boolean
  onMove: (booking: Booking, change: { promisedAt?: string | null; calledOff?: true }) => void
  /** A reason, or null to open after all. */
  onClose: (reason: string | null) => void
}) {
  const { t } = useTranslation()
  const [closing, setClosing] = useState<string | null>(null)
  const weekday = weekdayName(day.day)
  return (
    <Box component="section" aria-label={dayWord(day.day)}>
      <Typography variant="h2">
        {weekday}, {dayWord(day.day)}
      </Typography>
      <Typography color="textSecondary">
        {day.capacity === 0
          ? day.closed === null
            ? t('diary.closed')
            : t('diary.closedFor', { reason: day.closed })
          : t('diary.takes', { capacity: day.capacity, booked: day.booked })}
      </Typography>
      {bookings.length === 0 && <Typography sx={{ py: 1 }}>{t('diary.bookingsNone')}</Typography>}
      <Box
        component="ol"
        aria-label={t('diary.bookings', { count: bookings.length })}
        sx={{ listStyle: 'none', m: 0, p: 0 }}
      >
        {bookings.map((booking) => (
          <BookingRow
            key={`${booking.id} ${booking.version}`}
            booking={booking}
            busy={busy}
            onMove={(change) => onMove(booking, change)}
          />
        ))}
      </Box>
      {closing === null ? (
        (day.capacity > 0 || day.closed !== null) && (
          <Button
            disabled={busy}
            onClick={() => (day.closed === null ? setClosing('') : onClose(null))}
            sx={{ px: 1, mt: 0.5 }}
          >
            {t(day.closed === null ? 'diary.close' : 'diary.open')}
          </Button>
        )
      ) : (
        <Stack
          component="form"
          direction="row"
          sx={{ gap: 1, pt: 1 }}
          onSubmit={(event) => {
            event.preventDefault()
            if (closing.trim() === '') return
            onClose(closing.trim())
            setClosing(null)
          }}
          onKeyDown={(event) => event.key === 'Escape' && setClosing(null)}
        >
          <TextField
            autoFocus
            size="small"
            label={t('diary.closeReason')}
            value={closing}
            onChange={(event) => setClosing(event.target.value)}
          />
          <Button type="submit" variant="outlined" disabled={busy || closing.trim() === ''}>
            {t('diary.close')}
          </Button>
        </Stack>
      )}
    </Box>
  )
}

function BookingRow({
  booking,
  busy,
  onMove,
}: {
  booking: Booking
  busy: boolean
  onMove: (change: { promisedAt?: string | null; calledOff?: true }) => void
}) {
  const { t } = useTranslation()
  const { bike, customer, promisedAt, day, minutes, reason, state } = booking
  const [typed, setTyped] = useState(promisedAt === null ? '' : clock(promisedAt))
  const time = timeOn(typed, day)
  const commit = (): void => {
    if (time !== undefined && time !== promisedAt) onMove({ promisedAt: time })
  }
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: '108px minmax(0, 1fr) auto',
        gap: 1.25,
        alignItems: 'center',
        borderTop: 1,
        borderColor: 'divider',
        py: 1,
      }}
    >
      <TextField
        size="small"
        label={t('diary.promised')}
        value={typed}
        disabled={busy || state !== 'waiting'}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === 'Enter' && commit()}
        error={time === undefined}
        title={t('diary.promisedNote')}
      />
      <span>
        <Typography component="span" sx={{ display: 'flex', gap: 0.75, alignItems: 'center', fontWeight: 700 }}>
          <Plate shape={VERDICT_LOOK[bike.word].plate} colour={VERDICT_LOOK[bike.word].colour} height={12} />
          <Link to={`/bikes/${bike.id}`} style={{ color: 'inherit' }}>
            {customer.name}
          </Link>
        </Typography>
        <Typography component="span" variant="body2" color="textSecondary">
          {[bike.label, reason, t('diary.minutes', { count: minutes }), t(`diary.state.${state}`)]
            .filter((part) => part !== '')
            .join(', ')}
        </Typography>
      </span>
      {state === 'waiting' && (
        <Button
          color="error"
          disabled={busy}
          onClick={() => onMove({ calledOff: true })}
          aria-label={`${t('diary.callOff')}: ${customer.name}, ${bike.label}`}
          sx={{ px: 1 }}
        >
          {t('diary.callOff')}
        </Button>
      )}
    </Box>
  )
}

/** The key of the calendar's addresses, said beside their button. */
export function FeedsButton({ onOpen }: { onOpen: () => void }) {
  const { t } = useTranslation()
  return (
    <KeyButton of="diary.calendar" variant="outlined" onClick={onOpen}>
      {t('diary.feeds')}
    </KeyButton>
  )
}
