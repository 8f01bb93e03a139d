import { Box, Button, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Instrument } from '@pelrin/contract'
import { useStudies } from '../../api/queries.ts'
import { day } from '../../messages/format.ts'
import { PlanStudy } from '../study/PlanStudy.tsx'

/** The studies made of an instrument, and a way to another. */
export function Studies({ instrument }: { instrument: Instrument }) {
  const { t } = useTranslation()
  const studies = useStudies(instrument.id)
  const [planning, setPlanning] = useState(false)
  return (
    <Box component="section" aria-label={t('study.many')} sx={{ mt: 2.5 }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center' }}>
        <Typography variant="h3" component="h3" color="textSecondary">
          {t('study.many')}
        </Typography>
        <Button onClick={() => setPlanning(true)}>{t('study.plan')}</Button>
      </Stack>
      {studies.data?.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          {t('study.none')}
        </Typography>
      )}
      {studies.data?.map((study) => (
        <Typography key={study.id} variant="body2" sx={{ borderTop: 1, borderColor: 'divider', py: 0.75 }}>
          <Link to={`/studies/${study.id}`} style={{ color: 'inherit', fontWeight: 600 }}>
            {study.title}
          </Link>
          , {day(study.startedAt)}:{' '}
          {study.closedAt === null ? t('study.of', { done: study.entered, all: study.planned }) : t('study.closed')}
        </Typography>
      ))}
      {planning && <PlanStudy instrument={instrument} onClose={() => setPlanning(false)} />}
    </Box>
  )
}
