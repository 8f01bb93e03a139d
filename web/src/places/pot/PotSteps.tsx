import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { potSteps, waxingAsUsual, type Assumptions, type WaxSchools } from '@pelrin/core'
import type { PotNow } from '@pelrin/contract'
import { saidWith, type MessageKey } from '../../messages/said.ts'
import { drawnAt } from '@pelrin/drawn'
import { Cautions } from '../../pieces/Cautions.tsx'
import { StepDrawn } from '../../pieces/StepDrawn.tsx'
import type { PotAction } from './potActions.ts'

function Drawn({ step }: { step: string }) {
  const drawn = drawnAt(step)
  return drawn && <StepDrawn drawn={drawn} width={170} />
}

/** What is done at an action, step by step, by the recipe of the chains it is done to: with why, and what to see before it is done. */
export function PotSteps({
  action,
  pot,
  waxing,
  times,
}: {
  action: PotAction
  /** The pot it is done at; undefined where none is chosen. */
  pot: PotNow | undefined
  waxing: WaxSchools
  times: Assumptions['pot']
}) {
  const { t } = useTranslation()
  const recipe = action.chains[0]?.recipe ?? waxing.recipe
  const vessel = { vessel: pot?.vessel ?? ('thermostat' as const), heatMinutes: pot?.heatMinutes ?? times.heatMinutes }
  const steps = potSteps(action.what, waxingAsUsual({ ...waxing, recipe }, times, vessel))
  return (
    <Box component="section" aria-label={t('pot.how')}>
      <Cautions hazards={steps.flatMap(({ hazards }) => hazards)} />
      <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
        {steps.map(({ id, values, checked, waits }) => (
          <Box component="li" key={id} sx={{ pt: 0.5 }}>
            <Drawn step={id} />
            <Typography component="span" sx={{ fontWeight: 600 }}>
              {saidWith(t, `steps.${id}.what`, values)}
              {waits !== null && ` (${t('caring.waits', { count: waits })})`}
            </Typography>
            <Typography variant="body2" color="textSecondary">
              {saidWith(t, `steps.${id}.why`, values)}{' '}
              {checked && <b>{saidWith(t, `steps.${id}.check` as MessageKey, values)}</b>}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  )
}
