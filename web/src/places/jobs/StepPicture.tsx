import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { JobPlan, StepId, StepNow } from '@pelrin/core'
import { drawnAt } from '@pelrin/drawn'
import { StepDrawn } from '../../pieces/StepDrawn.tsx'
import { ToothDrawing } from '../../pieces/ToothDrawing.tsx'

/** What a step looks like, where it is seen rather than read. */
export function StepPicture({ step, values = {}, plan }: { step: StepId; values?: StepNow['values']; plan: JobPlan }) {
  const { t } = useTranslation()
  if (step === 'look-teeth')
    return (
      <Stack direction="row" sx={{ gap: 4 }}>
        {(['as-new', 'worn', 'done'] as const).map((grade) => (
          <Box key={grade} sx={{ width: 180, textAlign: 'center' }}>
            <ToothDrawing grade={grade} label={t(`otherWear.grade.${grade}`)} />
            <Typography>{t(`otherWear.grade.${grade}`)}</Typography>
          </Box>
        ))}
      </Stack>
    )
  const drawn = drawnAt(step, values)
  return drawn && <StepDrawn drawn={drawn} position={plan.position} />
}
