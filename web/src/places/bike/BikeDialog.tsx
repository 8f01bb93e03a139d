import { useTranslation } from 'react-i18next'
import { endpoints, type BikeRecord, type Output } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Flag } from '../../forms/Flag.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { asTyped, numberIn, textIn } from '../../forms/typed.ts'
import { Suggested } from '../../forms/Suggested.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { today } from '../../messages/format.ts'

/** What a bike is called and where it is, to be changed. */
export function BikeDialog({ record, onClose }: { record: BikeRecord; onClose: () => void }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const { id, label, tag, frameMark } = record.summary
  const form = useWriteForm({
    access: endpoints.changeBike.access,
    stale: [keys.bike(id)],
    later: [keys.lineUp, keys.rack],
    schema: endpoints.changeBike.body,
    start: {
      label,
      tag,
      kind: record.kind,
      maker: asTyped(record.maker),
      model: asTyped(record.model),
      weightKg: asTyped(record.weightKg),
      frameMark: frameMark ?? '',
      notes: record.notes,
      gone: record.goneOn !== null,
    },
    read: ({ gone, frameMark: mark, maker, model, weightKg, ...rest }) => ({
      ...rest,
      maker: textIn(maker),
      model: textIn(model),
      weightKg: numberIn(weightKg),
      frameMark: textIn(mark),
      goneOn: gone ? (record.goneOn ?? today()) : null,
    }),
    version: record.version,
    send: (body, { version }) => ask(endpoints.changeBike, { params: { id }, version, body }),
    newerOf: ({
      version,
      maker,
      model,
      weightKg,
      frameMark: mark,
      ...now
    }: Output<typeof endpoints.changeBike.result>) => ({
      version,
      typed: {
        ...now,
        maker: asTyped(maker),
        model: asTyped(model),
        weightKg: asTyped(weightKg),
        frameMark: asTyped(mark),
      },
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
      <Suggested name="kind" label={t('newBike.kind')} options={t('newBike.kinds', { returnObjects: true })} />
      <Line name="maker" label={t('newBike.maker')} />
      <Line name="model" label={t('newBike.model')} />
      <Line name="weightKg" label={t('bike.weight')} of="number" unit="kg" />
      <Line name="frameMark" label={t('bike.frame')} />
      <Line name="notes" label={t('bike.notes')} rows={3} />
      <Flag name="gone" label={t('bike.gone')} />
    </FormDialog>
  )
}
