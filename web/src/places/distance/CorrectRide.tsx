import { Stack } from '@mui/material'
import dayjs from 'dayjs'
import { useTranslation } from 'react-i18next'
import { KM_PER_MILE, type Surface } from '@pelrin/core'
import { endpoints, type Ride } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { MomentLine } from '../../forms/MomentLine.tsx'
import { choiceIn } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { rideName } from './rideName.ts'
import { SurfaceChoice } from './SurfaceChoice.tsx'
import { ofLedger } from './useLedgerWrite.ts'
import { atInZone, inZone } from '../../messages/shopClock.ts'

interface TypedRide {
  startedAt: string
  typed: string
  surface: Surface | ''
  reason: string
}

/** A ride is corrected: when it began, how far it was, on what. How long it took stays. */
export function CorrectRide({
  bikeId,
  ride,
  unit,
  onClose,
}: {
  bikeId: string
  ride: Ride
  unit: 'km' | 'mi'
  onClose: () => void
}) {
  const { t } = useTranslation()
  const form = useWriteForm({
    access: endpoints.correctRide.access,
    stale: ofLedger(bikeId),
    schema: endpoints.correctRide.body,
    start: {
      startedAt: inZone(ride.startedAt).format('YYYY-MM-DDTHH:mm'),
      typed: String(Math.round(10 * (unit === 'mi' ? ride.km / KM_PER_MILE : ride.km)) / 10),
      surface: ride.surface ?? '',
      reason: '',
    },
    read: ({ startedAt, typed, surface, reason }: TypedRide, id) => {
      const [begunOn = '', begunAt = ''] = startedAt.split('T')
      const begun = atInZone(begunOn, begunAt)
      // Left as it was, the begin keeps its seconds.
      const start = begun.isSame(dayjs(ride.startedAt), 'minute') ? dayjs(ride.startedAt) : begun
      const end = start.add(dayjs(ride.endedAt).diff(ride.startedAt), 'millisecond')
      return {
        ...{ id, typed, unit, reason, title: ride.title, surface: choiceIn(surface) },
        startedAt: start.isValid() ? start.toISOString() : '',
        endedAt: end.isValid() ? end.toISOString() : '',
      }
    },
    fieldOf: (path) => (path === 'endedAt' ? 'startedAt' : path),
    send: (body, { id }) => ask(endpoints.correctRide, { params: { id: ride.id }, key: id, body }),
    done: onClose,
  })
  return (
    <FormDialog
      form={form}
      title={t('distanceOf.correctRide', { ride: rideName(ride, unit) })}
      go={t('distanceOf.correct')}
      onClose={onClose}
    >
      <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap' }}>
        <MomentLine name="startedAt" label={t('distanceOf.from')} sx={{ width: 210 }} />
        <Line name="typed" label={t('distanceOf.inUnit', { unit })} of="number" sx={{ width: 140 }} />
        <SurfaceChoice sx={{ width: 140 }} />
      </Stack>
      <Line name="reason" label={t('rules.reason')} longest={200} autoFocus />
    </FormDialog>
  )
}
