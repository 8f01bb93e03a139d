import { Button, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { standardMinutes, type JobNow } from '@pelrin/core'
import type { Job, JobEvent } from '@pelrin/contract'
import { useLineUp } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { usePutOnStand } from '../../app/usePutOnStand.ts'
import { day, number } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import type { Said } from './useJob.ts'

/** A job open for longer was left standing: whoever finds it looks before they go on. */
const STALE_MS = 3 * 86_400_000

/** A job's minutes, who has it, and ways to pause it or take it over. */
export function JobHead({
  job,
  now,
  events,
  waiting,
  say,
}: {
  job: Job
  now: JobNow
  events: readonly JobEvent[]
  waiting: number
  say: (said: Said) => void
}) {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const [seenAt] = useState(() => Date.now())
  const lineUp = useLineUp()
  const putOnStand = usePutOnStand()
  const { paused, steps } = now
  // Whoever took it over last, else who began it.
  const holder = events.findLast(({ kind }) => kind === 'take-over')?.by ?? job.by
  // A paused job gives up its stand to the next that waits.
  const next = lineUp.data?.visits.find(({ state, bike }) => state === 'waiting' && bike.id !== job.bikeId)
  return (
    <>
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
      {next && !paused && (
        <Button
          variant="text"
          sx={{ alignSelf: 'flex-start', px: 1 }}
          onClick={() => {
            say({ kind: 'pause' })
            putOnStand(next.bike.id)
          }}
        >
          {t('jobs.nextOn')}
        </Button>
      )}
      {seenAt - Date.parse(job.openedAt) > STALE_MS && (
        <Typography sx={{ color: ink('brass'), fontWeight: 600 }}>
          {t('jobs.openSince', { date: day(job.openedAt) })}
        </Typography>
      )}
      {holder !== session.person.initials && (
        <Button variant="outlined" onClick={() => say({ kind: 'take-over' })}>
          {t('jobs.takeOver', { by: holder })}
        </Button>
      )}
    </>
  )
}
