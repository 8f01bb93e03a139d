import { Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { CareKind } from '@pelrin/core'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { staleOfBike } from '../../api/useBikeWrite.ts'
import { Choice } from '../../forms/Choice.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { asTyped, numberIn } from '../../forms/typed.ts'
import { useCareOptions } from '../../app/useCareOptions.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'

/** A chain that joins a bike's rotation: begun with what the one that is on is. */
export function AddChainDialog({
  bikeId,
  like,
  onClose,
}: {
  bikeId: string
  like: { name: string; pitches: number | null; care: CareKind } | null
  onClose: () => void
}) {
  const { t } = useTranslation()
  const { usual, options } = useCareOptions()
  const form = useWriteForm({
    access: endpoints.addChain.access,
    ...staleOfBike(bikeId),
    schema: endpoints.addChain.body,
    start: { name: like?.name ?? '', pitches: asTyped(like?.pitches), care: like?.care ?? usual },
    read: ({ name, pitches, care }, id) => ({ id, name, pitches: numberIn(pitches), care }),
    send: (body, { id }) => ask(endpoints.addChain, { params: { id: bikeId }, key: id, body }),
    done: onClose,
  })
  return (
    <FormDialog form={form} title={t('chains.addTitle')} go={t('chains.add')} onClose={onClose}>
      <Typography color="textSecondary">{t('chains.addNote')}</Typography>
      <Line name="name" label={t('chains.name')} autoFocus />
      <Line name="pitches" label={t('chains.pitches')} of="whole" />
      <Choice name="care" label={t('chains.care')} options={options} />
    </FormDialog>
  )
}
