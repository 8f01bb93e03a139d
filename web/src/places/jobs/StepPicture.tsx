import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { JobPlan, StepId } from '@pelrin/core'
import { stepDrawing, type StepDrawing } from '@pelrin/drawn'
import { DrawnShapes } from '../../pieces/DrawnShapes.tsx'
import { JointDrawing, type JointLook } from '../../pieces/JointDrawing.tsx'
import { ToothDrawing } from '../../pieces/ToothDrawing.tsx'

/** Steps that show what is opened or closed. */
const JOINT_AT: Readonly<Partial<Record<StepId, JointLook>>> = {
  'open-link': 'link',
  'open-pin': 'pin',
  'open-riveted': 'riveted',
  'open-clip': 'clip',
  'join-link': 'link',
  'join-pin': 'pin',
}

/** Steps at which a drawing says more than words. */
const DRAWN_AT: Readonly<Partial<Record<StepId, StepDrawing>>> = {
  'route-rear': 'cage-tab',
  'route-pulleys': 'cage-tab',
  'wide-narrow': 'wide-narrow',
  'snap-pliers': 'click-sides',
  'snap-pedal': 'click-sides',
  'look-click': 'click-sides',
  'join-clip': 'clip-way',
  'stiff-link': 'stiff-link',
  'free-stiff': 'stiff-link',
}

/** What a step looks like, where it is seen rather than read. */
export function StepPicture({ step, plan }: { step: StepId; plan: JobPlan }) {
  const { t } = useTranslation()
  const joint = JOINT_AT[step]
  if (joint)
    return (
      <Box sx={{ maxWidth: 330 }}>
        <JointDrawing joint={joint} label={t(`parts.joint.${joint}`)} />
      </Box>
    )
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
  const drawn = step === 'check-ends' ? (`ends-${plan.chain.cut.ends}` as const) : DRAWN_AT[step]
  if (!drawn) return null
  const { width, height, shapes } = stepDrawing(drawn)
  return (
    <Box
      component="svg"
      role="img"
      aria-label={t(`jobs.drawing.${drawn}`)}
      viewBox={`0 0 ${width} ${height}`}
      sx={{ width: '100%', maxWidth: 430, display: 'block', strokeLinecap: 'round' }}
    >
      <DrawnShapes shapes={shapes} />
    </Box>
  )
}
