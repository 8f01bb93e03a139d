import { useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { waitsForLook, type SprocketAdvice } from '@pelrin/core'
import type { Job } from '@pelrin/contract'
import { Beside } from '../../pieces/Beside.tsx'
import { OfBike } from '../../pieces/OfBike.tsx'
import { BeginJob } from './BeginJob.tsx'
import { CloseJob } from './CloseJob.tsx'
import { EndedJob } from './EndedJob.tsx'
import { JobHead } from './JobHead.tsx'
import { JobNotes } from './JobNotes.tsx'
import { StepList } from './StepList.tsx'
import { LOOKS, seen } from './jointSeen.ts'
import { StepPane } from './StepPane.tsx'
import { StopJob } from './StopJob.tsx'
import { useBikeJob, useJobNow } from './useJob.ts'
import { useCommands } from '../../keys/useCommands.ts'

/** The job on a bike: begun, one step at a time, closed. */
export function JobPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const navigate = useNavigate()
  const found = useBikeJob(id)
  const [another, setAnother] = useState(false)
  useCommands('jobOfBike', {
    measure: () => navigate(`/bikes/${id}/measure`),
    parts: () => navigate(`/bikes/${id}/parts`),
    record: () => navigate(`/bikes/${id}`),
  })
  const job = found.data?.job ?? null
  const open = job?.state === 'open' ? job : null
  return (
    <OfBike
      bikeId={id}
      title={t('place.job')}
      needs={[found]}
      also={open ? [open.parts.chain, open.parts.joint].filter((part) => part !== null).join(', ') : undefined}
    >
      {({ summary, customer }) =>
        open ? (
          <OpenJob key={open.id} job={open} advice={summary.advice} bike={`${customer.name}, ${summary.label}`} />
        ) : job && !another ? (
          <EndedJob job={job} onAnother={() => setAnother(true)} />
        ) : (
          <BeginJob bikeId={id} estimate={found.data?.estimate ?? null} />
        )
      }
    </OfBike>
  )
}

function OpenJob({ job, advice, bike }: { job: Job; advice: SprocketAdvice | null; bike: string }) {
  const { now, events, waiting, say } = useJobNow(job, bike)
  const [chosen, setChosen] = useState<string | null>(null)
  const { steps, next, paused } = now
  const doneButton = useRef<HTMLButtonElement>(null)
  /** Whatever was pressed beside it, the next key is for the step again. */
  const toDone = (): void => doneButton.current?.focus()
  const sayBeside: typeof say = (said) => {
    say(said)
    toDone()
  }
  const chosenAt = steps.findIndex(({ id }) => id === chosen)
  const at = chosenAt >= 0 ? chosenAt : next ? steps.indexOf(next) : steps.length
  const step = steps[at]
  const move = (by: number): void => {
    const to = steps[Math.min(steps.length - 1, Math.max(0, at + by))]
    if (to) setChosen(to.id)
  }
  const done = (): void => {
    if (!step || waitsForLook(step.id, now.plan)) return
    if (paused) say({ kind: 'resume' })
    if (!step.done) say({ kind: 'tick', step: step.id })
    // On to the first that is not done behind it; behind the last, to what was left out before.
    const after = steps.slice(at + 1).find((one) => one.done === null)
    setChosen(after?.id ?? null)
  }
  useCommands('job', {
    done,
    on: () => move(1),
    back: () => move(-1),
    undo: step?.done ? () => say({ kind: 'untick', step: step.id }) : null,
    look: step?.id === 'identify-joint' ? (digit) => flushSync(() => say(seen(LOOKS[digit - 1]!))) : null,
  })
  return (
    <Beside
      width={360}
      fixed
      beside={
        <>
          <JobHead job={job} now={now} events={events} waiting={waiting} say={sayBeside} />
          <StepList
            now={now}
            at={at}
            onChoose={(i) => {
              setChosen(steps[i]?.id ?? null)
              toDone()
            }}
          />
          <JobNotes events={events} say={say} />
          <StopJob job={job} />
        </>
      }
    >
      {step ? (
        <StepPane
          job={job}
          advice={advice}
          step={step}
          now={now}
          at={at}
          doneButton={doneButton}
          onDone={done}
          onBack={() => move(-1)}
          say={sayBeside}
        />
      ) : (
        <CloseJob job={job} now={now} />
      )}
    </Beside>
  )
}
