import { Box, Button, LinearProgress, Stack, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type Study } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useStudy } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { day, percentDone } from '../../messages/format.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { StudyEntry } from './StudyEntry.tsx'
import { StudyResultView } from './StudyResultView.tsx'

/** One gauge study: entered blind while it is open, read by everybody once it is closed. */
export function StudyPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const study = useStudy(id)
  const client = useQueryClient()
  useTitle(study.data?.title ?? t('study.one'))
  if (study.isPending) return <Loading />
  if (!study.data) return <Failure error={study.error} again={() => void study.refetch()} />
  const { data } = study
  const close = async (): Promise<void> => {
    const closed = await ask(endpoints.closeStudy, { params: { id }, key: v7() })
    await showAnswer(client, keys.study(id), closed)
    await client.invalidateQueries({ queryKey: keys.instruments })
  }
  return (
    <Box sx={{ px: 2.75, pt: 1.5, pb: 3 }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', gap: 2, mb: 1.5, flexWrap: 'wrap' }}>
        <Typography variant="h1">{data.title}</Typography>
        <Typography component={Link} to={`/gauges/${data.instrument.id}`} sx={{ color: 'text.secondary' }}>
          {data.instrument.name}
        </Typography>
        <Typography color="textSecondary">
          {t('study.planned', {
            people: data.people.length,
            spots: data.spots.length,
            repeats: data.repeats,
            date: day(data.startedAt),
          })}
        </Typography>
      </Stack>
      {data.result ? (
        <StudyResultView study={data} result={data.result} />
      ) : (
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 380px' }, gap: 4 }}>
          <StudyEntry key={data.values.length} study={data} />
          <Progress study={data} onClose={() => void close()} />
        </Box>
      )}
    </Box>
  )
}

/** How far everybody is. What they read is not shown. */
function Progress({ study, onClose }: { study: Study; onClose: () => void }) {
  const { t } = useTranslation()
  const each = study.spots.length * study.repeats
  const whole = study.people.every(({ entered }) => entered >= each)
  return (
    <Stack component="section" aria-label={t('study.progress')} sx={{ gap: 1.5 }}>
      <Typography variant="h3" component="h2" color="textSecondary">
        {t('study.progress')}
      </Typography>
      {study.people.map((person) => (
        <Box key={person.id}>
          <Stack direction="row" sx={{ justifyContent: 'space-between' }}>
            <Typography>{person.name}</Typography>
            <Typography sx={{ fontWeight: 600 }}>{t('study.of', { done: person.entered, all: each })}</Typography>
          </Stack>
          <LinearProgress
            variant="determinate"
            value={percentDone(person.entered, each)}
            aria-label={person.name}
            sx={{ height: 8 }}
          />
        </Box>
      ))}
      <Typography variant="body2" color="textSecondary">
        {t('study.blind')}
      </Typography>
      <Button variant={whole ? 'contained' : 'outlined'} onClick={onClose} sx={{ minHeight: 52 }}>
        {t(whole ? 'study.close' : 'study.closeUnfinished')}
      </Button>
    </Stack>
  )
}
