import { useTranslation } from 'react-i18next'
import { endpoints, type BikeRecord } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Flag } from '../../forms/Flag.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { textIn } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { today } from '../../messages/format.ts'

/** What a bike is called and where it is, to be changed. */
export function BikeDialog({ record, onClose }: { record: BikeRecord; onClose: () => void }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const { id, label, tag, frameMark } = record.summary
  const form = useWriteForm({
    stale: [keys.bike(id)],
    later: [keys.lineUp, keys.rack],
    schema: endpoints.changeBike.body,
    start: { label, tag, frameMark: frameMark ?? '', notes: record.notes, gone: record.goneOn !== null },
    read: ({ gone, frameMark: mark, ...rest }) => ({
      ...rest,
      frameMark: textIn(mark),
      goneOn: gone ? (record.goneOn ?? today()) : null,
    }),
    version: record.version,
    send: (body, { version }) => ask(endpoints.changeBike, { params: { id }, version, body }),
    newerOf: ({ version, ...now }: { version: number; frameMark: string | null }) => ({
      version,
      typed: { ...now, frameMark: now.frameMark ?? '' },
    }),
    done: () => {
      tell(t('bike.saved'))
      onClose()
    },
  })
  return (
    <FormDialog form={form} title={t('bike.edit')} go={t('app.save')} onClose={onClose}>
      <Line name="label" label={t('bike.name')} autoFocus />
      <Line name="tag" label={t('bike.tag')} />
      <Line name="frameMark" label={t('bike.frame')} />
      <Line name="notes" label={t('bike.notes')} rows={3} />
      <Flag name="gone" label={t('bike.gone')} />
    </FormDialog>
  )
}
