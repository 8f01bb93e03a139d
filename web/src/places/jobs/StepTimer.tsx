import { Stack, Typography } from '@mui/material'
import dayjs from 'dayjs'
import { useCallback, useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { ink } from '../../theme/theme.ts'
import { ring } from '../../pieces/ring.ts'
import { useCommands } from '../../keys/useCommands.ts'

/** A step that waits: its minutes run down on this device, over a reload too, and ring when they are over. */
export function StepTimer({ jobId, step, minutes }: { jobId: string; step: string; minutes: number }) {
  const { t } = useTranslation()
  const key = `timer ${jobId} ${step}`
  const [until, setUntil] = useState<number | null>(() => Number(localStorage.getItem(key)) || null)
  const [now, setNow] = useState(() => Date.now())
  const toggle = useCallback(() => {
    const end = until === null ? dayjs().add(minutes, 'minute').valueOf() : null
    if (end === null) localStorage.removeItem(key)
    else localStorage.setItem(key, String(end))
    setUntil(end)
    setNow(Date.now())
  }, [until, minutes, key])
  useCommands('jobTimer', { run: toggle })
  const left = until === null ? null : Math.max(0, until - now)
  const running = left !== null && left > 0
  useEffect(() => {
    if (!running) return
    const every = setInterval(() => setNow(Date.now()), 500)
    return () => clearInterval(every)
  }, [running])
  useEffect(() => {
    if (until === null || until <= Date.now()) return
    const once = setTimeout(ring, until - Date.now())
    return () => clearTimeout(once)
  }, [until])
  const words =
    left === null
      ? t('jobs.timer.start', { count: minutes })
      : left > 0
        ? t('jobs.timer.left', {
            left: `${Math.floor(left / 60_000)}:${String(Math.floor((left % 60_000) / 1000)).padStart(2, '0')}`,
          })
        : t('jobs.timer.over')
  return (
    <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
      {left !== null && (
        <Typography
          role="timer"
          sx={{
            fontSize: 'size.big',
            fontWeight: 700,
            color: left > 0 ? 'text.primary' : ink('madder'),
            minWidth: 150,
          }}
        >
          {words}
        </Typography>
      )}
      <KeyButton of="jobTimer.run" variant="outlined" onClick={toggle} sx={{ minHeight: 56 }}>
        {left === null ? words : t('jobs.timer.stop')}
      </KeyButton>
    </Stack>
  )
}
