import { Box, Stack, Typography } from '@mui/material'
import WarningIcon from '@mui/icons-material/WarningAmberOutlined'
import { useTranslation } from 'react-i18next'
import { stepsMinutes, type CareStep } from '@pelrin/core'
import { number } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'

/** The steps of a care, each with what can hurt at it. */
export function CareStepList({ steps }: { steps: readonly CareStep[] }) {
  const { t } = useTranslation()
  return (
    <Box component="section" aria-labelledby="care-steps">
      <Typography id="care-steps" variant="h3" component="h2" color="textSecondary">
        {t('caring.steps', {
          minutes: number(stepsMinutes(steps), 0),
        })}
      </Typography>
      <Box component="ol" sx={{ m: 0, pl: 3.5, '& > li': { py: 0.6, borderTop: 1, borderColor: 'divider' } }}>
        {steps.map(({ id, waits, hazards }) => (
          <Box component="li" key={id}>
            <Typography component="span">
              {t(`caring.step.${id}`)}
              {waits !== null && (
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {' '}
                  ({t('caring.waits', { count: waits })})
                </Box>
              )}
            </Typography>
            {hazards.map((hazard) => (
              <Stack key={hazard} direction="row" role="note" sx={{ gap: 0.75, alignItems: 'center' }}>
                <WarningIcon sx={{ color: ink('madder'), fontSize: 'size.lead' }} />
                <Typography variant="body2" sx={{ fontWeight: 600 }}>
                  {t(`jobs.hazard.${hazard}`)}
                </Typography>
              </Stack>
            ))}
          </Box>
        ))}
      </Box>
    </Box>
  )
}
