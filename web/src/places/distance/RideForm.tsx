import { useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import type { Surface } from '@pelrin/core'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { DayLine } from '../../forms/DayLine.tsx'
import { Line } from '../../forms/Line.tsx'
import { TimeLine } from '../../forms/TimeLine.tsx'
import { choiceIn, numberWanted } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { LedgerForm } from './LedgerForm.tsx'
import { SurfaceChoice } from './SurfaceChoice.tsx'
import { ofLedger } from './useLedgerWrite.ts'
import { atInZone, inZone } from '../../messages/shopClock.ts'

/** An hour from nine on; before ten in the morning that was yesterday. */
const newRide = () => ({
  startedAt: { day: inZone(Date.now()).subtract(10, 'hour').format('YYYY-MM-DD'), time: '09:00' },
  endedAt: '60',
  typed: '',
  surface: '' as Surface | '',
})

/** Writes down a ride. */
export function RideForm({ bikeId, unit }: { bikeId: string; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const form = useWriteForm({
    access: endpoints.recordRide.access,
    stale: ofLedger(bikeId),
    schema: endpoints.recordRide.body,
    start: newRide(),
    read: ({ startedAt, endedAt, typed, surface }: ReturnType<typeof newRide>, id) => {
      const start = atInZone(startedAt.day, startedAt.time)
      const end = start.add(numberWanted(endedAt), 'minute')
      return {
        id,
        startedAt: start.isValid() ? start.toISOString() : '',
        endedAt: end.isValid() ? end.toISOString() : '',
        typed,
        unit,
        surface: choiceIn(surface),
      }
    },
    send: (body, { id }) => ask(endpoints.recordRide, { params: { id: bikeId }, body, key: id }),
    done: (_, typed) => {
      form.fields.reset({ ...typed, typed: '' })
      tell(t('distanceOf.saved'))
    },
  })
  const surface = useWatch({ control: form.fields.control, name: 'surface' })
  return (
    <LedgerForm form={form}>
      <DayLine name="startedAt.day" label={t('distanceOf.day')} sx={{ width: 180 }} />
      <TimeLine name="startedAt.time" label={t('distanceOf.from')} sx={{ width: 100 }} />
      <Line name="endedAt" label={t('distanceOf.minutes')} of="whole" sx={{ width: 116 }} />
      <Line name="typed" label={t('distanceOf.inUnit', { unit })} of="number" sx={{ width: 152 }} />
      <SurfaceChoice hint={surface === 'gritty' ? t('distanceOf.surfaceHelp') : undefined} sx={{ width: 150 }} />
    </LedgerForm>
  )
}
