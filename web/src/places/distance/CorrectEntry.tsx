import { useTranslation } from 'react-i18next'
import { endpoints, type Ledger } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { ofLedger } from './useLedgerWrite.ts'

/** An odometer value or a statement is corrected. */
export function CorrectEntry({
  bikeId,
  entry,
  onClose,
}: {
  bikeId: string
  entry: Ledger['entries'][number]
  onClose: () => void
}) {
  const { t } = useTranslation()
  const { unit, restarted } = entry
  const form = useWriteForm({
    access: endpoints.correctEntry.access,
    stale: ofLedger(bikeId),
    schema: endpoints.correctEntry.body,
    start: { typed: entry.typed, reason: '' },
    // What stood there was asked about when it was written; a correction lower than its forerunner stands as typed.
    read: (typed, id) => ({ id, ...typed, unit, lower: restarted ? ('restarted' as const) : ('as-it-is' as const) }),
    send: (body, { id }) => ask(endpoints.correctEntry, { params: { id: entry.id }, key: id, body }),
    done: onClose,
  })
  return (
    <FormDialog
      form={form}
      title={t('distanceOf.correctRide', { ride: entry.typed })}
      go={t('distanceOf.correct')}
      onClose={onClose}
    >
      <Line name="typed" label={`${t('distanceOf.odometerNew')}, ${unit}`} of="number" autoFocus />
      <Line name="reason" label={t('rules.reason')} longest={200} />
    </FormDialog>
  )
}
