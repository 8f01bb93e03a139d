import { useTranslation } from 'react-i18next'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { staleOfBike } from '../../api/useBikeWrite.ts'
import { DayLine } from '../../forms/DayLine.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { today } from '../../messages/format.ts'

/** Says for which day a bike is wanted, and what for. */
export function WantedDialog({
  bikeId,
  onClose,
  onAdded,
}: {
  bikeId: string
  onClose: () => void
  onAdded: () => void
}) {
  const { t } = useTranslation()
  const form = useWriteForm({
    access: endpoints.addEventDate.access,
    ...staleOfBike(bikeId),
    schema: endpoints.addEventDate.body,
    start: { name: '', day: '' },
    read: ({ name, day }, id) => ({ id, day, name: name.trim() }),
    send: (body, { id }) => ask(endpoints.addEventDate, { params: { id: bikeId }, key: id, body }),
    done: onAdded,
  })
  return (
    <FormDialog form={form} title={t('caring.wanted.addTitle')} go={t('app.save')} onClose={onClose}>
      <Line name="name" label={t('caring.wanted.name')} autoFocus />
      <DayLine name="day" label={t('caring.wanted.day')} from={today()} />
    </FormDialog>
  )
}
