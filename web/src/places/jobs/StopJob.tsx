import { Box, Button } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, type Job } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { staleOfBike } from '../../api/useBikeWrite.ts'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { afterOutbox } from './useJob.ts'

/** Ends a job without a new chain; why is asked. */
export function StopJob({ job }: { job: Job }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  const form = useWriteForm({
    access: endpoints.stopJob.access,
    ...staleOfBike(job.bikeId),
    schema: endpoints.stopJob.body,
    start: { reason: '' },
    read: ({ reason }) => ({ reason }),
    send: (body, { id }) => afterOutbox(() => ask(endpoints.stopJob, { params: { id: job.id }, key: id, body })),
    done: () => undefined,
  })
  // What somebody may not do is not offered to them.
  if (!form.may) return null
  if (!open)
    return (
      <Button variant="text" color="error" onClick={() => setOpen(true)} sx={{ alignSelf: 'flex-start', px: 1 }}>
        {t('jobs.stop')}
      </Button>
    )
  return (
    <Box onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}>
      <FormOf form={form} label={t('jobs.stop')} sx={{ display: 'grid', gap: 1 }}>
        <Line name="reason" label={t('jobs.stopReason')} autoFocus longest={200} />
        <RefusedElsewhere form={form} />
        <Button type="submit" variant="outlined" color="error" disabled={form.busy}>
          {t('jobs.stop')}
        </Button>
      </FormOf>
    </Box>
  )
}
