import { Box, ButtonBase, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { stepsMinutes, toolsOf, type CareStep, type StepPhase } from '@pelrin/core'
import { number } from '../../messages/format.ts'
import { saidWith } from '../../messages/said.ts'
import { drawnAt } from '@pelrin/drawn'
import { Cautions } from '../../pieces/Cautions.tsx'
import { StepDrawn } from '../../pieces/StepDrawn.tsx'

/** A part of the work. It keeps its key when parts before it come and go: what has the focus in it keeps it. */
interface Part {
  readonly key: string
  readonly phase: StepPhase
  readonly steps: CareStep[]
}

/** Steps that follow each other in one part of the work. */
function parts(steps: readonly CareStep[]): Part[] {
  const found: Part[] = []
  for (const step of steps) {
    const last = found.at(-1)
    if (last?.phase === step.phase) last.steps.push(step)
    else {
      const before = found.filter(({ phase }) => phase === step.phase).length
      found.push({ key: `${step.phase} ${before}`, phase: step.phase, steps: [step] })
    }
  }
  return found
}

/** The steps of a care by its parts: what can hurt in each is said once, above it; why a step is done shows where it is chosen. */
export function CareStepList({ steps }: { steps: readonly CareStep[] }) {
  const { t } = useTranslation()
  const [chosen, setChosen] = useState<string | null>(null)
  return (
    <Box component="section" aria-labelledby="care-steps">
      <Typography id="care-steps" variant="h3" component="h2" color="textSecondary">
        {t('caring.steps', { minutes: number(stepsMinutes(steps), 0) })}
      </Typography>
      <Typography variant="body2">
        <b>{t('jobs.tools')}</b>{' '}
        {toolsOf(steps)
          .map((tool) => t(`jobs.tool.${tool}`))
          .join(', ')}
      </Typography>
      {parts(steps).map(({ key, phase, steps: own }) => (
        <Box key={key} sx={{ pt: 1 }}>
          <Typography variant="body2" component="h3" sx={{ fontWeight: 700 }}>
            {t(`caring.phaseOf.${phase}`)}
          </Typography>
          <Cautions hazards={own.flatMap(({ hazards }) => hazards)} />
          <Box component="ol" start={1 + before(steps, own[0]!)} sx={{ m: 0, pl: 3.5 }}>
            {own.map((step) => (
              <Box component="li" key={step.id} sx={{ borderTop: 1, borderColor: 'divider' }}>
                <OneStep
                  step={step}
                  open={chosen === step.id}
                  onOpen={() => setChosen(chosen === step.id ? null : step.id)}
                />
              </Box>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  )
}

const before = (steps: readonly CareStep[], step: CareStep): number => steps.indexOf(step)

function OneStep({ step, open, onOpen }: { step: CareStep; open: boolean; onOpen: () => void }) {
  const { t } = useTranslation()
  const { id, waits, values, checked } = step
  const words = { ...values, position: t('jobs.position.upright') }
  const drawn = drawnAt(id, values)
  return (
    <>
      <ButtonBase
        onClick={onOpen}
        aria-expanded={open}
        sx={{
          width: '100%',
          py: 0.6,
          font: 'inherit',
          textAlign: 'left',
          justifyContent: 'flex-start',
          verticalAlign: 'top',
        }}
      >
        <Typography component="span">
          {saidWith(t, `steps.${id}.what`, words)}
          {waits !== null && (
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {' '}
              ({t('caring.waits', { count: waits })})
            </Box>
          )}
        </Typography>
      </ButtonBase>
      {open && (
        <Box sx={{ pb: 1 }}>
          {drawn && <StepDrawn drawn={drawn} width={260} />}
          <Typography color="textSecondary">{saidWith(t, `steps.${id}.why`, words)}</Typography>
          {checked && (
            <Typography sx={{ fontWeight: 600 }}>{saidWith(t, `steps.${id}.check` as never, words)}</Typography>
          )}
        </Box>
      )}
    </>
  )
}
