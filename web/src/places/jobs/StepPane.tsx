import { Box, Button, Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import VisibilityIcon from '@mui/icons-material/VisibilityOutlined'
import WarningIcon from '@mui/icons-material/WarningAmberOutlined'
import type { Ref } from 'react'
import { useTranslation } from 'react-i18next'
import {
  CLOSE_SCHOOLS,
  POSITIONS,
  PREPARE_SCHOOLS,
  SLACK_SCHOOLS,
  type JobNow,
  type JobOutcome,
  type StepId,
  type StepNow,
  toolsOf,
  type SprocketAdvice,
} from '@pelrin/core'
import type { Job } from '@pelrin/contract'
import { JointDrawing, type JointLook } from '../../pieces/JointDrawing.tsx'
import { Cap } from '../../pieces/Cap.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { ink } from '../../theme/theme.ts'
import { StepPicture } from './StepPicture.tsx'
import { StepTimer } from './StepTimer.tsx'
import type { Said } from './useJob.ts'
import { saidWith, type MessageKey } from '../../messages/said.ts'

/** What may be found at a step, each opening steps of its own. */
const FOUND_AT: Readonly<Partial<Record<StepId, readonly JobOutcome[]>>> = {
  'look-click': ['no-click'],
  'join-pin': ['pin-broke'],
  'join-re-press': ['pin-broke'],
  'length-after': ['wrong-count'],
  'stiff-link': ['stiff-link'],
  'test-ride': ['skips-cassette', 'skips-old-back'],
}
/** Steps at which schools differ, and which school. */
const SCHOOL_AT: Readonly<Partial<Record<StepId, 'slack' | 'prepare' | 'close'>>> = {
  slack: 'slack',
  strip: 'prepare',
  'wipe-coat': 'prepare',
  'oil-ends': 'prepare',
  'hang-new': 'prepare',
  'snap-pliers': 'close',
  'snap-pedal': 'close',
}
/** Steps that look at, or prove, what the sprockets are like. */
const SPROCKETS_AT: readonly StepId[] = ['look-teeth', 'test-ride']
const SCHOOLS = { slack: SLACK_SCHOOLS, prepare: PREPARE_SCHOOLS, close: CLOSE_SCHOOLS } as const
export const LOOKS: readonly JointLook[] = ['link', 'pin', 'riveted', 'clip']
/** What somebody sees of the joint, as it is said; more than its kind is not seen. */
export const seen = (look: JointLook): Said => ({
  kind: 'choice',
  choice: { present: { kind: look, openedBy: null, oneUse: look === 'pin' } },
})

/** The joint is opened by what it is: nobody goes on before it was looked at. */
export const undecided = ({ id }: StepNow, { present }: JobNow['plan']): boolean =>
  id === 'identify-joint' && present === null

/** One step, large: what to do, what can hurt, what to see before it is done. */
export function StepPane({
  job,
  advice,
  step,
  now,
  at,
  doneButton,
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
  onDone: () => void
  onBack: () => void
  say: (said: Said) => void
}) {
  const { t } = useTranslation()
  const { id, phase, hazards, tools, values, checked, done } = step
  const { plan } = now
  const words = { ...values, position: t(`jobs.position.${plan.position}`) }
  const found = FOUND_AT[id] ?? []
  const school = SCHOOL_AT[id]
  return (
    <Stack
      component="section"
      aria-label={saidWith(t, `jobs.step.${id}.what`, words)}
      sx={{ gap: 1.5, minHeight: 0, height: '100%' }}
    >
      <Typography color="textSecondary" sx={{ fontWeight: 600 }}>
        {t('jobs.of', { at: at + 1, all: now.steps.length })}, {t(`jobs.phase.${phase}`)}
        {done && `, ${done.by}`}
      </Typography>
      {hazards.map((hazard) => (
        <Stack
          key={hazard}
          direction="row"
          role="note"
          sx={{
            gap: 1.5,
            alignItems: 'center',
            borderLeft: `6px solid ${ink('madder')}`,
            bgcolor: 'background.paper',
            px: 1.5,
            py: 0.75,
          }}
        >
          <WarningIcon sx={{ color: ink('madder') }} />
          <Typography sx={{ fontWeight: 600, fontSize: 18 }}>{t(`jobs.hazard.${hazard}`)}</Typography>
        </Stack>
      ))}
      <Typography component="h2" sx={{ fontSize: { xs: 26, md: 34 }, fontWeight: 700, lineHeight: 1.15 }}>
        {saidWith(t, `jobs.step.${id}.what`, words)}
      </Typography>
      <Typography sx={{ fontSize: 19 }}>{saidWith(t, `jobs.step.${id}.why`, words)}</Typography>
      {tools.length > 0 && id !== 'pick' && (
        <Typography sx={{ fontSize: 19 }}>
          <b>{t('jobs.tools')}</b> {tools.map((tool) => t(`jobs.tool.${tool}`)).join(', ')}
        </Typography>
      )}
      {id === 'pick' && (
        <Box component="ul" aria-label={t('jobs.layOut')} sx={{ m: 0, pl: 3, columns: { md: 2 }, fontSize: 19 }}>
          {[job.parts.chain, job.parts.joint, ...toolsOf(now.steps).map((tool) => t(`jobs.tool.${tool}`))]
            .filter((one) => one !== null)
            .map((one) => (
              <li key={one}>{one}</li>
            ))}
        </Box>
      )}
      <StepPicture step={id} plan={plan} />
      {id === 'identify-joint' && (
        <Box
          role="radiogroup"
          aria-label={t('parts.joint.title')}
          sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', md: 'repeat(4, 1fr)' }, gap: 1.5 }}
        >
          {LOOKS.map((look, i) => (
            <Button
              key={look}
              role="radio"
              aria-checked={plan.present?.kind === look}
              variant={plan.present?.kind === look ? 'contained' : 'outlined'}
              onClick={() => say(seen(look))}
              sx={{
                flexDirection: 'column',
                p: 1,
                bgcolor: 'background.paper',
                color: 'text.primary',
                borderWidth: plan.present?.kind === look ? 3 : 1,
              }}
            >
              <JointDrawing joint={look} label={t(`parts.joint.${look}`)} />
              <span>
                {t(`parts.joint.${look}`)} <KeyCap>{String(i + 1)}</KeyCap>
              </span>
            </Button>
          ))}
        </Box>
      )}
      {school && (
        <Box>
          <ToggleButtonGroup
            exclusive
            value={plan.schools[school]}
            aria-label={t(`jobs.schoolWhy.${school}`)}
            onChange={(_, chosen: string | null) =>
              chosen !== null && say({ kind: 'choice', choice: { schools: { [school]: chosen } } })
            }
            sx={{ flexWrap: 'wrap' }}
          >
            {SCHOOLS[school].map((one) => (
              <ToggleButton key={one} value={one} sx={{ minHeight: 56, px: 2.5, fontSize: 17 }}>
                {saidWith(t, `jobs.school.${school}.${one}` as MessageKey, {})}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <Typography color="textSecondary" sx={{ mt: 0.5 }}>
            {t(`jobs.schoolWhy.${school}`)}
          </Typography>
        </Box>
      )}
      {phase === 'route' && (
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
          <Typography>{t('jobs.positionLabel')}</Typography>
          <ToggleButtonGroup
            exclusive
            value={plan.position}
            aria-label={t('jobs.positionLabel')}
            onChange={(_, position: (typeof POSITIONS)[number] | null) =>
              position && say({ kind: 'choice', choice: { position } })
            }
          >
            {POSITIONS.map((one) => (
              <ToggleButton key={one} value={one} sx={{ px: 2 }}>
                {t(`jobs.position.${one}`)}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Stack>
      )}
      {advice !== null && SPROCKETS_AT.includes(id) && (
        <Typography sx={{ fontSize: 19, fontWeight: 600, color: ink('brass') }}>
          {t('jobs.sprockets', { advice: t(`advice.${advice}`) })}
        </Typography>
      )}
      {step.waits !== null && <StepTimer key={id} jobId={job.id} step={id} minutes={step.waits} />}
      {checked && (
        <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
          <VisibilityIcon sx={{ color: ink('steel') }} />
          <Typography sx={{ fontSize: 20, fontWeight: 600 }}>
            {saidWith(t, `jobs.step.${id}.check` as MessageKey, words)}
          </Typography>
        </Stack>
      )}
      {found.length > 0 && (
        <Stack
          direction="row"
          sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}
          aria-label={t('jobs.found')}
          role="group"
        >
          {found.map((outcome) => (
            <Button
              key={outcome}
              variant={plan.outcomes.includes(outcome) ? 'contained' : 'outlined'}
              color="secondary"
              aria-pressed={plan.outcomes.includes(outcome)}
              onClick={() => say({ kind: plan.outcomes.includes(outcome) ? 'outcome-back' : 'outcome', outcome })}
              sx={{ minHeight: 56 }}
            >
              {t(`jobs.outcome.${outcome}`)}
            </Button>
          ))}
        </Stack>
      )}
      <Box sx={{ flex: 1 }} />
      <Stack direction="row" sx={{ gap: 1.5, pb: 2 }}>
        <Button variant="outlined" onClick={onBack} disabled={at === 0} sx={{ minHeight: 72, gap: 1.5, px: 3 }}>
          <Cap of="job.back" /> {t('jobs.back')}
        </Button>
        <Button
          ref={doneButton}
          variant="contained"
          onClick={onDone}
          disabled={undecided(step, plan)}
          sx={{ minHeight: 72, flex: 1, fontSize: 22, gap: 2 }}
        >
          {undecided(step, plan) ? (
            t('jobs.chooseLook')
          ) : (
            <>
              {t('jobs.done')} <Cap of="job.done" />
            </>
          )}
        </Button>
      </Stack>
    </Stack>
  )
}
