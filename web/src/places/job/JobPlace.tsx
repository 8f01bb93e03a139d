import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useEffect, useMemo, useState } from 'react'
import { flushSync } from 'react-dom'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { v7 } from 'uuid'
import { standardMinutes } from '@pelrin/core'
import { endpoints, type Job } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBike } from '../../api/queries.ts'
import { useLetterKeys } from '../../keys/typing.tsx'
import { number } from '../../messages/format.ts'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { BeginJob } from './BeginJob.tsx'
import { CloseJob } from './CloseJob.tsx'
import { EndedJob } from './EndedJob.tsx'
import { StepList } from './StepList.tsx'
import { LOOKS, seen, StepPane, undecided } from './StepPane.tsx'
import { useBikeJob, useJobNow } from './useJob.ts'
import { useJobWrite } from './useJobWrite.ts'

/** The job on a bike: begun, one step at a time, closed. */
export function JobPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const navigate = useNavigate()
  const bike = useBike(id)
  const found = useBikeJob(id)
  const [another, setAnother] = useState(false)
  useEffect(() => {
    document.title = `${t('place.job')} – ${t('app.name')}`
  }, [t])
  useLetterKeys(
    useMemo(
      () => ({
        m: { run: () => void navigate(`/bikes/${id}/measure`), intoField: true },
        b: { run: () => void navigate(`/bikes/${id}`) },
        p: { run: () => void navigate(`/bikes/${id}/parts`) },
      }),
      [id, navigate],
    ),
  )
  if (bike.isPending || found.isPending) return <Loading />
  if (!bike.data || !found.data)
    return (
      <Failure
        error={bike.error ?? found.error}
        again={() => {
          void bike.refetch()
          void found.refetch()
        }}
      />
    )
  const { job } = found.data
  const open = job?.state === 'open' ? job : null
  return (
    <Stack sx={{ height: { md: '100%' }, px: 2.75, pt: 1.5, gap: 1 }}>
      <Box>
        <Typography variant="h1">{bike.data.customer.name}</Typography>
        <Typography color="textSecondary">
          <BikeLine bike={bike.data.summary} teeth />
          {open && `, ${open.parts.chain}${open.parts.joint === null ? '' : `, ${open.parts.joint}`}`}
        </Typography>
      </Box>
      {open ? (
        <OpenJob key={open.id} job={open} />
      ) : job && !another ? (
        <EndedJob job={job} onAnother={() => setAnother(true)} />
      ) : (
        <BeginJob bikeId={id} />
      )}
    </Stack>
  )
}

const NO_KEYS = {}

function OpenJob({ job }: { job: Job }) {
  const { t } = useTranslation()
  const { now, waiting, say } = useJobNow(job)
  const { wrong, busy, write } = useJobWrite(job.bikeId)
  const [chosen, setChosen] = useState<string | null>(null)
  const [stopping, setStopping] = useState<string | null>(null)
  const { steps, next, paused } = now
  const chosenAt = steps.findIndex(({ id }) => id === chosen)
  const at = chosenAt >= 0 ? chosenAt : next ? steps.indexOf(next) : steps.length
  const step = steps[at]
  const move = (by: number): void => {
    const to = steps[Math.min(steps.length - 1, Math.max(0, at + by))]
    if (to) setChosen(to.id)
  }
  const done = (): void => {
    if (!step || undecided(step, now.plan)) return
    if (paused) say({ kind: 'resume' })
    if (!step.done) say({ kind: 'tick', step: step.id })
    // On to the first that is not done behind it; behind the last, to what was left out before.
    const after = steps.slice(at + 1).find((one) => one.done === null)
    setChosen(after?.id ?? null)
  }
  const keysOn = { preventDefault: true, enabled: stopping === null }
  useHotkeys(
    'space',
    done,
    {
      ...keysOn,
      ignoreEventWhen: (event) =>
        event.target instanceof HTMLButtonElement && event.target.getAttribute('role') === 'radio',
    },
    [steps, at, paused],
  )
  useHotkeys('right, down', () => move(1), keysOn, [steps, at])
  useHotkeys('left, up', () => move(-1), keysOn, [steps, at])
  useLetterKeys(
    step?.id === 'identify-joint'
      ? Object.fromEntries(LOOKS.map((look, i) => [String(i + 1), { run: () => flushSync(() => say(seen(look))) }]))
      : NO_KEYS,
  )
  useHotkeys('backspace', () => step?.done && say({ kind: 'untick', step: step.id }), keysOn, [step])
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 360px' },
        gap: 3,
        flex: 1,
        minHeight: 0,
      }}
    >
      <Box sx={{ minHeight: 0, overflow: { md: 'auto' } }}>
        {step ? (
          <StepPane step={step} now={now} at={at} onDone={done} onBack={() => move(-1)} say={say} />
        ) : (
          <CloseJob job={job} now={now} />
        )}
      </Box>
      <Stack sx={{ minHeight: 0, gap: 1, pb: 1, borderLeft: { md: 1 }, borderColor: { md: 'divider' }, pl: { md: 2 } }}>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
          <Typography sx={{ flex: 1, fontWeight: 600 }} role="status">
            {paused
              ? t('jobs.paused')
              : t('jobs.minutes', { taken: number(now.minutes, 0), standard: number(standardMinutes(steps), 0) })}
            {waiting > 0 && `, ${t('jobs.waiting')}`}
          </Typography>
          <Button variant="outlined" onClick={() => say({ kind: paused ? 'resume' : 'pause' })} sx={{ px: 1.5 }}>
            {t(paused ? 'jobs.resume' : 'jobs.pause')}
          </Button>
        </Stack>
        <StepList now={now} at={at} onChoose={(i) => setChosen(steps[i]?.id ?? null)} />
        {stopping === null ? (
          <Button variant="text" color="error" onClick={() => setStopping('')} sx={{ alignSelf: 'flex-start', px: 1 }}>
            {t('jobs.stop')}
          </Button>
        ) : (
          <Stack
            component="form"
            noValidate
            onSubmit={(event) => {
              event.preventDefault()
              void write(() =>
                ask(endpoints.stopJob, { params: { id: job.id }, key: v7(), body: { reason: stopping } }),
              )
            }}
            onKeyDown={(event) => event.key === 'Escape' && setStopping(null)}
            sx={{ gap: 1 }}
          >
            <TextField
              autoFocus
              label={t('jobs.stopReason')}
              value={stopping}
              onChange={(event) => setStopping(event.target.value)}
            />
            <Button type="submit" variant="outlined" color="error" disabled={busy}>
              {t('jobs.stop')}
            </Button>
          </Stack>
        )}
        {wrong !== null && (
          <Typography role="alert" color="error">
            {wrong}
          </Typography>
        )}
      </Stack>
    </Box>
  )
}
