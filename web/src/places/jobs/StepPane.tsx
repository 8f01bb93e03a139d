import { Box, Button, Stack, Typography } from '@mui/material'
import VisibilityIcon from '@mui/icons-material/VisibilityOutlined'
import type { Ref, RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import {
  FOUND_AT,
  OTHER_WEAR_AT,
  SCHOOL_AT,
  SPROCKETS_AT,
  toolsOf,
  waitsForLook,
  type JobEntry,
  type JobNow,
  type SprocketAdvice,
  type StepNow,
} from '@pelrin/core'
import type { Job } from '@pelrin/contract'
import { saidWith, type MessageKey } from '../../messages/said.ts'
import { Cap } from '../../pieces/Cap.tsx'
import { Cautions } from '../../pieces/Cautions.tsx'
import { PositionChoice } from '../../pieces/PositionChoice.tsx'
import { ink } from '../../theme/theme.ts'
import { Found, Looks, School } from './StepAsks.tsx'
import { StepEntry } from './StepEntry.tsx'
import { StepPicture } from './StepPicture.tsx'
import { StepTimer } from './StepTimer.tsx'
import type { Said } from './useJob.ts'

/** One step, large: what to do, what can hurt, what to see before it is done. */
export function StepPane({
  job,
  advice,
  step,
  now,
  at,
  doneButton,
  asked,
  onEntered,
  onDone,
  onBack,
  say,
}: {
  job: Job
  /** What the verdict says of the sprockets. */
  advice: SprocketAdvice | null
  step: StepNow
  now: JobNow
  at: number
  doneButton: Ref<HTMLButtonElement>
  /** The first that is asked for at a step that asks. */
  asked: RefObject<HTMLInputElement | HTMLButtonElement | null>
  onEntered: (entry: JobEntry) => void
  onDone: () => void
  onBack: () => void
  say: (said: Said) => void
}) {
  const { t } = useTranslation()
  const { id, phase, hazards, tools, values, checked, done } = step
  const { plan } = now
  const words = { ...values, position: t(`jobs.position.${plan.position}`) }
  const school = SCHOOL_AT[id]
  return (
    <Stack
      component="section"
      aria-label={saidWith(t, `steps.${id}.what`, words)}
      sx={{ gap: 1.5, minHeight: 0, height: '100%' }}
    >
      <Typography color="textSecondary" sx={{ fontWeight: 600 }}>
        {t('jobs.of', { at: at + 1, all: now.steps.length })}, {t(`jobs.phase.${phase}`)}
        {done && `, ${done.by}`}
      </Typography>
      <Cautions loud hazards={hazards} />
      <Typography
        component="h2"
        sx={{ fontSize: { xs: 'size.head', md: 'size.step' }, fontWeight: 700, lineHeight: 1.15 }}
      >
        {saidWith(t, `steps.${id}.what`, words)}
      </Typography>
      <Typography sx={{ fontSize: 'size.lead' }}>{saidWith(t, `steps.${id}.why`, words)}</Typography>
      {tools.length > 0 && id !== 'pick' && (
        <Typography sx={{ fontSize: 'size.lead' }}>
          <b>{t('jobs.tools')}</b> {tools.map((tool) => t(`jobs.tool.${tool}`)).join(', ')}
        </Typography>
      )}
      {id === 'pick' && (
        <Box
          component="ul"
          aria-label={t('jobs.layOut')}
          sx={{ m: 0, pl: 3, columns: { md: 2 }, fontSize: 'size.lead' }}
        >
          {[job.parts.chain, job.parts.joint, ...toolsOf(now.steps).map((tool) => t(`jobs.tool.${tool}`))]
            .filter((one) => one !== null)
            .map((one) => (
              <li key={one}>{one}</li>
            ))}
        </Box>
      )}
      <StepPicture step={id} values={values} plan={plan} />
      {id === 'identify-joint' && <Looks plan={plan} say={say} />}
      {school && <School of={school} plan={plan} say={say} />}
      {phase === 'route' && (
        <PositionChoice
          position={plan.position}
          onChange={(position) => say({ kind: 'choice', choice: { position } })}
        />
      )}
      {advice !== null && SPROCKETS_AT.includes(id) && (
        <Typography sx={{ fontSize: 'size.lead', fontWeight: 600, color: ink('brass') }}>
          {t('jobs.sprockets', { advice: t(`advice.${advice}`) })}
        </Typography>
      )}
      {OTHER_WEAR_AT.filter((one) => one === id).map((one) => (
        <Button
          key={one}
          component={Link}
          to={`/bikes/${job.bikeId}/other-wear`}
          variant="outlined"
          sx={{ alignSelf: 'flex-start' }}
        >
          {t(`jobs.otherWearAt.${one}`)}
        </Button>
      ))}
      {step.waits !== null && <StepTimer key={id} jobId={job.id} step={id} minutes={step.waits} />}
      {checked && (
        <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
          <VisibilityIcon sx={{ color: ink('steel') }} />
          <Typography sx={{ fontSize: 'size.say', fontWeight: 600 }}>
            {saidWith(t, `steps.${id}.check` as MessageKey, words)}
          </Typography>
        </Stack>
      )}
      <StepEntry
        key={`entry ${id} ${done === null}`}
        step={step}
        wanted={plan.chain.pitches}
        addPitches={plan.chain.addPitches ?? 2}
        first={asked}
        onEntered={onEntered}
        say={say}
      />
      <Found found={FOUND_AT[id] ?? []} plan={plan} say={say} />
      <Box sx={{ flex: 1 }} />
      <Stack direction="row" sx={{ gap: 1.5, pb: 2 }}>
        <Button variant="outlined" onClick={onBack} disabled={at === 0} sx={{ minHeight: 72, gap: 1.5, px: 3 }}>
          <Cap of="job.back" /> {t('jobs.back')}
        </Button>
        <Button
          ref={doneButton}
          variant="contained"
          onClick={onDone}
          disabled={waitsForLook(id, plan)}
          sx={{ minHeight: 72, flex: 1, fontSize: 'size.say', gap: 2 }}
        >
          {waitsForLook(id, plan) ? (
            t('jobs.chooseLook')
          ) : (
            <>
              {t(done === null && step.asks !== null ? `jobs.go.${step.asks}` : 'jobs.done')} <Cap of="job.done" />
            </>
          )}
        </Button>
      </Stack>
    </Stack>
  )
}
