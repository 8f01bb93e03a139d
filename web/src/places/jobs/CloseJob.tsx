import { MenuItem, Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useState } from 'react'
import { flushSync } from 'react-dom'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { JOB_REASONS, OLD_FATES, type JobNow } from '@pelrin/core'
import { endpoints, type Job } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { typedNumber } from '../../messages/typedNumber.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { afterOutbox } from './useJob.ts'

const CLICKS = ['firm', 'weak', 'none'] as const

/** Closes a job: what it writes is asked once, with what is known already filled in. */
export function CloseJob({ job, now }: { job: Job; now: JobNow }) {
  const { t } = useTranslation()
  const { wrong, setWrong, busy, write } = useBikeWrite(job.bikeId)
  const [key] = useState(() => v7())
  const [oldReason, setOldReason] = useState(now.plan.reason)
  const [oldFate, setOldFate] = useState(now.plan.oldFate)
  const [click, setClick] = useState<(typeof CLICKS)[number] | null>(null)
  const [minutes, setMinutes] = useState(String(Math.max(1, Math.round(now.minutes))))
  const [pitches, setPitches] = useState(String(now.plan.chain.pitches))
  const clicks = now.plan.joint.kind === 'link'
  const close = (): void => {
    const [taken, count] = [typedNumber(minutes), typedNumber(pitches)]
    if (taken === undefined || count === undefined) {
      setWrong({ code: 'number-malformed', sentence: t('problems.number-malformed'), fields: {} })
      return
    }
    void write(() =>
      afterOutbox(() =>
        ask(endpoints.closeJob, {
          params: { id: job.id },
          // What it was asked with is part of the key: a second try after a correction is another request.
          key: `${key}-${oldReason}-${oldFate}-${click ?? ''}-${taken}-${count}`,
          body: { oldReason, oldFate, click: clicks ? click : null, minutes: taken, pitches: count },
        }),
      ),
    )
  }
  useCommands('jobClose', {
    // At once: Enter may follow in the same breath.
    click: (digit) => flushSync(() => setClick(CLICKS[digit - 1]!)),
    close,
  })
  return (
    <Stack
      component="form"
      noValidate
      aria-label={t('jobs.closing')}
      onSubmit={(event) => {
        event.preventDefault()
        close()
      }}
      sx={{ gap: 2, maxWidth: 720 }}
    >
      <Typography component="h2" sx={{ fontSize: 30, fontWeight: 700 }}>
        {t('jobs.closing')}
      </Typography>
      {clicks && (
        <Stack sx={{ gap: 0.5 }}>
          <Typography variant="h2" component="h3">
            {t('jobs.click')}
          </Typography>
          <ToggleButtonGroup
            exclusive
            value={click}
            aria-label={t('jobs.click')}
            onChange={(_, next: (typeof CLICKS)[number] | null) => setClick(next)}
          >
            {CLICKS.map((one, i) => (
              <ToggleButton key={one} value={one} sx={{ minHeight: 64, px: 3, fontSize: 18, gap: 1.25 }}>
                {t(`jobs.clickOf.${one}`)} <KeyCap>{String(i + 1)}</KeyCap>
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Stack>
      )}
      <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 2 }}>
        <TextField
          select
          label={t('jobs.why')}
          value={oldReason}
          onChange={(event) => setOldReason(event.target.value as typeof oldReason)}
          sx={{ flex: 1 }}
        >
          {JOB_REASONS.map((one) => (
            <MenuItem key={one} value={one}>
              {t(`jobs.reason.${one}`)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label={t('jobs.fate')}
          value={oldFate}
          onChange={(event) => setOldFate(event.target.value as typeof oldFate)}
          sx={{ flex: 1 }}
        >
          {OLD_FATES.map((one) => (
            <MenuItem key={one} value={one}>
              {t(`jobs.fateOf.${one}`)}
            </MenuItem>
          ))}
        </TextField>
      </Stack>
      <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 2 }}>
        <TextField
          label={t('jobs.count')}
          value={pitches}
          onChange={(event) => setPitches(event.target.value)}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
          sx={{ flex: 1 }}
        />
        <TextField
          label={t('jobs.taken')}
          value={minutes}
          onChange={(event) => setMinutes(event.target.value)}
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
          sx={{ flex: 1 }}
        />
      </Stack>
      {wrong !== null && (
        <Typography role="alert" color="error" sx={{ fontWeight: 600 }}>
          {wrong.sentence}
        </Typography>
      )}
      <KeyButton
        of="jobClose.close"
        type="submit"
        variant="contained"
        disabled={busy}
        sx={{ minHeight: 72, fontSize: 22 }}
      >
        {t('jobs.close')}
      </KeyButton>
    </Stack>
  )
}
