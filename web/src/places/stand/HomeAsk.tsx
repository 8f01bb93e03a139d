import { Box, Button, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { TREATMENTS, type Treatment } from '@pelrin/core'
import { endpoints, type BikeRecord } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { staleOfBike } from '../../api/useBikeWrite.ts'
import { DayLine } from '../../forms/DayLine.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { day, today } from '../../messages/format.ts'
import { atInZone } from '../../messages/shopClock.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { isDue } from '../../pieces/useCareWords.ts'

/** What was done at home is written down when the bike comes in: asked once it was due. */
export function HomeAsk({ record: { summary, chain } }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const [asking, setAsking] = useState(false)
  const treatment = TREATMENTS.find((one) => one === chain?.care)
  if (!chain || !treatment || summary.care?.atHome !== true || !isDue(summary.care)) return null
  return (
    <Box sx={{ py: 1 }}>
      <Typography sx={{ fontWeight: 600 }}>{t('caring.homeAsk', { date: day(summary.care.dueOn) })}</Typography>
      <Allowed right="record">
        <Button variant="outlined" onClick={() => setAsking(true)}>
          {t('caring.homeDone')}
        </Button>
      </Allowed>
      {asking && (
        <HomeDoneDialog
          bikeId={summary.id}
          fittingId={chain.fittingId}
          treatment={treatment}
          dueOn={summary.care.dueOn}
          onClose={() => setAsking(false)}
        />
      )}
    </Box>
  )
}

function HomeDoneDialog({
  bikeId,
  fittingId,
  treatment,
  dueOn,
  onClose,
}: {
  bikeId: string
  fittingId: string
  treatment: Treatment
  dueOn: string
  onClose: () => void
}) {
  const { t } = useTranslation()
  const form = useWriteForm({
    access: endpoints.recordCare.access,
    ...staleOfBike(bikeId),
    schema: endpoints.recordCare.body,
    // Most do it about when they were reminded.
    start: { day: dueOn < today() ? dueOn : today() },
    read: ({ day: on }, id) => ({
      ...{
        id,
        kind: 'treated' as const,
        care: treatment,
        cleaning: 'wipe' as const,
        atHome: true,
        note: null,
        fittingId,
      },
      closing: null,
      occurredAt: on === '' ? '' : atInZone(on, '12:00').toISOString(),
    }),
    fieldOf: (path) => (path === 'occurredAt' ? 'day' : path),
    send: (body, { id }) => ask(endpoints.recordCare, { params: { id: bikeId }, key: id, body }),
    done: onClose,
  })
  return (
    <FormDialog form={form} title={t('caring.homeDoneTitle')} go={t('app.save')} onClose={onClose}>
      <DayLine name="day" label={t('caring.homeDoneOn')} until={today()} />
    </FormDialog>
  )
}
