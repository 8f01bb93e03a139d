import { Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { POT_VESSELS } from '@pelrin/core'
import { endpoints, type PotNow } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { Choice } from '../../forms/Choice.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { asTyped, numberWanted } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { celsiusTyped, degrees, typedCelsius } from '../../messages/typedTemperature.ts'

/** A pot of the shop: what it is, what it takes, how long it takes to melt its wax, and where it rings. */
export function PotDialog({ pot, onClose }: { pot: PotNow | null; onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const form = useWriteForm({
    access: endpoints.addPot.access,
    schema: endpoints.switchPot.body,
    start: {
      name: pot?.name ?? '',
      capacity: asTyped(pot?.capacity ?? 4),
      vessel: pot?.vessel ?? POT_VESSELS[1],
      heatMinutes: asTyped(pot?.own.heatMinutes),
      alarmCelsius: pot?.own.alarmCelsius == null ? '' : celsiusTyped(pot.own.alarmCelsius),
    },
    read: ({ name, vessel, capacity, heatMinutes, alarmCelsius }) => ({
      name,
      vessel,
      capacity: numberWanted(capacity),
      heatMinutes: heatMinutes.trim() === '' ? null : numberWanted(heatMinutes),
      alarmCelsius: alarmCelsius.trim() === '' ? null : (typedCelsius(alarmCelsius) ?? NaN),
    }),
    ...(pot ? { version: pot.version } : {}),
    send: (body, { id, version }) =>
      pot
        ? ask(endpoints.switchPot, { params: { id: pot.id }, version, body })
        : ask(endpoints.addPot, { key: id, body: { id, ...body } }),
    newerOf: ({ pots }: { pots: readonly PotNow[] }) => {
      const now = pots.find(({ id }) => id === pot?.id)
      return { version: now?.version ?? 0, typed: {} }
    },
    done: (board) => {
      void showAnswer(client, keys.pot, board)
      onClose()
    },
  })
  return (
    <FormDialog form={form} title={t(pot ? 'pot.changePot' : 'pot.addPot')} go={t('app.save')} onClose={onClose}>
      <Line name="name" label={t('pot.potName')} autoFocus />
      <Choice
        name="vessel"
        label={t('pot.vessel')}
        options={POT_VESSELS.map((one) => [one, t(`pot.vesselOf.${one}`)] as const)}
      />
      <Line name="capacity" label={t('pot.potCapacity')} of="whole" />
      <Line name="heatMinutes" label={t('pot.heatMinutes')} of="whole" hint={t('pot.asHouse')} />
      <Line name="alarmCelsius" label={t('pot.alarmCelsius')} of="number" unit={degrees()} hint={t('pot.asHouse')} />
      <Typography variant="body2" color="textSecondary">
        {t('pot.vesselNote')}
      </Typography>
    </FormDialog>
  )
}
