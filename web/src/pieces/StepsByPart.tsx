import { Box, ButtonBase, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import {
  standardMinutes,
  toolsOf,
  type CareStepId,
  type MendStepId,
  type Position,
  type Step,
  type StepPhase,
} from '@pelrin/core'
import { drawnAt } from '@pelrin/drawn'
import { number } from '../messages/format.ts'
import { saidWith } from '../messages/said.ts'
import { Cautions } from './Cautions.tsx'
import { StepDrawn } from './StepDrawn.tsx'

/** A step of work that is not led through one by one. */
type ShownStep = Step<CareStepId | MendStepId>

/** A part of the work. It keeps its key when parts before it come and go: what has the focus in it keeps it. */
interface Part {
  readonly key: string
  readonly phase: StepPhase
  readonly steps: ShownStep[]
}

/** Steps that follow each other in one part of the work. */
function parts(steps: readonly ShownStep[]): Part[] {
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

/**
 * The steps of a care or a mend by their parts: what can hurt in each is said once, above it; why a step is done shows where it is chosen.
 *
 * @param position how the bike stands or lies
 */
export function StepsByPart({ steps, position = 'upright' }: { steps: readonly ShownStep[]; position?: Position }) {
  const { t } = useTranslation()
  const [chosen, setChosen] = useState<string | null>(null)
  return (
    <Box component="section" aria-labelledby="care-steps" sx={{ flexShrink: 0 }}>
      <Typography id="care-steps" variant="h3" component="h2" color="textSecondary">
        {t('caring.steps', { minutes: number(standardMinutes(steps), 0) })}
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
                  position={position}
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

const before = (steps: readonly ShownStep[], step: ShownStep): number => steps.indexOf(step)

function OneStep({
  step,
  position,
  open,
  onOpen,
}: {
  step: ShownStep
  position: Position
  open: boolean
  onOpen: () => void
}) {
  const { t } = useTranslation()
  const { id, waits, values, checked } = step
  const words = { ...values, position: t(`jobs.position.${position}`) }
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
          {drawn && <StepDrawn drawn={drawn} position={position} width={260} />}
          <Typography color="textSecondary">{saidWith(t, `steps.${id}.why`, words)}</Typography>
          {checked && (
            <Typography sx={{ fontWeight: 600 }}>{saidWith(t, `steps.${id}.check` as never, words)}</Typography>
          )}
        </Box>
      )}
    </>
  )
}
