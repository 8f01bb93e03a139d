import { Box, ButtonBase, Typography } from '@mui/material'
import CheckIcon from '@mui/icons-material/Check'
import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import type { JobNow } from '@pelrin/core'
import { ink } from '../../theme/theme.ts'
import { saidWith } from '../../messages/said.ts'

/** Every step of the job, by phase, with who did it. */
export function StepList({ now, at, onChoose }: { now: JobNow; at: number; onChoose: (index: number) => void }) {
  const { t } = useTranslation()
  const here = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    here.current?.scrollIntoView({ block: 'center' })
  }, [at])
  return (
    <Box component="nav" aria-label={t('jobs.title')} sx={{ overflow: { md: 'auto' }, minHeight: 0 }}>
      {now.steps.map((step, i) => {
        const words = { ...step.values, position: t(`jobs.position.${now.plan.position}`) }
        return (
          <Box key={step.id}>
            {now.steps[i - 1]?.phase !== step.phase && (
              <Typography variant="h3" component="h3" color="textSecondary" sx={{ mt: 1, px: 1 }}>
                {t(`jobs.phase.${step.phase}`)}
              </Typography>
            )}
            <ButtonBase
              ref={i === at ? here : null}
              onClick={() => onChoose(i)}
              aria-current={i === at ? 'step' : undefined}
              sx={{
                width: '100%',
                minHeight: 40,
                px: 1,
                gap: 1,
                justifyContent: 'flex-start',
                textAlign: 'left',
                font: 'inherit',
                bgcolor: i === at ? ink('blade') : 'transparent',
                boxShadow: i === at ? `inset 4px 0 ${ink('steel')}` : 'none',
              }}
            >
              <Box sx={{ width: 22, flexShrink: 0 }}>{step.done && <CheckIcon fontSize="small" />}</Box>
              <Typography
                component="span"
                variant="body2"
                noWrap
                sx={{ flex: 1, fontWeight: i === at ? 700 : 400, color: step.done ? 'text.secondary' : 'text.primary' }}
              >
                {saidWith(t, `steps.${step.id}.what`, words)}
              </Typography>
              <Typography component="span" variant="body2" color="textSecondary">
                {step.done?.by ?? ''}
              </Typography>
            </ButtonBase>
          </Box>
        )
      })}
    </Box>
  )
}
