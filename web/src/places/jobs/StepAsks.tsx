import { Box, Button, Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { CLOSE_SCHOOLS, PREPARE_SCHOOLS, SLACK_SCHOOLS, type JobNow, type JobOutcome } from '@pelrin/core'
import { saidWith, type MessageKey } from '../../messages/said.ts'
import { JointDrawing } from '../../pieces/JointDrawing.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { LOOKS, seen } from './jointSeen.ts'
import type { Said } from './useJob.ts'

const SCHOOLS = { slack: SLACK_SCHOOLS, prepare: PREPARE_SCHOOLS, close: CLOSE_SCHOOLS } as const

/** What a step asks of whoever does it. */
interface Asked {
  readonly plan: JobNow['plan']
  readonly say: (said: Said) => void
}

/** What the joint looks like. */
export function Looks({ plan, say }: Asked) {
  const { t } = useTranslation()
  return (
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
  )
}

/** In which of the ways a step is done, where schools differ. */
export function School({ of, plan, say }: Asked & { of: keyof typeof SCHOOLS }) {
  const { t } = useTranslation()
  return (
    <Box>
      <ToggleButtonGroup
        exclusive
        value={plan.schools[of]}
        aria-label={t(`jobs.schoolWhy.${of}`)}
        onChange={(_, chosen: string | null) =>
          chosen !== null && say({ kind: 'choice', choice: { schools: { [of]: chosen } } })
        }
        sx={{ flexWrap: 'wrap' }}
      >
        {SCHOOLS[of].map((one) => (
          <ToggleButton key={one} value={one} sx={{ minHeight: 56, px: 2.5, fontSize: 'size.lead' }}>
            {saidWith(t, `jobs.school.${of}.${one}` as MessageKey, {})}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Typography color="textSecondary" sx={{ mt: 0.5 }}>
        {t(`jobs.schoolWhy.${of}`)}
      </Typography>
    </Box>
  )
}

/** What was found, each of which opens steps of its own. */
export function Found({ found, plan, say }: Asked & { found: readonly JobOutcome[] }) {
  const { t } = useTranslation()
  if (found.length === 0) return null
  return (
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
  )
}
